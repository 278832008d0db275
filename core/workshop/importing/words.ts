import type { CoolantClass } from '../../machine/liquids/classes.js';
import { SERVICE_KIND_KEYS, type ServiceKind } from '../job-kinds/kinds.js';

/** Words of a workshop's own table that this workshop's book has codes for: names of coolants, what was done. */

/** Compared without case and without doubled spaces. */
export const plainWord = (text: string): string =>
  text
    .trim()
    .toLowerCase()
    .replace(/[\s_]+/gu, ' ');

/** What a coolant's name in a table means here. */
export type CoolantUse =
  | { readonly use: 'known'; readonly productId: string }
  /** is made with the import: its class decides how long it may stay until somebody types its sheet */
  | { readonly use: 'make'; readonly coolantClass: CoolantClass }
  /** mixes with nothing */
  | { readonly use: 'unknown' };

export interface CoolantWord {
  readonly name: string;
  readonly as: CoolantUse;
}

const CLASS_WORDS: readonly (readonly [RegExp, CoolantClass])[] = [
  [/pearl|metallic|show|perl|glitter/iu, 'show'],
  [/opaque|pastel|solid|milk|deckend/iu, 'opaque'],
  [/dist|demin|deion|water|wasser|biocide|silver/iu, 'biocide'],
];
/** A first guess from the name; clear with inhibitor where it says nothing, the most usual kind. */
export const guessClass = (name: string): CoolantClass => CLASS_WORDS.find(([word]) => word.test(name))?.[1] ?? 'clear';

/** Words by which a table says that nobody knows. */
const NOBODY_KNOWS = /^(?:\?+|-+|unknown|unbekannt|not known|n\/?a|k\.?\s?a\.?|none|keine)$/iu;
/** A first guess of what a name that the shelf does not know means. */
export const guessUse = (name: string): CoolantUse =>
  NOBODY_KNOWS.test(name.trim()) ? { use: 'unknown' } : { use: 'make', coolantClass: guessClass(name) };

/** What the name of a coolant says of its colour, for drawings until somebody sets it. Order: the more particular first. */
const COLOUR_WORDS: readonly (readonly [RegExp, string])[] = [
  [/violet|purple|lila|violett/iu, '#7d5ba6'],
  [/orange/iu, '#e08a3c'],
  [/yellow|gelb|amber/iu, '#d9b84a'],
  [/green|grün|mint|fern|moss/iu, '#5f9e6e'],
  [/blue|blau|sea|sky/iu, '#4f86b8'],
  [/red|rot|ruby|cherry/iu, '#b5524a'],
  [/pink|rose/iu, '#d78aa6'],
  [/white|weiß|weiss|milk/iu, '#e8e6df'],
  [/black|schwarz/iu, '#3d4247'],
];
const NO_COLOUR = '#c3d0d3';
export const guessColour = (name: string): string => COLOUR_WORDS.find(([word]) => word.test(name))?.[1] ?? NO_COLOUR;

/** mL of a bottle whose size nobody gave: the usual one. */
export const USUAL_BOTTLE_ML = 1000;

/** What may stand in a history: services, and the first fill. */
export type HistoryKind = ServiceKind | 'commissioning';
export const HISTORY_KINDS: readonly HistoryKind[] = ['commissioning', ...SERVICE_KIND_KEYS];

export interface KindWord {
  readonly word: string;
  readonly kind: HistoryKind;
}

const KIND_WORDS: readonly (readonly [RegExp, HistoryKind])[] = [
  [/dust|staub|paste|fan\b|lüfter/iu, 'closed-loop'],
  [/top.?up|topped|nachgef|nachfüll/iu, 'top-up'],
  [/leak|undicht|leck|drip|tropf/iu, 'leak-repair'],
  [/strip|deep clean|full clean|zerleg|sediment|grundreinig/iu, 'strip-clean'],
  [/flush|rinse|spül/iu, 'flush-refill'],
  [/built|build|first fill|commission|new loop|neubau|aufbau|erstbef/iu, 'commissioning'],
  [/replac|swap|exchang|new pump|new block|new card|tausch|ersetz|umbau|upgrade/iu, 'part-replacement'],
  [/drain|refill|coolant|change|fill|wechsel|befüll|flüssig/iu, 'drain-refill'],
  [/clean|reinig/iu, 'strip-clean'],
];
/**
 * A first guess of what was done.
 * @param withCoolant the rows name a coolant: something went in
 */
export const guessKind = (word: string, withCoolant: boolean): HistoryKind =>
  KIND_WORDS.find(([each]) => each.test(word))?.[1] ?? (withCoolant ? 'drain-refill' : 'closed-loop');

/** Distinct words of a column in order of first appearance, with how many rows have each. */
export function distinctWords(cells: readonly string[]): { word: string; rows: number }[] {
  const found = new Map<string, { word: string; rows: number }>();
  for (const cell of cells) {
    const key = plainWord(cell);
    if (key === '') continue;
    const own = found.get(key);
    if (own) own.rows += 1;
    else found.set(key, { word: cell.trim(), rows: 1 });
  }
  return [...found.values()];
}
