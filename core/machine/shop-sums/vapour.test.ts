import { describe, expect, it } from 'vitest';
import { usualLoop } from '../catalogue/testLoops.js';
import { reservoirMarks } from '../loop-file/marks.js';
import type { LoopFile } from '../loop-file/loopFile.js';
import { vapourOf } from './vapour.js';
import { WALL_LOSS } from './wallLoss.js';

const of = (material: string, loop = usualLoop()): LoopFile => ({ ...loop, tubes: loop.tubes.map((tube) => ({ ...tube, material })) });

describe('vapour through the walls of a loop', () => {
  it('empties the room above the low mark in months, sooner and later by what published walls differ', () => {
    const loop = of('pvc');
    const reservoir = loop.components.find(({ kind }) => kind === 'reservoir') as LoopFile['components'][number];
    const { fillMarkMl, lowMarkMl } = reservoirMarks(reservoir);
    const { mlPerMonth, months, roomMl } = vapourOf(loop, 35) ?? {};
    expect(roomMl).toBeCloseTo(fillMarkMl - lowMarkMl, 9);
    expect(months?.likely).toBeCloseTo((fillMarkMl - lowMarkMl) / (mlPerMonth ?? 1), 9);
    expect((months?.likely ?? 0) / (months?.soonest ?? 1)).toBeCloseTo(WALL_LOSS.spread, 9);
    // half of the room is there for half the time
    expect(vapourOf(loop, 35, (fillMarkMl + lowMarkMl) / 2)?.months?.likely).toBeCloseTo((months?.likely ?? 0) / 2, 9);
    expect(vapourOf(loop, 35, 0)?.months?.likely).toBe(0);
  });

  it('puts the same tubes of other walls beside it, glass first', () => {
    const { others } = vapourOf(of('pvc'), 35) ?? { others: [] };
    expect(others[0]).toMatchObject({ mlPerMonth: 0 });
    expect(others.at(-1)?.material).toBe('pur');
    expect(vapourOf(of('glass'), 35)).toMatchObject({ mlPerMonth: 0, months: null });
    expect(others.find(({ material }) => material === 'pvc')?.mlPerMonth).toBeCloseTo(vapourOf(of('pvc'), 35)?.mlPerMonth ?? 0, 9);
  });

  it('cannot tell of walls that no table knows, and has no mark to reach without a reservoir', () => {
    expect(vapourOf(of('hemp'), 35)).toBeNull();
    const loop = of('epdm');
    const without = {
      ...loop,
      components: loop.components.map((part) => (part.kind === 'reservoir' ? { ...part, kind: 'junction' } : part)),
    };
    expect(vapourOf(without, 35)).toMatchObject({ roomMl: null, months: null });
  });
});
