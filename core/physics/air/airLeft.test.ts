import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { WATER } from '../../machine/liquids/fluids.js';
import { buildNetwork } from '../geometry/network.js';
import { STANDING } from '../../machine/loop-file/orientation.js';
import { turnNetwork } from '../geometry/turned.js';
import type { LoopFile } from '../../machine/loop-file/loopFile.js';
import { readLoopFile } from '../../machine/loop-file/loopFileSchema.js';
import { findTrappedAir } from './pockets.js';
import { bleedModel, freeingTurn, type BleedModel } from './airLeft.js';

const example = (name: string): LoopFile => readLoopFile(JSON.parse(readFileSync(`examples/${name}.json`, 'utf8')));

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
