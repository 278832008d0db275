import { addDays, daysBetween } from '@core/base/units/calendar.js';
import { monthOfYear } from '@core/base/units/dates.js';

/** px that a month's name takes */
const MONTH_PX = 64;

/** Days along a picture: where one lies, and the first days of months, as many as there is room for. */
export function dayAxis(from: string, until: string, leftPx: number, rightPx: number) {
  const span = Math.max(1, daysBetween(from, until));
  const x = (on: string): number => leftPx + ((rightPx - leftPx) * daysBetween(from, on)) / span;
  const all: { on: string; words: string }[] = [];
  for (let on = `${from.slice(0, 8)}01`; on <= until; on = `${addDays(`${on.slice(0, 8)}28`, 5).slice(0, 8)}01`) {
    const year = on.slice(5, 7) === '01' ? ` ${on.slice(0, 4)}` : '';
    // a name that would run out of the picture is left out
    if (on >= from && x(on) <= rightPx - MONTH_PX / 2) all.push({ on, words: `${monthOfYear(Number(on.slice(5, 7))).slice(0, 3)}${year}` });
  }
  const every = Math.max(1, Math.ceil((MONTH_PX * all.length) / Math.max(1, rightPx)));
  return { x, months: all.filter((_, index) => index % every === 0) };
}
