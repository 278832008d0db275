import { describe, expect, it } from 'vitest';
import { readingAs, USUAL_READING, type Reading } from '../units/reading.js';
import { listed } from './say.js';

const inWords = (language: Reading['language'], ...names: string[]): string =>
  readingAs({ ...USUAL_READING, language }, () => listed(names));

describe('names one behind the other', () => {
  it.each([
    [[], '', ''],
    [['drain'], 'drain', 'drain'],
    [['drain', 'vent'], 'drain and vent', 'drain und vent'],
  ])('end with "and" in their reader’s language: %j', (names, english, german) => {
    expect([inWords('en', ...names), inWords('de', ...names)]).toEqual([english, german]);
  });

  it('are parted by commas where there are more', () => {
    expect(inWords('en', 'a', 'b', 'c')).toMatch(/^a, b,? and c$/);
    expect(inWords('de', 'a', 'b', 'c')).toBe('a, b und c');
  });
});
