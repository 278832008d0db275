import { describe, expect, it } from 'vitest';
import { addDays } from '../../base/units/calendar.js';
import { seededRandom } from '../../base/random/random.js';
import type { LoadReading } from '../diagnosis/loadReading.js';
import { USUAL_LIMITS } from './limits.js';
import { conditionOf, firstCrossing, risenMostK, type ConditionMark, type DatedReading, type PartCondition } from './series.js';

const PARTS = [{ part: 'cpu', kind: 'processor' }] as const;
const DAY0 = '2026-01-01';
/** a reading whose part stands `theta` K/W over its room */
const at = (day: number, theta: number, more: Partial<LoadReading> = {}, source: DatedReading['source'] = 'log'): DatedReading => ({
  id: `${day} ${source}`,
  on: addDays(DAY0, day),
  source,
  reading: { roomC: 22, powersW: { cpu: 200 }, partsC: { cpu: 22 + 200 * theta }, pumpSpeed: 0.7, fanSpeed: 0.6, minutes: 60, ...more },
});
const days = (count: number, theta: (day: number) => number, every = 3): DatedReading[] =>
  Array.from({ length: count }, (_, n) => at(n * every, theta(n * every)));
const cpuOf = (readings: readonly DatedReading[], marks: readonly ConditionMark[] = []) =>
  conditionOf(PARTS, readings, marks, USUAL_LIMITS)[0];

