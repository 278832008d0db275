import { say } from '../../base/words/say.js';
import { BACK, leadBeside, PULLED } from './checkIds.js';
import { stepThat, type CheckItem, type Procedure, type ProcedureStep } from './procedure.js';
import type { RunState } from './state.js';

/** A connector that no sheet knew, pulled and written down at the bench: its lines are checks like those that were planned. */

type Lines = RunState['alsoPulled'];

const madeOf = new WeakMap<Procedure, Map<string, Procedure>>();

/** The procedure with a check for each such connector where it was pulled and where it comes back; one that has them stays as it is. */
export function procedureNow(procedure: Procedure, { alsoPulled }: Pick<RunState, 'alsoPulled'>): Procedure {
  const planned = new Set(stepThat(procedure, 'isolates')?.checks.map(({ id }) => id));
  const lines = alsoPulled.filter(({ line }) => !planned.has(`${PULLED}${leadBeside(line)}`));
  if (lines.length === 0) return procedure;
  // what is asked at every keystroke stays the same object as long as nothing more was pulled
  const known = madeOf.get(procedure) ?? new Map<string, Procedure>();
  madeOf.set(procedure, known);
  const which = JSON.stringify(lines.map(({ line, name }) => [line, name]));
  const made = known.get(which) ?? withLines(procedure, lines);
  known.set(which, made);
  return made;
}

function withLines(procedure: Procedure, lines: Lines): Procedure {
  const isolating = stepThat(procedure, 'isolates');
  const returning = procedure.steps.find(({ kind, checks }) => kind === 'power' && checks.some(({ id }) => id.startsWith(BACK)));
  const power = returning ?? procedure.steps.find(({ kind }) => kind === 'power');
  const checks = (prefix: string, words: (name: string) => string): CheckItem[] =>
    lines.map(({ line, name }) => ({
      id: `${prefix}${leadBeside(line)}`,
      text: words(name),
      lead: name,
      beforePower: true,
      mayNotApply: true,
    }));
  const pulled = checks(PULLED, (name) => say('Pulled: {name}', { name }));
  const back = checks(BACK, (name) => say('Reconnected: {name}', { name }));
  return {
    ...procedure,
    steps: procedure.steps.map((step) =>
      step === isolating ? behind(step, PULLED, pulled) : step === power ? behind(step, BACK, back) : step,
    ),
  };
}

/** Behind the last check of its kind, under the same heading. */
function behind(step: ProcedureStep, prefix: string, more: readonly CheckItem[]): ProcedureStep {
  const at = step.checks.findLastIndex(({ id }) => id.startsWith(prefix));
  const group = step.checks[at]?.group;
  const own = group === undefined ? more : more.map((check) => ({ ...check, group }));
  const cut = at < 0 ? step.checks.length : at + 1;
  return { ...step, checks: [...step.checks.slice(0, cut), ...own, ...step.checks.slice(cut)] };
}
