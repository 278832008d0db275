import { say } from '../../base/words/say.js';
import { escalationOf } from './escalation.js';
import { dueState } from './due.js';
import { DAYS_PER_MONTH, daysBetween } from '../../base/units/calendar.js';

/** Where a system stands in its life, as recorded. */
export const SYSTEM_STATES = {
  planned: 'planned',
  'on-bench': 'on the bench',
  waiting: 'waiting off the bench',
  'in-service': 'in service',
  retired: 'retired',
} as const;
export type SystemState = keyof typeof SYSTEM_STATES;

/** A run is in progress on it: nobody else says where it stands. */
export const isInRun = (state: SystemState): boolean => state === 'on-bench' || state === 'waiting';

export type DueKind = 'coolant-service' | 'settling-check' | 'follow-up' | 'dust-clean' | 'paste-renewal' | 'stirring';

export interface OpenDue {
  readonly kind: DueKind;
  readonly dueOn: string;
  readonly postponed: number;
  /** the day its clocks gave before anybody put it off */
  readonly firstDueOn: string | null;
}

/** What the workshop sees first: the most urgent fact about a system. */
export type Attention =
  'overdue' | 'put-off' | 'on-bench' | 'waiting' | 'settling' | 'soon' | 'stir' | 'dust' | 'planned' | 'fine' | 'unknown' | 'retired';

export const ATTENTION_WORDS: Record<Attention, string> = {
  overdue: 'overdue',
  'put-off': 'put off',
  'on-bench': 'on the bench',
  waiting: 'waiting, opened',
  settling: 'settling check',
  soon: 'due soon',
  stir: 'to be stirred',
  dust: 'dust',
  planned: 'planned',
  fine: 'in service',
  unknown: 'no date yet',
  retired: 'retired',
};

/** Order of every list: what needs attention first. A list keeps a machine's place in it as a number. */
export const ATTENTION_ORDER: readonly Attention[] = [
  'overdue',
  'put-off',
  'on-bench',
  'waiting',
  'settling',
  'stir',
  'soon',
  'dust',
  'unknown',
  'planned',
  'fine',
  'retired',
];

export function attentionOf(state: SystemState, dues: readonly OpenDue[], today: string): Attention {
  if (state === 'retired') return 'retired';
  if (state === 'on-bench' || state === 'waiting') return state;
  // dust is cleaned beside other work: it never makes a machine overdue
  const wet = dues.filter((due) => !isBesideDue(due));
  if (wet.some(({ dueOn }) => dueState(dueOn, today) === 'overdue')) return 'overdue';
  if (wet.some((due) => escalationOf(due).level >= 2)) return 'put-off';
  if (wet.some(({ kind }) => kind === 'settling-check')) return 'settling';
  // what lies packs together: that does not wait for a service that only comes near
  if (dues.some(({ kind, dueOn }) => kind === 'stirring' && dueState(dueOn, today) === 'overdue')) return 'stir';
  if (wet.some(({ dueOn }) => dueState(dueOn, today) === 'soon')) return 'soon';
  if (dues.some(({ kind, dueOn }) => kind === 'dust-clean' && dueState(dueOn, today) === 'overdue')) return 'dust';
  if (state === 'planned') return 'planned';
  return dues.length === 0 ? 'unknown' : 'fine';
}

/** Dates of small works that are done beside others: they make no machine overdue, and stand last. */
export const isBesideDue = ({ kind }: { readonly kind: DueKind }): boolean =>
  kind === 'dust-clean' || kind === 'paste-renewal' || kind === 'stirring';

/** "12 days over", "today", "in 3 weeks": a date as the desk says it on the phone. */
export function sayDue(dueOn: string, today: string): string {
  const days = daysBetween(today, dueOn);
  const span = Math.abs(days);
  const words =
    span < 14
      ? say('{span, plural, one {# day} other {# days}}', { span })
      : span < 70
        ? say('{span} weeks', { span: Math.round(span / 7) })
        : say('{span} months', { span: Math.round(span / DAYS_PER_MONTH) });
  if (days === 0) return say('today');
  return days < 0 ? say('{words} over', { words }) : say('in {words}', { words });
}
