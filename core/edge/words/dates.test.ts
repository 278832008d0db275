import { describe, expect, it } from 'vitest';
import { readFinding, readOutcome, readReason, type DateReason, type Finding, type Outcome } from '../../workshop/due-dates/facts.js';
import { findingWords, looseEndWords, outcomeWords, reasonWords } from './dates.js';

const LIFE: DateReason = { why: 'sheet-life', product: 'Plain Clear', months: 24, warm: null };

describe('why something falls due', () => {
  it.each<[DateReason, string]>([
    [LIFE, 'Plain Clear: 24 months by its sheet'],
    [{ why: 'policy', scope: 'owner', policy: 'six-months' }, 'agreed with this owner: every six months after the fill'],
    [
      { why: 'sheet-life', product: 'Plain Clear', months: 24, warm: { months: 12, coolantC: 45.2, source: 'log' } },
      'Plain Clear: 24 months by its sheet, shortened to 12.0 at 45 °C coolant by its log',
    ],
    [
      { why: 'put-off', until: '2027-03-01', said: 'exam season', first: LIFE },
      'put off by the owner until 1 Mar 2027 (exam season); first reason: Plain Clear: 24 months by its sheet',
    ],
    [
      { why: 'temporary', what: 'old ring turned', awaits: 'a new ring', limits: ['no-load', 'level-daily'] },
      'temporary: old ring turned, until a new ring; no long loads, look at the level every day',
    ],
    [
      { why: 'not-settled', on: '2026-03-10', levelChangeMm: -3, note: '' },
      'level had not settled on 10 Mar 2026, level changed by −3 mm: look for a leak, or vapour through the tube walls',
    ],
    [{ why: 'early-look', because: [{ why: 'particles-stayed' }] }, 'early look: particles stayed inside'],
    [
      { why: 'same-lot', what: 'Plain Clear L9', isCoolant: true, cause: 'growth' },
      'look at the reservoir, or ask for a photograph: the same lot (Plain Clear L9) is suspected in another machine: something grew',
    ],
  ])('%o', (reason, words) => expect(reasonWords(reason)).toBe(words));

  it('keeps what people typed, braces and quotes included', () => {
    const typed = "it's {not} ready, 'wait' # <b>";
    expect(reasonWords({ why: 'said', text: typed })).toBe(typed);
    expect(outcomeWords({ why: 'done', note: typed })).toBe(`done (${typed})`);
    expect(looseEndWords({ why: 'step-passed-over', step: typed })).toBe(`"${typed}" was passed over`);
  });
});

describe('how it ended, and what was found', () => {
  it.each<[Outcome, string]>([
    [{ why: 'filled-anew' }, 'the loop was filled anew'],
    [{ why: 'settled', levelChangeMm: -2, note: '' }, 'settled, level changed by −2 mm'],
    [{ why: 'settled', levelChangeMm: null, note: 'by photograph' }, 'settled (by photograph)'],
    [{ why: 'loop-ended', kind: 'retirement' }, 'loop retired'],
  ])('%o', (outcome, words) => expect(outcomeWords(outcome)).toBe(words));
  it.each<[Finding, string]>([
    [{ why: 'item', name: 'pump', rule: 'rotor worn', text: 'left side' }, 'pump: rotor worn (left side)'],
    [{ why: 'leak', place: 'a ring', cause: null, text: '' }, 'Leak at a ring'],
    [{ why: 'cause', cause: 'growth', name: null, text: 'smells' }, 'Suspected cause: something grew. smells'],
  ])('%o', (finding, words) => expect(findingWords(finding)).toBe(words));
});

describe('what an older program stored', () => {
  it('is read as words that were said', () => {
    expect(readReason('every six months')).toEqual({ why: 'said', text: 'every six months' });
    expect(readOutcome({ why: 'filled-anew' })).toEqual({ why: 'filled-anew' });
    expect(readFinding(null)).toEqual({ why: 'said', text: '' });
  });
});
