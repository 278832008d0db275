import { findCataloguePart, type CataloguePart } from '../../machine/catalogue/parts.js';
import type { LoopFile } from '../../machine/loop-file/loopFile.js';
import { COMPONENT_SD_SHARE, loopVolume, type Volume } from '../../machine/loop-file/volume.js';
import { LEARNING, type Guess } from './defaults.js';
import { gasGuess, gasPlaces, type GasPlace } from './gasByStand.js';
import { fitJointly, type Equation, type JointFit } from './jointFit.js';
import { beforeOwnFills, cushionMl, type TaughtFill } from './ownLoop.js';

/** A signed-off fill that began dry and whose end level was read. */
export interface ObservedFill {
  readonly id: string;
  readonly loop: LoopFile;
  readonly fill: TaughtFill;
  /** what the lead said of a fill that surprises; null: nothing yet */
  readonly verdict: 'counts' | 'left-out' | null;
}

export interface LearnedItem {
  /** catalogue key */
  readonly key: string;
  readonly label: string;
  readonly prior: Volume;
  readonly learned: Volume;
  /** fills that hold the item, of those that teach */
  readonly fills: number;
}

/** What is known of the gas that stays: a share of the radiators of one stand, or mL everywhere else. */
export interface LearnedGas {
  readonly place: GasPlace;
  readonly prior: Guess;
  readonly learned: Guess;
}

/** A fill that says that something is wrong, not what a part holds. */
export interface SurprisingFill {
  readonly id: string;
  /** mL more than all the others would have it, below nothing: less; standard deviations of it */
  readonly byMl: number;
  readonly sds: number;
  readonly verdict: ObservedFill['verdict'];
}

export interface LearnedCatalogue {
  readonly items: LearnedItem[];
  readonly gas: LearnedGas[];
  readonly surprising: SurprisingFill[];
  /** factor by which the sheets are further off than was thought; 1: they are not */
  readonly wider: number;
  /** fills that taught */
  readonly fills: number;
}

const NOTHING: LearnedCatalogue = { items: [], gas: [], surprising: [], wider: 1, fills: 0 };

function priorOf(part: CataloguePart): Guess {
  return { mean: part.volumeMl, sd: part.fixed.volume_sd_ml ?? COMPONENT_SD_SHARE * part.volumeMl };
}

type Unknown = { readonly part: CataloguePart } | { readonly place: GasPlace } | { readonly sheets: true };

/** What a fill holds of each unknown, by its key, and what the rest of its loop leaves for them. */
interface Holding {
  readonly fill: ObservedFill;
  readonly weights: ReadonlyMap<string, number>;
  readonly value: number;
  readonly variance: number;
}

const SHEETS = 'sheets';

function holdingOf(fill: ObservedFill, unknowns: Map<string, Unknown>): Holding {
  const loop = beforeOwnFills(fill.loop);
  const { parts } = loopVolume(loop);
  const weights = new Map<string, number>();
  const count = (key: string, by: number, unknown: Unknown): void => {
    weights.set(key, (weights.get(key) ?? 0) + by);
    unknowns.set(key, unknown);
  };
  let value = fill.fill.volumeMl + cushionMl(loop);
  let variance = fill.fill.sdMl ** 2 + LEARNING.gasSpreadMl ** 2;
  parts.forEach(({ volumeMl, sdMl }, index) => {
    const part = findCataloguePart(loop.components[index]?.catalogue ?? '');
    // a reservoir is read by its marks: what stands in it at one is known
    if (part && part.kind !== 'reservoir' && priorOf(part).sd > 0) {
      count(part.key, 1, { part });
      count(SHEETS, part.volumeMl, { sheets: true });
      variance += (LEARNING.pieceSpread * volumeMl) ** 2;
    } else {
      value -= volumeMl;
      if (loop.components[index]?.kind !== 'reservoir') variance += sdMl ** 2;
    }
  });
  for (const [place, weight] of gasPlaces(loop, ({ volume_ml }) => volume_ml)) count(`gas ${place}`, -weight, { place });
  return { fill, weights, value, variance };
}

