import { beforeAll, describe, expect, it } from 'vitest';
import { readingAs, USUAL_READING } from '../units/reading.js';
import german from './de.json' with { type: 'json' };
import { bringWords, say } from './say.js';
import { sayAnew } from './sayAnew.js';

beforeAll(() => bringWords('de', german));
const inGerman = <T>(work: () => T): T => readingAs({ ...USUAL_READING, language: 'de' }, work);

describe('a sentence that was kept in English', () => {
  it.each([
    ['a message as it stands', 'Wet test', {}],
    ['one with a value', 'Jug under {name}, open it.', { name: 'drain' }],
    ['one with two', 'At least {formatIn} of thread, {formatIn2} off the tubes.', { formatIn: '3.2 mm', formatIn2: '1 mm' }],
  ])('is said as the message itself would be: %s', (_what, message, values) => {
    const kept = say(message, values);
    expect(inGerman(() => sayAnew(kept))).toBe(inGerman(() => say(message, values)));
    expect(inGerman(() => sayAnew(kept))).not.toBe(kept);
  });

  it('stays where a workshop wrote it itself, and in English', () => {
    for (const own of ['Drop by drop, from the thin bottle.', 'Jug', '', 'drain: as Rui does it'])
      expect(inGerman(() => sayAnew(own))).toBe(own);
    expect(sayAnew('Wet test')).toBe('Wet test');
  });
});
