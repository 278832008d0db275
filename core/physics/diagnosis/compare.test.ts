import type { BaselineReading } from './reading.js';
import { describe, expect, it } from 'vitest';
import { baselinesAsReading, compareBaselines, pairsOf } from './compare.js';

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
    const { changeK, verdict } = compareBaselines(load, { ...load, roomC: 26, partC: 76, coolantC: 39 });
    expect(changeK).toBeCloseTo(0, 9);
    expect(verdict).toBe('as-before');
  });

  it('takes the watts out: the same loop at 30 W more is no hotter loop', () => {
    const more = 430 / 400;
    const { changeK, verdict } = compareBaselines(load, { ...load, powerW: 430, partC: 20 + 50 * more, coolantC: 20 + 13 * more });
    expect(changeK).toBeCloseTo(0, 1);
    expect(verdict).toBe('as-before');
  });

  it('says how much cooler, and per watt', () => {
    const { changeK, changeKPerW, verdict, sdK } = compareBaselines(load, { ...load, partC: 62 });
    // both were a hundredth away from their end
    expect(changeK).toBeCloseTo(-8, 0);
    expect(changeKPerW).toBeCloseTo((changeK ?? 0) / 400, 12);
    expect(verdict).toBe('cooler');
    expect(sdK).toBeGreaterThan(1);
  });

  it('does not take a test of ten minutes for a cooler machine', () => {
    expect(compareBaselines(load, { ...load, durationMinutes: 10, partC: 61, coolantC: 30 }).verdict).toBe('as-before');
  });

  it('of unknown power both times are compared as long as it was the same, of one alone not at all', () => {
    expect(compareBaselines({ ...load, powerW: null }, { ...load, powerW: null, partC: 62 })).toMatchObject({ verdict: 'cooler', powerUnknown: true }); // prettier-ignore
    expect(compareBaselines({ ...load, powerW: null }, load).differences).toEqual([{ what: 'no-power', part: 'processor package' }]);
  });

  it('refuses unlike conditions and names each difference', () => {
    const { differences, changeK } = compareBaselines(load, { ...load, fanPercent: 80, workload: 'game', powerW: 300 });
    expect(changeK).toBeNull();
    expect(differences.map(({ what }) => what)).toEqual(['unlike', 'setting', 'power']);
  });

  it('pairs readings of one setting, the last of each', () => {
    const [pair] = pairsOf(
      [load, { ...load, partC: 71 }],
      [
        { ...load, setting: 'idle, quiet' },
        { ...load, partC: 60 },
      ],
    );
    expect([pair?.before.partC, pair?.after.partC]).toEqual([71, 60]);
    expect(pairsOf([], [load])).toEqual([]);
  });

  it('keep what a cleaning alone did apart: the two steps together are the whole', () => {
    const dusted = { ...load, partC: 64, coolantC: 29, dusted: true };
    const after = { ...load, partC: 58, coolantC: 27 };
    const [pair] = pairsOf([load, dusted], [after]);
    expect([pair?.before.partC, pair?.dusted?.partC, pair?.after.partC]).toEqual([70, 64, 58]);
    const by = (a: BaselineReading, b: BaselineReading): number => compareBaselines(a, b).changeK ?? NaN;
    expect(by(load, dusted) + by(dusted, after)).toBeCloseTo(by(load, after), 6);
    // read after the cleaning alone: that is what it came with
    expect(pairsOf([dusted], [after])).toMatchObject([{ before: { partC: 64 }, dusted: null }]);
  });

  it('pairs sensor by sensor, and those that were read both times alone', () => {
    const card = { ...load, sensor: 'graphics chip', partC: 60 };
    const found = pairsOf([load, card], [{ ...load, partC: 64 }, { ...card, partC: 51 }, { ...load, sensor: 'graphics memory' }]); // prettier-ignore
    expect(found.map(({ before, after }) => [after.sensor, before.partC, after.partC])).toEqual([
      ['processor package', 70, 64],
      ['graphics chip', 60, 51],
    ]);
    // no sensor was read twice: what cannot be compared is still said
    const [unlike] = pairsOf([card], [load]);
    expect(unlike && compareBaselines(unlike.before, unlike.after).verdict).toBe('not-comparable');
  });

  it('takes sensors of one moment together: their watts warm the coolant together', () => {
    const parts = [{ part: 'cpu', kind: 'processor' as const, name: 'processor' }, { part: 'gpu', kind: 'graphics' as const, name: 'card' }]; // prettier-ignore
    const card = { ...load, sensor: 'graphics chip', partC: 60, powerW: 320 };
    const read = baselinesAsReading([load, card, { ...load, sensor: 'hottest core', partC: 81 }], parts);
    expect(read).toMatchObject({ partsC: { cpu: 70, gpu: 60 }, powersW: { cpu: load.powerW, gpu: 320 } });
    expect(read?.sensor).toBeUndefined();
    expect(baselinesAsReading([{ ...load, sensor: 'pump head' }], parts)).toBeNull();
  });
});
