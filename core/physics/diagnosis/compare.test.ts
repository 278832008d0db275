import type { BaselineReading } from './reading.js';
import { describe, expect, it } from 'vitest';
import { compareBaselines, pairOf } from './compare.js';

const load: BaselineReading = {
  setting: 'load, quiet',
  workload: 'render',
  durationMinutes: 45,
  powerW: 400,
  sensor: 'processor package',
  statistic: 'peak',
  panels: 'on',
  pumpPercent: 60,
  fanPercent: 40,
  roomC: 20,
  partC: 70,
  coolantC: 33,
  flowLph: 180,
  levelMm: null,
};

describe('before and after', () => {
  it('compares above the room: a hotter room is not a dirty loop', () => {
    const { changeK, text } = compareBaselines(load, { ...load, roomC: 26, partC: 76 });
    expect(changeK).toBe(0);
    expect(text).toContain('as before');
  });

  it('says how much cooler, and per watt', () => {
    const { changeK, changeKPerW, text } = compareBaselines(load, { ...load, partC: 62 });
    expect(changeK).toBe(-8);
    expect(changeKPerW).toBeCloseTo(-0.02, 10);
    expect(text).toBe('8.0 K cooler than before');
  });

  it('refuses unlike conditions and names each difference', () => {
    const { differences, changeK } = compareBaselines(load, { ...load, fanPercent: 80, workload: 'game', powerW: 300 });
    expect(changeK).toBeNull();
    expect(differences).toEqual(['the workload', 'the fans’ setting', 'the load’s power']);
  });

  it('pairs readings of one setting, the last of each', () => {
    const pair = pairOf(
      [load, { ...load, partC: 71 }],
      [
        { ...load, setting: 'idle, quiet' },
        { ...load, partC: 60 },
      ],
    );
    expect([pair?.before.partC, pair?.after.partC]).toEqual([71, 60]);
    expect(pairOf([], [load])).toBeNull();
  });
});
