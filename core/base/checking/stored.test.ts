import { describe, expect, it } from 'vitest';
import { readList, readObject, UnreadableDocument } from './stored.js';

describe('documents from the database', () => {
  it('get what an older program left out, and keep what a newer one wrote', () => {
    const read = readObject<{ a: number; b: string | null }>('a thing', { b: null });
    expect(read({ a: 1 })).toEqual({ a: 1, b: null });
    expect(read({ a: 1, b: 'x', c: true })).toEqual({ a: 1, b: 'x', c: true });
  });

  it.each([null, 'text', 3, []])('are refused as an object, by name, when they are %j', (raw) => {
    expect(() => readObject('the estimate')(raw)).toThrow(UnreadableDocument);
    expect(() => readObject('the estimate')(raw)).toThrow('the estimate');
  });

  it('are refused as a list when they are none', () => {
    expect(readList('clocks')([1, 2])).toEqual([1, 2]);
    expect(() => readList('clocks')({})).toThrow('clocks');
  });
});
