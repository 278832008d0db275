import type { LoopFile } from '../../machine/loop-file/loopFile.js';
import { reservoirMarks } from '../../machine/loop-file/marks.js';
import { componentSdMl, loopVolume, type Volume } from '../../machine/loop-file/volume.js';
import { LEARNING } from './defaults.js';
import { gasPlaces, gasThatStays } from './gasByStand.js';

/** What stood in a loop at its mark at the end of a fill that began dry, by its book: mL with standard deviation. */
export type TaughtFill = Volume;

/** mL of gas over the reservoirs' fill marks: counted in the loop's volume, never poured. */
export const cushionMl = (loop: LoopFile): number =>
  loop.components
    .filter(({ kind }) => kind === 'reservoir')
    .reduce((sum, reservoir) => sum + reservoir.volume_ml - reservoirMarks(reservoir).fillMarkMl, 0);

/** The loop's parts as a fill can teach them: a reservoir is read by its marks, so that what stands in it at one is known. */
function taughtParts(loop: LoopFile): { readonly parts: readonly Volume[]; readonly variance: number } {
  const parts = loopVolume(loop).parts.map((part, index) => (loop.components[index]?.kind === 'reservoir' ? { ...part, sdMl: 0 } : part));
  return { parts, variance: parts.reduce((sum, { sdMl }) => sum + sdMl ** 2, 0) };
}

/** mL by which a fill is above what the sheets say of its loop, with the variance of what the parts do not explain. */
function difference(loop: LoopFile, fill: TaughtFill): { readonly ml: number; readonly variance: number } {
  const gas = gasThatStays(gasPlaces(loop, ({ volume_ml }) => volume_ml));
  return {
    ml: fill.volumeMl + cushionMl(loop) + gas.ml - loopVolume(loop).volumeMl,
    variance: fill.sdMl ** 2 + gas.variance,
  };
}

/**
 * What one fill says about each part of its loop (linear-Gaussian update with a vector of ones): every part takes the share
 * kᵢ = σᵢ²/(Σσ² + r²) of the difference, and its own variance shrinks by as much. r²: the book's own error and the gas that stays.
 * @returns volumes in the order of `loopVolume(loop).parts`
 */
export function learnFromFill(loop: LoopFile, fill: TaughtFill): Volume[] {
  const { parts, variance } = taughtParts(loop);
  const { ml, variance: unexplained } = difference(loop, fill);
  const whole = variance + unexplained;
  return parts.map(({ volumeMl, sdMl }) => {
    const gain = whole > 0 ? sdMl ** 2 / whole : 0;
    return { volumeMl: volumeMl + gain * ml, sdMl: sdMl * Math.sqrt(Math.max(0, 1 - gain)) };
  });
}

/**
 * The loop with what its own first fill told of its parts; each keeps what was thought before. A fill that the plan cannot
 * explain (a leak, another radiator) teaches nothing: the loop comes back as it is.
 */
export function withOwnFill(loop: LoopFile, fill: TaughtFill): LoopFile {
  const { ml, variance } = difference(loop, fill);
  const surprise = Math.abs(ml) / Math.sqrt(taughtParts(loop).variance + variance);
  if (fill.volumeMl <= 0 || surprise > LEARNING.mostSurprise) return loop;
  const learned = learnFromFill(loop, fill);
  return {
    ...loop,
    components: loop.components.map((part, index) => {
      const { volumeMl, sdMl } = learned[index] as Volume;
      const before = part.learned ?? { prior_ml: part.volume_ml, prior_sd_ml: componentSdMl(part), fills: 0 };
      if (before.prior_sd_ml === 0 || part.kind === 'reservoir') return part;
      return {
        ...part,
        volume_ml: Math.round(volumeMl * 10) / 10,
        volume_sd_ml: Math.round(sdMl * 10) / 10,
        learned: { ...before, fills: before.fills + 1 },
      };
    }),
  };
}

/** The loop as it was thought to be before its own fills: the same fill must not be counted twice. */
export const beforeOwnFills = (loop: LoopFile): LoopFile => ({
  ...loop,
  components: loop.components.map((part) =>
    part.learned ? { ...part, volume_ml: part.learned.prior_ml, volume_sd_ml: part.learned.prior_sd_ml } : part,
  ),
});
