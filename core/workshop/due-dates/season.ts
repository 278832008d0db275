import { say } from '../../base/words/say.js';
import { addDays, daysBetween } from '../../base/units/calendar.js';
import { monthOfYear } from '../../base/units/dates.js';
import { SEASON_LEAST_DAYS } from './defaults.js';

/** The hot months of a workshop, 1 January … 12 December; from November to February where that is summer. */
export interface HotSeason {
  readonly fromMonth: number;
  readonly untilMonth: number;
}

export const seasonWords = ({ fromMonth, untilMonth }: HotSeason): string =>
  fromMonth === untilMonth
    ? monthOfYear(fromMonth)
    : say('{monthName} to {monthName2}', { monthName: monthOfYear(fromMonth), monthName2: monthOfYear(untilMonth) });

const monthOf = (day: string): number => Number(day.slice(5, 7));
const isHot = (month: number, { fromMonth, untilMonth }: HotSeason): boolean =>
  fromMonth <= untilMonth ? month >= fromMonth && month <= untilMonth : month >= fromMonth || month <= untilMonth;

/** days within which a coming date counts as soon, and within which hot months are the coming ones */
const SOON_DAYS = 31;
const COMING_HOT_DAYS = 183;

/** Whether a date comes so soon, or so badly, that its work is done now where the machine is here anyway; null: it can wait. */
export function comesSoon(dueOn: string, today: string, season: HotSeason | null): 'over' | 'month' | 'hot' | null {
  const days = daysBetween(today, dueOn);
  if (days <= 0) return 'over';
  if (days <= SOON_DAYS) return 'month';
  return season !== null && days <= COMING_HOT_DAYS && isHot(monthOf(dueOn), season) ? 'hot' : null;
}

/**
 * The last day before the hot months in which a date falls: high room temperatures are when a choked loop gives up, and
 * when owners can least do without their machine.
 * @returns null where the date lies outside them, or the work would come too soon after `since`
 */
export function beforeHotSeason(dueOn: string, since: string, season: HotSeason): string | null {
  if (!isHot(monthOf(dueOn), season)) return null;
  const year = Number(dueOn.slice(0, 4)) - (monthOf(dueOn) < season.fromMonth ? 1 : 0);
  const begins = `${year}-${String(season.fromMonth).padStart(2, '0')}-01`;
  const before = addDays(begins, -1);
  return daysBetween(since, before) >= SEASON_LEAST_DAYS ? before : null;
}
