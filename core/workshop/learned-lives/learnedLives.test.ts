import { describe, expect, it } from 'vitest';
import { often } from '../../../tests/often.js';
import { seededRandom, type Random } from '../../base/random/random.js';
import type { Life } from '../../base/statistics/lives.js';
import { EARLY, earlyGroups, type GroupedLife } from './earlyGroups.js';
import { LEARNING, learnedLife, lifeOfFill } from './fillLives.js';

/** ages of a Weibull, ended by failure or by a change after so many months */
const drawn = (random: Random, shape: number, scale: number, changedAfter: number): Life => {
  const age = scale * (-Math.log(1 - random.next())) ** (1 / shape);
  return { months: Math.min(age, changedAfter), event: age < changedAfter, entryMonths: 0 };
};

describe('a fill as a life', () => {
  const fill = { filledOn: '2026-01-01', drainedOn: null, failedOn: [], knownFrom: null, today: '2026-07-01' };
  it('ends with what was found of it, or is still good when it came out, or today', () => {
    expect(lifeOfFill(fill)).toEqual({ months: 181 / 30.44, event: false, entryMonths: 0 });
    expect(lifeOfFill({ ...fill, drainedOn: '2026-04-01' })).toEqual({ months: 90 / 30.44, event: false, entryMonths: 0 });
    expect(lifeOfFill({ ...fill, failedOn: ['2026-06-01', '2026-03-02', '2025-12-01'] })).toMatchObject({
      months: 60 / 30.44,
      event: true,
    });
    // found in the next fill: not this one's
    expect(lifeOfFill({ ...fill, drainedOn: '2026-04-01', failedOn: ['2026-05-01'] }).event).toBe(false);
  });

  it('of another workshop’s book counts from the day it was known', () => {
    const { months, entryMonths } = lifeOfFill({ ...fill, knownFrom: '2026-04-01' });
    expect(entryMonths).toBeCloseTo(90 / 30.44, 9);
    expect(entryMonths).toBeLessThan(months);
    expect(lifeOfFill({ ...fill, knownFrom: '2026-08-01' }).entryMonths).toBeLessThan(months);
    expect(lifeOfFill({ ...fill, failedOn: ['2026-01-01'] }).months).toBeGreaterThan(0);
  });
});

describe('how long coolants last here', () => {
  it('is their class’s word while nothing failed, and their own the more fails', () => {
    const random = seededRandom(3);
    const lives = (count: number) => Array.from({ length: count }, () => drawn(random, 3, 20, 24));
    expect(
      learnedLife(
        lives(30).map((life) => ({ ...life, event: false })),
        12,
      ),
    ).toBeNull();
    const [few, many] = [learnedLife(lives(8), 12), learnedLife(lives(300), 12)];
    // a Weibull of shape 3 and scale 20 has lost one in twenty by then
    const truth = 20 * (-Math.log(0.95)) ** (1 / 3);
    expect(many?.alone.months).toBeGreaterThan(0.8 * truth);
    expect(many?.alone.months).toBeLessThan(1.2 * truth);
    expect(many?.weight).toBeGreaterThan(0.95);
    expect(few?.weight).toBeLessThan(0.7);
    expect(few?.weight).toBe((few?.failed ?? 0) / ((few?.failed ?? 0) + LEARNING.policyWorth));
    for (const found of [few, many]) {
      const between = [found?.alone.months ?? 0, 12].sort((a, b) => a - b) as [number, number];
      expect(found?.months).toBeGreaterThanOrEqual(between[0]);
      expect(found?.months).toBeLessThanOrEqual(between[1]);
    }
  });
});

describe('lots that fail early', () => {
  const lot = (random: Random, group: string, machines: number, scale = 24): GroupedLife[] =>
    Array.from({ length: machines }, (_, n) => ({ ...drawn(random, 2, scale, 12), systemId: `${group} ${n}`, kind: 'clear', group }));

  it('are named where they do', () => {
    const random = seededRandom(8);
    const lives = [...Array.from({ length: 19 }, (_, n) => lot(random, `L${n}`, 8)).flat(), ...lot(random, 'bad', 8, 5)];
    const [first, ...others] = earlyGroups(lives);
    expect(first).toMatchObject({ group: 'bad', machines: 8 });
    expect(first?.observed).toBeGreaterThan(2 * (first?.expected ?? Infinity));
    expect(others).toEqual([]);
  });

  it('of twenty equal ones hardly ever', () => {
    const workshops = often(150);
    let flagged = 0;
    for (let seed = 1; seed <= workshops; seed += 1) {
      const random = seededRandom(1000 + seed);
      if (earlyGroups(Array.from({ length: 20 }, (_, n) => lot(random, `L${n}`, 6)).flat()).length > 0) flagged += 1;
    }
    expect(flagged / workshops).toBeLessThanOrEqual(0.02);
  });

  it('count a machine once, however often it was filled from them', () => {
    const random = seededRandom(8);
    const others = Array.from({ length: 12 }, (_, n) => lot(random, `L${n}`, 6)).flat();
    const again = Array.from({ length: 9 }, (): GroupedLife => ({
      months: 2,
      event: true,
      entryMonths: 0,
      systemId: 'one',
      kind: 'clear',
      group: 'same',
    }));
    expect(earlyGroups([...others, ...again])).toEqual([]);
    expect(earlyGroups([...others, ...again.map((life, n) => ({ ...life, systemId: `${n}` }))]).map(({ group }) => group)).toEqual([
      'same',
    ]);
  });

  it('are held against their own kind: pastels are no early clear coolants', () => {
    const random = seededRandom(5);
    const short = Array.from({ length: 4 }, (_, n) => lot(random, `P${n}`, 6, 4)).flat();
    const long = Array.from({ length: 12 }, (_, n) => lot(random, `C${n}`, 6)).flat();
    const named = (lives: readonly GroupedLife[]): (string | null)[] => earlyGroups(lives).map(({ group }) => group);
    expect(named([...long, ...short]).length).toBeGreaterThan(0);
    expect(named([...long, ...short.map((life) => ({ ...life, kind: 'opaque' }))])).toEqual([]);
    // what came from an unknown lot is one of the others, never named
    expect(named([...long, ...short.map((life) => ({ ...life, group: null }))])).toEqual([]);
  });

  it('need three failures, and others to be held against', () => {
    const failed = (n: number): GroupedLife => ({ months: 1, event: true, entryMonths: 0, systemId: `${n}`, kind: 'clear', group: 'two' });
    const sound = Array.from({ length: 30 }, (_, n): GroupedLife => ({ months: 12, event: false, entryMonths: 0, systemId: `s${n}`, kind: 'clear', group: 'sound' })); // prettier-ignore
    expect(earlyGroups([failed(1), failed(2), ...sound])).toEqual([]);
    expect(earlyGroups([failed(1), failed(2), failed(3)])).toEqual([]);
    const [named] = earlyGroups([failed(1), failed(2), failed(3), ...sound]);
    // three of thirty-three, all three of this lot: one way among C(33, 3)
    expect(named?.p).toBeLessThanOrEqual(2 / (EARLY.draws + 1));
  });
});
