import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { WATER } from '../../machine/liquids/fluids.js';
import { buildNetwork } from '../geometry/network.js';
import { STANDING } from '../../machine/loop-file/orientation.js';
import { turnNetwork } from '../geometry/turned.js';
import type { LoopFile } from '../../machine/loop-file/loopFile.js';
import { readLoopFile } from '../../machine/loop-file/loopFileSchema.js';
import { findTrappedAir } from './pockets.js';
import { airLeft, bleedModel, freeingTurn, type BleedModel } from './airLeft.js';

const example = (name: string): LoopFile => readLoopFile(JSON.parse(readFileSync(`examples/${name}.json`, 'utf8')));
const cycle = (rise: number) => ({ runningMm: 100, stoppedMm: 100 + rise, bubbles: false, noise: false });
const model = (more: Partial<BleedModel> = {}): BleedModel => ({
  areaMm2: 2600,
  pockets: [
    { parts: ['top'], volumeMl: 90, runGaugeKpa: 22, offGaugeKpa: 2 },
    { parts: ['gpu'], volumeMl: 8, runGaugeKpa: 12, offGaugeKpa: 2 },
  ],
  stretchMl: 0,
  turn: null,
  ...more,
});

describe('air left, from the rise at stop', () => {
  it('is ΔV·p_run/(p_run − p_off) for each place, as a range', () => {
    const { cycles } = airLeft(model(), [cycle(2)]);
    const dv = (2 * 2600) / 1000;
    expect(cycles[0]?.lowMl).toBeCloseTo((dv * (22 + 101.325)) / 20, 9);
    expect(cycles[0]?.highMl).toBeCloseTo((dv * (12 + 101.325)) / 10, 9);
  });

  it('takes the tubes’ stretch off first: two metres of 10/16 look like twenty millilitres of air', () => {
    const stretched = airLeft(model({ stretchMl: 3.5 }), [cycle(3.5 / 2.6)]);
    expect(stretched.cycles[0]?.highMl).toBeCloseTo(0, 6);
    expect(airLeft(model(), [cycle(3.5 / 2.6)]).cycles[0]?.lowMl).toBeGreaterThan(15);
  });

  it('falls from cycle to cycle while air comes home', () => {
    expect(airLeft(model(), [cycle(4)]).trendMl).toBeNull();
    expect(airLeft(model(), [cycle(4), cycle(3), cycle(2)]).trendMl).toBeLessThan(0);
    expect(airLeft(model(), [cycle(2), cycle(2)]).trendMl).toBeCloseTo(0, 9);
    // three cycles are two steps: as much a cycle as from one to the next
    const step = airLeft(model(), [cycle(4), cycle(3)]).trendMl as number;
    expect(airLeft(model(), [cycle(4), cycle(3), cycle(2)]).trendMl).toBeCloseTo(step, 9);
  });

  it('says nothing where no place feels the pump', () => {
    expect(airLeft(model({ pockets: [{ parts: ['x'], volumeMl: 5, runGaugeKpa: 2.2, offGaugeKpa: 2 }] }), [cycle(3)])).toEqual({
      cycles: [],
      trendMl: null,
    });
  });
});

describe('what a loop’s level can be read with', () => {
  it('comes from its own geometry and pressures', () => {
    const found = bleedModel(example('two-radiators'), WATER, 1) as BleedModel;
    expect(found.areaMm2).toBeGreaterThan(500);
    expect(found.stretchMl).toBeGreaterThan(0);
    expect(found.pockets.length).toBeGreaterThan(0);
    for (const { runGaugeKpa, offGaugeKpa } of found.pockets) expect(Number.isFinite(runGaugeKpa - offGaugeKpa)).toBe(true);
  });

  it('squeezes less with a slower pump', () => {
    const squeeze = (speed: number): number => Math.max(...(bleedModel(example('two-radiators'), WATER, speed)?.pockets ?? []).map(({ runGaugeKpa, offGaugeKpa }) => runGaugeKpa - offGaugeKpa)); // prettier-ignore
    expect(squeeze(0.5)).toBeLessThan(squeeze(1));
  });

  it('cannot be told without a reservoir or a pump curve', () => {
    expect(bleedModel(example('no-reservoir'), WATER, 1)).toBeNull();
    const curveless = example('two-radiators');
    delete curveless.components.find(({ kind }) => kind === 'pump')?.curve;
    expect(bleedModel(curveless, WATER, 1)).toBeNull();
  });
});

describe('the turn that frees the largest pocket', () => {
  it('really opens its way up', () => {
    for (const name of ['two-radiators', 'ports-at-bottom', 'parallel-cards']) {
      const loop = example(name);
      const turn = freeingTurn(loop);
      if (!turn) continue;
      const network = buildNetwork(loop);
      const [largest] = findTrappedAir(turnNetwork(network, STANDING.upright)).pockets;
      const own = new Set(largest?.nodes);
      const staysMl = findTrappedAir(turnNetwork(network, STANDING[turn.to])).pockets.filter(({ nodes }) => nodes.some((node) => own.has(node))).reduce((sum, { volumeMl }) => sum + volumeMl, 0); // prettier-ignore
      expect(turn.freesMl, name).toBeCloseTo((largest?.volumeMl ?? 0) - staysMl, 6);
      expect(turn.freesMl, name).toBeGreaterThan(1);
    }
    expect(freeingTurn(example('ports-at-bottom'))).not.toBeNull();
  });
});
