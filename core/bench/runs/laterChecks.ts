import { airInsideKpa, judgeDryTest } from './dryTest.js';
import { stepOf, type After, type CheckItem, type Procedure, type TimerItem } from './procedure.js';
import { timerFace, type RunState, type TimerState } from './state.js';

/** s into a clock after which the look of the first hour is due */
const HOUR_S = 3600;

/** What a check waits for: the moment, and the clock that it is counted by. */
export interface Later {
  readonly after: After;
  /** name of the step's clock; empty where no clock counts */
  readonly clock: string;
}

/** Why a check cannot be ticked yet; null: it can. What is looked at before its time says nothing of it. */
export function laterThan(
  procedure: Procedure,
  state: RunState,
  stepId: string,
  { after }: Pick<CheckItem, 'after'>,
  nowMs: number,
): Later | null {
  if (after === undefined) return null;
  const clock = stepOf(procedure, stepId)?.timers[0];
  return HAS_COME[after](procedure, state, clock, nowMs) ? null : { after, clock: clock?.label ?? '' };
}

type HasCome = (procedure: Procedure, state: RunState, clock: TimerItem | undefined, nowMs: number) => boolean;

/** A step without a clock has nothing to wait for. */
const byClock =
  (has: (timer: TimerState, nowMs: number) => boolean): HasCome =>
  (_procedure, { timers }, clock, nowMs) => {
    const timer = clock && timers[clock.id];
    return clock === undefined || (timer !== undefined && has(timer, nowMs));
  };

const HAS_COME: Readonly<Record<After, HasCome>> = {
  'clock-begins': byClock(() => true),
  hour: byClock((timer, nowMs) => timer.seconds - timerFace(timer, nowMs).remainingS >= HOUR_S),
  'clock-ends': byClock((timer, nowMs) => timerFace(timer, nowMs).finished),
  // a test that is given up lets its air out as well: a leak that was found under air, a gauge that lost half, a step passed over
  verdict: (procedure, state) => {
    const result = judgeDryTest(procedure, state);
    return (
      (result !== null && (result.verdict !== 'not-yet' || result.open === 'lost-half')) ||
      // of a test that was begun anew while its air stood inside: hands go to the loop next, or raise it again
      (state.dryReadings.length === 0 && airInsideKpa(procedure, state) !== null) ||
      // air of a test that is still to begin is not let out
      (state.dryReadings.length > 0 && state.leaks.some(({ inAir, retested }) => inAir && !retested?.dry)) ||
      state.steps.some(({ kind, deviation }) => kind === 'dry-test' && deviation !== null)
    );
  },
  // a loop that stands at its mark gets nothing: then nothing is waited for
  pour: (procedure, { pours, service }) =>
    pours.length > 0 || service.flows.some(({ way }) => way === 'in') || (procedure.service !== undefined && service.drains.length === 0),
};
