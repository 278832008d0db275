import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { compareReadings } from './compareReadings.js';
import { asDrawn, type LoadReading } from './loadReading.js';

const sound: LoadReading = {
  roomC: 22,
  powersW: { cpu: 150, gpu: 300 },
  partsC: { cpu: 64, gpu: 55 },
  coolantC: 34,
  pumpSpeed: 0.6,
  fanSpeed: 0.4,
  workload: 'render',
  sensor: 'package',
  statistic: 'mean',
  panels: 'on',
};
const alone: LoadReading = { roomC: 22, powersW: { cpu: 200 }, partsC: { cpu: 62 } };

describe('two readings of one machine', () => {
  it('are the same loop at more watts in a hotter room', () => {
    // 20 % more everywhere: parts over coolant and coolant over room grow with it
    const more: LoadReading = { ...sound, roomC: 27, powersW: { cpu: 180, gpu: 360 }, coolantC: 27 + 12 * 1.2, partsC: { cpu: 27 + 42 * 1.2, gpu: 27 + 33 * 1.2 } }; // prettier-ignore
    const { comparable, differences, parts } = compareReadings(sound, more);
    expect([comparable, differences]).toEqual([true, []]);
    for (const part of Object.values(parts)) {
      expect(part.changeK).toBeCloseTo(0, 9);
      expect(part.verdict).toBe('as-before');
    }
  });

  it('differ by what the contract’s formula says, with the coolant and without', () => {
    const later: LoadReading = { ...sound, roomC: 25, powersW: { cpu: 160, gpu: 290 }, coolantC: 39, partsC: { cpu: 79, gpu: 61 } };
    const { parts } = compareReadings(sound, later);
    const expected = ((79 - 39) / 160 - (64 - 34) / 150) * 150 + ((39 - 25) / 450 - (34 - 22) / 450) * 450;
    expect(parts.cpu?.changeK).toBeCloseTo(expected, 12);
    expect(parts.cpu?.changeKPerW).toBeCloseTo(expected / 150, 12);
    expect(parts.cpu?.verdict).toBe('hotter');
    const bare = compareReadings(alone, { ...alone, roomC: 20, powersW: { cpu: 220 }, partsC: { cpu: 69 } }).parts.cpu;
    expect(bare?.changeK).toBeCloseTo((49 / 220 - 40 / 200) * 200, 12);
    // 0.5 K and 0.3 K twice, 2 % of each excess
    const own = 200 / 220;
    expect(bare?.sdK).toBeCloseTo(Math.sqrt(0.34 + 0.8 ** 2 + own ** 2 * 0.34 + (0.02 * 49 * own) ** 2), 12);
  });

  it('are told apart by errors that simulated readings have', () => {
    // the sd is that of the formula itself, by small steps of every figure
    const later: LoadReading = { ...sound, coolantC: 36, partsC: { cpu: 66, gpu: 57 } };
    const change = (a: LoadReading, b: LoadReading): number =>
      (((b.partsC.cpu ?? 0) - (b.coolantC ?? 0)) / (b.powersW.cpu ?? 1) - ((a.partsC.cpu ?? 0) - (a.coolantC ?? 0)) / (a.powersW.cpu ?? 1)) * 150 +
      (((b.coolantC ?? 0) - b.roomC) / ((b.powersW.cpu ?? 0) + (b.powersW.gpu ?? 0)) - ((a.coolantC ?? 0) - a.roomC) / ((a.powersW.cpu ?? 0) + (a.powersW.gpu ?? 0))) * 450; // prettier-ignore
    const steps: ((reading: LoadReading, by: number) => LoadReading)[] = [
      (reading, by) => ({ ...reading, roomC: reading.roomC + 0.3 * by }),
      (reading, by) => ({ ...reading, coolantC: (reading.coolantC ?? 0) + 0.3 * by }),
      (reading, by) => ({ ...reading, partsC: { ...reading.partsC, cpu: (reading.partsC.cpu ?? 0) + 0.5 * by } }),
      (reading, by) => ({ ...reading, powersW: { ...reading.powersW, cpu: (reading.powersW.cpu ?? 0) * (1 + 0.02 * by) } }),
      (reading, by) => ({ ...reading, powersW: { ...reading.powersW, gpu: (reading.powersW.gpu ?? 0) * (1 + 0.02 * by) } }),
    ];
    const whole = sound;
    const end = later;
    const variance = steps.reduce((sum, step) => {
      const [a, b] = [change(step(whole, 1e-4), end) - change(step(whole, -1e-4), end), change(whole, step(end, 1e-4)) - change(whole, step(end, -1e-4))]; // prettier-ignore
      return sum + ((a as number) / 2e-4) ** 2 + ((b as number) / 2e-4) ** 2;
    }, 0);
    expect(compareReadings(whole, end).parts.cpu?.sdK).toBeCloseTo(Math.sqrt(variance), 6);
  });

  it.each([
    ['workload', { workload: 'game' }],
    ['sensor', { sensor: 'hottest core' }],
    ['statistic', { statistic: 'peak' }],
    ['panels', { panels: 'off' }],
  ])('of another %s are not compared, whatever they say', (condition, change) => {
    const { comparable, differences, parts } = compareReadings(sound, { ...sound, ...change, partsC: { cpu: 20, gpu: 20 } });
    expect(comparable).toBe(false);
    expect(differences).toEqual([{ what: 'unlike', condition }]);
    expect(parts.cpu).toEqual({ changeK: null, sdK: null, changeKPerW: null, verdict: 'not-comparable' });
  });

  it('name a condition that only one of them has, and are still compared', () => {
    const { comparable, differences } = compareReadings(sound, { ...sound, sensor: undefined, coolantC: undefined });
    expect(comparable).toBe(true);
    expect(differences).toEqual([
      { what: 'missing', condition: 'sensor', in: 'after' },
      { what: 'missing', condition: 'coolantC', in: 'after' },
    ]);
  });

  it('bar a part of much more power, a part replaced, one without power and one that is not there, and no other', () => {
    const change = (after: Partial<LoadReading>) => compareReadings(sound, { ...sound, ...after });
    expect(change({ powersW: { cpu: 190, gpu: 300 } })).toMatchObject({ comparable: true, parts: { cpu: { verdict: 'not-comparable' }, gpu: { verdict: 'as-before' } } }); // prettier-ignore
    expect(change({ changed: ['gpu'] }).differences).toEqual([{ what: 'changed-part', part: 'gpu' }]);
    expect(change({ powersW: { cpu: 0, gpu: 300 } }).parts.cpu?.verdict).toBe('not-comparable');
    expect(change({ partsC: { cpu: 64 } }).parts.gpu?.verdict).toBe('not-comparable');
    expect(change({ changed: ['gpu', 'cpu'] }).comparable).toBe(false);
  });

  it('without the coolant do not compare a part whose share of the heat moved', () => {
    const [a, b] = [sound, { ...sound, powersW: { cpu: 150, gpu: 330 } }].map((each) => ({ ...each, coolantC: undefined })) as [LoadReading, LoadReading]; // prettier-ignore
    expect(compareReadings(a, b).differences).toEqual([{ what: 'share-of-heat', part: 'cpu' }]);
    expect(compareReadings({ ...a, powersW: { cpu: 150, gpu: 300 } }, { ...b, powersW: { cpu: 150, gpu: 310 } }).differences).toEqual([]);
  });

  it('after a short test are brought to their end, and say how little that is worth', () => {
    const short = compareReadings(alone, { ...alone, minutes: 10 }).parts.cpu;
    const missing = 1 / (1 - Math.exp(-1)) - 1;
    expect(short?.changeK).toBeCloseTo((40 * missing) / 2, 9);
    expect(short?.sdK).toBeGreaterThan((40 * missing) / 2);
    expect(short?.verdict).toBe('as-before');
    expect(compareReadings(alone, { ...alone, reachedFraction: 0.04 }).comparable).toBe(false);
    expect(compareReadings(alone, { ...alone, minutes: 1, reachedFraction: 1 }).parts.cpu?.changeK).toBeCloseTo(0, 9);
  });

  it('cooler at slower fans is cooler by that at least, hotter at faster ones hotter', () => {
    const slower = compareReadings(sound, { ...sound, fanSpeed: 0.2, partsC: { cpu: 58, gpu: 55 } });
    expect(slower.comparable).toBe(false);
    expect(slower.parts.cpu).toMatchObject({ changeK: -6, verdict: 'cooler', atLeast: true });
    expect(slower.parts.gpu?.verdict).toBe('not-comparable');
    expect(compareReadings(sound, { ...sound, fanSpeed: 0.6, partsC: { cpu: 70, gpu: 55 } }).parts.cpu).toMatchObject({ changeK: 6, verdict: 'hotter', atLeast: true }); // prettier-ignore
    // slower fans and less power pull both ways
    expect(compareReadings(sound, { ...sound, fanSpeed: 0.2, powersW: { cpu: 100, gpu: 300 }, partsC: { cpu: 50, gpu: 55 } }).parts.cpu?.verdict).toBe('not-comparable'); // prettier-ignore
    expect(compareReadings(sound, { ...sound, fanSpeed: 0.2, workload: 'game', partsC: { cpu: 50, gpu: 55 } }).parts.cpu?.verdict).toBe('not-comparable'); // prettier-ignore
  });

  it('told the other way round change sign where the power was the same', () => {
    const temp = fc.double({ min: 40, max: 90, noNaN: true });
    fc.assert(
      fc.property(temp, temp, temp, temp, (a, b, c, d) => {
        const [one, other] = [
          { ...sound, partsC: { cpu: a, gpu: b } },
          { ...sound, partsC: { cpu: c, gpu: d } },
        ];
        const [there, back] = [compareReadings(one, other), compareReadings(other, one)];
        for (const part of ['cpu', 'gpu']) expect(there.parts[part]?.changeK).toBeCloseTo(-(back.parts[part]?.changeK ?? NaN), 9);
      }),
    );
  });

  it('go by the name of their settings where no figures were noted', () => {
    const named = (profile: string): LoadReading => ({ ...alone, profile });
    expect(compareReadings(named('Still'), named('still ')).comparable).toBe(true);
    expect(compareReadings(named('still'), named('full')).differences).toContainEqual({ what: 'unlike', condition: 'profile' });
    const figures = { pumpSpeed: 0.6, fanSpeed: 0.4 };
    expect(compareReadings({ ...named('still'), ...figures }, { ...named('full'), ...figures }).comparable).toBe(true);
  });

  it('that were taken before a loop was drawn speak of its one block of that kind', () => {
    const reading: LoadReading = { roomC: 22, powersW: { processor: 150, graphics: 300 }, partsC: { processor: 70, graphics: 60 } };
    const parts = [{ part: 'cpu', kind: 'processor' as const, name: 'cpu' }, ...['a', 'b'].map((part) => ({ part, kind: 'graphics' as const, name: part }))]; // prettier-ignore
    expect(asDrawn(reading, parts)).toMatchObject({ partsC: { cpu: 70, graphics: 60 }, powersW: { cpu: 150, graphics: 300 } });
  });
});
