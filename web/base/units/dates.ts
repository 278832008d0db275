import { ref } from 'vue';
import { serverNowMs } from './now.js';
import { dayIn } from '@core/base/units/calendar.js';
import { formatDay, formatDayTime, formatTime, formatWeekday, formatWeekdayTime } from '@core/base/units/dates.js';

/** The workshop's time zone; the account brings it. */
const zone = ref('UTC');
export function setTimeZone(value: string): void {
  zone.value = value;
}

/** Dates as the workshop's wall clock shows them, whatever zone the device is in, and as whoever looks at them reads dates. */
export function useDates() {
  return {
    /** the workshop's calendar day of now */
    today: (): string => dayIn(zone.value, new Date(serverNowMs())),
    day: (iso: string): string => formatDay(iso.length === 10 ? iso : dayIn(zone.value, new Date(iso))),
    /** the calendar day of an instant, ISO */
    dayOf: (iso: string): string => dayIn(zone.value, new Date(iso)),
    weekday: formatWeekday,
    time: (iso: string): string => formatTime(iso, zone.value),
    weekdayAndTime: (iso: string): string => formatWeekdayTime(iso, zone.value),
    dayAndTime: (iso: string): string => formatDayTime(iso, zone.value),
  };
}
