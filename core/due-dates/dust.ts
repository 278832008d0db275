import { addMonths } from '../units/calendar.js';
import { DUST_MONTHS } from './defaults.js';
import { beforeHotSeason, seasonWords, type HotSeason } from './season.js';

/** Where the machine stands decides how fast fins and filters fill (every interval an estimate). */
export const DUST_PLACES = {
  clean: { label: 'on a desk, few fibres in the room', months: DUST_MONTHS.clean },
  usual: { label: 'an ordinary room', months: DUST_MONTHS.usual },
  dusty: { label: 'on the floor, carpet, animals or smoke', months: DUST_MONTHS.dusty },
} as const;
export type DustPlace = keyof typeof DUST_PLACES;
export const DUST_PLACE_KEYS = Object.keys(DUST_PLACES) as DustPlace[];

/** When fins and filters are cleaned again, loop closed. Brought forward to before the hot months. */
export function dustClean(since: string, place: DustPlace, season: HotSeason | null): { dueOn: string; reason: string } {
  const { months, label } = DUST_PLACES[place];
  const usual = addMonths(since, months);
  const early = season === null ? null : beforeHotSeason(usual, since, season);
  const reason = `fins and filters were clean on ${since}; ${label}: ${months} months`;
  return early === null || season === null
    ? { dueOn: usual, reason }
    : { dueOn: early, reason: `${reason}; brought forward to before the hot months (${seasonWords(season)})` };
}
