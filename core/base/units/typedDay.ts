import { addDays } from './calendar.js';
import { monthNames } from './dates.js';
import { reading } from './reading.js';

const two = (n: number): string => String(n).padStart(2, '0');
function dayOf(year: number, month: number, day: number): string | null {
  const text = `${year}-${two(month)}-${two(day)}`;
  const parsed = new Date(`${text}T00:00:00Z`);
  return !Number.isNaN(parsed.getTime()) && parsed.toISOString().slice(0, 10) === text ? text : null;
}

/**
 * A day as somebody types it: whole (`2026-03-09`, `9.3.2026`, `9/3/26`, month first for who reads it so), without its year (the next one),
 * a day of the month (the next one), `+10` days, or a word that `words` knows.
 * @param today the workshop's own, from which what is left out is taken
 * @param words how many days ahead a word is: "tomorrow", "mon"
 * @returns null where it is no day
 */
export function typedDay(text: string, today: string, words: ReadonlyMap<string, number> = new Map()): string | null {
  const typed = text.trim().toLowerCase();
  const ahead = /^([+-])\s*(\d{1,3})$/.exec(typed);
  if (ahead) return addDays(today, (ahead[1] === '-' ? -1 : 1) * Number(ahead[2]));
  const known = words.get(typed);
  if (known !== undefined) return addDays(today, known);
  const iso = /^(\d{4})-(\d{1,2})-(\d{1,2})$/.exec(typed);
  if (iso) return dayOf(Number(iso[1]), Number(iso[2]), Number(iso[3]));
  const named =
    /^(\d{1,2})\.?\s+(\p{L}{3,})\.?(?:\s+(\d{4}))?$/u.exec(typed) ?? swapped(/^(\p{L}{3,})\.?\s+(\d{1,2})(?:,?\s+(\d{4}))?$/u.exec(typed));
  const month = named && monthOf(named[2] as string);
  if (named && month) return inYear(today, Number(named[1]), month, named[3] === undefined ? null : Number(named[3]));
  const parts = /^(\d{1,2})(?:\s*[./ -]\s*(\d{1,2})(?:\s*[./ -]\s*(\d{4}|\d{2}))?)?\s*\.?$/.exec(typed);
  if (!parts) return null;
  const [first, second, year] = parts.slice(1).map((part) => (part === undefined ? null : Number(part))) as [number, number | null, number | null]; // prettier-ignore
  const [thisYear, thisMonth] = today.split('-').map(Number) as [number, number];
  if (second === null)
    return nextOf(today, (n) => dayOf(thisYear + Math.floor((thisMonth - 1 + n) / 12), ((thisMonth - 1 + n) % 12) + 1, first));
  return reading().date === 'month-first' ? inYear(today, second, first, year) : inYear(today, first, second, year);
}

function inYear(today: string, day: number, month: number, year: number | null): string | null {
  if (year === null) return nextOf(today, (n) => dayOf(Number(today.slice(0, 4)) + n, month, day));
  return dayOf(year < 100 ? 2000 + year : year, month, day);
}

const swapped = (found: RegExpExecArray | null): (string | undefined)[] | null => found && [found[0], found[2], found[1], found[3]];
/** By its first three letters, in English or the reader's language. */
function monthOf(word: string): number | null {
  const begins = word.slice(0, 3);
  const at = Array.from({ length: 12 }, (_, index) => index + 1).find((month) => monthNames(month).some((name) => name.startsWith(begins)));
  return at ?? null;
}

/** The first of what `make` gives that is not before today; a 31st waits for a month that has one, the 29 February for its year. */
function nextOf(today: string, make: (n: number) => string | null): string | null {
  for (let n = 0; n < 9; n += 1) {
    const made = make(n);
    if (made !== null && made >= today) return made;
  }
  return null;
}

/** A time of the day as somebody types it: `9`, `930`, `9:30`, `9.30`, `9:30 pm`. @returns "09:30", or null */
export function typedTime(text: string): string | null {
  const parts = /^(\d{1,2})(?:\s*[:.h]?\s*(\d{2}))?\s*(am|pm|a|p)?$/.exec(text.trim().toLowerCase());
  if (!parts) return null;
  const [hour, minute] = [Number(parts[1]), Number(parts[2] ?? '0')];
  if (parts[3] && (hour < 1 || hour > 12)) return null;
  const whole = parts[3] ? (hour % 12) + (parts[3].startsWith('p') ? 12 : 0) : hour;
  return whole < 24 && minute < 60 ? `${two(whole)}:${two(minute)}` : null;
}

/** "09:30" as its reader writes it. */
export function shownTime(time: string): string {
  if (time === '' || reading().clock === '24') return time;
  const [hour, minute] = time.split(':').map(Number) as [number, number];
  return `${hour % 12 === 0 ? 12 : hour % 12}:${two(minute)} ${hour < 12 ? 'am' : 'pm'}`;
}
