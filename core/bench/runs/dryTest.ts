import { remembering } from '../../base/numerics/remember.js';
import { judgeDecay, type DecayResult } from '../../physics/leak-testing/decay.js';
import { liquidAtDryTest } from './contents.js';
import type { Procedure } from './procedure.js';
import { dryReadings, type RunState } from './state.js';

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
