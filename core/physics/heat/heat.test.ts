import fc from 'fast-check';
import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { solveFlow } from '../flow/flow.js';
import { waterAt } from '../../machine/liquids/fluids.js';
import { readLoopFile } from '../../machine/loop-file/loopFileSchema.js';
import type { LoopFile } from '../../machine/loop-file/loopFile.js';
import { HEAT } from './defaults.js';
import { solveDense } from '../../base/numerics/dense.js';
import { findQuietPoint } from './quietPoint.js';
import { blockResistance, crossFlowEffectiveness, solveHeat, type HeatConditions, type HeatResult, type RadiatorAir } from './steady.js';

const load = (name: string): LoopFile => readLoopFile(JSON.parse(readFileSync(`examples/${name}.json`, 'utf8')));
const fluid = waterAt(35);
const roomAir: RadiatorAir = { from: 'room', to: 'out', fanSpeed: 1, blockage: 0 };
const loads = { cpu: 150, gpu: 340 };
function solve(loop: LoopFile, more: Partial<HeatConditions> = {}, speeds: Record<string, number> = {}): HeatResult {
  const flow = solveFlow(loop, { fluid, speeds, closed: [] });
  return solveHeat(loop, flow, { roomC: 22, fluid, loadsW: loads, air: { top: roomAir, front: roomAir }, caseHeatW: 0, ...more });
}
const part = (result: HeatResult, id: string) => result.parts.find((each) => each.id === id) as HeatResult['parts'][number];

describe('steady temperatures', () => {
  const loop = load('two-radiators');
  const flowLph = solveFlow(loop, { fluid, speeds: {}, closed: [] }).links.get('cpu')?.flowLph as number;
  const capacity = (flowLph / 3.6e6) * fluid.densityKgM3 * HEAT.heatCapacity;

  it('rise across a block by P/(ρ·c·Q), and its part stands P·R above the coolant', () => {
    const cpu = part(solve(loop), 'cpu');
    expect(cpu.coolantOutC - cpu.coolantInC).toBeCloseTo(150 / capacity, 9);
    expect((cpu.partC as number) - (cpu.coolantInC + cpu.coolantOutC) / 2).toBeCloseTo(150 * blockResistance(flowLph), 9);
  });

  it('give off in the radiators what goes in at the blocks', () => {
    const result = solve(loop);
    expect(result.parts.reduce((sum, { heatW }) => sum + heatW, 0)).toBeCloseTo(0, 6);
    expect(part(result, 'top').heatW + part(result, 'front').heatW).toBeCloseTo(-490, 6);
  });

  it('solve one block and one radiator as by hand', () => {
    const single = structuredClone(loop);
    const front = single.components.find(({ id }) => id === 'front');
    if (front) front.kind = 'block';
    const top = part(solve(single, { loadsW: { cpu: 200 } }), 'top');
    // ε-NTU: q = ε·C_min·(T_in − T_air)
    const face = 0.35 * 0.12;
    const airW = (face * HEAT.faceAirflowM3h * HEAT.airDensity * HEAT.airHeatCapacity) / 3600;
    const conductance = face * HEAT.faceConductance * (flowLph / (flowLph + HEAT.radiatorHalfFlowLph));
    const small = Math.min(airW, capacity);
    const effectiveness = crossFlowEffectiveness(conductance / small, small / Math.max(airW, capacity));
    expect(top.coolantInC).toBeCloseTo(22 + 200 / (effectiveness * small), 1);
  });

  it('are the room’s everywhere without heat, also where a radiator blows into the case', () => {
    const inward: RadiatorAir = { ...roomAir, to: 'case' };
    const still = solve(loop, { loadsW: {}, air: { top: { ...roomAir, from: 'case' }, front: inward } });
    expect(still.caseAirC).toBeCloseTo(22, 9);
    for (const { coolantOutC } of still.parts) expect(coolantOutC).toBeCloseTo(22, 9);
    // and with heat the case is warmer by what the radiator gave its air
    const warm = solve(loop, { air: { top: roomAir, front: inward } });
    expect(warm.caseAirC).toBeGreaterThan(22.5);
    expect(warm.caseAirC).toBeLessThan(part(warm, 'front').coolantInC);
  });

  it('rise all together with the room, degree by degree', () => {
    const warm = solve(loop, { roomC: 30 });
    for (const { id, coolantOutC } of solve(loop).parts) expect(part(warm, id).coolantOutC - coolantOutC).toBeCloseTo(8, 6);
  });

  it('are higher where a radiator breathes the case’s air, warmed by the other, or behind a blocked front', () => {
    const open = part(solve(loop), 'gpu').partC as number;
    const front: RadiatorAir = { from: 'room', to: 'case', fanSpeed: 1, blockage: 0 };
    const top: RadiatorAir = { from: 'case', to: 'out', fanSpeed: 1, blockage: 0 };
    const shared = solve(loop, { air: { front, top }, caseHeatW: 60 });
    expect(shared.caseAirC).toBeGreaterThan(22);
    expect(part(shared, 'gpu').partC).toBeGreaterThan(open);
    expect(part(solve(loop, { air: { front: { ...roomAir, blockage: 0.6 }, top: roomAir } }), 'gpu').partC).toBeGreaterThan(open);
  });

  it('change by a degree or two with the order of the parts', () => {
    const swapped = structuredClone(loop);
    const swap: Record<string, string> = { gpu: 'cpu', cpu: 'gpu' };
    swapped.tubes = swapped.tubes.map((tube) => ({
      ...tube,
      from: [swap[tube.from[0]] ?? tube.from[0], tube.from[1]],
      to: [swap[tube.to[0]] ?? tube.to[0], tube.to[1]],
    }));
    const change = Math.abs((part(solve(swapped), 'cpu').partC as number) - (part(solve(loop), 'cpu').partC as number));
    expect(change).toBeGreaterThan(0.1);
    expect(change).toBeLessThan(3);
  });

  it('have no answer without flow, or without a radiator', () => {
    expect(solve(loop, {}, { pump: 0 }).end).toBe('nothing-flows');
    const bare = structuredClone(loop);
    for (const each of bare.components) if (each.kind === 'radiator') each.kind = 'block';
    expect(solve(bare).end).toBe('no-radiator');
  });

  it('balance in branches side by side too', () => {
    const cards = load('parallel-cards');
    const flow = solveFlow(cards, { fluid, speeds: {}, closed: [] });
    const result = solveHeat(cards, flow, { roomC: 22, fluid, loadsW: { upper: 300, lower: 200, processor: 120 }, air: {}, caseHeatW: 50 });
    expect(result.end).toBe('solved');
    expect(result.parts.reduce((sum, { heatW }) => sum + heatW, 0)).toBeCloseTo(0, 6);
    // both cards are fed with the same coolant
    expect(part(result, 'upper').coolantInC).toBeCloseTo(part(result, 'lower').coolantInC, 9);
  });
});

