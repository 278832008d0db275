import { say } from '../../../core/base/words/say.js';
import ical, { ICalCalendarMethod, ICalEventStatus } from 'ical-generator';

/** Who made a calendar, for the programs that read it. */
export const PRODUCT = '-//lavacrum//plan//EN';
/** Remarks that the library makes to one maker's calendar program are left out. */
export const withoutRemarks = (text: string): string => text.replace(/^X-[A-Z-]*ALLDAYEVENT.*\r?\n/gm, '');

/** min that bringing a machine takes in an owner's calendar */
const BRING_MINUTES = 30;

export interface OwnersAppointment {
  readonly jobId: string;
  /** of the slot: a later one replaces what the calendar has */
  readonly version: number;
  readonly at: Date;
  readonly from: Date;
  readonly machine: string;
  readonly workshop: string;
  readonly address: string;
  readonly description: string;
  readonly cancelled: boolean;
}

/** The appointment for an owner's calendar: bringing the machine. The same one each time, so that a move moves it (RFC 5545, UID and SEQUENCE). */
export function appointmentFile({
  jobId,
  version,
  at,
  from,
  machine,
  workshop,
  address,
  description,
  cancelled,
}: OwnersAppointment): string {
  const calendar = ical({ prodId: PRODUCT, method: cancelled ? ICalCalendarMethod.CANCEL : ICalCalendarMethod.PUBLISH });
  calendar.createEvent({
    id: `${jobId}@lavacrum`,
    sequence: version,
    stamp: at,
    start: from,
    end: new Date(from.getTime() + BRING_MINUTES * 60_000),
    summary: say('Bring {machine} to {workshop}', { machine, workshop }),
    description,
    location: address || workshop,
    status: cancelled ? ICalEventStatus.CANCELLED : ICalEventStatus.CONFIRMED,
  });
  return withoutRemarks(calendar.toString());
}
