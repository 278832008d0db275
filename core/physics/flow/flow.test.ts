import fc from 'fast-check';
import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { generateLadder, generateNetwork } from '../../machine/loop-file/generatedLoops.js';
import { readLoopFile } from '../../machine/loop-file/loopFileSchema.js';
import type { LoopComponent, LoopFile } from '../../machine/loop-file/loopFile.js';
import { addFriction, prepareFriction } from './friction.js';
import { prepareFlow, solveFlow, solvePrepared, type FlowResult } from './flow.js';
import { often } from '../../../tests/often.js';

const example = readLoopFile(JSON.parse(readFileSync('examples/two-radiators.json', 'utf8')));
const water = { densityKgM3: 998.2, viscosityMPaS: 1.0016 };
const solve = (loop: LoopFile, speeds: Record<string, number> = {}, closed: string[] = []): FlowResult =>
  solveFlow(loop, { fluid: water, speeds, closed });
const lph = (result: FlowResult, id: string): number => result.links.get(id)?.flowLph as number;
const gauge = (result: FlowResult, port: string): number => result.portGaugeKpa.get(port) as number;

function lossKpa(boreMm: number, lengthMm: number, lpm: number): number {
  const out = new Float64Array(2);
  addFriction(prepareFriction(boreMm, lengthMm, 0.0015, water), lpm, out);
  return out[0] as number;
}

describe('friction in a tube', () => {
  it('is Poiseuille’s law while the flow is laminar', () => {
    const [mu, d, l, q] = [1.0016e-3, 0.01, 1, 0.5e-3 / 60];
    expect(lossKpa(10, 1000, 0.5)).toBeCloseTo((128 * mu * l * q) / (Math.PI * d ** 4) / 1000, 9);
  });

  it('is Swamee and Jain’s factor when turbulent', () => {
    const v = 4e-3 / 60 / ((Math.PI / 4) * 1e-4);
    const re = (998.2 * v * 0.01) / 1.0016e-3;
    const f = 0.25 / Math.log10(0.0015 / 10 / 3.7 + 5.74 / re ** 0.9) ** 2;
    expect(lossKpa(10, 1000, 4)).toBeCloseTo((f * 100 * 998.2 * v * v) / 2 / 1000, 9);
  });

  it('has no step between the laws, and its slope is its derivative', () => {
    const friction = prepareFriction(10, 1000, 0.0015, water);
    for (const reynolds of [2000, 4000]) {
      const q = reynolds / friction.reynoldsPerLpm;
      expect(lossKpa(10, 1000, q * (1 + 1e-9)) / lossKpa(10, 1000, q * (1 - 1e-9))).toBeCloseTo(1, 3);
    }
    for (const q of [0.3, 1.2, 1.5, 3, 8]) {
      const out = new Float64Array(2);
      addFriction(friction, q, out);
      const numeric = (lossKpa(10, 1000, q + 1e-6) - lossKpa(10, 1000, q - 1e-6)) / 2e-6;
      expect(out[1]).toBeCloseTo(numeric, 4);
    }
  });
});

