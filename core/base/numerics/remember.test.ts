import { describe, expect, it } from 'vitest';
import { remembering } from './remember.js';

describe('a function that remembers', () => {
  it('computes the same question once, and forgets the oldest', () => {
    const asked: number[] = [];
    const twice = remembering(({ n }: { n: number }) => {
      asked.push(n);
      return { is: 2 * n };
    }, 2);
    expect([twice({ n: 1 }), twice({ n: 1 }), twice({ n: 2 })]).toEqual([{ is: 2 }, { is: 2 }, { is: 4 }]);
    expect(asked).toEqual([1, 2]);
    twice({ n: 3 });
    twice({ n: 1 });
    expect(asked).toEqual([1, 2, 3, 1]);
  });
});
