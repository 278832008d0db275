import { describe, expect, it } from 'vitest';
import { compareBaselines } from '../../physics/diagnosis/compare.js';
import type { BaselineReading } from '../../physics/diagnosis/reading.js';
import { comparisonWords, perWattWords } from './readings.js';

const load: BaselineReading = {
  setting: 'load, quiet',
  workload: 'render',
  durationMinutes: 60,
  powerW: 200,
  sensor: 'processor package',
  statistic: 'peak',
  panels: 'on',
  pumpPercent: 60,
  fanPercent: 40,
  roomC: 20,
  partC: 70,
  coolantC: null,
  flowLph: null,
  levelMm: null,
};
const words = (after: Partial<BaselineReading>): string => comparisonWords(compareBaselines(load, { ...load, ...after }));

describe('what two baselines come to, in words', () => {
  it('has its kelvin, and how sure they are', () => {
    expect(words({ partC: 62 })).toMatch(/^8\.0 ± 1\.\d K cooler than before$/);
    expect(words({ partC: 80 })).toMatch(/^10\.0 ± 1\.\d K hotter than before$/);
    expect(words({ partC: 69 })).toMatch(/^no difference seen: −1\.0 ± 1\.\d K at the same power$/);
  });

  it('has the same per watt, where somebody knew the watts', () => {
    const perWatt = (before: BaselineReading, after: Partial<BaselineReading>): string =>
      perWattWords(compareBaselines(before, { ...before, ...after }));
    expect(perWatt(load, { partC: 62 })).toBe('−0.040 K/W');
    expect(perWatt(load, { partC: 80 })).toBe('+0.050 K/W');
    expect(perWatt({ ...load, powerW: null }, { partC: 62 })).toBe('');
    expect(perWatt(load, { panels: 'off' })).toBe('');
  });

  it('names what makes two readings unlike', () => {
    expect(words({ sensor: 'hottest core', panels: 'off' })).toBe('not comparable: another sensor; panels on the one time, off the other');
    expect(words({ powerW: 300 })).toBe('not comparable: the power of processor package differs: 200 and 300 W');
  });

  it('is at least as good where the task was harder', () => {
    expect(words({ fanPercent: 20, partC: 60 })).toMatch(/^at least 10\.0 ± 0\.\d K cooler than before: its task was harder$/);
    expect(words({ fanPercent: 20 })).toBe('not comparable: the fans’ setting differs: 40 % and 20 %');
  });
});
