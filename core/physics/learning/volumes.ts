import { jugSdMl } from '../measuring/errors.js';
import { findCataloguePart } from '../../machine/catalogue/parts.js';
import { prepareSparse } from '../../base/numerics/sparse.js';
import type { LoopFile } from '../../machine/loop-file/loopFile.js';
import { reservoirMarks } from '../../machine/loop-file/marks.js';
import { COMPONENT_SD_SHARE, componentSdMl, loopVolume, type Volume } from '../../machine/loop-file/volume.js';

export const LEARNING = {
  /** share of a volume by which two pieces of one catalogue item differ (general estimate) */
  pieceSpread: 0.05,
  /** mL; gas that is still in the loop when a fill is signed off */
  gasLeftMl: 8,
  /** standard deviations of a difference beyond which a fill says that something is wrong, not what a part holds */
  mostSurprise: 3,
} as const;

/** A signed-off first fill: the loop as built and what went in. */
export interface ObservedFill {
  readonly loop: LoopFile;
  readonly pouredMl: number;
}

export interface LearnedItem {
  /** catalogue key */
  readonly key: string;
  readonly label: string;
  readonly prior: Volume;
  readonly learned: Volume;
  /** fills that hold the item */
  readonly fills: number;
}

/** mL² of what jug and remaining gas leave unknown about a poured total. */
const pouredVariance = (pouredMl: number): number => jugSdMl(pouredMl) ** 2 + LEARNING.gasLeftMl ** 2;

/** mL of gas over a reservoir's fill mark: counted in the loop's volume, not poured. */
function cushionMl(loop: LoopFile): number {
  return loop.components
    .filter(({ kind }) => kind === 'reservoir')
    .reduce((sum, reservoir) => sum + reservoir.volume_ml - reservoirMarks(reservoir).fillMarkMl, 0);
}

/**
 * What one poured total says about each part of its loop (linear-Gaussian update with a vector of ones): every part
 * takes the share kᵢ = σᵢ²/(Σσ² + r²) of the difference, and its own variance shrinks by as much.
 * @returns volumes in the order of `loopVolume(loop).parts`
 */
export function learnFromFill(loop: LoopFile, pouredMl: number): Volume[] {
  const { parts, volumeMl } = loopVolume(loop);
  const variance = parts.reduce((sum, { sdMl }) => sum + sdMl ** 2, 0) + pouredVariance(pouredMl);
  const missing = pouredMl + cushionMl(loop) - volumeMl;
  return parts.map(({ volumeMl: ml, sdMl }) => {
    const gain = variance > 0 ? sdMl ** 2 / variance : 0;
    return { volumeMl: ml + gain * missing, sdMl: sdMl * Math.sqrt(Math.max(0, 1 - gain)) };
  });
}

/**
 * The loop with what its own first fill told of its parts; each keeps what was thought before. A total that the plan cannot
 * explain (a leak, another radiator) teaches nothing: the loop comes back as it is.
 */
export function withOwnFill(loop: LoopFile, pouredMl: number): LoopFile {
  const { sdMl, volumeMl } = loopVolume(loop);
  const surprise = Math.abs(pouredMl + cushionMl(loop) - volumeMl) / Math.sqrt(sdMl ** 2 + pouredVariance(pouredMl));
  if (pouredMl <= 0 || surprise > LEARNING.mostSurprise) return loop;
  const learned = learnFromFill(loop, pouredMl);
  return {
    ...loop,
    components: loop.components.map((part, index) => {
      const { volumeMl: ml, sdMl: sd } = learned[index] as Volume;
      const before = part.learned ?? { prior_ml: part.volume_ml, prior_sd_ml: componentSdMl(part), fills: 0 };
      if (before.prior_sd_ml === 0) return part;
      // a reservoir cannot hold less than its marks say
      const volume_ml = Math.max(part.max_fill_ml ?? 0, Math.round(ml * 10) / 10);
      return { ...part, volume_ml, volume_sd_ml: Math.round(sd * 10) / 10, learned: { ...before, fills: before.fills + 1 } };
    }),
  };
}

