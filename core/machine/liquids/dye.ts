import Joi from 'joi';
import { say } from '../../base/words/say.js';

/** Dye that went into a loop: it hides what a coolant's own colour tells. */
export interface Dye {
  /** as its bottle calls it */
  readonly name: string;
  readonly drops: number;
}

export const dyeFields = {
  name: Joi.string().trim().min(1).max(80).required(),
  drops: Joi.number().integer().min(1).max(2000).required(),
};

/** Drops for a whole loop by what its sheet says of a litre; what is inside already counts with it. */
export const dropsFor = (volumeMl: number, dropsPerL: number): number => Math.max(1, Math.round((volumeMl / 1000) * dropsPerL));

/** One dye a name, with all its drops. */
export function dyesTogether(dyes: readonly Dye[]): Dye[] {
  const drops = new Map<string, number>();
  for (const { name, drops: more } of dyes) drops.set(name, (drops.get(name) ?? 0) + more);
  return [...drops].map(([name, count]) => ({ name, drops: count }));
}

export const dyeWords = (dyes: readonly Dye[]): string =>
  dyesTogether(dyes)
    .map(({ name, drops }) => say('{drops} drops of {name}', { drops, name }))
    .join(', ');
