import { readdirSync, readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { adviseDraining } from '../../physics/draining/advice.js';
import { drainLoop } from '../../physics/draining/drain.js';
import { simulateFill } from '../../physics/filling/fillSimulation.js';
import { fillByGravity } from '../../physics/filling/gravityFill.js';
import { solveFlow } from '../../physics/flow/flow.js';
import { waterAt } from '../liquids/fluids.js';
import { buildNetwork } from '../../physics/geometry/network.js';
import { STANDING } from './orientation.js';
import { turnNetwork } from '../../physics/geometry/turned.js';
import { findTrappedAir } from '../../physics/air/pockets.js';
import type { LoopFile } from './loopFile.js';
import { readLoopFile } from './loopFileSchema.js';
import { loopVolume } from './volume.js';

const load = (name: string): LoopFile => readLoopFile(JSON.parse(readFileSync(`examples/${name}.json`, 'utf8')));
const names = readdirSync('examples')
  .filter((name) => name.endsWith('.json'))
  .map((name) => name.replace('.json', ''));
const water = waterAt(25);
const advise = (name: string) => adviseDraining(load(name), buildNetwork(load(name)));

describe('the example loops', () => {
  it('are at least eight', () => {
    expect(names.length).toBeGreaterThanOrEqual(8);
  });

  it.each(names)('%s flows, drains by a plan, and fills', (name) => {
    const loop = load(name);
    const flow = solveFlow(loop, { fluid: water, speeds: {}, closed: [] });
    expect(flow.end).toBe('converged');
    for (const { id } of loop.components.filter(({ kind }) => kind === 'block')) {
      expect(flow.links.get(id)?.flowLph).toBeGreaterThan(60);
    }
    const whole = loopVolume(loop).volumeMl;
    expect(advise(name).drainedMl).toBeGreaterThan(0.5 * whole);
    if (loop.components.some(({ kind }) => kind === 'reservoir')) expect(simulateFill(loop, water).primes).toBe(true);
    else expect(fillByGravity(loop).totalMl).toBeGreaterThan(0.8 * whole);
  });

  it('share the flow between the parallel cards nearly evenly', () => {
    const flow = solveFlow(load('parallel-cards'), { fluid: water, speeds: {}, closed: [] });
    const [upper, lower, whole] = ['upper', 'lower', 'processor'].map((id) => flow.links.get(id)?.flowLph as number) as [
      number,
      number,
      number,
    ];
    expect(upper + lower).toBeCloseTo(whole, 6);
    expect(upper / lower).toBeGreaterThan(0.85);
    expect(upper / lower).toBeLessThan(1.15);
  });

  it('keep two circuits apart: stopping one pump leaves the other loop’s flow as it was', () => {
    const loop = load('two-loops-one-case');
    const both = solveFlow(loop, { fluid: water, speeds: {}, closed: [] });
    const one = solveFlow(loop, { fluid: water, speeds: { 'pump-processor': 0 }, closed: [] });
    expect(one.links.get('graphics')?.flowLph).toBeCloseTo(both.links.get('graphics')?.flowLph as number, 6);
    expect(one.links.get('processor')?.flowLph).toBe(0);
  });

  it('show what a drain that sits too high leaves behind, and what ports at the bottom trap', () => {
    const high = load('high-drain');
    const { drainedMl } = drainLoop(high, { tilt: STANDING.upright, open: ['reservoir.fill'], drains: ['drain.drain'], closed: [] });
    expect(drainedMl).toBeLessThan(0.6 * loopVolume(high).volumeMl);
    expect(advise('high-drain').leftMl).toBeLessThan(0.25 * loopVolume(high).volumeMl);
    const turned = turnNetwork(buildNetwork(load('ports-at-bottom')), STANDING.upright);
    const [pocket] = findTrappedAir(turned).pockets;
    const front = load('ports-at-bottom').components.findIndex(({ id }) => id === 'front');
    expect(pocket?.parts).toContain(front);
    expect(pocket?.volumeMl).toBeGreaterThan(200);
  });
});
