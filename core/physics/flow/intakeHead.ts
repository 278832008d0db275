import { liquidAt, type Liquid } from '../../machine/liquids/fluids.js';
import type { LoopFile } from '../../machine/loop-file/loopFile.js';
import { FLOW } from './defaults.js';
import { solveFlow, type FlowResult } from './flow.js';

/** What a pump's intake needs, and where it is judged (general estimates; a maker's own figure goes first). */
export const INTAKE = {
  /** kPa, standard atmosphere (ISO 2533) */
  atmosphereKpa: 101.325,
  /** m of head that a small centrifugal pump needs at its free flow and full speed; falls with the square of the flow */
  neededAtFreeM: 1.5,
  /** °C; the hottest coolant that soft tube and most pumps are made for */
  hottestC: 60,
  /** kPa; below, a joint before the pump draws air in instead of dripping */
  drawsAirKpa: -1,
} as const;

/** The head at a pump's intake. `verdict`: enough · room air is drawn in at any joint before it · it boils in the pump. */
export interface IntakeHead {
  readonly pump: string;
  /** kPa against the room */
  readonly gaugeKpa: number;
  /** m above the coolant's vapour pressure (NPSH), and what the pump needs */
  readonly availableM: number;
  readonly neededM: number;
  readonly verdict: 'enough' | 'draws-air' | 'boils';
}

/** kPa; vapour pressure of water, 1 to 100 °C (Antoine, log₁₀(p/mmHg) = 8.07131 − 1730.63/(233.426 + T)). Glycol lowers it: on the safe side. */
export const vapourPressureKpa = (tempC: number): number => 0.133322 * 10 ** (8.07131 - 1730.63 / (233.426 + tempC));

/** By pump, for a flow that was solved; a pump without a curve needs what nobody knows and is left out. */
export function intakeHeads(loop: LoopFile, { links, portGaugeKpa }: FlowResult, liquid: Liquid, coolantC: number): IntakeHead[] {
  const { densityKgM3 } = liquidAt(liquid, coolantC);
  const headOf = (kpa: number): number => (1000 * kpa) / (densityKgM3 * FLOW.gravity);
  return loop.components.flatMap(({ id, kind, curve, flow }): IntakeHead[] => {
    const freeLph = curve?.at(-1)?.[0];
    const gaugeKpa = flow && portGaugeKpa.get(`${id}.${flow[0]}`);
    if (kind !== 'pump' || !freeLph || gaugeKpa === undefined) return [];
    const flowLph = Math.abs(links.get(id)?.flowLph ?? 0);
    const availableM = headOf(INTAKE.atmosphereKpa + gaugeKpa - vapourPressureKpa(coolantC));
    const neededM = INTAKE.neededAtFreeM * (flowLph / freeLph) ** 2;
    const verdict = availableM < neededM ? 'boils' : gaugeKpa < INTAKE.drawsAirKpa ? 'draws-air' : 'enough';
    return [{ pump: id, gaugeKpa, availableM, neededM, verdict }];
  });
}

/** All pumps at full speed with the hottest coolant: the worst that hands or a thermostat can ask for. Before: pumps have curves. */
export function worstIntakes(loop: LoopFile, liquid: Liquid): IntakeHead[] {
  const speeds = Object.fromEntries(loop.components.filter(({ kind }) => kind === 'pump').map(({ id }) => [id, 1]));
  const flow = solveFlow(loop, { fluid: liquidAt(liquid, INTAKE.hottestC), speeds, closed: [] });
  return intakeHeads(loop, flow, liquid, INTAKE.hottestC);
}
