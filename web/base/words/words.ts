import type { App } from 'vue';
import { say, sayWord, bringWords, hasWords, type MessageValues } from '@core/base/words/say.js';
import type { Reading } from '@core/base/units/reading.js';

/** What a template's text, labels and lists are sent through when it is compiled (words/templateWords.ts). */
export const templateSay = (message: unknown, values?: Readonly<Record<string, unknown>>): unknown => {
  if (typeof message === 'string') return say(message, values as MessageValues | undefined);
  return Array.isArray(message) ? message.map(choiceSaid) : message;
};

/** One choice of a list: its title is read, its value is not. */
const choiceSaid = (choice: unknown): unknown =>
  typeof choice === 'object' && choice !== null && 'title' in choice ? { ...choice, title: sayWord(choice.title) } : choice;

export const words = {
  install(app: App): void {
    app.config.globalProperties.$say = templateSay;
  },
};

/** Of the languages there are, the one that this device is set to. */
export const deviceLanguage = (): Reading['language'] => (navigator.language.startsWith('de') ? 'de' : 'en');

/** Fetches the file of a language before anything is said in it. English is in the program itself. */
export async function fetchWords(language: Reading['language']): Promise<void> {
  if (hasWords(language)) return;
  const { default: catalogue } = await import('@core/base/words/de.json');
  bringWords(language, catalogue as Record<string, string>);
}
