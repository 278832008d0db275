import { judgeDecay, type DecayInput, type DecayReading } from '../../core/physics/leak-testing/decay.js';
import { LEAK_LIMITS } from '../../core/physics/leak-testing/defaults.js';

/** Air tests made by chance: by the thousand in `./lavacrum bench`, by the hundred in the tests. */

/** Seeded noise, normally distributed. */
function noise(seed: number): () => number {
  let state = seed >>> 0;
  const next = (): number => {
    state = (Math.imul(state, 1_664_525) + 1_013_904_223) >>> 0;
    return (state + 1) / 4_294_967_297;
  };
  return () => Math.sqrt(-2 * Math.log(next())) * Math.cos(2 * Math.PI * next());
}

export interface Loop {
  /** s; how fast it settles */
  tauS?: number;
  /** kPa an hour that the weather moves the gauge */
  weatherKpaPerH?: number;
  leakMbarLs: number;
  minutes: number;
  stepS?: number;
  settleKpa?: number;
  tempDriftK?: number;
  seed?: number;
  resolutionKpa?: number;
  noisy?: boolean;
}

/** kPa that a laminar leak has let out by each reading: it slows as the pressure goes. @param slope kPa/s at the start */
function leakedKpa(slope: number, seconds: number, stepS: number): number[] {
  const [air, first] = [101.325, 151.325];
  const fine = 200;
  let p = first;
  return Array.from({ length: Math.floor(seconds / stepS) + 1 }, (_, index) => {
    for (let n = 0; index > 0 && n < fine; n += 1) p -= ((slope * (p * p - air * air)) / (first * first - air * air)) * (stepS / fine);
    return first - p;
  });
}

/** A loop of 0.7 L at 50 kPa: settling, a leak, a drifting room, a gauge that rounds. */
export function simulate({
  leakMbarLs,
  minutes,
  stepS = 60,
  settleKpa = 0,
  tempDriftK = 0,
  seed = 1,
  resolutionKpa = 0.1,
  noisy = true,
  tauS = 150,
  weatherKpaPerH = 0,
}: Loop): DecayReading[] {
  const random = noise(seed);
  const leaked = leakedKpa(leakMbarLs / 0.7 / 10, minutes * 60, stepS);
  return Array.from({ length: Math.floor((minutes * 60) / stepS) + 1 }, (_, index) => {
    const tS = index * stepS;
    const trueC = 21 + (tempDriftK * tS) / (minutes * 60);
    const settled = 151.325 - (leaked[index] as number) - settleKpa * (1 - Math.exp(-tS / tauS)) + (weatherKpaPerH * tS) / 3600;
    const gauge = (settled * (trueC + 273.15)) / 294.15 - 101.325;
    const read = noisy ? Math.round(gauge / resolutionKpa) * resolutionKpa : gauge;
    return { tS, gaugeKpa: read, tempC: noisy ? trueC + 0.1 * random() : trueC };
  });
}

export const airTest = (readings: readonly DecayReading[], more: Partial<DecayInput> = {}): DecayInput => ({
  volumeMl: 700,
  readings,
  resolutionKpa: 0.1,
  limitMbarLs: LEAK_LIMITS.screen.mbarLs,
  ...more,
});

/** What a technician who looks after every reading is told first: looking often must not make the test wrong more often. */
export const firstVerdict = (leakMbarLs: number, seed: number): string => {
  const readings = simulate({ leakMbarLs, minutes: 60, settleKpa: 1, seed, tempDriftK: 0.3 });
  for (let count = 4; count <= readings.length; count += 3) {
    const { verdict } = judgeDecay(airTest(readings.slice(0, count)));
    if (verdict !== 'not-yet') return verdict;
  }
  return 'not-yet';
};

/**
 * @param times of the limit that the loop leaks
 * @returns share of each verdict over seeds 1 … `seeds`
 */
export function verdictShares(times: number, seeds: number): Record<string, number> {
  const shares: Record<string, number> = { pass: 0, fail: 0, 'not-yet': 0 };
  for (let seed = 1; seed <= seeds; seed += 1) {
    const verdict = firstVerdict(times * LEAK_LIMITS.screen.mbarLs, seed);
    shares[verdict] = (shares[verdict] ?? 0) + 1 / seeds;
  }
  return shares;
}

/** Which verdict is wrong at how many times the limit. */
export const WRONG_VERDICTS = [
  [0, 'fail'],
  [0.3, 'fail'],
  [3, 'pass'],
  [10, 'pass'],
] as const;