/** Unknowns in a fixed order, with what was thought of them, and the fills as equations. */
class Model {
  readonly unknowns: Unknown[];
  readonly index: Map<string, number>;
  private readonly holdings: readonly Holding[];

  constructor(fills: readonly ObservedFill[]) {
    const unknowns = new Map<string, Unknown>();
    this.holdings = fills.map((fill) => holdingOf(fill, unknowns)).filter(({ weights }) => weights.has(SHEETS));
    this.unknowns = [...unknowns.values()];
    this.index = new Map([...unknowns.keys()].map((key, at) => [key, at]));
  }

  get fills(): readonly ObservedFill[] {
    return this.holdings.map(({ fill }) => fill);
  }

  /** some of them, in the order of their equations */
  among(ids: ReadonlySet<string>): ObservedFill[] {
    return this.fills.filter(({ id }) => ids.has(id));
  }

  holds(id: string, part: CataloguePart): boolean {
    return this.holdings.some(({ fill, weights }) => fill.id === id && weights.has(part.key));
  }

  /** @param wider factor on the spread of every sheet */
  fit(ids: ReadonlySet<string>, wider: number): JointFit | null {
    const guesses = this.unknowns.map((unknown): Guess => {
      if ('place' in unknown) return gasGuess(unknown.place);
      if ('sheets' in unknown) return { mean: 0, sd: wider * LEARNING.sheetsSd };
      const { mean, sd } = priorOf(unknown.part);
      return { mean, sd: sd * wider };
    });
    return fitJointly(guesses, this.equations(ids));
  }

  /** as a weighted sum of the unknowns */
  volumeOf(part: CataloguePart): Equation['weights'] {
    return [
      [this.index.get(part.key) as number, 1],
      [this.index.get(SHEETS) as number, part.volumeMl],
    ];
  }

  equations(ids: ReadonlySet<string>): Equation[] {
    return this.holdings
      .filter(({ fill }) => ids.has(fill.id))
      .map(({ weights, value, variance }) => ({
        weights: [...weights].map(([key, weight]) => [this.index.get(key) as number, weight] as const),
        value,
        variance,
      }));
  }
}

const worstOf = (surprises: readonly number[]): number =>
  surprises.reduce((so, each, at) => (Math.abs(each) > Math.abs(surprises[so] ?? 0) ? at : so), 0);

/** What is known after some fills: an average over how far the sheets may be off, each by how likely the fills make it. */
class Posterior {
  private constructor(
    private readonly fits: readonly { readonly fit: JointFit; readonly wider: number; readonly share: number }[],
    /** number of equations */
    private readonly size: number,
  ) {}

  static after(model: Model, ids: ReadonlySet<string>): Posterior | null {
    const factors = ids.size < LEARNING.wholeFromFills ? [1] : LEARNING.widenBy;
    const fits = factors.flatMap((wider) => {
      const fit = model.fit(ids, wider);
      return fit ? [{ fit, wider, log: fit.logLikelihood - 0.5 * (Math.log(wider) / LEARNING.widerSd) ** 2 }] : [];
    });
    if (fits.length === 0) return null;
    const top = Math.max(...fits.map(({ log }) => log));
    const sum = fits.reduce((so, { log }) => so + Math.exp(log - top), 0);
    return new Posterior(
      fits.map(({ fit, wider, log }) => ({ fit, wider, share: Math.exp(log - top) / sum })),
      ids.size,
    );
  }

  /** a weighted sum of the unknowns */
  sumOf(weights: Equation['weights']): Guess {
    const guesses = this.fits.map(({ fit, share }) => ({ ...fit.sumOf(weights), share }));
    const mean = guesses.reduce((so, each) => so + each.share * each.mean, 0);
    return { mean, sd: Math.sqrt(guesses.reduce((so, each) => so + each.share * (each.sd ** 2 + (each.mean - mean) ** 2), 0)) };
  }

