import fc from 'fast-check';
import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { fullContents, totalMl } from '../contents/contents.js';
import { buildNetwork } from '../geometry/network.js';
import { STANDING, STANDING_NAMES } from '../../machine/loop-file/orientation.js';
import { turnNetwork } from '../geometry/turned.js';
import { uncoverAngles } from '../filling/outletAngle.js';
import { allPorts, generateSpatialLoop } from '../../machine/loop-file/generatedLoops.js';
import { readLoopFile } from '../../machine/loop-file/loopFileSchema.js';
import type { LoopComponent } from '../../machine/loop-file/loopFile.js';
import { loopVolume } from '../../machine/loop-file/volume.js';
import { adviseDraining, bestExtraOpening } from './advice.js';
import { ADVICE, DRAIN_POLICY, UPRIGHT_ONLY } from './defaults.js';
import { drainLoop } from './drain.js';
import { openablePorts, openUp } from './openings.js';
import { runOut } from './runOut.js';
import { often } from '../../../tests/often.js';

const example = readLoopFile(JSON.parse(readFileSync('examples/two-radiators.json', 'utf8')));

const situation = fc.record({ seed: fc.nat(100_000), standing: fc.constantFrom(...STANDING_NAMES), drain: fc.nat(), air: fc.nat() });

describe('what runs out, stand after stand', () => {
  it('is what the split of a full loop says, for the first stand', () => {
    fc.assert(
      fc.property(situation, ({ seed, standing, drain, air }) => {
        const loop = generateSpatialLoop(seed);
        const ports = allPorts(loop);
        const setup = { open: [ports[air % ports.length] as string], drains: [ports[drain % ports.length] as string], closed: [] };
        const network = buildNetwork(loop);
        const flowed = runOut(turnNetwork(network, STANDING[standing]), openUp(network, setup), fullContents(network));
        const split = drainLoop(loop, { tilt: STANDING[standing], ...setup });
        expect(flowed.drainedMl).toBeCloseTo(split.drainedMl, 3);
        expect(flowed.heldMl).toBeCloseTo(split.heldMl, 3);
        expect(totalMl(flowed.left) + flowed.drainedMl).toBeCloseTo(loopVolume(loop).volumeMl, 3);
      }),
      { numRuns: often(100) },
    );
  });

  it('loses and gains nothing over several stands, and no node holds more than its volume', () => {
    fc.assert(
      fc.property(situation, fc.constantFrom(...STANDING_NAMES), ({ seed, standing, drain, air }, second) => {
        const loop = generateSpatialLoop(seed);
        const ports = allPorts(loop);
        const network = buildNetwork(loop);
        const openings = openUp(network, {
          open: [ports[air % ports.length] as string],
          drains: [ports[drain % ports.length] as string],
          closed: [],
        });
        const first = runOut(turnNetwork(network, STANDING[standing]), openings, fullContents(network));
        const then = runOut(turnNetwork(network, STANDING[second]), openings, first.left);
        expect(then.drainedMl).toBeGreaterThanOrEqual(-1e-9);
        expect(totalMl(then.left) + then.drainedMl).toBeCloseTo(totalMl(first.left), 3);
        then.left.forEach((ml, node) => expect(ml).toBeLessThanOrEqual((network.volumeMl[node] as number) * 1.001 + 1e-6));
      }),
      { numRuns: often(100) },
    );
  });
});

