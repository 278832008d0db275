import { useSession } from '../accounts/sessionStore.js';

/** Dates as the workshop's wall clock shows them, whatever zone the device is in. */
const formatter = (zone: string, options: Intl.DateTimeFormatOptions): Intl.DateTimeFormat =>
  new Intl.DateTimeFormat('en-GB', { timeZone: zone, ...options });

export function useDates() {
  const session = useSession();
  return {
    day: (iso: string): string => formatDay(iso, session.timeZone),
    /** plain days inside a text, as this screen shows days */
    inText: (text: string): string => text.replace(/\b\d{4}-\d{2}-\d{2}\b/g, (day) => formatDay(day, session.timeZone)),
    /** "Mon 30 Nov" of a plain day */
    weekday: (day: string): string =>
      formatter('UTC', { weekday: 'short', day: 'numeric', month: 'short' })
        .format(new Date(`${day}T00:00:00Z`))
        .replace(',', ''),
    time: (iso: string): string => formatter(session.timeZone, { hour: '2-digit', minute: '2-digit' }).format(new Date(iso)),
    dayAndTime: (iso: string): string =>
      iso.length === 10
        ? formatDay(iso, session.timeZone)
        : formatter(session.timeZone, { day: 'numeric', month: 'short', year: 'numeric', hour: '2-digit', minute: '2-digit' }).format(
            new Date(iso),
          ),
  };
}

/** A calendar day is a day everywhere; an instant falls on a day of the workshop's zone. */
function formatDay(iso: string, zone: string): string {
  const options: Intl.DateTimeFormatOptions = { day: 'numeric', month: 'short', year: 'numeric' };
  return iso.length === 10
    ? formatter('UTC', options).format(new Date(`${iso}T00:00:00Z`))
    : formatter(zone, options).format(new Date(iso));
}
