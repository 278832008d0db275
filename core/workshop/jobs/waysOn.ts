import type { LoopFile } from '../../machine/loop-file/loopFile.js';
import { usualHours } from './usualHours.js';

/** What can become of a loop: kept, one part taken out to a cooler of its own, a sealed cooler, or air alone. */
export const WAYS_ON = ['keep', 'half-way', 'sealed', 'air'] as const;
export type WayOn = (typeof WAYS_ON)[number];

/**
 * What coolers of each way hold a part over the air that they breathe, K/W with its standard deviation: middle and spread of what makers state
 * for coolers of the usual size (estimate; nobody measured this machine with one).
 */
export const COOLER_THETA = {
  sealed: { kPerW: 0.17, sd: 0.035 },
  air: { kPerW: 0.21, sd: 0.045 },
} as const;
/** years that a sealed cooler serves before its liquid or pump is at its end; an air cooler has fans alone (makers' warranties, rough) */
export const COOLER_YEARS = { sealed: 6, air: 10 } as const;
/** h a year that any machine wants for dust, beside whatever is inside */
const DUST_H = 0.5;

/** A part's last reading under load. */
export interface PartHeld {
  readonly sensor: string;
  /** K over the room per watt */
  readonly kPerW: number;
  readonly sd: number;
  readonly powerW: number;
}

export interface WayFigures {
  readonly way: WayOn;
  /** h at the bench to get there; 0: nothing is done */
  readonly workHours: number;
  /** h a year from then on, dust included */
  readonly hoursAYear: number;
  /** coolant a year, minor units; null: no price is known */
  readonly coolantMinor: number | null;
  /** what hours and coolant of a year come to, minor units; null: an hour has no price here */
  readonly yearMinor: number | null;
  /** K over the room of the part that was measured, at its own power; null: it was never measured under load */
  readonly overRoomK: { readonly k: number; readonly sd: number; readonly measured: boolean } | null;
}

/**
 * Four ways on for one loop in figures. Only what the workshop does costs here: coolers and parts have prices of their own.
 * @param serviceDays days from one coolant service to the next; null: nobody can tell
 */
export function waysOn(given: {
  readonly file: Pick<LoopFile, 'components' | 'tubes'>;
  readonly serviceDays: number | null;
  readonly coolantMinor: number | null;
  readonly hourMinor: number | null;
  readonly held: PartHeld | null;
}): WayFigures[] {
  const { file, serviceDays, hourMinor, held } = given;
  const services = serviceDays === null ? 1 : 365 / Math.max(1, serviceDays);
  const wet = services * usualHours('flush-refill', file) + DUST_H;
  const overRoom = (way: WayOn): WayFigures['overRoomK'] => {
    if (held === null) return null;
    if (way === 'keep' || way === 'half-way') return { k: held.kPerW * held.powerW, sd: held.sd * held.powerW, measured: true };
    const { kPerW, sd } = COOLER_THETA[way];
    return { k: kPerW * held.powerW, sd: sd * held.powerW, measured: false };
  };
  const of = (way: WayOn, workHours: number, hoursAYear: number, coolantMinor: number | null): WayFigures => ({
    way,
    workHours,
    hoursAYear,
    coolantMinor,
    yearMinor: hourMinor === null ? null : Math.round(hoursAYear * hourMinor + (coolantMinor ?? 0)),
    overRoomK: overRoom(way),
  });
  const over = usualHours('conversion', file);
  return [
    of('keep', 0, wet, given.coolantMinor),
    of('half-way', usualHours('part-conversion', file), wet, given.coolantMinor),
    // a cooler that is at its end is changed once in its years
    of('sealed', over, DUST_H + over / COOLER_YEARS.sealed / 2, 0),
    of('air', over, DUST_H, 0),
  ];
}