describe('a part’s condition over time', () => {
  it('is a line that meets its limit on the day that the line says', () => {
    // 0.2 K/W and 0.02 a hundred days: 30 % more, 0.2606 by the first three, on day 303
    const found = cpuOf(days(30, (day) => 0.2 + 0.0002 * day));
    expect(found?.trend?.perYear).toBeCloseTo(0.0002 * 365.25, 9);
    expect(found?.trend?.theta).toBeCloseTo(0.2, 9);
    expect([found?.best, found?.now]).toEqual([expect.closeTo(0.2006, 9), expect.closeTo(0.2 + 0.0002 * 84, 9)]);
    expect(found?.limit).toMatchObject({ why: 'rise' });
    expect(found?.limit?.theta).toBeCloseTo(1.3 * 0.2006, 9);
    expect(found?.crosses?.on).toBe(addDays(DAY0, Math.floor((1.3 * 0.2006 - 0.2) / 0.0002)));
    expect(found?.step).toBeNull();
  });

  it('is limited by what it may reach on a hot day where that comes first', () => {
    const found = cpuOf(days(10, () => 0.27));
    expect(found?.limit).toMatchObject({ why: 'hot-day', powerW: 200 });
    expect(found?.limit?.theta).toBeCloseTo((90 - 32) / 200, 9);
  });

  it('does not call a season a trend, nor noise', () => {
    const random = seededRandom(4);
    const seasonal = Array.from({ length: 60 }, (_, n) => {
      const roomC = 22 + 6 * Math.sin(n / 10);
      return at(n * 4, 0.2, { roomC, partsC: { cpu: roomC + 200 * 0.2 + 0.5 * random.normal() } });
    });
    const found = cpuOf(seasonal);
    expect(found?.trend?.low?.perYear).toBeLessThan(0);
    expect(found?.trend?.high?.perYear).toBeGreaterThan(0);
    expect(found?.crosses).toBeNull();
  });

  it('tells a step from a creep', () => {
    const random = seededRandom(9);
    const noisy = (theta: (day: number) => number) => days(40, (day) => theta(day) + 0.002 * random.normal());
    const step = cpuOf(noisy((day) => (day < 60 ? 0.2 : 0.23)));
    expect(step?.step?.on).toBe(addDays(DAY0, 60));
    expect(step?.step?.by).toBeCloseTo(0.03, 2);
    expect(step?.crosses).toBeNull();
    expect(cpuOf(noisy((day) => 0.2 + 0.0004 * day))?.step).toBeNull();
  });

  it('begins anew with what was done to it, but is measured by its best days', () => {
    const filled: ConditionMark = { on: addDays(DAY0, 90), kind: 'filled', part: null };
    const before = days(30, (day) => 0.2 + 0.0003 * day);
    const same = addDays(DAY0, 90);
    const atService = [at(90, 0.226, {}, 'before'), at(90, 0.21, {}, 'after')];
    const found = cpuOf([...before, ...atService, ...[95, 100, 105].map((day) => at(day, 0.211))], [filled]);
    expect(found?.since).toBe(same);
    expect(found?.trend).toBeNull();
    // not by the 0.211 that the service left
    expect(found?.limit?.theta).toBeCloseTo(1.3 * 0.2009, 4);
    expect(found?.points).toHaveLength(35);
  });

  it('leaves out other settings and short tests, and says why', () => {
    const found = cpuOf([...days(8, () => 0.2), at(30, 0.17, { fanSpeed: 1 }), at(33, 0.1, { minutes: 8 })]);
    expect(found?.points.filter(({ left }) => left !== null).map(({ left }) => left)).toEqual(['settings', 'still-warming']);
    expect(found?.trend?.perYear).toBeCloseTo(0, 9);
  });

  it('of a machine that is read in two settings counts the one it was read in more often, the newer of two', () => {
    const quiet = (day: number) => at(day, 0.2, { fanSpeed: 0.4 }, 'after');
    const full = (day: number) => ({ ...at(day, 0.16, { fanSpeed: 1 }, 'after'), id: `${day} full` });
    const counting = (readings: readonly DatedReading[]) =>
      cpuOf(readings)
        ?.points.filter(({ left }) => left === null)
        .map(({ id }) => id);
    expect(counting([quiet(0), full(0)])).toEqual(['0 full']);
    expect(counting([quiet(0), full(0), quiet(30)])).toEqual(['0 after', '30 after']);
  });

  it('stands over its limit only where its own error cannot explain it', () => {
    const sound = days(8, () => 0.2);
    expect(cpuOf([...sound, at(60, 0.3)])?.isOver).toBe(true);
    expect(cpuOf([...sound, at(60, 0.262)])?.isOver).toBe(false);
    // handed over hot: the bench has seen it
    const filled: ConditionMark = { on: addDays(DAY0, 60), kind: 'filled', part: null };
    expect(cpuOf([...sound, at(60, 0.3, {}, 'after')], [filled])?.isOver).toBe(false);
    expect(cpuOf([...sound, at(60, 0.3, {}, 'after'), at(64, 0.3)], [filled])?.isOver).toBe(true);
  });

  it('says nothing of few readings, and of none', () => {
    expect(cpuOf(days(4, (day) => 0.2 + day))?.trend).toBeNull();
    expect(cpuOf([])).toMatchObject({ points: [], limit: null, trend: null, crosses: null, isOver: false });
    expect(firstCrossing(conditionOf(PARTS, [], [], USUAL_LIMITS))).toBeNull();
  });

  it('splits what the coolant tells apart', () => {
    const [point] = cpuOf([at(0, 0.2, { coolantC: 34, powersW: { cpu: 200, gpu: 100 } })])?.points ?? [];
    expect(point).toMatchObject({ toCoolant: (62 - 34) / 200, toRoom: 12 / 300 });
  });

  it('holds nothing against what another cooler did, hotter or cooler', () => {
    const before = [0, 3, 6].map((day) => at(day, 0.15, { oldCooler: true, pumpSpeed: undefined, fanSpeed: undefined }));
    const after = Array.from({ length: 12 }, (_, n) => at(20 + 3 * n, 0.2));
    const found = cpuOf([...before, ...after]);
    expect(found?.points.filter(({ left }) => left === 'old-cooler')).toHaveLength(3);
    expect(found?.best).toBeCloseTo(0.2, 9);
    expect(found?.counted).toHaveLength(12);
  });
});

describe('how far a machine stands above its best days', () => {
  const part = (over: Partial<PartCondition>): PartCondition =>
    ({ part: 'cpu', counted: [{ powerW: 100 }, { powerW: 120 }, { powerW: 140 }], best: 0.2, now: 0.25, ...over }) as PartCondition;
  it('is told in kelvin at the watts that the part is usually read with, of the part that rose most', () => {
    expect(risenMostK([part({}), part({ now: 0.21 })])).toBeCloseTo(6, 9);
    expect(risenMostK([part({ best: null }), part({ counted: [] })])).toBeNull();
  });
});
