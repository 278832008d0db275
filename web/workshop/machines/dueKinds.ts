import { say } from '@core/base/words/say.js';
import type { SystemLine } from '@core/workshop/machines/answers.js';
import type { DueKind } from '@core/workshop/due-dates/attention.js';

/** What falls due, in a word. */
export const DUE_KINDS: Readonly<Record<DueKind, string>> = {
  'coolant-service': 'coolant',
  'settling-check': 'settling check',
  'follow-up': 'follow-up',
  'dust-clean': 'dust',
  'paste-renewal': 'paste',
  stirring: 'stirring',
};

/** The kind of a machine's next date, in a word. */
export const nextWord = ({ nextKind: kind }: SystemLine): string => say(DUE_KINDS[kind ?? 'coolant-service']);

/** What the next date of a machine is for: "dust", "coolant, put off 2×". */
export function nextKind(line: SystemLine): string {
  const next = line.dues.find(({ kind, dueOn }) => kind === line.nextKind && dueOn === line.nextDueOn);
  return `${nextWord(line)}${next && next.postponed > 0 ? say(', put off {postponed}×', { postponed: next.postponed }) : ''}`;
}
