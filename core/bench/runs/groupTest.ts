import { judgeDecay, isPumpedUp, type DecayReading, type DecayResult } from '../../physics/leak-testing/decay.js';
import { LEAK_LIMITS } from '../../physics/leak-testing/defaults.js';
import { tubesByHand, type LoopFile } from '../../machine/loop-file/loopFile.js';
import { loopVolume } from '../../machine/loop-file/volume.js';
import type { Procedure } from './procedure.js';
import type { RunState } from './state.js';

/** mL of hose and gauge between a hand pump and what it is on: of a small group a part that counts (workshop practice, an estimate) */
export const HOSE_ML = 30;

/** What a group of parts holds with the tubes between them. */
export function groupVolumeMl(loop: LoopFile, parts: readonly string[]): number {
  const inside = new Set(parts);
  for (const { id, from, to } of tubesByHand(loop)) if (inside.has(from[0]) && inside.has(to[0])) inside.add(id);
  return loopVolume(loop).parts.reduce((sum, { id, volumeMl }) => sum + (inside.has(id) ? volumeMl : 0), 0);
}

const keyOf = (parts: readonly string[]): string => [...parts].sort().join(' ');

/** Readings of one group since it was pumped up last, in s from the first of them. */
export function groupReadings(state: Pick<RunState, 'groupReadings'>, parts: readonly string[]): DecayReading[] {
  const own = state.groupReadings.filter(({ value }) => keyOf(value.parts) === keyOf(parts));
  const all = own.map(({ at, value }): DecayReading => ({ tS: Date.parse(at) / 1000, gaugeKpa: value.gaugeKpa, tempC: value.tempC }));
  const since = all.reduce((from, reading, index) => (index > 0 && isPumpedUp(all[index - 1] as DecayReading, reading) ? index : from), 0);
  const last = all.slice(since);
  return last.map((reading) => ({ ...reading, tS: reading.tS - (last[0]?.tS ?? 0) }));
}

/** Its air test as it stands, by the same judge as the loop's; null before the first reading, or where the run keeps no loop. */
export function judgeGroup(procedure: Procedure, state: Pick<RunState, 'groupReadings'>, parts: readonly string[]): DecayResult | null {
  const readings = groupReadings(state, parts);
  if (!procedure.twin || readings.length === 0) return null;
  return judgeDecay({
    volumeMl: groupVolumeMl(procedure.twin.loop, parts) + HOSE_ML,
    readings,
    resolutionKpa: procedure.schools.gaugeResolutionKpa,
    limitMbarLs: procedure.dry?.limitMbarLs ?? LEAK_LIMITS.screen.mbarLs,
  });
}
