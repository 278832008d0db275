import { reading, type Reading } from '../units/reading.js';
import { catalogueOf, sayText } from './say.js';

/**
 * Says a sentence that was filled in and kept in English in the reader's language: the message that it was made of is found again by the
 * words between its values. What no message fits stays as it was written, a workshop's own words above all.
 */
export function sayAnew(text: string): string {
  const { language } = reading();
  if (language === 'en') return text;
  const whole = sayText(text);
  if (whole !== text) return whole;
  for (const { pattern, names, said } of filled(language).get(firstWord(text)) ?? []) {
    const found = pattern.exec(text);
    if (!found) continue;
    const values = new Map(names.map((name, index) => [name, sayText(found[index + 1] ?? '')]));
    return said.replace(/\{(\w+)\}/g, (place, name: string) => values.get(name) ?? place);
  }
  return text;
}

interface Filled {
  readonly pattern: RegExp;
  /** in the order of the English sentence */
  readonly names: readonly string[];
  readonly said: string;
  readonly literal: number;
}

/** letters between the values that make a sentence sure to be its own message's; `Dry: …` is sure by its colon */
const LEAST_LITERAL = 8;
const made = new Map<Reading['language'], Map<string, Filled[]>>();
/** what begins with a figure begins with a value */
const firstWord = (text: string): string => (/^\d/.test(text) ? BEGINS_WITH_VALUE : (/^\S+/.exec(text)?.[0] ?? ''));
const BEGINS_WITH_VALUE = '';
const asPattern = (literal: string): string => literal.replace(/[.*+?^${}()|[\]\\]/g, '\\$&');

/** Messages that hold values, by their first word, the surest first. */
function filled(language: Reading['language']): Map<string, Filled[]> {
  const known = made.get(language);
  if (known) return known;
  const byWord = new Map<string, Filled[]>();
  for (const [message, said] of Object.entries(catalogueOf(language))) {
    const pieces = message.split(/\{(\w+)\}/);
    const literals = pieces.filter((_, index) => index % 2 === 0);
    const literal = literals.join('').replace(/[^\p{L}]/gu, '').length;
    // choices of a grammar are not looked for
    const [start = ''] = literals;
    const isSure = literal >= LEAST_LITERAL || /^\p{L}+: $/u.test(start);
    if (pieces.length < 3 || /[{}']/.test(literals.join('')) || !isSure || (start !== '' && !/^\S+\s/.test(start))) continue;
    const own: Filled = {
      pattern: new RegExp(`^${literals.map(asPattern).join('(.+)')}$`, 'u'),
      names: pieces.filter((_, index) => index % 2 === 1),
      said,
      literal,
    };
    const word = start === '' ? BEGINS_WITH_VALUE : firstWord(message);
    byWord.set(
      word,
      [...(byWord.get(word) ?? []), own].sort((a, b) => b.literal - a.literal),
    );
  }
  made.set(language, byWord);
  return byWord;
}
