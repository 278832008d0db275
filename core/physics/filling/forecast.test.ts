import { describe, expect, it } from 'vitest';
import { liquidAt, WATER } from '../../machine/liquids/fluids.js';
import { usualLoop } from '../../machine/catalogue/testLoops.js';
import { fillVolume } from './fillPlan.js';
import { firstReservoir, fillDrive } from './fillDrive.js';
import { simulateFill } from './fillSimulation.js';
import { forecastOf } from './forecast.js';

const loop = usualLoop();
const water = liquidAt(WATER, 25);

describe('how a fill likely ends', () => {
  it('lies between all gas staying and none, the latter being what the loop holds at its mark', () => {
    const { leastMl, likelyMl, mostMl, toGoMl } = forecastOf(simulateFill(loop, water), 0);
    expect(leastMl).toBeLessThanOrEqual(likelyMl);
    expect(likelyMl).toBeLessThanOrEqual(mostMl);
    expect(mostMl).toBeCloseTo(fillVolume(loop).volumeMl, 6);
    expect(toGoMl).toBeCloseTo(likelyMl, 9);
  });

  it('ends where a fill from nothing ends, whatever is inside already', () => {
    const dry = forecastOf(simulateFill(loop, water), 0);
    const { drive } = fillDrive(loop, water, firstReservoir(loop));
    // the first stretches hold liquid, the reservoir is half full
    const wettedMl = Float64Array.from(drive.cells, ({ volumeMl }, at) => (at < drive.cells.length / 3 ? volumeMl : 0));
    const insideMl = 100 + wettedMl.reduce((sum, ml) => sum + ml, 0);
    const half = forecastOf(simulateFill(loop, water, firstReservoir(loop), { reservoirMl: 100, wettedMl }), insideMl);
    expect(half.likelyMl).toBeCloseTo(dry.likelyMl, 0);
    expect(half.toGoMl).toBeCloseTo(dry.likelyMl - insideMl, 0);
    expect(half.mostMl).toBeCloseTo(dry.mostMl, 6);
  });
});
