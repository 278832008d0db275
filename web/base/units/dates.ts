import { ref } from 'vue';
import { dayIn } from '@core/base/units/calendar.js';

/** The workshop's time zone; the account brings it. */
const zone = ref('UTC');
export function setTimeZone(value: string): void {
  zone.value = value;
}

const formatters = new Map<string, Intl.DateTimeFormat>();

/** Dates as the workshop's wall clock shows them, whatever zone the device is in. Kept: making one costs as much as a row. */
function formatter(timeZone: string, options: Intl.DateTimeFormatOptions): Intl.DateTimeFormat {
  const key = JSON.stringify([timeZone, options]);
  const known = formatters.get(key) ?? new Intl.DateTimeFormat('en-GB', { timeZone, ...options });
  formatters.set(key, known);
  return known;
}

/** "Mon 30 Nov" of a plain day */
const weekday = (day: string): string =>
  formatter('UTC', { weekday: 'short', day: 'numeric', month: 'short' })
    .format(new Date(`${day}T00:00:00Z`))
    .replace(',', '');
const time = (iso: string): string => formatter(zone.value, { hour: '2-digit', minute: '2-digit' }).format(new Date(iso));

export function useDates() {
  return {
    day: (iso: string): string => formatDay(iso, zone.value),
    weekday,
    time,
    /** "Mon 30 Nov, 09:00" by the workshop's clock: an appointment */
    weekdayAndTime: (iso: string): string => `${weekday(dayIn(zone.value, new Date(iso)))}, ${time(iso)}`,
    dayAndTime: (iso: string): string =>
      iso.length === 10
        ? formatDay(iso, zone.value)
        : formatter(zone.value, { day: 'numeric', month: 'short', year: 'numeric', hour: '2-digit', minute: '2-digit' }).format(
            new Date(iso),
          ),
  };
}

/** A calendar day is a day everywhere; an instant falls on a day of the workshop's zone. */
function formatDay(iso: string, timeZone: string): string {
  const options: Intl.DateTimeFormatOptions = { day: 'numeric', month: 'short', year: 'numeric' };
  return iso.length === 10
    ? formatter('UTC', options).format(new Date(`${iso}T00:00:00Z`))
    : formatter(timeZone, options).format(new Date(iso));
}
