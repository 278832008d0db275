import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { readLoopFile } from '../loop-file/loopFileSchema.js';
import type { LoopFile } from '../loop-file/loopFile.js';
import { findTubeMaterial } from '../materials/tubes.js';
import { cutList } from './cutList.js';
import { changeCuts, CUTTING, tubeCuts } from './tubeCuts.js';

const load = (name: string): LoopFile => readLoopFile(JSON.parse(readFileSync(`examples/${name}.json`, 'utf8')));
const soft = (material: string): boolean => findTubeMaterial(material)?.soft ?? true;

describe('cutting the tubes of a loop', () => {
  it('cuts every tube once, longer by what the fittings swallow, the longest first', () => {
    const [kind, ...others] = tubeCuts(load('two-radiators'), soft);
    expect(others).toEqual([]);
    expect(kind?.pieces.map(({ id }) => id).sort()).toEqual(['t0', 't1', 't2', 't3', 't4', 't5']);
    for (const { laidMm, cutMm } of kind?.pieces ?? []) expect(cutMm - laidMm).toBeGreaterThanOrEqual(CUTTING.allowanceMm);
    expect(kind?.pieces.map(({ cutMm }) => cutMm)).toEqual([...(kind?.pieces ?? [])].map(({ cutMm }) => cutMm).sort((a, b) => b - a));
  });

  it('takes rigid tube from bars with a saw, and keeps kinds apart', () => {
    const loop = load('rigid-loop');
    loop.tubes = loop.tubes.map((tube, index) => (index === 0 ? { ...tube, material: 'epdm', bore_mm: 10 } : tube));
    const kinds = tubeCuts(loop, soft);
    expect(kinds.map(({ stockMm }) => stockMm)).toEqual([CUTTING.softStockMm, CUTTING.rigidStockMm]);
    for (const stock of kinds[1]?.list.stocks ?? []) {
      expect(stock.reduce((sum, length) => sum + length, 0) + CUTTING.kerfMm * (stock.length - 1)).toBeLessThanOrEqual(1000);
    }
  });

  it('loses a kerf between two pieces, none behind the last', () => {
    expect(cutList([500, 498.5], 1000, 1.5).stocks).toEqual([[500, 498.5]]);
    expect(cutList([500, 499], 1000, 1.5).stocks).toHaveLength(2);
    expect(cutList([1000], 1000, 1.5).stocks).toEqual([[1000]]);
  });

  it('names a tube that no stock length gives', () => {
    const loop = load('rigid-loop');
    loop.tubes = loop.tubes.map((tube) => (tube.id === 'r5' ? { ...tube, length_mm: 1400 } : tube));
    expect(tubeCuts(loop, soft)[0]?.tooLong.map(({ id }) => id)).toEqual(['r5']);
  });
});

describe('the cuts of a change', () => {
  it('are its new pieces alone, by the kind of tube', () => {
    const tube = (id: string, fate: 'new' | 'cut' | 'out', lengthMm: number | null, outerMm = 16) => ({ id, name: id, fate, lengthMm, cutFrom: fate === 'cut' ? 'old' : null, material: 'epdm', boreMm: 10, outerMm }); // prettier-ignore
    const lists = changeCuts({ tubes: [tube('a', 'new', 300), tube('b', 'new', 500), tube('c', 'cut', 200), tube('d', 'out', null), tube('e', 'new', 120, 13)] }, () => true); // prettier-ignore
    expect(lists.map(({ outerMm, pieces }) => [outerMm, pieces.map(({ id, cutMm }) => `${id} ${cutMm}`)])).toEqual([
      [16, ['b 500', 'a 300']],
      [13, ['e 120']],
    ]);
  });
});
