import type { LoopFile } from '../../machine/loop-file/loopFile.js';
import { loopOf, part, usualLoop } from '../../machine/catalogue/testLoops.js';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { WATER } from '../../machine/liquids/fluids.js';
import { simulateFill } from '../../physics/filling/fillSimulation.js';
import { liquidAt } from '../../machine/liquids/fluids.js';
import { judgeDecay, type DecayReading } from '../../physics/leak-testing/decay.js';
import { loopVolume } from '../../machine/loop-file/volume.js';
import { cannotSimulate, SimulatedBench } from './bench.js';
import type { HandMove } from './hands.js';
import { fill } from './testHands.js';
import { drawTruth, hiddenLoop, type HiddenTruth, type Scenario } from './truth.js';
import { often } from '../../../tests/often.js';

const START = Date.parse('2026-03-10T09:00:00Z');

function benchWith(scenario: Scenario, seed = 7, more: Partial<HiddenTruth> = {}): { bench: SimulatedBench; truth: HiddenTruth } {
  const truth = { ...drawTruth(usualLoop(), seed, scenario), ...more };
  return { bench: new SimulatedBench(usualLoop(), truth, WATER, START, seed), truth };
}

describe('the air test at the simulated bench', () => {
  const test = (bench: SimulatedBench, minutes: number): DecayReading[] => {
    bench.act({ do: 'pump-up', gaugeKpa: 50 });
    return Array.from({ length: minutes + 1 }, (_, minute) => {
      if (minute > 0) bench.advance(60);
      const { gauge, 'room-temp': room } = bench.readings();
      return { tS: minute * 60, gaugeKpa: gauge as number, tempC: room as number };
    });
  };
  const judge = (readings: DecayReading[]) =>
    judgeDecay({ volumeMl: loopVolume(usualLoop()).volumeMl, readings, resolutionKpa: 0.1, limitMbarLs: 0.01 });

  it('passes a tight loop, settling and the room’s drift notwithstanding', () => {
    for (const seed of [1, 2, 3]) expect(judge(test(benchWith('clean', seed).bench, 40)).verdict).toBe('pass');
  });

  it('fails a leaking one, and water brushed on shows the joint', () => {
    const { bench, truth } = benchWith('leak');
    expect(judge(test(bench, 30)).verdict).toBe('fail');
    expect(bench.act({ do: 'brush', joint: truth.leak?.place ?? '' })?.text).toMatch(/^Bubbles at/);
    const tight = usualLoop().tubes.find(({ id }) => id !== truth.leak?.place)?.id ?? '';
    expect(bench.act({ do: 'brush', joint: tight })?.text).toMatch(/^No bubbles at/);
  });

  it('passes once the right joint was mended, and not after another was', () => {
    const { bench, truth } = benchWith('leak');
    bench.act({ do: 'mend', at: 'somewhere else' });
    expect(judge(test(bench, 30)).verdict).toBe('fail');
    bench.act({ do: 'mend', at: truth.leak?.place ?? '' });
    expect(judge(test(bench, 40)).verdict).toBe('pass');
    expect(bench.report().leakMended).toBe(true);
  });

  it('holds no pressure while a port is open, and remembers too much of it', () => {
    const { bench } = benchWith('clean');
    bench.act({ do: 'port', port: 'reservoir.fill', open: true });
    expect(bench.act({ do: 'pump-up', gaugeKpa: 50 })?.text).toMatch(/something is open/);
    expect(bench.readings().gauge).toBe(0);
    bench.act({ do: 'port', port: 'reservoir.fill', open: false });
    bench.act({ do: 'pump-up', gaugeKpa: 90 });
    expect(bench.report().happenings).toMatchObject([{ what: 'too-much-pressure', gaugeKpa: 90 }]);
  });
});

