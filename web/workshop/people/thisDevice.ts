import type { Device } from '@core/workshop/people/roles.js';

/** px; the shorter side of a screen from which a touched device is a tablet */
const TABLET_FROM = 600;

/** What this page is shown on, by its pointer and size. */
export function thisDevice(): Device {
  if (!window.matchMedia('(pointer: coarse)').matches) return 'computer';
  return Math.min(window.screen.width, window.screen.height) < TABLET_FROM ? 'phone' : 'tablet';
}
