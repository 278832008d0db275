import type { BaselineReading } from './reading.js';
import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { solveFlow } from '../flow/flow.js';
import { WATER, waterAt } from '../../machine/liquids/fluids.js';
import { readLoopFile } from '../../machine/loop-file/loopFileSchema.js';
import { blocksFromBaselines } from './measured.js';
import { airOf, blockResistance, solveHeat } from '../heat/steady.js';

const loop = readLoopFile(JSON.parse(readFileSync('examples/two-radiators.json', 'utf8')));
const reading: BaselineReading = {
  setting: 'load, quiet',
  workload: 'render',
  durationMinutes: 45,
  powerW: 150,
  sensor: 'processor package',
  statistic: 'mean of the last five minutes',
  panels: 'on',
  pumpPercent: 100,
  fanPercent: 50,
  roomC: 22,
  partC: 61,
  coolantC: 34,
  flowLph: 200,
  levelMm: null,
};

describe('a block’s resistance from a baseline', () => {
  it('is the part’s excess over the coolant by its power, at the measured flow', () => {
    const [block] = blocksFromBaselines(loop, [reading], WATER);
    expect(block?.id).toBe('cpu');
    expect(block?.kelvinPerWatt).toBeCloseTo(27 / 150, 12);
    expect(block?.factor).toBeCloseTo(27 / 150 / blockResistance(200), 12);
    expect(block?.sdKelvinPerWatt).toBeGreaterThan(0);
  });

  it('makes the twin say what was measured, at the same flow and load', () => {
    const flow = solveFlow(loop, { fluid: waterAt(35), speeds: {}, closed: [] });
    const measured = { ...reading, flowLph: Math.abs(flow.links.get('cpu')?.flowLph ?? 0) };
    const blockFactors = Object.fromEntries(blocksFromBaselines(loop, [measured], WATER).map(({ id, factor }) => [id, factor]));
    const { parts } = solveHeat(loop, flow, { roomC: 22, fluid: waterAt(35), loadsW: { cpu: 150 }, caseHeatW: 0, air: airOf(loop, 0.5), blockFactors }); // prettier-ignore
    const cpu = parts.find(({ id }) => id === 'cpu');
    expect((cpu?.partC ?? 0) - ((cpu?.coolantInC ?? 0) + (cpu?.coolantOutC ?? 0)) / 2).toBeCloseTo(27, 9);
  });

  it('takes the twin’s flow at the noted pump speed where none was measured', () => {
    const [slow] = blocksFromBaselines(loop, [{ ...reading, flowLph: null, pumpPercent: 50 }], WATER);
    const [fast] = blocksFromBaselines(loop, [{ ...reading, flowLph: null }], WATER);
    expect(slow?.flowLph).toBeLessThan(fast?.flowLph ?? 0);
  });

  it('prefers the newest reading that can be used', () => {
    const [block] = blocksFromBaselines(loop, [{ ...reading, coolantC: null }, { ...reading, partC: 49 }, reading], WATER);
    expect(block?.kelvinPerWatt).toBeCloseTo(15 / 150, 12);
  });

  it('is not told from readings that cannot tell', () => {
    const useless: Partial<BaselineReading>[] = [{ coolantC: null }, { powerW: null }, { powerW: 0 }, { durationMinutes: 10 }, { partC: 30 }, { sensor: 'ear' }]; // prettier-ignore
    for (const change of useless) expect(blocksFromBaselines(loop, [{ ...reading, ...change }], WATER), JSON.stringify(change)).toEqual([]);
  });
});
