import type { Fluid } from '../../machine/liquids/fluids.js';
import type { LoopFile } from '../../machine/loop-file/loopFile.js';
import { prepareFlow, solvePrepared } from '../flow/flow.js';
import { factorFor, fitSound, Hydraulics, roundLph, speedOf } from './heatTwin.js';
import { isMoved } from './compareReadings.js';
import { READING_ERRORS, type LoadReading } from './loadReading.js';

/** What stands in the way of a flow that fell at the same pump setting, as one resistance behind the pump (handbook B). */
export interface Obstruction {
  /** kPa that it takes at the flow that is left */
  readonly kpa: number;
  /** kPa/(L/min)², with one standard deviation of both flows' errors */
  readonly quadratic: number;
  readonly sd: number;
  /** share of the sound flow that is left */
  readonly left: number;
}

/** id of the resistance that is put in; no drawing has it */
const PUT_IN = '\u0000obstruction';
/** kPa/(L/min)² between which it is looked for */
const RANGE = [1e-4, 500] as const;
/** standard deviations that a flow must have fallen to be explained */
const FELL_SD = 2;

/** The loop with a resistance in the tube behind its first pump. null: no tube leaves it */
function obstructed(loop: LoopFile, quadratic: number): LoopFile | null {
  const pump = loop.components.find(({ kind, flow }) => kind === 'pump' && flow);
  const tube = loop.tubes.find(({ from }) => pump?.flow && from[0] === pump.id && from[1] === pump.flow[1]);
  const at = tube && pump?.ports[tube.from[1]];
  if (!tube || !at) return null;
  return {
    ...loop,
    components: [
      ...loop.components,
      {
        id: PUT_IN,
        kind: 'junction',
        volume_ml: 0,
        ports: { in: at, out: at },
        flow: ['in', 'out'],
        resistance: { linear_kpa_per_lpm: 0, quadratic_kpa_per_lpm2: quadratic },
      },
    ],
    tubes: [
      ...loop.tubes.map((each) => (each === tube ? { ...each, from: [PUT_IN, 'out'] as const } : each)),
      // hardly any length: its own loss does not count
      { id: `${PUT_IN} tube`, from: tube.from, to: [PUT_IN, 'in'], bore_mm: tube.bore_mm, outer_mm: tube.outer_mm, material: tube.material, length_mm: 0.01 },
    ],
  }; // prettier-ignore
}

/**
 * The resistance that explains a lower flow, on the loop's own twin: fitted to the sound day, then choked behind its pump until it shows what
 * is read now.
 * @returns null where a flow is missing, the pump was set otherwise, or nothing fell beyond the meter's error
 */
export function obstructionOf(loop: LoopFile, fluid: Fluid, sound: LoadReading, now: LoadReading): Obstruction | null {
  const [before, after] = [sound.flowLph, now.flowLph];
  if (before === undefined || after === undefined) return null;
  const speed = speedOf(sound.pumpSpeed);
  if (isMoved(speedOf(now.pumpSpeed ?? sound.pumpSpeed), speed)) return null;
  const sdShare = READING_ERRORS.flowShare * Math.SQRT2;
  if (1 - after / before < FELL_SD * sdShare) return null;
  const twin = fitSound(new Hydraulics(loop, fluid), sound);
  if (!twin || !obstructed(loop, 1)) return null;
  const pumps = loop.components.filter(({ kind }) => kind === 'pump');
  const speeds = Object.fromEntries(pumps.map((pump) => [pump.id, speed * twin.pumpFactor * (pump.speed ?? 1)]));
  const flowWith = (quadratic: number): number => {
    const choked = obstructed(loop, quadratic) as LoopFile;
    return roundLph(choked, solvePrepared(prepareFlow(choked, fluid), speeds));
  };
  const quadraticFor = (flowLph: number): number => factorFor(RANGE, (quadratic) => flowWith(quadratic) > flowLph);
  const quadratic = quadraticFor(after);
  const sd = Math.abs(quadraticFor(after * (1 + sdShare)) - quadraticFor(after * (1 - sdShare))) / 2;
  return { kpa: quadratic * (after / 60) ** 2, quadratic, sd, left: after / before };
}
