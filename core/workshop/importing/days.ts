import { MOST } from '../../base/checking/fields.js';
import type { Read } from './figures.js';

/** Days as people write them in tables. */

/** Which of two figures before a year is the day, where the sign between them does not tell. */
export type DayOrder = 'day-first' | 'month-first';

const MONTHS = ['jan', 'feb', 'mar', 'apr', 'may', 'jun', 'jul', 'aug', 'sep', 'oct', 'nov', 'dec'];
/** in German where they differ */
const MONTHS_DE: Readonly<Record<string, number>> = { jän: 1, mär: 3, mrz: 3, mai: 5, okt: 10, dez: 12 };
/** table programs count days from here */
const SERIAL_ZERO_MS = Date.UTC(1899, 11, 30);
const DAY_MS = 86_400_000;

const monthNamed = (word: string): number | null => {
  const start = word.toLowerCase().slice(0, 3);
  const index = MONTHS.indexOf(start);
  return index >= 0 ? index + 1 : (MONTHS_DE[start] ?? null);
};
const fullYear = (year: string): number => (year.length === 2 ? 2000 + Number(year) : Number(year));

function dayOf(year: number, month: number, day: number): Read<string> {
  const text = `${String(year).padStart(4, '0')}-${String(month).padStart(2, '0')}-${String(day).padStart(2, '0')}`;
  const parsed = new Date(`${text}T00:00:00Z`);
  const real = !Number.isNaN(parsed.getTime()) && parsed.toISOString().startsWith(text);
  return real && text >= MOST.firstDay && text <= MOST.lastDay ? { value: text } : { problem: { why: 'not-a-day' } };
}

/** "3/4/2024", "3-4-24": the order is the writer's. */
const SLASHED = /^(\d{1,2})[/-](\d{1,2})[/-](\d{4}|\d{2})$/u;

/**
 * A calendar day: `2024-03-15`, `15.3.2024`, `15/3/24`, "15 March 2024", "Mar-24", `03/2024`, a table program's serial number.
 * A month without a day is its first: the clock that follows from it is the earliest that may be meant.
 */
export function dayIn(text: string, order: DayOrder): Read<string> {
  const plain = text.replace(/(?:T|\s+)\d{1,2}:\d{2}(?::\d{2})?(?:\.\d+)?(?:Z|\s*[ap]m)?$/iu, '').trim();
  let found = /^(\d{4})[-/.](\d{1,2})[-/.](\d{1,2})$/u.exec(plain);
  if (found) return dayOf(Number(found[1]), Number(found[2]), Number(found[3]));
  found = /^(\d{1,2})\.\s?(\d{1,2})\.\s?(\d{4}|\d{2})$/u.exec(plain);
  if (found) return dayOf(fullYear(found[3] as string), Number(found[2]), Number(found[1]));
  found = SLASHED.exec(plain);
  if (found) {
    const [day, month] = order === 'day-first' ? [found[1], found[2]] : [found[2], found[1]];
    return dayOf(fullYear(found[3] as string), Number(month), Number(day));
  }
  return inWords(plain);
}

function inWords(plain: string): Read<string> {
  let found = /^(\d{1,2})[/.-](\d{4})$/u.exec(plain) ?? null;
  if (found) return dayOf(Number(found[2]), Number(found[1]), 1);
  found = /^(\d{4})-(\d{1,2})$/u.exec(plain);
  if (found) return dayOf(Number(found[1]), Number(found[2]), 1);
  if (/^(?:19|20)\d{2}$/u.test(plain)) return { problem: { why: 'a-year-alone' } };
  if (/^\d{5}$/u.test(plain)) {
    const day = new Date(SERIAL_ZERO_MS + Number(plain) * DAY_MS).toISOString();
    return dayOf(Number(day.slice(0, 4)), Number(day.slice(5, 7)), Number(day.slice(8, 10)));
  }
  found = /^(?:(\d{1,2})(?:st|nd|rd|th)?[.\s-]*(?:of\s+)?)?([a-zäöü]{3,})\.?[\s,-]*(\d{4}|\d{2})$/iu.exec(plain);
  const month = found && monthNamed(found[2] as string);
  if (found && month) return dayOf(fullYear(found[3] as string), month, Number(found[1] ?? 1));
  found = /^([a-z]{3,})\.?\s+(\d{1,2})(?:st|nd|rd|th)?,?\s+(\d{4})$/iu.exec(plain);
  const first = found && monthNamed(found[1] as string);
  return found && first ? dayOf(Number(found[3]), first, Number(found[2])) : { problem: { why: 'not-a-day' } };
}

/**
 * The order that a table's days are written in, as far as they tell: 'open' where some have slashes and none gives it away,
 * null where no day needs it.
 */
export function dayOrderOf(cells: readonly string[]): DayOrder | 'open' | null {
  let [asks, dayFirst, monthFirst] = [false, 0, 0];
  for (const cell of cells) {
    const found = SLASHED.exec(cell.trim());
    if (!found) continue;
    asks = true;
    if (Number(found[1]) > 12) dayFirst += 1;
    else if (Number(found[2]) > 12) monthFirst += 1;
  }
  if (!asks) return null;
  if (dayFirst === monthFirst) return 'open';
  return dayFirst > monthFirst ? 'day-first' : 'month-first';
}
