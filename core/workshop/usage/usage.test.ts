import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { readInput } from '../../base/checking/input.js';
import { usageReadingSchema } from './schema.js';
import { DEFAULT_HOURS_PER_DAY } from './defaults.js';
import { USAGE_SOURCES, usageOf, usedFigures, type UsageReading } from './usage.js';

const meter = (on: string, hours: number, meanCoolantC: number | null = null): UsageReading => ({
  id: on,
  source: 'meter',
  fromOn: null,
  on,
  hours,
  meanCoolantC,
});
const log = (fromOn: string, on: string, hours: number, meanCoolantC: number | null = null): UsageReading => ({
  id: on,
  source: 'log',
  fromOn,
  on,
  hours,
  meanCoolantC,
});
const usage = (readings: readonly UsageReading[], more: { hours?: number; coolant?: number; since?: string } = {}) =>
  usageOf({ readings, ownerHoursPerDay: more.hours ?? null, ownerCoolantC: more.coolant ?? null, since: more.since ?? '2026-01-01' });

describe('how a machine is used', () => {
  it('believes its meter before its log, that before its owner, that before the default', () => {
    const all = usage([meter('2026-03-01', 100), meter('2026-03-31', 190), log('2026-03-01', '2026-03-10', 50)], { hours: 8 });
    expect(all.hoursPerDay.map(({ source, value }) => [source, value])).toEqual([
      ['meter', 3],
      ['log', 5],
      ['owner', 8],
      ['default', DEFAULT_HOURS_PER_DAY],
    ]);
    expect(usedFigures(all)).toMatchObject({ hoursPerDay: 3, hoursSource: 'meter', meanCoolantC: null });
    expect(usedFigures(usage([]))).toMatchObject({ hoursPerDay: null, hoursSource: 'default', coolantSource: 'default' });
  });

  it('says on which days a figure rests', () => {
    expect(usage([meter('2026-03-31', 190), meter('2026-03-01', 100)]).hoursPerDay[0]?.span).toEqual({
      from: '2026-03-01',
      to: '2026-03-31',
    });
  });

  it('takes a count that fell for a new meter, not for time that ran backwards', () => {
    const changed = usage([meter('2026-02-01', 900), meter('2026-03-01', 4), meter('2026-03-21', 64)]);
    expect(changed.hoursPerDay[0]).toMatchObject({ source: 'meter', value: 3 });
  });

  it('needs a whole week before it believes a rate', () => {
    expect(usage([meter('2026-03-01', 0), meter('2026-03-05', 40)]).hoursPerDay[0]?.source).toBe('default');
    expect(usage([log('2026-03-01', '2026-03-06', 12)]).hoursPerDay[0]?.source).toBe('default');
    expect(usage([log('2026-03-01', '2026-03-07', 14)]).hoursPerDay[0]).toMatchObject({ source: 'log', value: 2 });
  });

  it('lets readings since the fill speak alone once they span a week', () => {
    const readings = [meter('2026-01-01', 0), meter('2026-05-01', 1200), meter('2026-05-21', 1240)];
    expect(usage(readings, { since: '2026-05-01' }).hoursPerDay[0]?.value).toBe(2);
    expect(usage(readings, { since: '2026-05-15' }).hoursPerDay[0]?.value).toBeCloseTo(1240 / 140, 6);
  });

  it('weighs mean temperatures by the hours they were measured over', () => {
    const mixed = usage([log('2026-03-01', '2026-03-10', 30, 40), log('2026-04-01', '2026-04-10', 10, 32)], { coolant: 50 });
    expect(mixed.coolantC.map(({ source, value }) => [source, value])).toEqual([
      ['log', 38],
      ['owner', 50],
    ]);
  });

  it('never finds more hours than a day has, whatever is read in which order', () => {
    const reading = fc.record({ day: fc.integer({ min: 1, max: 28 }), perDay: fc.double({ min: 0, max: 24, noNaN: true }) });
    fc.assert(
      fc.property(fc.array(reading, { maxLength: 8 }), (drawn) => {
        let total = 0;
        let last = 1;
        const ordered = [...drawn]
          .sort((a, b) => a.day - b.day)
          .map(({ day, perDay }) => {
            total += (day - last) * perDay;
            last = day;
            return meter(`2026-03-${String(day).padStart(2, '0')}`, total);
          });
        for (const { value } of usage([...ordered].reverse()).hoursPerDay) expect(value).toBeLessThanOrEqual(24 + 1e-9);
      }),
    );
  });

  it('ranks every source there is', () => expect(USAGE_SOURCES).toEqual(['meter', 'log', 'owner', 'default']));
});

describe('a reading as it is entered', () => {
  const reading = { source: 'log', fromOn: '2026-03-01', on: '2026-03-02', hours: 20, meanCoolantC: 33, note: '' };
  it.each([
    ['more hours than its days have', { hours: 49 }, /48 hours in all/],
    ['a log without its first day', { fromOn: null }, /first day/],
    ['a meter with two days', { source: 'meter' }, /belongs to a log/],
    ['a log that ends before it begins', { fromOn: '2026-03-05' }, /ends on its first day or later/],
    ['coolant that boils', { meanCoolantC: 140 }, /90/],
  ])('refuses %s', (_, more, words) => {
    expect(() => readInput(usageReadingSchema, { ...reading, ...more })).toThrow(words);
  });
  it('takes a whole one', () => expect(readInput(usageReadingSchema, reading)).toEqual(reading));
});
