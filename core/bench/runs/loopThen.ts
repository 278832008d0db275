import { passedOn } from '../../physics/live-book/passedOn.js';
import { twinOf } from './book.js';
import type { Procedure } from './procedure.js';
import type { RunState } from './state.js';

/** The loop of a run as it was at each of its entries: a part that is left out, or a loop that is rebuilt, changes it in the middle. */

export const loopChanges = ({ service: { swaps, rebuilds } }: Pick<RunState, 'service'>): number =>
  swaps.filter(({ action }) => action === 'bypassed').length + rebuilds.length;

const madeOf = new WeakMap<Procedure, Procedure[]>();

/** The procedure with the loop that it had after so many changes. */
export function procedureAfter(procedure: Procedure, changes: number): Procedure {
  const { earlier = [] } = procedure;
  const loop = earlier[changes];
  if (!loop) return procedure;
  const made = madeOf.get(procedure) ?? earlier.map((each) => ({ ...procedure, ...each.loop }));
  madeOf.set(procedure, made);
  return made[changes] as Procedure;
}

/** Carries what is inside over a change of the loop. Changes the state in place. */
export function carryOver(procedure: Procedure, before: Procedure, state: RunState, gone: ReadonlyMap<string, string>): void {
  const after = procedureAfter(procedure, loopChanges(state));
  Object.assign(state.contents, passedOn(twinOf(before), twinOf(after), state.contents, gone));
}
