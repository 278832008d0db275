import { ENDS_LOOP, JOB_KINDS, type JobKind } from '../../workshop/job-kinds/kinds.js';
import { BACK } from '../runs/checkIds.js';
import type { Procedure, ProcedureStep, StepKind, StepTrait } from '../runs/procedure.js';
import type { RunState } from '../runs/state.js';

/** Why a job in progress cannot become another kind: what was done already asks for more than that kind does. */
export type RescopeHindrance = { readonly why: 'was-drained' } | { readonly why: 'was-taken-apart' };

const wasDrained = ({ service, outflows }: RunState): boolean =>
  service.drains.length > 0 || service.flows.some(({ way }) => way !== 'in') || outflows.length > 0;
/** Closed, or passed over with a reason; what isolates or empties can only be closed. */
const isDone = (state: RunState, step: ProcedureStep): boolean => state.steps.some(({ id, status }) => id === step.id && status === 'done');
const wasOpened = (now: Procedure, state: RunState): boolean =>
  state.openJoints.size > 0 ||
  state.service.swaps.length > 0 ||
  now.steps.some((step) => step.does.includes('empties') && isDone(state, step));

/** A loop that was drained is filled again by the job it becomes, unless it is over. */
export function cannotBecome(now: Procedure, state: RunState, kind: JobKind): RescopeHindrance | null {
  if (ENDS_LOOP.includes(kind)) return null;
  const { fill, opens } = JOB_KINDS[kind];
  if (wasOpened(now, state) && opens === 'not') return { why: 'was-taken-apart' };
  return wasDrained(state) && (fill === 'none' || kind === 'top-up') ? { why: 'was-drained' } : null;
}

const didAny = (now: Procedure, state: RunState, ...traits: readonly StepTrait[]): boolean =>
  now.steps.some((step) => step.does.some((each) => traits.includes(each)) && isDone(state, step));
/** A return to power that names what was pulled. */
const bringsBack = ({ kind, checks }: ProcedureStep): boolean => kind === 'power' && checks.some(({ id }) => id.startsWith(BACK));

/** What was undone so far, and the kinds of steps that make it good, in their order. */
function makesGood(now: Procedure, state: RunState, kind: JobKind): readonly StepKind[] {
  const drained = wasDrained(state);
  const over = ENDS_LOOP.includes(kind);
  return [
    ...(wasOpened(now, state) && !over ? (['dry-test'] as const) : []),
    ...(drained && !over ? (['fill', 'wet-run', 'bleed'] as const) : []),
    ...(didAny(now, state, 'isolates', 'cuts-mains') ? (['power'] as const) : []),
  ];
}

/**
 * The steps of a job that changes its kind in the middle: what was done stays done, in its place; the new kind's steps follow; and what
 * was undone meanwhile is made good whether the new kind thinks of it or not: opened joints are closed and tested, what was let out is
 * filled again, what was pulled comes back.
 */
export function stepsAfterRescope(now: Procedure, made: Procedure, kind: JobKind, state: RunState): ProcedureStep[] {
  const good = makesGood(now, state, kind);
  // plugs that were pulled come back by name, although the new kind pulls none
  const pulled = didAny(now, state, 'isolates');
  const fits = made.steps.filter((step) => step.kind !== 'power' || !pulled || bringsBack(step));
  const comes = new Set(fits.map(({ id }) => id));
  const hasKind = (of: StepKind): boolean => fits.some((step) => step.kind === of);
  const closes = wasOpened(now, state) && !ENDS_LOOP.includes(kind) && !made.steps.some((step) => step.does.includes('closes'));
  const kept = now.steps.filter(
    (step) =>
      !comes.has(step.id) &&
      (isDone(state, step) ||
        // a change that was begun is finished, whatever else the job becomes
        (step.does.includes('changes-loop') && !ENDS_LOOP.includes(kind)) ||
        (closes && step.does.includes('closes')) ||
        (good.includes(step.kind) && !hasKind(step.kind))),
  );
  const steps = [...fits];
  const placeOf = (near: readonly ProcedureStep[]): number | undefined =>
    near.map(({ id }) => steps.findIndex((each) => each.id === id)).find((index) => index >= 0);
  for (const step of kept) {
    const at = now.steps.indexOf(step);
    // what was done stands behind the nearest that came before it, what makes good in front of the nearest that comes after it
    const index = isDone(state, step)
      ? (placeOf(now.steps.slice(0, at).reverse()) ?? -1) + 1
      : (placeOf(now.steps.slice(at + 1)) ?? steps.length);
    steps.splice(index, 0, step);
  }
  return steps;
}
