import { describe, expect, it } from 'vitest';
import { usualLoop } from '../../machine/catalogue/testLoops.js';
import { WATER } from '../../machine/liquids/fluids.js';
import { reservoirMarks } from '../../machine/loop-file/marks.js';
import { tubeVolumeMl } from '../../machine/loop-file/volume.js';
import { SCRAP_MM, unitsAlone } from './unitAlone.js';

const loop = usualLoop();
const part = (kind: string) => {
  const found = loop.components.find((each) => each.kind === kind);
  if (!found) throw new Error(kind);
  return found;
};

describe('a pump with its reservoir, out of the case', () => {
  it('takes what stands at the mark, in the pump and in the scrap of tube', () => {
    const [unit] = unitsAlone(loop, WATER);
    const out = loop.tubes.find(({ from }) => from[0] === 'pump');
    const feed = loop.tubes.find(({ to }) => to[0] === 'pump');
    const scrapMl = tubeVolumeMl(out?.bore_mm ?? 0, SCRAP_MM);
    const feedMl = feed?.inside ? 0 : tubeVolumeMl(feed?.bore_mm ?? 0, feed?.length_mm ?? 0);
    const marks = reservoirMarks(part('reservoir'));
    expect(unit?.toMarkMl).toBe(marks.fillMarkMl);
    expect(unit?.total.volumeMl).toBeCloseTo(marks.fillMarkMl + part('pump').volume_ml + scrapMl + feedMl, 6);
    const { box, volume_ml: holds } = part('reservoir');
    const mlPerMm = holds / ((box?.max[1] ?? 0) - (box?.min[1] ?? 0));
    expect(unit?.fallsMm).toBeCloseTo((part('pump').volume_ml + scrapMl + feedMl) / mlPerMm, 6);
  });

  it('runs faster than the whole loop does, and is back within seconds', () => {
    const [unit] = unitsAlone(loop, WATER);
    const curve = part('pump').curve ?? [];
    expect(unit?.flowLph).toBeGreaterThan(200);
    expect(unit?.flowLph).toBeLessThanOrEqual(curve.at(-1)?.[0] ?? Infinity);
    expect(unit?.backS).toBeLessThan(5);
  });

  it('says of a pump without a curve what it can, and nothing of a pump that only tube feeds', () => {
    const bare = { ...loop, components: loop.components.map(({ curve: _curve, ...each }) => each) };
    expect(unitsAlone(bare, WATER)[0]).toMatchObject({ flowLph: null, backS: null });
    expect(unitsAlone({ ...loop, tubes: loop.tubes.filter(({ to }) => to[0] !== 'pump') }, WATER)).toEqual([]);
  });
});
