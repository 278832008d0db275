import { describe, expect, it } from 'vitest';
import { usualLoop } from '../../machine/catalogue/testLoops.js';
import { WATER } from '../../machine/liquids/fluids.js';
import { saturate } from '../../physics/diagnosis/saturation.js';
import { SimulatedBench } from './bench.js';
import { SIMULATED } from './defaults.js';
import { fill } from './testHands.js';
import { drawTruth, type HiddenTruth } from './truth.js';

function filled(more: Partial<HiddenTruth> = {}): SimulatedBench {
  const bench = new SimulatedBench(usualLoop(), { ...drawTruth(usualLoop(), 7, 'clean'), ...more }, WATER, 0, 7);
  fill(bench);
  bench.switchSupply(true);
  bench.advance(60);
  return bench;
}

const temp = (bench: SimulatedBench): number => bench.readings()['processor-temp'] ?? NaN;

describe('a load test at the simulated bench', () => {
  it('warms towards an end that its first ten minutes foretell', () => {
    const bench = filled();
    expect(bench.readings()['processor-temp']).toBeNull();
    expect(bench.instruments).not.toContain('processor-temp');
    bench.act({ do: 'load', on: true });
    expect(bench.instruments).toContain('processor-temp');
    expect(bench.instruments).not.toContain('memory-temp');
    // a part itself is warm within a minute or two: the coolant is what takes its time
    bench.advance(120);
    const samples = Array.from({ length: 13 }, (_, minute) => {
      const sample = { tS: minute * 60, tempC: temp(bench) };
      bench.advance(60);
      return sample;
    });
    const found = saturate(samples);
    bench.advance(5400);
    expect(bench.readings()['processor-power']).toBeGreaterThan(100);
    expect(Math.abs(temp(bench) - (found?.finalC ?? NaN))).toBeLessThan(3 * (found?.finalSdC ?? NaN) + SIMULATED.roomSwingK + 0.3);
    expect(temp(bench)).toBeGreaterThan((bench.readings()['coolant-temp'] ?? NaN) + 5);
  });

  it('ends hotter behind a choked block', () => {
    const processor = usualLoop().components.find(({ place }) => place === 'board')?.id ?? '';
    const [sound, choked] = [{}, { narrow: { place: processor, why: 'choked' as const } }].map((truth) => {
      const bench = filled(truth);
      bench.act({ do: 'load', on: true });
      bench.advance(5400);
      return temp(bench);
    }) as [number, number];
    expect(choked).toBeGreaterThan(sound + 2);
  });

  it('gives up work where nothing flows, and cools down once the load ends', () => {
    const dry = new SimulatedBench(usualLoop(), drawTruth(usualLoop(), 7, 'clean'), WATER, 0, 7);
    dry.act({ do: 'load', on: true });
    dry.advance(600);
    expect(temp(dry)).toBeCloseTo(SIMULATED.throttlesAtC, 0);
    expect(dry.readings()['processor-power']).toBeLessThan(140);
    const bench = filled();
    bench.act({ do: 'load', on: true });
    bench.advance(1800);
    expect(bench.readings().flow).toBeGreaterThan(50);
    bench.act({ do: 'load', on: false });
    bench.advance(3600);
    expect(temp(bench)).toBeLessThan(SIMULATED.roomC + 8);
  });
});
