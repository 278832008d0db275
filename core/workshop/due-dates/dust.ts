import { addMonths } from '../../base/units/calendar.js';
import { DUST_MONTHS } from './defaults.js';
import type { DateReason, DustPlace } from './facts.js';
import { beforeHotSeason, type HotSeason } from './season.js';

/** Where the machine stands decides how fast fins and filters fill (every interval an estimate). */
export const DUST_PLACES: Readonly<Record<DustPlace, { readonly label: string; readonly months: number }>> = {
  clean: { label: 'on a desk, few fibres in the room', months: DUST_MONTHS.clean },
  usual: { label: 'an ordinary room', months: DUST_MONTHS.usual },
  dusty: { label: 'on the floor, carpet, animals or smoke', months: DUST_MONTHS.dusty },
};

/** When fins and filters are cleaned again, loop closed. Brought forward to before the hot months. */
export function dustClean(since: string, place: DustPlace, season: HotSeason | null): { dueOn: string; reason: DateReason } {
  const { months } = DUST_PLACES[place];
  const usual = addMonths(since, months);
  const early = season === null ? null : beforeHotSeason(usual, since, season);
  const reason = { why: 'dust', since, place, months, season: early === null ? null : season } as const;
  return { dueOn: early ?? usual, reason };
}
