import { IntlMessageFormat } from 'intl-messageformat';

/**
 * Words for codes with values, in ICU message syntax. One language so far; a second one is a second list of messages.
 * Values arrive as a reader sees them: volumes, pressures and names already written out.
 */
export type Messages<Code extends string> = Readonly<Record<Code, string>>;
export type MessageValues = Readonly<Record<string, string | number | boolean | null>>;

const LANGUAGE = 'en-GB';
const parsed = new Map<string, IntlMessageFormat>();

export function say(message: string, values: MessageValues = {}): string {
  const format = parsed.get(message) ?? new IntlMessageFormat(message, LANGUAGE);
  parsed.set(message, format);
  return String(format.format(values as Record<string, string | number | boolean>));
}

/** Begins with a capital letter. */
export const capital = (words: string): string => words.charAt(0).toUpperCase() + words.slice(1);

/** With a capital and a full stop. */
export const asSentence = (words: string): string => `${capital(words)}.`;
