import { describe, expect, it } from 'vitest';
import { usualLoop } from '../../machine/catalogue/testLoops.js';
import { liquidAt, WATER } from '../../machine/liquids/fluids.js';
import { simulateFill } from '../filling/fillSimulation.js';
import { firstReservoir } from '../filling/fillDrive.js';
import { twinFor } from './atMark.js';
import { insideNow } from './insideNow.js';
import type { LiquidTwin } from './liquidTwin.js';
import { dryContents, filledContents } from './loopContents.js';

const loop = usualLoop();
const twin = twinFor(loop, WATER) as LiquidTwin;

describe('what is inside a loop now', () => {
  it('is nothing where nothing ever went in, and nothing where its last run left it empty', () => {
    expect(insideNow(loop, null, false)).toMatchObject({ by: 'never-filled', volume: { volumeMl: 0 }, shares: {} });
    expect(insideNow(loop, dryContents(twin), true)).toMatchObject({ by: 'book', volume: { volumeMl: 0 }, shares: {} });
  });

  it('stands at the mark where a fill is on record and no run since: nothing more would go in', () => {
    const now = insideNow(loop, null, true);
    expect(now).toMatchObject({ by: 'fill', shares: null });
    const { reservoirMl, wettedMl } = now.standing as NonNullable<typeof now.standing>;
    const fill = simulateFill(loop, liquidAt(WATER, 25), firstReservoir(loop), { reservoirMl, wettedMl: Float64Array.from(wettedMl) });
    expect(fill.totalMl).toBeLessThan(1);
  });

  it('is what the book says, part by part', () => {
    const contents = filledContents(twin, { volumeMl: 500, sdMl: 20 });
    const half = { ...contents, standing: contents.standing && { ...contents.standing, reservoirMl: 40 } };
    const now = insideNow(loop, half, true);
    expect(now.volume).toEqual({ volumeMl: 500, sdMl: 20 });
    expect(now.shares?.[twin.reservoir.id]).toBeCloseTo(40 / twin.brimMl, 6);
  });

  it('says that nobody knows, and of another shape only how much', () => {
    expect(insideNow(loop, { ...dryContents(null), insideMl: null }, true)).toMatchObject({ by: 'nobody', volume: null, shares: null });
    const other = {
      ...filledContents(twin, { volumeMl: 500, sdMl: 20 }),
      standing: { reservoirMl: 10, reservoirSdMl: 1, wettedMl: [1, 2], isRound: false },
    };
    expect(insideNow(loop, other, true)).toMatchObject({ by: 'book', volume: { volumeMl: 500 }, shares: null, standing: null });
    // drained to its last drops it is not drawn full
    expect(insideNow(loop, { ...other, insideMl: 20 }, true)).toMatchObject({ by: 'book', volume: { volumeMl: 20 }, shares: {} });
  });
});
