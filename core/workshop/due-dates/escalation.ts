import { daysBetween } from '../../base/units/calendar.js';
import { ESCALATION } from './defaults.js';

export type EscalationLevel = 0 | 1 | 2 | 3;

export interface PutOff {
  readonly postponed: number;
  /** the agreed day */
  readonly dueOn: string;
  /** the day that its clocks gave; null where it has none */
  readonly firstDueOn: string | null;
}

export interface Escalation {
  readonly level: EscalationLevel;
  /** days that the agreed day lies past the clock that came first */
  readonly pastDays: number;
  /** how often it was put off */
  readonly times: number;
}

/** An item that was put off stays open and grows louder: in lists, then in writing, then it takes the lead. */
export function escalationOf({ postponed, dueOn, firstDueOn }: PutOff): Escalation {
  if (postponed === 0) return { level: 0, pastDays: 0, times: 0 };
  const pastDays = firstDueOn === null ? 0 : Math.max(0, daysBetween(firstDueOn, dueOn));
  const reaches = ({ times, days }: { times: number; days: number }): boolean => postponed >= times || pastDays >= days;
  const level: EscalationLevel = reaches(ESCALATION.third) ? 3 : reaches(ESCALATION.second) ? 2 : 1;
  return { level, pastDays, times: postponed };
}
