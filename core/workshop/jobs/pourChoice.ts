import { isMetal, type Metal } from '../../machine/materials/metals.js';
import { shortName } from '../../machine/catalogue/names.js';
import type { LoopFile } from '../../machine/loop-file/loopFile.js';
import type { MixVerdict } from '../../machine/liquids/mixing.js';
import type { DateReason } from '../due-dates/facts.js';

/** A coolant of the shelf, as what could be poured into one loop. */
export interface PourOption {
  readonly productId: string;
  readonly name: string;
  readonly colour: string;
  readonly verdict: MixVerdict;
  readonly reason: string;
  /** metals of this loop that its sheet does not name, with a part that has it; empty: none, or its sheet names no metals */
  readonly unsuited: readonly { readonly metal: Metal; readonly part: string }[];
  /** rinses between, by what the drain leaves; null: nobody can tell what stays inside */
  readonly rinses: number | null;
  /** when it would have to come out again, counted from today */
  readonly firstDueOn: string;
  readonly dueReason: DateReason;
  readonly estimated: boolean;
  /** coolant of a year, minor units; null: it has no price */
  readonly yearMinor: number | null;
}

export interface PourChoice {
  /** mL inside now, and what stays each time it is let out; null: nobody knows */
  readonly insideMl: number | null;
  readonly leftMl: number | null;
  readonly options: readonly PourOption[];
}

/** A coolant among what could be poured; null: nobody said which, or the shelf is not known yet. */
export const pourOf = (choice: PourChoice | null, id: string | null): PourOption | null =>
  choice?.options.find(({ productId }) => productId === id) ?? null;

/** rinses that a flush counts in its hours, and min of attendance that each one more costs (workshop practice) */
const RINSES_WITHIN = 2;
const RINSE_MIN = 12;
/** min that rinses add to a job as it is usually told. @param counted its hours hold those of a flush already */
export const rinseMinutes = (rinses: number | null, counted: boolean): number =>
  Math.max(0, (rinses ?? 0) - (counted ? RINSES_WITHIN : 0)) * RINSE_MIN;

/** What a year of a coolant costs: a fill of it, as often as its date comes. */
export const yearOf = (fillMinor: number, daysToDue: number): number => Math.round((fillMinor * 365) / Math.max(1, daysToDue));

/** Metals of a loop that a coolant's sheet does not name, each once. @param suits what its sheet names; null: it names none */
export function unsuitedMetals({ components }: Pick<LoopFile, 'components'>, suits: readonly Metal[] | null): PourOption['unsuited'] {
  if (suits === null) return [];
  const found = new Map<Metal, string>();
  for (const part of components)
    for (const material of part.materials ?? [])
      if (isMetal(material) && !suits.includes(material) && !found.has(material)) found.set(material, shortName(part));
  return [...found].map(([metal, part]) => ({ metal, part }));
}
