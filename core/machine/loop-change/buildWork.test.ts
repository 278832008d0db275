import { describe, expect, it } from 'vitest';
import { usualLoop } from '../catalogue/testLoops.js';
import { countFittings } from '../loop-file/fittings.js';
import { tubesByHand } from '../loop-file/loopFile.js';
import { buildWork } from './buildWork.js';

describe('what a build takes', () => {
  const loop = usualLoop();
  const work = buildWork(loop);

  it('is every part, every tube as a new piece, every joint and every fitting of its drawing', () => {
    expect(work.in.map(({ id }) => id)).toEqual(loop.components.map(({ id }) => id));
    expect(work.out).toEqual([]);
    expect(work.tubes.every(({ fate, cutFrom }) => fate === 'new' && cutFrom === null)).toBe(true);
    expect(work.made).toHaveLength(tubesByHand(loop).length);
    expect(Object.fromEntries(work.fittings.map(({ kind, count }) => [kind, count]))).toEqual(
      Object.fromEntries(countFittings(loop).map(({ kind, count }) => [kind, count])),
    );
  });
});
