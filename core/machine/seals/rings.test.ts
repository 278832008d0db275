import { describe, expect, it } from 'vitest';
import { usualLoop } from '../catalogue/testLoops.js';
import { ringWords, sealPlaces } from './places.js';
import { oldestRenewed, ringAges } from './rings.js';

const loop = usualLoop();
const rings = sealPlaces(loop).filter(({ hasRing }) => hasRing);
const [first, second] = rings.map(({ id }) => id) as [string, string];

describe('the ages of rings', () => {
  it('are those of the loop until one is renewed, the oldest first', () => {
    const ages = ringAges(loop, '2024-01-10', { [first]: '2026-01-10' }, '2026-01-20');
    expect(ages).toHaveLength(rings.length);
    expect(ages[0]).toMatchObject({ since: '2024-01-10', days: 741 });
    expect(ages.at(-1)).toMatchObject({ place: { id: first }, since: '2026-01-10', days: 10 });
  });

  it('fall back to none where a strip came later', () => {
    expect(ringAges(loop, '2026-05-01', { [first]: '2026-01-10' }, '2026-05-02').every(({ since }) => since === '2026-05-01')).toBe(true);
  });

  it('are not known where nobody knows the first fill', () => {
    expect(ringAges(loop, null, {}, '2026-05-02')[0]).toMatchObject({ since: null, days: null });
  });

  it('move the loop’s own clock only once every one of them was renewed', () => {
    expect(oldestRenewed(loop, { [first]: '2026-01-10' })).toBeNull();
    const all = Object.fromEntries(rings.map(({ id }) => [id, '2026-02-01']));
    expect(oldestRenewed(loop, { ...all, [second]: '2025-12-24' })).toBe('2025-12-24');
  });
});

describe('the spares that lie ready', () => {
  it('name each kind of place with its count', () => {
    expect(ringWords(loop)).toMatch(/^\d+ tube ends, .*plug.*one reservoir base.*2 block gaskets$/);
  });
});
