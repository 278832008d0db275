import { dayIn } from './calendar.js';
import { locale } from './display.js';
import { reading } from './reading.js';

/** Days and times as their reader writes them. A calendar day is the same day in every zone; an instant is read on the workshop's clock. */

const formats = new Map<string, Intl.DateTimeFormat>();
/** Kept: making one costs as much as a row of a table. */
function format(timeZone: string, options: Intl.DateTimeFormatOptions, language = locale()): Intl.DateTimeFormat {
  const key = JSON.stringify([language, timeZone, options]);
  const known = formats.get(key) ?? new Intl.DateTimeFormat(language, { timeZone, ...options });
  formats.set(key, known);
  return known;
}
/** in English the month goes first where its reader writes it first */
const inOrder = (): string => (reading().language === 'en' && reading().date === 'month-first' ? 'en-US' : locale());
const ofDay = (day: string, options: Intl.DateTimeFormatOptions, language = inOrder()): string =>
  format('UTC', options, language).format(new Date(`${day}T00:00:00Z`));

/** `2026-03-09` as people read it: 9 Mar 2026, 09.03.2026, 2026-03-09 or Mar 9, 2026. */
export function formatDay(day: string): string {
  switch (reading().date) {
    case 'iso':
      return day;
    case 'dotted':
      return day.split('-').reverse().join('.');
    case 'month-first':
      // the order belongs to it, in whatever language its months are
      return `${ofDay(day, { month: 'short' }).replace(/\.$/, '')} ${Number(day.slice(8))}, ${day.slice(0, 4)}`;
    default:
      return ofDay(day, { day: 'numeric', month: 'short', year: 'numeric' });
  }
}

/** "Mon 30 Nov", or "Mon Nov 30": a day of these weeks, which needs no year. */
export const formatWeekday = (day: string): string =>
  ofDay(day, { weekday: 'short', day: 'numeric', month: 'short' }).replace(',', '').replace('.,', '');

/** "09:00", or "9:00 am" for who reads twelve hours. */
export const formatTime = (iso: string, timeZone: string): string =>
  reading().clock === '24'
    ? format(timeZone, { hour: '2-digit', minute: '2-digit', hourCycle: 'h23' }).format(new Date(iso))
    : format(timeZone, { hour: 'numeric', minute: '2-digit', hourCycle: 'h12' }, 'en-GB').format(new Date(iso));

/** "Mon 30 Nov, 09:00": an appointment. */
export const formatWeekdayTime = (iso: string, timeZone: string): string =>
  `${formatWeekday(dayIn(timeZone, new Date(iso)))}, ${formatTime(iso, timeZone)}`;

/** "9 Mar 2026, 09:00"; a plain day stays one. */
export const formatDayTime = (iso: string, timeZone: string): string =>
  iso.length === 10 ? formatDay(iso) : `${formatDay(dayIn(timeZone, new Date(iso)))}, ${formatTime(iso, timeZone)}`;

/** As it stands in a letter: 10 March 2027. */
export const longDay = (day: string): string => ofDay(day, { dateStyle: 'long' });
/** As it stands in a letter: Tuesday, 10 March 2027 at 09:00. */
export const longTime = (iso: string, timeZone: string): string =>
  format(timeZone, { dateStyle: 'full', timeStyle: 'short', hourCycle: reading().clock === '24' ? 'h23' : 'h12' }, inOrder()).format(
    new Date(iso),
  );

/** "Mon" to "Sun" from the day on which the week begins. */
export const weekdayNames = (): string[] =>
  Array.from({ length: 7 }, (_, index) => {
    // 5 January 2026 was a Monday
    const day = String(5 + ((reading().weekBegins - 1 + index) % 7)).padStart(2, '0');
    return ofDay(`2026-01-${day}`, { weekday: 'short' }).replace('.', '');
  });
/** "November 2026" */
export const monthName = (day: string): string => ofDay(day, { month: 'long', year: 'numeric' });
/** "November" of 11 */
export const monthOfYear = (month: number, language?: string): string =>
  ofDay(`2026-${String(month).padStart(2, '0')}-01`, { month: 'long' }, language);
/** Names of a month, 1 to 12, in lower case: as the reader writes it, and in English. */
export const monthNames = (month: number): string[] => [undefined, 'en-GB'].map((language) => monthOfYear(month, language).toLowerCase());
