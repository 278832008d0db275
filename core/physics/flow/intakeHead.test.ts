import { describe, expect, it } from 'vitest';
import { usualLoop } from '../../machine/catalogue/testLoops.js';
import { liquidAt, WATER } from '../../machine/liquids/fluids.js';
import type { LoopFile } from '../../machine/loop-file/loopFile.js';
import { solveFlow } from './flow.js';
import { INTAKE, intakeHeads, vapourPressureKpa, worstIntakes } from './intakeHead.js';

const loop = usualLoop();
const pump = loop.components.find(({ kind }) => kind === 'pump') as LoopFile['components'][number];
/** the tube that feeds the pump is as narrow as this */
const fedThrough = (boreMm: number): LoopFile => ({
  ...loop,
  tubes: loop.tubes.map((tube) => (tube.to[0] === pump.id ? { ...tube, bore_mm: boreMm } : tube)),
});

describe('the head at a pump’s intake', () => {
  it.each([
    [20, 2.339],
    [60, 19.95],
    [80, 47.41],
    [100, 101.42],
  ])('counts with water’s vapour pressure: %s °C is %s kPa (IAPWS)', (tempC, kpa) => {
    expect(vapourPressureKpa(tempC) / kpa).toBeCloseTo(1, 2);
  });

  it('is the room’s pressure and the column above it, less the vapour’s, in metres of coolant', () => {
    const flow = solveFlow(loop, { fluid: liquidAt(WATER, 60), speeds: {}, closed: [] });
    const [head] = intakeHeads(loop, flow, WATER, 60);
    const gauge = flow.portGaugeKpa.get(`${pump.id}.${pump.flow?.[0]}`) as number;
    expect(head?.gaugeKpa).toBe(gauge);
    expect(head?.availableM).toBeCloseTo((101.325 + gauge - 19.93) / (983.2 * 9.80665e-3), 1);
    expect(head?.verdict).toBe('enough');
  });

  it('needs more with the square of the flow', () => {
    const at = (speed: number) => intakeHeads(loop, solveFlow(loop, { fluid: liquidAt(WATER, 25), speeds: { [pump.id]: speed }, closed: [] }), WATER, 25)[0]; // prettier-ignore
    const [slow, fast] = [at(0.5), at(1)];
    expect(fast?.neededM).toBeGreaterThan((slow?.neededM ?? 0) * 3);
    expect(fast?.neededM).toBeLessThan(INTAKE.neededAtFreeM);
  });

  it('tells that air is drawn in where something before the pump holds the flow back', () => {
    expect(worstIntakes(fedThrough(2), WATER).map(({ verdict }) => verdict)).toEqual(['draws-air']);
    expect(worstIntakes(loop, WATER).map(({ verdict }) => verdict)).toEqual(['enough']);
  });

  it('tells that hot coolant boils in a pump that has to pull it', () => {
    const flow = solveFlow(loop, { fluid: liquidAt(WATER, 60), speeds: {}, closed: [] });
    const pulling = { ...flow, portGaugeKpa: new Map([...flow.portGaugeKpa].map(([at, kpa]) => [at, kpa - 84])) };
    expect(intakeHeads(loop, pulling, WATER, 60)[0]?.verdict).toBe('boils');
  });

  it('says nothing of a pump without a curve', () => {
    const bare = { ...loop, components: loop.components.map((part) => (part.kind === 'pump' ? { ...part, curve: undefined } : part)) };
    const flow = solveFlow(loop, { fluid: liquidAt(WATER, 25), speeds: {}, closed: [] });
    expect(intakeHeads(bare, flow, WATER, 25)).toEqual([]);
  });
});
