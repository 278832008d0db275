import { daysBetween } from '../units/calendar.js';
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
  readonly words: string;
}

const WORDS: Readonly<Record<EscalationLevel, string>> = {
  0: '',
  1: 'the owner knows the risk',
  2: 'the risk goes to the owner in writing',
  3: 'only the lead may put it off again',
};

/** An item that was put off stays open and grows louder: in lists, then in writing, then it takes the lead. */
export function escalationOf({ postponed, dueOn, firstDueOn }: PutOff): Escalation {
  if (postponed === 0) return { level: 0, pastDays: 0, words: '' };
  const pastDays = firstDueOn === null ? 0 : Math.max(0, daysBetween(firstDueOn, dueOn));
  const reaches = ({ times, days }: { times: number; days: number }): boolean => postponed >= times || pastDays >= days;
  const level: EscalationLevel = reaches(ESCALATION.third) ? 3 : reaches(ESCALATION.second) ? 2 : 1;
  const past = pastDays > 0 ? `, ${pastDays} days past its clock` : '';
  return { level, pastDays, words: `put off ${postponed === 1 ? 'once' : `${postponed} times`}${past}: ${WORDS[level]}` };
}