/** The loop as it was thought to be before its own fills: the same fill must not be counted twice. */
const beforeOwnFills = (loop: LoopFile): LoopFile => ({
  ...loop,
  components: loop.components.map((part) =>
    part.learned ? { ...part, volume_ml: part.learned.prior_ml, volume_sd_ml: part.learned.prior_sd_ml } : part,
  ),
});

/** A fill as one equation: counts of catalogue items, and what the rest of the loop leaves for them. */
interface Equation {
  readonly counts: ReadonlyMap<string, number>;
  readonly restMl: number;
  readonly variance: number;
}

function equationOf({ loop: filled, pouredMl }: ObservedFill): Equation {
  const loop = beforeOwnFills(filled);
  const { parts } = loopVolume(loop);
  const counts = new Map<string, number>();
  let restMl = pouredMl + cushionMl(loop);
  let variance = pouredVariance(pouredMl);
  parts.forEach(({ volumeMl, sdMl }, index) => {
    const key = loop.components[index]?.catalogue;
    if (key !== undefined && findCataloguePart(key)) {
      counts.set(key, (counts.get(key) ?? 0) + 1);
      variance += (LEARNING.pieceSpread * volumeMl) ** 2;
    } else {
      restMl -= volumeMl;
      variance += sdMl ** 2;
    }
  });
  return { counts, restMl, variance };
}

function priorOf(key: string): Volume {
  const part = findCataloguePart(key);
  const volumeMl = part?.volumeMl ?? 0;
  return { volumeMl, sdMl: part?.fixed.volume_sd_ml ?? COMPONENT_SD_SHARE * volumeMl };
}

/**
 * The volume of every catalogue item from all fills that contain it, together: normal equations
 * (diag(1/σ²) + Σ n·nᵀ/r²)·x = μ/σ² + Σ n·y/r² with the catalogue's estimates as priors.
 * @returns items that at least one fill holds, most fills first
 */
export function learnCatalogue(fills: readonly ObservedFill[]): LearnedItem[] {
  const equations = fills.map(equationOf).filter(({ counts }) => counts.size > 0);
  const keys = [...new Set(equations.flatMap(({ counts }) => [...counts.keys()]))];
  const priors = keys.map(priorOf);
  const index = new Map(keys.map((key, at) => [key, at]));
  const pairs = keys.flatMap((_, a) => keys.slice(a + 1).map((__, b) => [a, a + 1 + b] as const));
  const matrix = prepareSparse(keys.length, pairs);
  matrix.values.fill(0);
  const right = new Float64Array(keys.length);
  priors.forEach(({ volumeMl, sdMl }, at) => {
    matrix.values[matrix.diagonal[at] as number] = 1 / sdMl ** 2;
    right[at] = volumeMl / sdMl ** 2;
  });
  const pairAt = new Map(pairs.map(([a, b], at) => [`${a} ${b}`, at]));
  for (const { counts, restMl, variance } of equations) {
    const held = [...counts].map(([key, count]) => [index.get(key) as number, count] as const);
    for (const [a, countA] of held) {
      right[a] = (right[a] as number) + (countA * restMl) / variance;
      for (const [b, countB] of held) {
        if (b < a) continue;
        const place = a === b ? (matrix.diagonal[a] as number) : (matrix.edge[pairAt.get(`${a} ${b}`) as number] as number);
        matrix.values[place] = (matrix.values[place] as number) + (countA * countB) / variance;
      }
    }
  }
  if (keys.length > 0 && !matrix.factor()) return [];
  matrix.solve(right);
  return keys
    .map((key, at): LearnedItem => {
      const unit = new Float64Array(keys.length);
      unit[at] = 1;
      matrix.solve(unit);
      return {
        key,
        label: findCataloguePart(key)?.label ?? key,
        prior: priors[at] as Volume,
        learned: { volumeMl: right[at] as number, sdMl: Math.sqrt(unit[at] as number) },
        fills: equations.filter(({ counts }) => counts.has(key)).length,
      };
    })
    .sort((a, b) => b.fills - a.fills || a.label.localeCompare(b.label));
}
