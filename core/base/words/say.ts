import { IntlMessageFormat } from 'intl-messageformat';
import { locale } from '../units/display.js';
import { reading, type Reading } from '../units/reading.js';

/**
 * The one room of words. Every sentence of the product passes here, in ICU message syntax, written in English; another language is a file
 * that says each of them anew. Values arrive as a reader sees them: volumes, pressures and names already written out.
 */
export type Messages<Code extends string> = Readonly<Record<Code, string>>;
export type MessageValues = Readonly<Record<string, string | number | boolean | null | undefined>>;

/** What another language says for each English message. */
export type Catalogue = Readonly<Record<string, string>>;
const catalogues = new Map<Reading['language'], Catalogue>();
export function bringWords(language: Reading['language'], catalogue: Catalogue): void {
  catalogues.set(language, catalogue);
}
/** What a language says; nothing for English, and for one that was not brought. */
export const catalogueOf = (language: Reading['language']): Catalogue => catalogues.get(language) ?? {};
export const hasWords = (language: Reading['language']): boolean => language === 'en' || catalogues.has(language);

const isPlain = (text: string): boolean => !text.includes('{') && !text.includes("'");
/** `{name}` and nothing else between braces: filled in without a grammar, hundreds of times on a page */
const SIMPLE = /^(?:[^{}']|\{\w+\})*$/;
const parsed = new Map<string, IntlMessageFormat>();

export function say(message: string, values: MessageValues = {}): string {
  const { language } = reading();
  const words = language === 'en' ? message : (catalogues.get(language)?.[message] ?? message);
  if (isPlain(words)) return words;
  if (SIMPLE.test(words)) return words.replace(/\{(\w+)\}/g, (_, name: string) => String(values[name] ?? ''));
  const key = `${locale()} ${words}`;
  const format = parsed.get(key) ?? new IntlMessageFormat(words, locale(), undefined, { ignoreTag: true });
  parsed.set(key, format);
  return String(format.format(values as Record<string, string | number | boolean>));
}

/** A text with places of its own to be filled in later, as a procedure has: looked up, and left as it stands. */
export function sayText(text: string): string {
  const { language } = reading();
  return language === 'en' ? text : (catalogues.get(language)?.[text] ?? text);
}

/** What comes from a constant table of words, in the reader's language; what is no text stays as it is. */
export const sayWord = <T>(word: T): T => (typeof word === 'string' ? (say(word) as T) : word);

/** Names one behind the other, the last with "and". */
export const listed = (names: readonly string[]): string => new Intl.ListFormat(reading().language, { type: 'conjunction' }).format(names);

/** A title as it stands in the middle of a sentence: in small letters, but in a language that writes its nouns large. */
export const midSentence = (words: string): string => (reading().language === 'de' ? words : words.toLowerCase());

/** Begins with a capital letter. */
export const capital = (words: string): string => words.charAt(0).toUpperCase() + words.slice(1);

/** With a capital and a full stop. */
export const asSentence = (words: string): string => `${capital(words)}.`;