  /** by fill: standard deviations between it and what the others say of it */
  surprises(): number[] {
    const each = this.fits.map(({ fit, share }) => fit.surprises().map((sds) => share * sds));
    return Array.from({ length: this.size }, (_, at) => each.reduce((so, sds) => so + (sds[at] as number), 0));
  }

  /** factor by which the sheets are off more than was thought */
  get wider(): number {
    return this.fits.reduce((so, { wider, share }) => so + share * wider, 0);
  }
}

/**
 * The volume of every catalogue item, and the gas that stays, from all fills together. Each fill is tested against what
 * the others say of it: one that is further off than three standard deviations is asked about, not learned. Where the
 * fills as a whole are too far from the sheets, the sheets count as further off than was thought.
 * @returns items that at least one teaching fill holds, most fills first
 */
export function learnCatalogue(observed: readonly ObservedFill[]): LearnedCatalogue {
  const model = new Model(observed);
  const { fills } = model;
  if (fills.length === 0) return NOTHING;
  const teaching = new Set(fills.filter(({ verdict }) => verdict !== 'left-out').map(({ id }) => id));
  const surprising = new Map<string, ObservedFill['verdict']>(
    fills.filter(({ verdict }) => verdict === 'left-out').map(({ id, verdict }) => [id, verdict]),
  );
  for (;;) {
    const known = Posterior.after(model, teaching);
    if (!known) return NOTHING;
    const kept = model.among(teaching);
    // what the lead lets count is not asked about again
    const surprises = known.surprises().map((sds, at) => (kept[at]?.verdict === null ? sds : 0));
    const worst = worstOf(surprises);
    if (Math.abs(surprises[worst] ?? 0) <= LEARNING.mostSurprise) return told(model, teaching, known, surprising);
    const { id } = kept[worst] as ObservedFill;
    teaching.delete(id);
    surprising.set(id, null);
  }
}

function told(
  model: Model,
  teaching: ReadonlySet<string>,
  known: Posterior,
  surprising: ReadonlyMap<string, ObservedFill['verdict']>,
): LearnedCatalogue {
  const items: LearnedItem[] = [];
  const gas: LearnedGas[] = [];
  model.unknowns.forEach((unknown, at) => {
    if ('place' in unknown) gas.push({ place: unknown.place, prior: gasGuess(unknown.place), learned: known.sumOf([[at, 1]]) });
    else if ('part' in unknown) {
      const { part } = unknown;
      const prior = priorOf(part);
      const learned = known.sumOf(model.volumeOf(part));
      const count = [...teaching].filter((id) => model.holds(id, part)).length;
      if (count > 0)
        items.push({
          key: part.key,
          label: part.label,
          prior: { volumeMl: prior.mean, sdMl: prior.sd },
          learned: { volumeMl: learned.mean, sdMl: learned.sd },
          fills: count,
        });
    }
  });
  return {
    items: items.sort((a, b) => b.fills - a.fills || a.label.localeCompare(b.label)),
    gas,
    surprising: [...surprising].map(([id, verdict]) => ({ id, verdict, ...offOf(model, id, known) })),
    wider: known.wider,
    fills: teaching.size,
  };
}

/** How far a fill that does not teach is from what the others say of it. */
function offOf(model: Model, id: string, known: Posterior): Pick<SurprisingFill, 'byMl' | 'sds'> {
  const [equation] = model.equations(new Set([id]));
  if (!equation) return { byMl: 0, sds: 0 };
  const { mean, sd } = known.sumOf(equation.weights);
  const byMl = equation.value - mean;
  return { byMl, sds: byMl / Math.hypot(sd, Math.sqrt(equation.variance)) };
}
