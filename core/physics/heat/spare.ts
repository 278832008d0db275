import type { FlowResult } from '../flow/flow.js';
import type { LoopFile } from '../../machine/loop-file/loopFile.js';
import { solveHeat, type HeatConditions, type HeatResult } from './steady.js';

/** How much more one part may draw at the speeds of now, all else as it is. */
export interface SpareW {
  readonly id: string;
  /** W until the first limit of the loop is met; negative: so much too much */
  readonly spareW: number;
  /** the part whose limit is met first */
  readonly first: string;
}

/** W by which a load is raised to see how every part follows: temperatures are linear in loads, so the figure itself does not count */
const STEP_W = 100;

/**
 * Watts to spare of every loaded part, one at a time. At given flow and air every temperature is linear in the loads (see `solveHeat`), so
 * two solutions give the limit exactly.
 * @param limitsC by component id; a loop without limits has nothing to spare
 * @param now the loop under these conditions, as it was solved already
 */
export function wattsToSpare(
  loop: LoopFile,
  flow: FlowResult,
  conditions: HeatConditions,
  limitsC: Readonly<Record<string, number>>,
  now: HeatResult,
): SpareW[] {
  // asked at every move of a slider: without a limit nothing is solved
  if (Object.keys(limitsC).length === 0) return [];
  const temperatures = ({ end, parts }: HeatResult): ReadonlyMap<string, number> =>
    new Map(end === 'solved' ? parts.flatMap(({ id, partC }) => (partC === null ? [] : [[id, partC]])) : []);
  const present = temperatures(now);
  return [...present.keys()].flatMap((id): SpareW[] => {
    const loadsW = { ...conditions.loadsW, [id]: (conditions.loadsW[id] ?? 0) + STEP_W };
    const more = temperatures(solveHeat(loop, flow, { ...conditions, loadsW }));
    const met = Object.entries(limitsC).flatMap(([each, limitC]) => {
      const [at, then] = [present.get(each), more.get(each)];
      if (at === undefined || then === undefined) return [];
      const perW = (then - at) / STEP_W;
      return perW > 0 ? [{ id, spareW: (limitC - at) / perW, first: each }] : [];
    });
    const first = met.reduce<SpareW | null>((least, each) => (least === null || each.spareW < least.spareW ? each : least), null);
    return first ? [first] : [];
  });
}
