import { compareBaselines, pairsOf } from '../../physics/diagnosis/compare.js';
import { normaliseBaseline } from '../../physics/diagnosis/baseline.js';
import { ENDS_LOOP } from '../../workshop/job-kinds/kinds.js';
import { isSeenBled, judgeBleeding } from './criteria.js';
import { judgeDryTest } from './dryTest.js';
import { stepOfKind, type Procedure, type StepKind } from './procedure.js';
import type { PartTest, RunState } from './state.js';

/**
 * What a run can claim when it is closed, one plate each: `earned`, or why not. Only plates that its kind of job can earn are there.
 * Volumes in mL, differences in K.
 */
export type Verdict =
  | { readonly verdict: 'tight'; readonly earned: true; readonly by: 'air' | 'wet' | 'air-and-wet'; readonly wetS: number | null }
  | { readonly verdict: 'tight'; readonly earned: false; readonly because: 'leak-open' | 'air-failed' | 'air-open' | 'not-tested' }
  | { readonly verdict: 'bled'; readonly earned: boolean; readonly cycles: number; readonly seen: boolean }
  | { readonly verdict: 'inside'; readonly earned: true; readonly ml: number; readonly sdMl: number; readonly product: string | null }
  | { readonly verdict: 'inside'; readonly earned: false; readonly because: 'unknown' | 'empty' }
  | { readonly verdict: 'cooler'; readonly earned: true; readonly than: 'before' | 'room'; readonly kelvin: number }
  | { readonly verdict: 'cooler'; readonly earned: false; readonly because: 'not-measured' | 'not-comparable' | 'as-before' | 'warmer' };

export function verdictsOf(procedure: Procedure, state: RunState): Verdict[] {
  // of a loop that is over nothing is claimed but what its own record says
  if (procedure.service && ENDS_LOOP.includes(procedure.service.kind)) return [];
  const has = (kind: StepKind): boolean => stepOfKind(procedure, kind) !== undefined;
  return [
    ...(has('dry-test') || has('wet-run') ? [tight(procedure, state)] : []),
    ...(has('bleed') ? [bled(procedure, state)] : []),
    // a unit on its own is let out again
    ...(has('fill') && !procedure.unit ? [inside(state)] : []),
    ...(has('baseline') ? [cooler(procedure, state)] : []),
  ];
}

/** A step that was closed as it should be, not passed over. */
const wasDone = ({ steps }: RunState, kind: StepKind): boolean =>
  steps.some((step) => step.kind === kind && step.status === 'done' && step.deviation === null);

/** What a unit tested on its own was found to be; null: nobody said yet, or the run tests none. */
export const unitVerdict = ({ unit }: Pick<Procedure, 'unit'>, { partTests }: Pick<RunState, 'partTests'>): PartTest | null =>
  (unit && partTests.findLast(({ value }) => value.part === unit.pump)?.value) ?? null;

function tight(procedure: Procedure, state: RunState): Verdict {
  if (state.leaks.some(({ retested }) => !retested?.dry) || unitVerdict(procedure, state)?.tight === false)
    return { verdict: 'tight', earned: false, because: 'leak-open' };
  const air = judgeDryTest(procedure, state)?.verdict ?? null;
  if (air === 'fail') return { verdict: 'tight', earned: false, because: 'air-failed' };
  const wet = wasDone(state, 'wet-run');
  if (air === 'pass' || wet) {
    const by = air === 'pass' ? (wet ? 'air-and-wet' : 'air') : 'wet';
    return { verdict: 'tight', earned: true, by, wetS: wet ? procedure.wetSeconds : null };
  }
  return { verdict: 'tight', earned: false, because: air === 'not-yet' ? 'air-open' : 'not-tested' };
}

function bled(procedure: Procedure, state: RunState): Verdict {
  const judged = judgeBleeding(procedure, state);
  return { verdict: 'bled', earned: judged.bled, cycles: judged.risesMm.length, seen: isSeenBled(state) };
}

function inside({ contents: { insideMl, insideSdMl }, coolant }: RunState): Verdict {
  if (insideMl === null || insideMl < 1) return { verdict: 'inside', earned: false, because: insideMl === null ? 'unknown' : 'empty' };
  return { verdict: 'inside', earned: true, ml: insideMl, sdMl: insideSdMl, product: coolant?.productName ?? null };
}

function cooler({ service }: Procedure, { befores, baselines }: RunState): Verdict {
  const last = baselines.at(-1)?.value;
  if (!last) return { verdict: 'cooler', earned: false, because: 'not-measured' };
  const [pair] = pairsOf(
    befores.map(({ value }) => value),
    baselines.map(({ value }) => value),
  );
  // a build has nothing to be compared with yet, but for its old cooler: what it is measured at stands for the next one
  if (!service && !pair) return { verdict: 'cooler', earned: true, than: 'room', kelvin: normaliseBaseline(last).aboveRoomK };
  if (!pair) return { verdict: 'cooler', earned: false, because: befores.length === 0 ? 'not-measured' : 'not-comparable' };
  const { changeK, verdict } = compareBaselines(pair.before, pair.after);
  if (changeK === null) return { verdict: 'cooler', earned: false, because: 'not-comparable' };
  if (verdict === 'as-before') return { verdict: 'cooler', earned: false, because: 'as-before' };
  return changeK < 0
    ? { verdict: 'cooler', earned: true, than: 'before', kelvin: -changeK }
    : { verdict: 'cooler', earned: false, because: 'warmer' };
}
