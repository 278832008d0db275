import { beforeAll, describe, expect, it } from 'vitest';
import { solveFlow } from '../../core/physics/flow/flow.js';
import { Epanet, epanetInput } from './epanet.js';
import { generateLadder, generateNetwork } from '../../core/machine/loop-file/generatedLoops.js';

const water = { densityKgM3: 998.2, viscosityMPaS: 1.0016 };
const glycol = { densityKgM3: 1024, viscosityMPaS: 2.6 };

describe('flow against an independent network solver', () => {
  let oracle: Epanet;
  beforeAll(async () => {
    oracle = await Epanet.load();
  });

  const cases = Array.from({ length: 40 }, (_, seed) => ({ seed, fluid: seed % 4 === 3 ? glycol : water }));
  it.each(cases)('agrees on every link of generated loop $seed within 0.5 %', ({ seed, fluid }) => {
    const loop = generateNetwork(seed);
    const ours = solveFlow(loop, { fluid, speeds: {}, closed: [] });
    expect(ours.end).toBe('converged');
    const ids = [...loop.tubes, ...loop.components.filter(({ kind }) => kind === 'block' || kind === 'pump')].map(({ id }) => id);
    const theirs = oracle.flowsLph(epanetInput(loop, fluid), ids);
    for (const id of ids) {
      const expected = theirs.get(id) as number;
      const got = ours.links.get(id)?.flowLph as number;
      expect(Math.abs(got - expected), `${id}: ${got} against ${expected} L/h`).toBeLessThanOrEqual(0.005 * Math.abs(expected) + 1e-3);
    }
  });

  it('agrees on a ladder of many branches', () => {
    const loop = generateLadder(40);
    const ours = solveFlow(loop, { fluid: water, speeds: {}, closed: [] });
    const ids = loop.tubes.map(({ id }) => id);
    const theirs = oracle.flowsLph(epanetInput(loop, water), ids);
    for (const id of ids) {
      const expected = theirs.get(id) as number;
      // its head-loss curves are straight between points, which shows at the far end where next to nothing flows
      expect(Math.abs((ours.links.get(id)?.flowLph as number) - expected), id).toBeLessThanOrEqual(0.005 * Math.abs(expected) + 0.2);
    }
  });
});
