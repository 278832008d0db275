import { MEASURED } from '../measuring/errors.js';
import type { BaselineReading } from './reading.js';
import { prepareFlow, solveAtSpeed } from '../flow/flow.js';
import { liquidAt, type Liquid } from '../../machine/liquids/fluids.js';
import { pumpsWithoutCurve } from '../flow/network.js';
import type { LoopFile } from '../../machine/loop-file/loopFile.js';
import { SATURATED_MINUTES } from './baseline.js';
import { blockResistance } from '../heat/steady.js';
import { blockOf } from './sensors.js';

export interface MeasuredBlock {
  readonly id: string;
  /** K/W from the part to the coolant, at `flowLph` */
  readonly kelvinPerWatt: number;
  readonly sdKelvinPerWatt: number;
  readonly flowLph: number;
  /** measured over the general estimate at that flow */
  readonly factor: number;
}

/**
 * Resistances of blocks from recorded baselines: θ = (T_part − T_coolant)/P, P the power into that part. A reading counts
 * if the coolant was measured, the load's power is known, and it lasted long enough; the first that fits a block wins, so
 * give the newest first. Its flow is the measured one, else the twin's at the pump speed that was noted.
 */
export function blocksFromBaselines(loop: LoopFile, readings: readonly BaselineReading[], liquid: Liquid): MeasuredBlock[] {
  const blocks = loop.components.filter(({ kind }) => kind === 'block');
  const prepared = pumpsWithoutCurve(loop).length === 0 ? prepareFlow(loop, liquidAt(liquid, 35)) : null;
  const found = new Map<string, MeasuredBlock>();
  for (const { sensor, coolantC, partC, powerW, durationMinutes, pumpPercent, flowLph } of readings) {
    const block = blockOf(blocks, sensor);
    if (!block || found.has(block.id) || coolantC === null || powerW === null || powerW <= 0) continue;
    if (durationMinutes < SATURATED_MINUTES || partC <= coolantC) continue;
    const predicted = prepared ? solveAtSpeed(prepared, pumpPercent / 100).links.get(block.id)?.flowLph : undefined;
    const through = Math.abs(flowLph ?? predicted ?? 0);
    if (through < 1) continue;
    const kelvinPerWatt = (partC - coolantC) / powerW;
    found.set(block.id, {
      id: block.id,
      kelvinPerWatt,
      sdKelvinPerWatt: MEASURED.sensorsSdK / powerW,
      flowLph: through,
      factor: kelvinPerWatt / blockResistance(through),
    });
  }
  return [...found.values()];
}

/** What stands for a machine's sound days: its newest reading under a known load, of the one block that it can mean. */
export function soundFrom(loop: LoopFile, readings: readonly BaselineReading[]): (BaselineReading & { readonly part: string }) | null {
  const blocks = loop.components.filter(({ kind }) => kind === 'block');
  for (const reading of readings) {
    const block = blockOf(blocks, reading.sensor);
    if (block && (reading.powerW ?? 0) > 0) return { ...reading, part: block.id };
  }
  return null;
}
