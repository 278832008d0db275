import path from 'node:path';
import { IntlMessageFormat } from 'intl-messageformat';
import { describe, expect, it } from 'vitest';
import { compileTemplate } from '@vue/compiler-sfc';
import german from '../core/base/words/de.json' with { type: 'json' };
import { bringWords, say } from '../core/base/words/say.js';
import { readingAs, USUAL_READING } from '../core/base/units/reading.js';
import { everyMessage, ofProgram } from './everyMessage.js';
import { templateWords } from './templateWords.js';

const root = path.join(import.meta.dirname, '..');
const messages = everyMessage(root);
const words = new Map(Object.entries(german as Record<string, string>));
type Piece = ReturnType<IntlMessageFormat['getAst']>[number];
/** names of what is filled in, those within a choice of a grammar as well */
function valuesOf(message: string): string[] {
  const names = new Set<string>();
  const walk = (pieces: readonly Piece[]): void => {
    for (const piece of pieces) {
      if ('value' in piece && piece.type !== 0) names.add(piece.value);
      if ('options' in piece && piece.options) for (const { value } of Object.values(piece.options)) walk(value as Piece[]);
    }
  };
  walk(new IntlMessageFormat(message, 'de-DE', undefined, { ignoreTag: true }).getAst());
  return [...names].sort();
}

describe('German', () => {
  it('says every message of the product anew', () => {
    expect(messages.size).toBeGreaterThan(3500);
    expect([...messages].filter(([message]) => !words.has(message)).map(([message, place]) => `${place}: ${message}`)).toEqual([]);
  });

  it('says nothing that the product no longer says', () => {
    expect([...words.keys()].filter((message) => !messages.has(message))).toEqual([]);
  });

  it('fills in the same values, in a grammar that can be read', () => {
    const off = [...words].filter(([message, text]) => valuesOf(text).join() !== valuesOf(message).join());
    expect(off).toEqual([]);
  });

  it('is spoken where the reader reads it, and English where it has no words', () => {
    bringWords('de', german);
    const way = { ...USUAL_READING, language: 'de' } as const;
    expect(readingAs(way, () => say('Held by {name}', { name: 'Ada' }))).toBe('Held by Ada');
    expect(readingAs(way, () => say('{name} is back.', { name: 'Turm' }))).toBe('Turm ist zurück.');
    expect(readingAs(way, () => say('{count, plural, one {# leak} other {# leaks}} not mended', { count: 2 }))).toBe(
      '2 Lecks nicht behoben',
    );
    expect(say('{name} is back.', { name: 'Tower' })).toBe('Tower is back.');
  });
});

describe('a template when it is compiled', () => {
  const said: string[] = [];
  const compiled = (source: string): string => {
    said.length = 0;
    return compileTemplate({ source, filename: 'x.vue', id: 'x', compilerOptions: { nodeTransforms: [templateWords((message) => said.push(message))] } }).code; // prettier-ignore
  };

  it('makes one message of a sentence with values, and parts it at elements', () => {
    const code = compiled('<p>Held until {{ dates.day(x.on) }}, by {{ owner.name }} <b>now</b></p>');
    expect(said).toEqual(['Held until {day}, by {name}', 'now']);
    expect(code).toContain('day: _ctx.dates.day(_ctx.x.on)');
  });

  it('takes labels, what an expression says outright and what a constant table says, and leaves codes, keys and people’s words', () => {
    const code = compiled(
      '<a title="To the plan" class="two words" :to="`/runs/${id}`">{{ busy ? "Close" : name }} {{ KINDS[kind].label }} <code>npm run x</code></a>',
    );
    expect(said).toEqual(['To the plan', 'Close']);
    expect(code).toContain('$say(_ctx.KINDS[_ctx.kind].label)');
    expect(code).not.toContain('$say(_ctx.name)');
  });

  it('knows what is listed from a constant table, but not a value of the same name elsewhere', () => {
    const code = compiled('<i v-for="(title, part) in PARTS" :key="part">{{ title }}</i><u>{{ title }}</u>');
    expect(code.match(/\$say/g)).toHaveLength(1);
  });

  it('keeps braces of a text as they are', () => {
    compiled('<p>use {gaugeKpa} here</p>');
    expect(said).toEqual(["use '{'gaugeKpa'}' here"]);
  });
});

describe('words of a program', () => {
  it('are what is said outright and what its constant tables hold', () => {
    const found: string[] = [];
    ofProgram(
      "const KINDS = { a: { label: 'leak repair', to: '/x y' } }; const b = () => say('Saved.'); const c = 'not words'; ",
      (message) => found.push(message),
    );
    expect(found).toEqual(['leak repair', 'Saved.']);
  });
});