describe('flow in a loop', () => {
  it('meets the pump curve and the sum of the losses in a series loop', () => {
    const result = solve(example);
    const flow = lph(result, 'pump');
    expect(result.end).toBe('converged');
    for (const { id } of [...example.components, ...example.tubes]) expect(lph(result, id)).toBeCloseTo(flow, 6);
    const gain = -(result.links.get('pump')?.dropKpa as number);
    expect(gain).toBeCloseTo(40 - (flow / 500) * 7, 6);
    const losses = [...result.links].filter(([id]) => id !== 'pump').reduce((sum, [, { dropKpa }]) => sum + dropKpa, 0);
    expect(losses).toBeCloseTo(gain, 6);
    const lpm = flow / 60;
    expect(result.links.get('cpu')?.dropKpa).toBeCloseTo(0.3 * lpm + 0.95 * lpm ** 2, 6);
  });

  it('counts pressure from the reservoir’s surface, water columns included', () => {
    const result = solve(example);
    // fill mark: 230 of 260 mL in 90 … 260 mm
    const surface = 90 + (230 / 260) * 170;
    expect(gauge(result, 'res.out')).toBeCloseTo(998.2 * 9.80665 * (surface - 90) * 1e-6, 9);
    expect(gauge(result, 'gpu.low')).toBeCloseTo((gauge(result, 'gpu.in') + gauge(result, 'gpu.out')) / 2 + 998.2 * 9.80665 * 15e-6, 6);
    expect(gauge(result, 'top.vent')).toBeLessThan(gauge(result, 'top.a'));
  });

  it('counts from the first pump’s intake where there is no reservoir', () => {
    const loop = structuredClone(example);
    for (const part of loop.components) if (part.kind === 'reservoir') part.kind = 'radiator';
    expect(gauge(solve(loop), 'pump.in')).toBe(0);
  });

  it('stands still without a pump, and behind a shut tube', () => {
    const still = structuredClone(example);
    for (const part of still.components) if (part.kind === 'pump') part.kind = 'block';
    expect(lph(solve(still), 'cpu')).toBe(0);
    const shut = solve(example, {}, ['t3']);
    expect(lph(shut, 'pump')).toBe(0);
    expect(shut.links.get('t3')).toMatchObject({ flowLph: 0 });
    // the pump pushes its whole shut-off pressure against the shut tube
    expect(shut.links.get('t3')?.dropKpa).toBeCloseTo(40, 9);
  });

  it('drives a standing pump backwards through its loss where another one pushes', () => {
    const loop = structuredClone(example);
    const second = structuredClone(loop.components.find(({ id }) => id === 'pump') as LoopComponent);
    loop.components.push({ ...second, id: 'second' });
    loop.tubes = loop.tubes.map((tube) => (tube.id === 't1' ? { ...tube, from: ['second', 'out'] as const } : tube));
    loop.tubes.push({ id: 'between', from: ['pump', 'out'], to: ['second', 'in'], bore_mm: 10, outer_mm: 16, material: 'epdm', path: [] });
    const helped = solve(loop, { pump: 1, second: 1 });
    const alone = solve(loop, { pump: 1, second: 0 });
    expect(lph(helped, 'cpu')).toBeGreaterThan(lph(solve(example), 'cpu'));
    expect(lph(alone, 'cpu')).toBeLessThan(lph(solve(example), 'cpu'));
    expect(alone.links.get('second')?.dropKpa).toBeCloseTo(0.25 * (lph(alone, 'second') / 60) ** 2, 6);
  });

  it('goes through a table of losses by straight lines', () => {
    const loop = structuredClone(example);
    const cpu = loop.components.find(({ id }) => id === 'cpu') as LoopComponent;
    cpu.resistance = { points: [[100, 4], [300, 24]] }; // prettier-ignore
    const result = solve(loop);
    const flow = lph(result, 'cpu');
    expect(flow).toBeGreaterThan(100);
    expect(flow).toBeLessThan(300);
    expect(result.links.get('cpu')?.dropKpa).toBeCloseTo(4 + ((flow - 100) / 200) * 20, 6);
  });

  it('splits between equal branches evenly, and none through a shut one', () => {
    const result = solve(generateLadder(1));
    expect(result.end).toBe('converged');
    const loop = generateLadder(1);
    const [first, second] = loop.components.filter(({ kind }) => kind === 'block');
    const shut = solve(loop, {}, [first?.id as string]);
    expect(lph(shut, first?.id as string)).toBe(0);
    expect(lph(shut, second?.id as string)).toBeCloseTo(lph(shut, loop.components.find(({ kind }) => kind === 'pump')?.id as string), 6);
  });

  it('gives the same answer from a warm start as from a cold one', () => {
    const prepared = prepareFlow(generateNetwork(11), water);
    const pump = prepared.network.pumpIds[0] as string;
    solvePrepared(prepared, { [pump]: 1 });
    const warm = solvePrepared(prepared, { [pump]: 0.5 });
    const cold = solve(generateNetwork(11), { [pump]: 0.5 });
    for (const [id, { flowLph }] of cold.links) expect(lph(warm, id)).toBeCloseTo(flowLph, 3);
  });
});

describe('flow, whatever the loop', () => {
  it('balances at every part, loses along every ring what the pumps add, and dissipates', () => {
    fc.assert(
      fc.property(fc.nat(100_000), fc.double({ min: 0.05, max: 1, noNaN: true }), (seed, speed) => {
        const loop = generateNetwork(seed);
        const speeds = Object.fromEntries(loop.components.filter(({ kind }) => kind === 'pump').map(({ id }) => [id, speed]));
        const result = solve(loop, speeds);
        expect(result.end).toBe('converged');
        const most = Math.max(...loop.tubes.map(({ id }) => Math.abs(lph(result, id))));
        for (const { id } of loop.components) {
          const net = loop.tubes.reduce(
            (sum, { id: tube, from, to }) => sum + (to[0] === id ? lph(result, tube) : 0) - (from[0] === id ? lph(result, tube) : 0),
            0,
          );
          expect(Math.abs(net)).toBeLessThan(1e-6 * most + 1e-6);
        }
        for (const { id } of loop.tubes) {
          const { flowLph, dropKpa } = result.links.get(id) as { flowLph: number; dropKpa: number };
          expect(flowLph * dropKpa).toBeGreaterThanOrEqual(-1e-9);
        }
      }),
      { numRuns: often(150) },
    );
  });
});
