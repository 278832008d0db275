import type { Fluid } from '../core/machine/liquids/fluids.js';
import type { LoopFile } from '../core/machine/loop-file/loopFile.js';
import { TWINS, type HeatCause } from '../core/physics/diagnosis/causes.js';
import { diagnose } from '../core/physics/diagnosis/diagnose.js';
import { hiddenFaults } from '../core/physics/diagnosis/generatedFaults.js';

/** How often `diagnose` is right on machines whose fault is known, and whether it is as sure as it is right. */
export interface DiagnosisFigures {
  readonly machines: number;
  readonly first: number;
  readonly firstThree: number;
  /** what it said of its first, on average */
  readonly claimed: number;
  /** largest gap between what was said and what was true, over tenths of probability with at least so many cases */
  readonly worstGap: number;
  readonly msEach: number;
}

/** cases in a tenth of probability from which it counts */
const LEAST_IN_BIN = 200;

/** @param withFlow coolant and flow were measured; else parts alone */
export function diagnosisFigures(loop: LoopFile, fluid: Fluid, machines: number, withFlow: boolean): DiagnosisFigures {
  const faults = hiddenFaults(loop, fluid, machines, 1, withFlow);
  // no figure separates these, and nothing was seen
  const one = (cause: HeatCause): HeatCause => TWINS.find(([, other]) => other === cause)?.[0] ?? cause;
  const bins = Array.from({ length: 10 }, () => ({ cases: 0, said: 0, right: 0 }));
  let [first, firstThree, claimed] = [0, 0, 0];
  const start = performance.now();
  for (const { cause, before, after } of faults) {
    const sums = new Map<HeatCause, number>();
    for (const each of diagnose(loop, fluid, before, after)?.causes ?? [])
      sums.set(one(each.cause), (sums.get(one(each.cause)) ?? 0) + each.probability);
    const ranked = [...sums].sort((a, b) => b[1] - a[1]);
    claimed += ranked[0]?.[1] ?? 0;
    if (ranked[0]?.[0] === one(cause)) first += 1;
    if (ranked.slice(0, 3).some(([each]) => each === one(cause))) firstThree += 1;
    for (const [each, probability] of ranked) {
      const bin = bins[Math.min(9, Math.floor(10 * probability))] as (typeof bins)[number];
      bin.cases += 1;
      bin.said += probability;
      if (each === one(cause)) bin.right += 1;
    }
  }
  const gaps = bins.filter(({ cases }) => cases >= LEAST_IN_BIN).map(({ cases, said, right }) => Math.abs(said - right) / cases);
  return {
    machines,
    first: first / machines,
    firstThree: firstThree / machines,
    claimed: claimed / machines,
    worstGap: Math.max(0, ...gaps),
    msEach: (performance.now() - start) / machines,
  };
}
