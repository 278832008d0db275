import type { Point } from './loopFile.js';

/** How the case stands: pitch (its front goes down) and then roll (the side panel goes down), about axes fixed in the room. */
export interface Tilt {
  readonly pitchDeg: number;
  readonly rollDeg: number;
}

/** The six ways a case can stand, by what it stands on. */
export const STANDING = {
  upright: { pitchDeg: 0, rollDeg: 0 },
  'on-back': { pitchDeg: -90, rollDeg: 0 },
  'on-face': { pitchDeg: 90, rollDeg: 0 },
  'on-window-side': { pitchDeg: 0, rollDeg: 90 },
  'on-blind-side': { pitchDeg: 0, rollDeg: -90 },
  'upside-down': { pitchDeg: 180, rollDeg: 0 },
} as const satisfies Record<string, Tilt>;

export type StandingName = keyof typeof STANDING;

export const STANDING_NAMES = Object.keys(STANDING) as StandingName[];

/** What a person says: "lay it on its back". */
export const STANDING_WORDS: Readonly<Record<StandingName, string>> = {
  upright: 'upright',
  'on-back': 'on its back',
  'on-face': 'on its face',
  'on-window-side': 'on its window side',
  'on-blind-side': 'on its blind side',
  'upside-down': 'upside down',
};

/** Where a case is being turned, on its way there. */
export const STANDING_TOWARDS: Readonly<Record<StandingName, string>> = {
  upright: 'upright',
  'on-back': 'towards its back',
  'on-face': 'towards its face',
  'on-window-side': 'towards its window side',
  'on-blind-side': 'towards its blind side',
  'upside-down': 'upside down',
};

const radians = (deg: number): number => (deg * Math.PI) / 180;
/** −0 and 6e-17 would make level things uneven */
const clean = (value: number): number => (Math.abs(value) < 1e-12 ? 0 : value);

/** The room's "up" as a unit vector of the case frame; the height of a point is its dot product with it. */
export function upVector({ pitchDeg, rollDeg }: Tilt): Point {
  const pitch = radians(pitchDeg);
  const roll = radians(rollDeg);
  return [clean(-Math.cos(roll) * Math.sin(pitch)), clean(Math.cos(roll) * Math.cos(pitch)), clean(-Math.sin(roll))];
}

/** mm above the case frame's origin once the case is turned: e = cos r·(y·cos p − x·sin p) − z·sin r. */
export const heightMm = (up: Point, [x, y, z]: Point): number => up[0] * x + up[1] * y + up[2] * z;
