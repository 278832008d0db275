import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { addDays } from '../../base/units/calendar.js';
import { readLoopFile } from '../../machine/loop-file/loopFileSchema.js';
import { flowSeries } from './flowSeries.js';
import { levelDrift, vapourLine, type LevelPoint, type VapourLine } from './level.js';
import type { DatedReading } from './series.js';

const loop = readLoopFile(JSON.parse(readFileSync('examples/two-radiators.json', 'utf8')));
const FILLED = '2026-01-01';
const at = (day: number, mm: number): LevelPoint => ({ on: addDays(FILLED, day), mm, source: day <= 10 ? 'settling' : 'hand' });
const vapour: VapourLine = { mmPerMonth: 1, lowMm: 0.5, highMm: 2 };
const verdict = (...points: LevelPoint[]) => levelDrift(FILLED, points, vapour).verdict;

describe('a level that falls', () => {
  it('cannot be told before it was read, and is steady where it stands', () => {
    expect(verdict()).toBe('cannot-tell');
    expect(verdict(at(40, -4))).toBe('cannot-tell');
    expect(verdict(at(5, -1))).toBe('steady');
    expect(verdict(at(5, 0), at(90, -1))).toBe('steady');
  });

  it('in the first days is air that comes home, and vapour behind them where it goes on no faster than the walls explain', () => {
    expect(verdict(at(5, -7))).toBe('air-home');
    const drift = levelDrift(FILLED, [at(5, -7), at(185, -14)], vapour);
    expect(drift.verdict).toBe('vapour');
    expect(drift.mmPerMonth).toBeCloseTo((-7 / 180) * 30.44, 6);
    expect(drift.settledMm).toBeCloseTo(7 - (2 / 30.44) * 5, 6);
  });

  it('faster than that is a leak, slower than its reading tells is nothing yet', () => {
    expect(verdict(at(5, 0), at(65, -12))).toBe('leak');
    // two millimetres in three weeks may be the eye as well as the loop
    expect(verdict(at(5, 0), at(26, -2))).toBe('steady');
    expect(verdict(at(5, 0), at(65, 9))).toBe('rises');
    expect(levelDrift(FILLED, [at(5, 0), at(65, -12)], null).verdict).toBe('cannot-tell');
  });

  it('counts from the last fill alone', () => {
    const before = { on: '2025-12-01', mm: -30, source: 'hand' } as const;
    expect(levelDrift(FILLED, [before, at(5, 0), at(90, -1)], vapour).points).toHaveLength(2);
  });

  it('by vapour is the walls’ loss over the reservoir’s own section, in the range that published figures have', () => {
    const line = vapourLine(loop, 38);
    expect(line && line.highMm / line.mmPerMonth).toBeCloseTo(2, 9);
    expect(line && line.mmPerMonth / line.lowMm).toBeCloseTo(2, 9);
    // ten kelvin warmer: twice as much
    expect((vapourLine(loop, 48)?.mmPerMonth ?? 0) / (line?.mmPerMonth ?? 1)).toBeCloseTo(2, 9);
    expect(vapourLine({ ...loop, components: loop.components.filter(({ kind }) => kind !== 'reservoir') }, 38)).toBeNull();
  });
});

describe('flow over time', () => {
  const read = (day: number, flowLph: number, pumpSpeed?: number): DatedReading => ({
    id: `${day}`,
    on: addDays(FILLED, day),
    source: 'log',
    reading: { roomC: 22, powersW: { cpu: 100 }, partsC: { cpu: 50 }, flowLph, pumpSpeed, minutes: 60 },
  });
  it('counts what was read at the pump’s usual setting, from its best days to now', () => {
    const series = flowSeries([read(1, 180, 0.7), read(2, 182, 0.7), read(3, 179, 0.72), read(9, 240, 1), read(60, 150, 0.7), read(61, 148)], []); // prettier-ignore
    expect(series).toMatchObject({ pumpSpeed: 0.7, best: 180 });
    expect(series.points.filter(({ left }) => left).map(({ lph }) => lph)).toEqual([240]);
    expect(series.now).toBe(150);
    expect(flowSeries([], [])).toEqual({ points: [], pumpSpeed: null, best: null, now: null });
  });

  it('takes the best beginning after any fill for its best days', () => {
    const marks = [{ on: addDays(FILLED, 50), kind: 'filled' as const, part: null }];
    expect(flowSeries([read(1, 150, 0.7), read(51, 190, 0.7), read(90, 170, 0.7)], marks).best).toBe(180);
  });
});
