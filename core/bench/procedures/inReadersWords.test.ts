import { expect, it } from 'vitest';
import { procedureOf } from '../../../tests/bench/testRun.js';
import german from '../../base/words/de.json' with { type: 'json' };
import { bringWords } from '../../base/words/say.js';
import { readingAs, USUAL_READING } from '../../base/units/reading.js';
import { inReadersWords } from './inReadersWords.js';

const procedure = procedureOf();
const inGerman = readingAs({ ...USUAL_READING, language: 'de' }, () => {
  bringWords('de', german);
  return inReadersWords(procedure);
});
const said = <T>(of: (step: (typeof procedure.steps)[number]) => T[]): [T, T][] =>
  procedure.steps.flatMap((step, at) => of(step).map((was, index): [T, T] => [was, of(inGerman.steps[at] as typeof step)[index] as T]));

it('says a run begun in English in the language of whoever reads it', () => {
  const titles = said(({ title }) => [title]);
  expect(titles.filter(([was, now]) => was === now)).toEqual([]);
  const checks = said((step) => step.checks.map(({ text }) => text));
  expect(checks.filter(([was, now]) => was !== now).length).toBeGreaterThan(0.8 * checks.length);
});

it('names the same place at the end of a check, and changes nothing but words', () => {
  const places = said((step) => step.checks.map(({ text }) => text.split(': ')[1] ?? '')).filter(([was]) => was.includes('→'));
  expect(places.length).toBeGreaterThan(5);
  for (const [was, now] of places) expect(now).toBe(was);
  const ids = said((step) => [step.id, step.kind, ...step.checks.map(({ id }) => id)]);
  for (const [was, now] of ids) expect(now).toBe(was);
  expect(inReadersWords(procedure)).toEqual(procedure);
});