describe('filling the simulated bench', () => {
  it('takes about what its hidden loop holds, pulse by pulse, and then flows', () => {
    const { bench, truth } = benchWith('clean');
    fill(bench);
    bench.switchSupply(true);
    bench.advance(5);
    const hidden = hiddenLoop(usualLoop(), truth);
    const simulated = simulateFill(hidden, liquidAt(WATER, 21));
    expect(bench.readings().flow).toBeGreaterThan(50);
    const { pouredMl } = bench.report();
    // what a radiator’s channels carry down comes out later, while it is bled
    expect(pouredMl).toBeGreaterThan(0.9 * simulated.leastMl);
    expect(pouredMl).toBeLessThan(1.1 * loopVolume(hidden).volumeMl);
  });

  it('runs dry when nobody watches the level, and the report says when and how long', () => {
    const { bench } = benchWith('clean');
    bench.act({ do: 'pour', ml: 100 });
    bench.switchSupply(true);
    bench.advance(30);
    bench.switchSupply(false);
    const dry = bench.report().happenings.find(({ what }) => what === 'ran-dry');
    expect(dry).toMatchObject({ what: 'ran-dry' });
    expect((dry as { seconds: number }).seconds).toBeGreaterThan(10);
  });

  it('runs over when too much is poured', () => {
    const { bench } = benchWith('clean');
    expect(bench.act({ do: 'pour', ml: 4000 })?.text).toMatch(/runs over/);
    expect(bench.report().happenings).toMatchObject([{ what: 'spilled', by: 'overflow' }]);
  });

  it('never fills above the mark with a hand that stops there, however much it was told', () => {
    const { bench } = benchWith('clean');
    expect(bench.act({ do: 'pour', ml: 4000, toMark: true })).toBeNull();
    const { insideMl, pouredMl } = bench.report();
    expect(bench.report().happenings).toEqual([]);
    expect(insideMl).toBeCloseTo(pouredMl, 6);
    expect(pouredMl).toBeLessThan(700);
  });

  it('weeps while it runs, and about a tenth of it while it stands', () => {
    const leaking = (running: boolean): number => {
      const { bench } = benchWith('leak');
      fill(bench);
      bench.switchSupply(running);
      const before = bench.report().leakedMl;
      bench.advance(6 * 3600);
      return bench.report().leakedMl - before;
    };
    expect(leaking(true) / leaking(false)).toBeCloseTo(10, 0);
  });

  it('is poured at a hand’s pace while the pump runs, and at once while it stands', () => {
    const { bench } = benchWith('clean');
    bench.act({ do: 'pour', ml: 150 });
    expect(bench.report().pouredMl).toBe(150);
    bench.switchSupply(true);
    bench.act({ do: 'pour', ml: 100 });
    expect(bench.report().pouredMl).toBe(150);
    bench.advance(0.6);
    expect(bench.report().pouredMl).toBeCloseTo(150 + 0.6 * 80, 6);
    bench.advance(5);
    expect(bench.report().pouredMl).toBeCloseTo(250, 6);
  });

  it('loses no liquid, whatever hands do: poured = inside + spilled + leaked', () => {
    const move = fc.oneof(
      fc.record({ do: fc.constant('pour' as const), ml: fc.integer({ min: 5, max: 400 }) }),
      fc.record({ do: fc.constant('skip' as const), seconds: fc.integer({ min: 1, max: 90 }) }),
      fc.record({ do: fc.constant('turn' as const), to: fc.constantFrom('on-back', 'upright', 'on-face'), angleDeg: fc.integer({ min: 0, max: 90 }) }), // prettier-ignore
      fc.record({ do: fc.constant('port' as const), port: fc.constant('reservoir.fill'), open: fc.boolean() }),
      fc.record({ do: fc.constant('knock' as const) }),
      fc.record({ do: fc.constantFrom('on' as const, 'off' as const) }),
    );
    fc.assert(
      fc.property(fc.array(move, { maxLength: 18 }), fc.integer({ min: 0, max: 50 }), (moves, seed) => {
        const { bench } = benchWith('surprise', seed);
        for (const each of moves) {
          if (each.do === 'on' || each.do === 'off') bench.switchSupply(each.do === 'on');
          else bench.act(each as HandMove);
          const { pouredMl, insideMl, spilledMl, leakedMl } = bench.report();
          expect(insideMl + spilledMl + leakedMl).toBeCloseTo(pouredMl, 6);
          expect(insideMl).toBeGreaterThanOrEqual(-1e-9);
        }
      }),
      { numRuns: often(60) },
    );
  });
});

describe('bleeding the simulated bench', () => {
  const rise = (bench: SimulatedBench): number => {
    bench.switchSupply(true);
    bench.advance(20);
    const running = bench.readings().level as number;
    bench.switchSupply(false);
    bench.advance(10);
    return (bench.readings().level as number) - running;
  };

  it('rises at each stop less and less as bubbles come home', () => {
    const { bench } = benchWith('clean');
    fill(bench);
    bench.act({ do: 'pour', ml: 60 });
    const first = rise(bench);
    bench.switchSupply(true);
    bench.advance(3600);
    expect(rise(bench)).toBeLessThan(first);
  });

  it('keeps a stubborn pocket until the case is turned the right way', () => {
    const { bench, truth } = benchWith('pocket');
    fill(bench);
    bench.switchSupply(true);
    bench.advance(7200);
    bench.switchSupply(false);
    bench.act({ do: 'pour', ml: 60 });
    expect(bench.report().pocketMl).toBeCloseTo(truth.pocket?.ml ?? 0, 6);
    bench.act({ do: 'turn', to: truth.pocket?.to ?? 'on-back', angleDeg: 90 });
    bench.advance(10);
    expect(bench.report().pocketMl).toBe(0);
    expect(bench.report().happenings.map(({ what }) => what)).toContain('pocket-freed');
  });
});

