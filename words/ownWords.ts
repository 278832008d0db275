import { existsSync, readFileSync } from 'node:fs';
import path from 'node:path';
import type { Plugin } from 'vite';
import { ofComponent, ofProgram } from './everyMessage.ts';

/** Module that holds what another language says for the messages of one small bundle, instead of those of the whole product. */
export const OWN_WORDS = 'virtual:own-words';

const IMPORTS = /(?:^|\n)\s*(?:import|export)\s(?!type\b)[^;]*?from\s*'([^']+)'|import\('([^']+)'\)/gu;

/** Files of the product that a program brings along, itself included. */
function reached(root: string, entry: string): Set<string> {
  const files = new Set<string>();
  const waiting = [entry];
  for (let file = waiting.pop(); file !== undefined; file = waiting.pop()) {
    if (files.has(file)) continue;
    files.add(file);
    for (const [, from = '', later] of readFileSync(file, 'utf8').matchAll(IMPORTS)) {
      const name = from || (later ?? '');
      const at = name.startsWith('@core/') ? path.join(root, name.slice(1)) : name.startsWith('.') ? path.join(path.dirname(file), name) : null; // prettier-ignore
      const found = at === null ? undefined : [at, at.replace(/\.js$/, '.ts')].find((each) => /\.(ts|vue)$/.test(each) && existsSync(each));
      if (found) waiting.push(found);
    }
  }
  return files;
}

/** Every message that the program beginning at `entry` can say. */
export function messagesFrom(root: string, entry: string): Set<string> {
  const messages = new Set<string>();
  for (const file of reached(root, entry))
    (file.endsWith('.vue') ? ofComponent : ofProgram)(readFileSync(file, 'utf8'), (message) => messages.add(message));
  return messages;
}

/** The words of one entry, by language. */
export function ownWords(root: string, entry: string): Plugin {
  return {
    name: 'own-words',
    resolveId: (id) => (id === OWN_WORDS ? `\0${OWN_WORDS}` : null),
    load(id) {
      if (id !== `\0${OWN_WORDS}`) return null;
      const german = JSON.parse(readFileSync(path.join(root, 'core/base/words/de.json'), 'utf8')) as Record<string, string>;
      const messages = messagesFrom(root, entry);
      const own = Object.fromEntries(Object.entries(german).filter(([message]) => messages.has(message)));
      return `export default ${JSON.stringify(own)};`;
    },
  };
}