describe('advice for draining', () => {
  const plan = adviseDraining(example, buildNetwork(example));

  it('begins as the machine stands, with the low valve over the jug and air from above', () => {
    expect(plan.stages[0]).toMatchObject({ standing: 'upright', drain: 'gpu.low', airs: ['top.vent'] });
    const { drainedMl } = drainLoop(example, { tilt: STANDING.upright, open: ['top.vent'], drains: ['gpu.low'], closed: [] });
    expect(plan.stages[0]?.drainedMl).toBeCloseTo(drainedMl, 3);
  });

  it('never names an air inlet that runs when it is opened, before the drain or after it as the plan says', () => {
    fc.assert(
      fc.property(fc.nat(100_000), (seed) => {
        const loop = generateSpatialLoop(seed);
        const network = buildNetwork(loop);
        let contents = fullContents(network);
        for (const { standing, drain, airs, airsFollow, left } of adviseDraining(loop, network).stages) {
          const turned = turnNetwork(network, STANDING[standing]);
          const flows = (open: readonly string[], drains: readonly string[], held: typeof contents) =>
            runOut(turned, openUp(network, { open, drains, closed: [] }), held);
          const held = airsFollow ? flows([], [drain], contents).left : contents;
          for (const air of airs) {
            const others = airs.filter((other) => other !== air);
            const beside = flows(others, [drain, air], held).byDrain.get(network.ports.get(air) as number) ?? 0;
            const alone = airsFollow ? 0 : flows(others, [air], held).drainedMl;
            expect(Math.max(beside, alone)).toBeLessThanOrEqual(1);
          }
          contents = left;
        }
      }),
      { numRuns: often(15) },
    );
  });

  it('turns only where a turn gets out enough, and gets more out with every stand', () => {
    expect(plan.stages.length).toBeGreaterThan(1);
    for (const stage of plan.stages.slice(1)) expect(stage.drainedMl).toBeGreaterThanOrEqual(25);
    const drained = plan.stages.reduce((total, { drainedMl }) => total + drainedMl, 0);
    expect(drained).toBeCloseTo(plan.drainedMl, 3);
    expect(plan.drainedMl + plan.leftMl).toBeCloseTo(loopVolume(example).volumeMl, 3);
  });

  it('says what to cap before a turn', () => {
    const turn = plan.stages.findIndex(({ standing }) => standing !== 'upright');
    const before = plan.stages[turn - 1];
    for (const port of plan.stages[turn]?.capFirst ?? []) expect([before?.drain, ...(before?.airs ?? [])]).toContain(port);
  });

  it('leaves a machine that nobody may turn standing', () => {
    expect(adviseDraining(example, buildNetwork(example), UPRIGHT_ONLY).stages.every(({ standing }) => standing === 'upright')).toBe(true);
  });

  it('undoes a joint where no port gets it out, as the last thing, and where that gets out what it costs', () => {
    const sealed = structuredClone(example);
    for (const part of sealed.components) delete part.closures;
    const network = buildNetwork(sealed);
    const joints = (stages: readonly { drain: string }[]): boolean[] => stages.map(({ drain }) => network.joints.has(drain));
    const { stages, drainedMl, wholeMl } = adviseDraining(sealed, network);
    expect(joints(stages)).toEqual([true]);
    expect(drainedMl).toBeGreaterThan(ADVICE.jointPriceMl + ADVICE.leastTurnMl);
    expect(drainedMl).toBeLessThanOrEqual(wholeMl);
    // with ports that get nearly all out, no joint is worth its ring
    const withPorts = joints(plan.stages);
    if (plan.leftMl < ADVICE.jointPriceMl) expect(withPorts.slice(0, -1)).not.toContain(true);
  });

  it('has nothing to say of a loop with nothing in it worth a joint', () => {
    const sealed = structuredClone(example);
    for (const part of sealed.components) delete part.closures;
    const network = buildNetwork(sealed);
    const dry = new Float64Array(network.size);
    expect(adviseDraining(sealed, network, DRAIN_POLICY, dry)).toMatchObject({ stages: [], drainedMl: 0 });
  });

  it('never stands it on its head where the workshop does not', () => {
    for (const seed of [2, 11, 20].slice(0, often(3))) {
      const loop = generateSpatialLoop(seed);
      const { stages } = adviseDraining(loop, buildNetwork(loop), { ...DRAIN_POLICY, headLeastMl: null });
      expect(stages.map(({ standing }) => standing)).not.toContain('upside-down');
    }
  });

  it('leaves about what a search four times as wide leaves, node by node instead of roughly', () => {
    // one loop here, forty and the examples in `./lavacrum bench`: the wide search takes seconds
    const loop = generateSpatialLoop(8);
    const network = buildNetwork(loop);
    const wide = adviseDraining(loop, network, DRAIN_POLICY, undefined, {
      width: { beam: 190, looksClosely: 12, joints: 12 },
      cellMm: null,
    });
    const { leftMl, wholeMl } = adviseDraining(loop, network);
    expect(leftMl).toBeLessThanOrEqual(wide.leftMl + 0.03 * wholeMl);
  });

  it('names the one opening that would add most', () => {
    const network = buildNetwork(example);
    const upright = turnNetwork(network, STANDING.upright);
    const alone = { open: [], drains: ['gpu.low'], closed: [] };
    const extra = bestExtraOpening(upright, example, alone);
    expect(openablePorts(example)).toContain(extra?.opening);
    const before = drainLoop(example, { tilt: STANDING.upright, ...alone }).drainedMl;
    const after = drainLoop(example, { tilt: STANDING.upright, ...alone, open: [extra?.opening as string] }).drainedMl;
    expect(after - before).toBeCloseTo(extra?.addsMl as number, 3);
    expect(bestExtraOpening(upright, example, { ...alone, open: openablePorts(example) })).toBeNull();
  });
});

describe('the angle at which the reservoir’s outlet uncovers', () => {
  const reservoir = example.components.find(({ id }) => id === 'res') as LoopComponent;

  it('is later with more in it, and never for one that is full', () => {
    const angle = (ml: number): (number | null)[] => uncoverAngles(reservoir, ml).map(({ angleDeg }) => angleDeg);
    expect(angle(260).every((deg) => deg === null)).toBe(true);
    angle(80).forEach((deg, turn) => expect(deg ?? 90).toBeLessThanOrEqual(angle(180)[turn] ?? 90));
    // outlet in the middle of the bottom, half full: lying down the level stands at the outlet's own height
    expect(angle(100).every((deg) => deg !== null && deg > 45)).toBe(true);
  });
});
