import { loopOf, part, tube } from '../../machine/catalogue/testLoops.js';
import { describe, expect, it } from 'vitest';
import { generateNetwork, generateParallelLoop } from '../../machine/loop-file/generatedLoops.js';
import type { LoopFile } from '../../machine/loop-file/loopFile.js';
import { brokenLine, segmentAt, slopeOf, valueAt } from '../../base/numerics/broken.js';
import { evaluateChain, reduceToChains, type Chain, type ChainNetwork } from './chains.js';
import { buildHydraulics } from './network.js';
import { FlowSolver } from './solver.js';

const water = { densityKgM3: 998.2, viscosityMPaS: 1.0016 };
const reduce = (loop: LoopFile, shut: readonly string[] = []): ChainNetwork => reduceToChains(buildHydraulics(loop, water, new Set(shut)));
const PUMP = { curve: [[0, 40], [1500, 0]] as const, speed: 1 }; // prettier-ignore
const LOSSY = { resistance: { linear_kpa_per_lpm: 0.1, quadratic_kpa_per_lpm2: 0.4 } };

describe('straight lines between points', () => {
  const line = brokenLine([[0, 40], [500, 30], [1000, 0]]); // prettier-ignore

  it('go through the points, and the end segments go on', () => {
    expect([0, 250, 500, 750, 1000].map((x) => valueAt(line, x))).toEqual([40, 35, 30, 15, 0]);
    expect(valueAt(line, 1500)).toBe(-30);
    expect(valueAt(line, -500)).toBe(50);
  });

  it('know which segment decides and how steep it is', () => {
    expect([segmentAt(line, -1), segmentAt(line, 500), segmentAt(line, 501)]).toEqual([0, 0, 1]);
    expect(slopeOf(line, 1)).toBeCloseTo(-0.06, 12);
  });
});

describe('joining what follows one another', () => {
  const ring = loopOf(
    [part('p', 'pump', 1, [0, 0, 0], PUMP), part('b', 'block', 1, [50, 0, 0], LOSSY), part('c', 'block', 1, [90, 0, 0], LOSSY)],
    [tube('1', 'p', 'b'), tube('2', 'b', 'c'), tube('3', 'c', 'p')],
  );

  it('makes one chain of a series loop, its losses added up', () => {
    const { chains } = reduce(ring);
    expect(chains.length).toBe(1);
    expect(chains[0]).toMatchObject({ linear: 0.2, tubes: { length: 1 }, pumps: { length: 1 } });
    expect(chains[0]?.steps.length).toBe(6);
    expect(chains[0]?.from).toBe(chains[0]?.to);
  });

  it('leaves out what ends blind, and everything behind a shut tube', () => {
    const withStub = loopOf(
      [...ring.components, part('x', 'block', 1, [9, 9, 9], LOSSY)],
      [...ring.tubes, { ...tube('stub', 'b', 'x'), from: ['b', 'out'] }],
    );
    const { chains, chainOfLink } = reduce(withStub);
    expect(chains.length).toBe(1);
    expect(chainOfLink.filter((chain) => chain === -1).length).toBe(2);
    expect(reduce(ring, ['2']).chains).toEqual([]);
  });

  it('keeps branches apart between the nodes where they part and meet', () => {
    const { chains, nodeCount } = reduce(generateParallelLoop());
    expect(nodeCount).toBe(2);
    expect(chains.length).toBe(3);
    for (const { from, to } of chains) expect(from).not.toBe(to);
  });

  it('counts every live link once', () => {
    for (let seed = 0; seed < 20; seed += 1) {
      const { chains, chainOfLink } = reduce(generateNetwork(seed));
      const steps = chains.flatMap((chain) => chain.steps.map(({ link }) => link));
      expect(new Set(steps).size).toBe(steps.length);
      expect(steps.length).toBe(chainOfLink.filter((chain) => chain >= 0).length);
    }
  });
});

describe('the loss along a chain', () => {
  const chain = reduce(
    loopOf(
      [
        part('p', 'pump', 1, [0, 0, 0], PUMP),
        part('b', 'block', 1, [50, 0, 0], LOSSY),
        part('t', 'block', 1, [90, 0, 0], { resistance: { points: [[60, 1], [300, 9]] } }), // prettier-ignore
      ],
      [tube('1', 'p', 'b'), tube('2', 'b', 't'), tube('3', 't', 'p')],
    ),
  ).chains[0] as Chain;
  const at = (q: number, speed = 1): [number, number] => {
    const out = new Float64Array(2);
    evaluateChain(chain, Float64Array.of(speed), q, out);
    return [out[0] as number, out[1] as number];
  };

  it('rises with flow, and its slope is its derivative, forwards and backwards', () => {
    for (const speed of [1, 0.5, 0]) {
      for (const q of [-6, -2.3, -0.4, 0.3, 1.7, 4.2, 9]) {
        const [, slope] = at(q, speed);
        const numeric = ((at(q + 1e-6, speed)[0] as number) - (at(q - 1e-6, speed)[0] as number)) / 2e-6;
        expect(slope).toBeCloseTo(numeric, 3);
        expect(slope).toBeGreaterThan(0);
      }
    }
  });

  it('is minus the pump’s shut-off pressure at no flow', () => {
    const shutOff = (speed: number): number => Math.abs(at(0, speed)[0]);
    expect(shutOff(1)).toBeCloseTo(40, 9);
    expect(shutOff(0.5)).toBeCloseTo(10, 9);
    expect(shutOff(0)).toBe(0);
  });
});

describe('the solver', () => {
  it('says that nothing flows where there is no way round', () => {
    const network = reduce(loopOf([part('p', 'pump', 1, [0, 0, 0], PUMP)]));
    expect(new FlowSolver(network, 1).solve(Float64Array.of(1))).toEqual({ end: 'nothing-flows', steps: 0 });
  });

  it('takes fewer steps from the last answer than from none', () => {
    const solver = new FlowSolver(reduce(generateParallelLoop()), 1);
    const cold = solver.solve(Float64Array.of(0.8));
    const warm = solver.solve(Float64Array.of(0.82));
    expect([cold.end, warm.end]).toEqual(['converged', 'converged']);
    expect(warm.steps).toBeLessThan(cold.steps);
  });

  it('comes back from a standstill', () => {
    const solver = new FlowSolver(reduce(generateParallelLoop()), 1);
    solver.solve(Float64Array.of(1));
    const running = solver.flowLpm.slice();
    solver.solve(Float64Array.of(0));
    expect(Math.max(...solver.flowLpm.map(Math.abs))).toBeLessThan(1e-3);
    solver.solve(Float64Array.of(1));
    running.forEach((lpm, index) => expect(solver.flowLpm[index]).toBeCloseTo(lpm, 4));
  });
});
