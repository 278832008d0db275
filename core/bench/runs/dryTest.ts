import { remembering } from '../../base/numerics/remember.js';
import { judgeDecay, type DecayResult } from '../../physics/leak-testing/decay.js';
import { LET_OUT_KPA } from '../../physics/leak-testing/defaults.js';
import { AIR_OUT } from './checkIds.js';
import { liquidAtDryTest } from './contents.js';
import { stepOf, stepOfKind, type Procedure } from './procedure.js';
import { dryReadings, type Remark, type RunState } from './state.js';

/** of the benches that are looked at, each with its last readings */
const judged = remembering(judgeDecay, 24);

/** The dry test as it stands, or null before the first reading. */
export function judgeDryTest(procedure: Procedure, state: RunState): DecayResult | null {
  const readings = dryReadings(state);
  if (!procedure.dry || readings.length === 0) return null;
  return judged({
    volumeMl: procedure.volume.volumeMl,
    readings,
    resolutionKpa: procedure.schools.gaugeResolutionKpa,
    limitMbarLs: procedure.dry.limitMbarLs,
    liquidMl: Math.min(0.95 * procedure.volume.volumeMl, liquidAtDryTest(state)),
  });
}

/** Whether an air test that began after an instant was passed. */
export function isAirTight(procedure: Procedure, state: RunState, sinceIso: string): boolean {
  const firstMs = Math.min(...state.dryReadings.map(({ at }) => Date.parse(at)));
  return Number.isFinite(firstMs) && firstMs > Date.parse(sinceIso) && judgeDryTest(procedure, state)?.verdict === 'pass';
}

/** kPa of the air test that still stand inside, as last read, also of a test that was begun anew since; null: none. */
export function airInsideKpa(procedure: Procedure, state: RunState): number | null {
  const gaugeKpa = state.dryReadings.at(-1)?.value.gaugeKpa ?? state.airLeftKpa;
  const step = stepOfKind(procedure, 'dry-test');
  const progress = state.steps.find(({ id }) => id === step?.id);
  const knows = step?.checks.some(({ id }) => id === AIR_OUT) === true;
  if (!knows || gaugeKpa === null || gaugeKpa <= LET_OUT_KPA || progress?.status !== 'current') return null;
  return progress.checks[AIR_OUT]?.mark === 'done' ? null : gaugeKpa;
}

/** What was read before belongs to another test; what that came to is kept, and so is the air that still stands inside. */
export function beginDryTest(procedure: Procedure, state: RunState, note: Remark, { airIsOut = false } = {}): void {
  const judged = judgeDryTest(procedure, state);
  state.airLeftKpa = airIsOut ? null : airInsideKpa(procedure, state);
  state.pastDryTests = [
    ...state.pastDryTests,
    { testNumber: state.dryTestNumber, verdict: judged?.verdict ?? 'not-yet', leakMbarLs: judged?.tail ? judged.leakMbarLs : null, readings: state.dryReadings.length, ended: note.text }, // prettier-ignore
  ];
  // a new list: the old one stays with the checkpoints that hold it
  state.dryReadings = [];
  state.dryTestNumber += 1;
  const progress = state.steps.find(({ kind }) => kind === 'dry-test');
  if (!progress) return;
  progress.notes.push(note);
  // what belongs behind the verdict, such as letting the air out, is to be done again behind this one
  for (const { id, after } of stepOf(procedure, progress.id)?.checks ?? [])
    if (after === 'verdict') Reflect.deleteProperty(progress.checks, id);
}
