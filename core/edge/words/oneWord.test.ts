import { readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { describe, expect, it } from 'vitest';
import { ONE_WORD } from './oneWord.js';

const filesOf = (folder: string): string[] =>
  readdirSync(folder, { withFileTypes: true }).flatMap((each) => {
    const name = path.join(folder, each.name);
    return each.isDirectory() ? filesOf(name) : [name];
  });
const withoutRemarks = (source: string): string => source.replace(/\/\*[\s\S]*?\*\//g, '').replace(/(^|\s)\/\/.*$/gm, '');
/** sentences in quotes; names, codes and addresses have no space in them */
const quoted = (source: string): string[] =>
  [...withoutRemarks(source).matchAll(/'((?:[^'\\\n]|\\.)*)'|`([^`]*)`/g)].map((found) => found[1] ?? found[2] ?? '').filter((each) => /[a-z] [a-z]/i.test(each)); // prettier-ignore

/** What somebody reads on a page: text between marks, and what fields and pictures are called. */
function shownBy(page: string): string[] {
  const template = /<template>[\s\S]*<\/template>/.exec(page)?.[0] ?? '';
  const text = [...template.replace(/\{\{[\s\S]*?\}\}/g, ' ').matchAll(/>([^<>]+)</g)].map(([, found]) => found as string);
  const names = [...template.matchAll(/\s(?:label|title|placeholder|aria-label|button|hint)="([^"]*)"/g)].map(
    ([, found]) => found as string,
  );
  return [...text, ...names, ...quoted(/<script[\s\S]*?<\/script>/.exec(page)?.[0] ?? '')];
}

/** where words of others are understood: columns of a table that comes from elsewhere; lines of a trial that only we read */
const OTHERS = /core\/workshop\/importing\/fields\.ts|core\/bench\/trial\//;
const sentences = [
  ...filesOf('web').filter((name) => name.endsWith('.vue')).flatMap((name) => shownBy(readFileSync(name, 'utf8')).map((text) => ({ name, text }))), // prettier-ignore
  ...filesOf('core').filter((name) => name.endsWith('.ts') && !name.endsWith('.test.ts') && !name.endsWith('oneWord.ts') && !OTHERS.test(name)).flatMap((name) => quoted(readFileSync(name, 'utf8')).map((text) => ({ name, text }))), // prettier-ignore
];

describe('one word for one thing', () => {
  it('is looked for in more than a handful of sentences', () => {
    expect(sentences.length).toBeGreaterThan(2000);
  });

  it.each(ONE_WORD.map((each) => [each.say, each] as const))('%s', (_say, { never, not }) => {
    const astray = sentences.filter(({ text }) => never.test(text.replace(/\$?\{[^}]*\}/g, ' ')) && not?.test(text) !== true);
    expect(astray.map(({ name, text }) => `${name}: ${text.trim().slice(0, 90)}`)).toEqual([]);
  });
});
