import { describe, expect, it } from 'vitest';
import { TestRun } from '../../../tests/bench/testRun.js';
import type { Why } from '../../bench/runs/why.js';
import { balanceWords, ledgerWords, whyWords } from './bench.js';
import { looseEndWords } from './dates.js';
import { asSentence, say } from '../../base/words/say.js';

const { procedure } = new TestRun();
const part = procedure.facts?.parts[0];
const words = (why: Why): string => whyWords(procedure, why);

describe('words of a run', () => {
  it.each<[Why, string]>([
    [{ why: 'not-isolated', toPull: 0 }, 'everything but the pump must be off its plug first: a leak would meet live electronics'],
    [{ why: 'not-isolated', toPull: 2 }, 'first (2 still to pull): a leak'],
    [{ why: 'low-mark', levelMl: 61.6, measured: false }, 'low mark (62 mL, predicted): pour first'],
    [{ why: 'low-mark', levelMl: 61.6, measured: true }, 'low mark (62 mL): pour first'],
    [{ why: 'checks-open', count: 1, beforePower: 0 }, '1 check open'],
    [{ why: 'checks-open', count: 4, beforePower: 2 }, '4 checks open, 2 of them before power'],
    [{ why: 'old-left', percent: 8.25, targetPercent: 0.5 }, '8.3 % of the old liquid left, 0.5 % is the target'],
    [{ why: 'bleed-rise', mm: 6, mostMm: 2 }, 'rise at stop is 6.0 mm, it should be at most 2 mm'],
    [{ why: 'timer-running', label: 'Pump running' }, 'timer still running: pump running'],
    [{ why: 'over-pressure', gaugeKpa: 80, mostKpa: 60, weakest: 'front' }, '80 kPa is above 60 kPa, the rating of front: let air out'],
    [
      { why: 'step-not-done', step: 'Fill', lacks: [{ why: 'no-coolant' }, { why: 'fill-open', ml: 101.4 }] },
      '"Fill" is not done: coolant not chosen; about 101 mL to go',
    ],
  ])('%j', (why, text) => expect(words(why)).toContain(text));

  it('call places by their names, and what no longer is there by its id', () => {
    expect(words({ why: 'leak-not-mended', place: part?.id ?? '' })).toBe(`the leak at ${part?.name} is not mended yet`);
    expect(words({ why: 'leak-not-mended', place: 'gone' })).toContain('at gone');
  });

  it('keep braces and quotes that people typed', () => {
    expect(words({ why: 'doubt-untested', place: 'x', said: "it {cracked} 'loudly' <b>" })).toContain("“it {cracked} 'loudly' <b>”");
  });

  it('of the book, the fill and what is left', () => {
    expect(ledgerWords({ kind: 'more-left-than-predicted', ml: 290, slackMl: 10 })).toMatch(/^290 mL more inside/);
    expect(ledgerWords({ kind: 'inside', ml: 400, slackMl: 12 })).toBe('400 ± 6 mL still inside');
    expect(balanceWords({ pouredMl: 0, stillToPourMl: 1000, verdict: 'filling' })).toBe('about 1\u202f000 mL to go');
    expect(balanceWords({ pouredMl: 0, stillToPourMl: -240, verdict: 'more-than-planned' })).toMatch(/^240 mL more than/);
    expect(looseEndWords({ why: 'step-passed-over', step: 'Clean' })).toBe('"Clean" was passed over');
  });

  it('are made of one library for messages', () => {
    expect(say('{n, plural, one {# day} other {# days}}', { n: 1 })).toBe('1 day');
    expect(asSentence('close it')).toBe('Close it.');
  });
});
