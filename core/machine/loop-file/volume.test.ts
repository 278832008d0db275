import { loopOf, part, tube } from '../catalogue/testLoops.js';
import fc from 'fast-check';
import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { readLoopFile } from './loopFileSchema.js';
import { loopVolume, sumVolumes, tubeVolumeMl } from './volume.js';

const example = readLoopFile(JSON.parse(readFileSync('examples/two-radiators.json', 'utf8')));

describe('tube volume', () => {
  // handbook table: mL per metre
  it.each([
    [10, 78.5],
    [12, 113.1],
    [13, 132.7],
  ])('a metre of %d mm bore holds %d mL', (bore, ml) => {
    expect(tubeVolumeMl(bore, 1000)).toBeCloseTo(ml, 1);
  });
});

describe('loop volume', () => {
  it('adds parts and tubes, the reservoir with everything it could hold', () => {
    const components = 260 + 25 + 180 + 180 + 20 + 60;
    const volume = loopVolume(example);
    const tubes = volume.parts.filter(({ id }) => /^t\d$/.test(id)).reduce((sum, { volumeMl }) => sum + volumeMl, 0);
    expect(volume.volumeMl).toBeCloseTo(components + tubes, 9);
    expect(volume.parts.map(({ id }) => id)).toEqual(['res', 'pump', 'front', 'top', 'cpu', 'gpu', 't0', 't1', 't2', 't3', 't4', 't5']);
  });

  it('takes the path of a tube through its bends for its length', () => {
    const { parts } = loopVolume(example);
    const length = Math.hypot(0, 0, 40) + Math.hypot(105, 90, 0) + Math.hypot(0, 90, 30);
    expect(parts.find(({ id }) => id === 't1')?.volumeMl).toBeCloseTo(tubeVolumeMl(10, length), 9);
  });

  it('believes a measured length before the path', () => {
    const loop = loopOf([part('a', 'block', 10), part('b', 'block', 10)], [tube('t', 'a', 'b', { length_mm: 500 })]);
    expect(loopVolume(loop).parts[2]?.volumeMl).toBeCloseTo(39.27, 2);
  });

  it('takes a fifth of the volume for an unknown uncertainty, and three per cent for a tube', () => {
    const loop = loopOf(
      [part('a', 'block', 100), part('b', 'block', 50, [0, 0, 0], { volume_sd_ml: 2 })],
      [tube('t', 'a', 'b', { length_mm: 1000 })],
    );
    expect(loopVolume(loop).parts.map(({ sdMl }) => Number(sdMl.toFixed(3)))).toEqual([20, 2, 2.356]);
  });

  it('adds variances, not standard deviations', () => {
    expect(
      sumVolumes([
        { volumeMl: 1, sdMl: 3 },
        { volumeMl: 2, sdMl: 4 },
      ]),
    ).toEqual({ volumeMl: 3, sdMl: 5 });
  });

  it('does not depend on the order of the parts', () => {
    fc.assert(
      fc.property(fc.array(fc.double({ min: 0, max: 900, noNaN: true }), { minLength: 1, maxLength: 20 }), (volumes) => {
        const parts = volumes.map((ml, index) => part(`p${index}`, 'block', ml));
        const there = loopVolume(loopOf(parts));
        const back = loopVolume(loopOf([...parts].reverse()));
        expect(there.volumeMl).toBeCloseTo(back.volumeMl, 6);
        expect(there.sdMl).toBeCloseTo(back.sdMl, 6);
      }),
    );
  });
});