describe('what is hidden', () => {
  it('is the same for the same seed, and another for another', () => {
    expect(drawTruth(usualLoop(), 3, 'surprise')).toEqual(drawTruth(usualLoop(), 3, 'surprise'));
    expect(drawTruth(usualLoop(), 3, 'clean').volumeFactor).not.toEqual(drawTruth(usualLoop(), 4, 'clean').volumeFactor);
  });

  it('lets one instrument fall silent, and come back', () => {
    const { bench } = benchWith('dropout', 5, { dropout: { kind: 'gauge', fromS: 60, forS: 120 } });
    expect(bench.readings().gauge).not.toBeNull();
    bench.advance(90);
    expect(bench.readings().gauge).toBeNull();
    bench.advance(120);
    expect(bench.readings().gauge).not.toBeNull();
  });

  it('shows a weak pump as less flow', () => {
    const flowOf = (scenario: Scenario): number => {
      const { bench } = benchWith(scenario);
      fill(bench);
      bench.switchSupply(true);
      bench.advance(30);
      return bench.readings().flow as number;
    };
    expect(flowOf('weak-pump')).toBeLessThan(0.85 * flowOf('clean'));
  });

  it('cannot play a loop without reservoir, and says why', () => {
    expect(cannotSimulate(loopOf([part('p', 'pump', 25)]))).toMatch(/exactly one reservoir/);
    expect(cannotSimulate(usualLoop())).toBeNull();
    const without = (key: 'box' | 'curve', kind: string): LoopFile => {
      const loop = usualLoop();
      return { ...loop, components: loop.components.map((each) => (each.kind === kind ? { ...each, [key]: undefined } : each)) };
    };
    expect(cannotSimulate(without('box', 'reservoir'))).toMatch(/reservoir.*: outer measures are missing$/);
    expect(cannotSimulate(without('curve', 'pump'))).toMatch(/^(?!.*object).*pump.*: the pump’s curve is missing$/);
  });
});

describe('what a bench hides at a place', () => {
  const kindOf = (id: string | undefined) => usualLoop().components.find((part) => part.id === id)?.kind ?? 'tube';

  it.each([
    ['screw', ['radiator'], ['screw-through-tube']],
    ['gasket', ['block'], ['uneven-gasket']],
    ['ring', ['reservoir', 'pump', 'radiator', 'block', 'junction'], ['base-seal', 'fitting-ring']],
  ] as const)('%s leaks where it can, shows itself under water, and is mended there', (scenario, kinds, causes) => {
    for (let seed = 1; seed <= 12; seed += 1) {
      const { bench, truth } = benchWith(scenario, seed);
      const place = truth.leak?.place as string;
      expect(kinds).toContain(kindOf(place));
      expect(causes).toContain(truth.leak?.cause);
      bench.act({ do: 'pump-up', gaugeKpa: 50 });
      bench.advance(60);
      expect(bench.act({ do: 'brush', joint: place })?.text).toMatch(/^Bubbles at/);
      bench.act({ do: 'mend', at: place });
      expect(bench.report().leakMended).toBe(true);
    }
  });

  it.each(['kink', 'choked'] as const)('%s holds the flow up until its cause is put right, and fingers find it', (scenario) => {
    const { bench, truth } = benchWith(scenario, 3);
    const lph = (): number => {
      fill(bench);
      bench.switchSupply(true);
      bench.advance(60);
      const { flow } = bench.readings();
      bench.switchSupply(false);
      return flow as number;
    };
    const held = lph();
    const place = truth.narrow?.place as string;
    expect(bench.act({ do: 'feel', at: place })?.text).toMatch(/^(Pinched flat|Hardly anything)/);
    const other = usualLoop().tubes.find(({ id }) => id !== place)?.id as string;
    expect(bench.act({ do: 'feel', at: other })?.text).toMatch(/^Nothing out of the way/);
    bench.act({ do: 'clear', why: scenario === 'kink' ? 'choked' : 'kink' });
    expect(bench.report().narrowCleared).toBe(false);
    bench.act({ do: 'clear', why: scenario });
    expect(bench.report().narrowCleared).toBe(true);
    const before = bench.report().insideMl;
    expect(lph()).toBeGreaterThan(1.15 * held);
    expect(bench.report().insideMl).toBeGreaterThanOrEqual(before - 1);
  });

  it('draws no fault that its loop has no place for', () => {
    const loop = usualLoop();
    const without = { ...loop, components: loop.components.map((part) => (part.kind === 'radiator' ? { ...part, kind: 'block' } : part)) };
    for (let seed = 1; seed <= 60; seed += 1) expect(drawTruth(without, seed, 'surprise').scenario).not.toBe('screw');
  });
});