describe('the quiet point', () => {
  const loop = load('two-radiators');
  const conditions = { roomC: 24, fluid, loadsW: loads, caseHeatW: 40 };

  it('keeps every part under its limit, and gets louder with the room', () => {
    const cool = findQuietPoint(loop, conditions, { cpu: 75, gpu: 70 });
    const warm = findQuietPoint(loop, { ...conditions, roomC: 32 }, { cpu: 75, gpu: 70 });
    expect(cool.best?.fanSpeed).toBeLessThanOrEqual(warm.best?.fanSpeed as number);
    const fans = cool.curve.flatMap(({ fanSpeed }) => (fanSpeed === null ? [] : [fanSpeed]));
    // faster pumps never need faster fans
    expect(fans).toEqual([...fans].sort((a, b) => b - a));
  });

  it('says when the loop cannot carry the heat', () => {
    expect(findQuietPoint(loop, conditions, { cpu: 30, gpu: 30 }).best).toBeNull();
  });
});

describe('small dense systems', () => {
  it('are solved as multiplied', () => {
    const value = fc.double({ min: -5, max: 5, noNaN: true });
    fc.assert(
      fc.property(
        fc.array(fc.array(value, { minLength: 4, maxLength: 4 }), { minLength: 4, maxLength: 4 }),
        fc.array(value, { minLength: 4, maxLength: 4 }),
        (rows, x) => {
          rows.forEach((row, at) => (row[at] = (row[at] as number) + 20));
          const right = Float64Array.from(rows, (row) => row.reduce((sum, a, at) => sum + a * (x[at] as number), 0));
          const solved = solveDense(
            rows.map((row) => Float64Array.from(row)),
            right,
          );
          x.forEach((each, at) => expect(solved?.[at]).toBeCloseTo(each, 8));
        },
      ),
    );
  });

  it('have no answer when singular', () => {
    expect(solveDense([Float64Array.of(1, 2), Float64Array.of(2, 4)], Float64Array.of(1, 2))).toBeNull();
  });
});
