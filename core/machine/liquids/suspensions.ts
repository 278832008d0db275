import type { CoolantClass } from './classes.js';

/** What holds particles up: it ages by running, by warmth and by standing still (workshop practice; a product's own sheet goes before it). */
export interface Suspension {
  /** days that it may stand in a loop, whatever the pump's hours; null: its class is counted in months anyway */
  readonly standingDays: number | null;
  /** days at rest after which it is stirred */
  readonly stirDays: number;
}

const SUSPENSIONS: Readonly<Partial<Record<CoolantClass, Suspension>>> = {
  // made for an exhibition of some days: what lies on the floor for weeks packs there and does not come up again
  show: { standingDays: 28, stirDays: 3 },
  opaque: { standingDays: null, stirDays: 14 },
};

export const suspensionOf = (coolantClass: CoolantClass): Suspension | null => SUSPENSIONS[coolantClass] ?? null;

/** h a day from which the machine's own use keeps it stirred */
export const STIRS_ITSELF_HOURS = 1;
