import Joi from 'joi';
import type { LoopFile } from '../../machine/loop-file/loopFile.js';
import { hasReservoir } from '../../machine/loop-file/marks.js';
import { simulateFill } from '../../physics/filling/fillSimulation.js';
import { fillByGravity } from '../../physics/filling/gravityFill.js';
import { fluid, needBoxes, needCurves, readFluid, readLoopDocument, type FluidInput } from './loopInput.js';

const schema = Joi.object({ loop: Joi.any().required(), fluid: fluid.required() });

const OVERFLOW =
  'when the pump stops, gas enters at the return port and more runs back than the reservoir has room for: fill lower, or bring the return under the surface';
const tooQuickWords = (loop: LoopFile, pump: string): string =>
  loop.components.find(({ id }) => id === pump)?.speed_fixed
    ? `${pump} empties the reservoir's working volume faster than a hand can switch or pour, and its speed is fixed`
    : `even as slow as the lift allows, ${pump} empties the reservoir's working volume faster than a hand can switch or pour`;

export function calcFill(input: unknown): object {
  const document = readLoopDocument<{ loop: unknown; fluid: FluidInput }>(schema, input);
  const { loop } = document;
  needBoxes(loop);
  if (!hasReservoir(loop)) {
    const { turns, totalMl } = fillByGravity(loop);
    return {
      primes: false,
      gravity: { turns: turns.map(({ orientation, pouredMl }) => ({ orientation, poured_ml: pouredMl })), total_ml: totalMl },
    };
  }
  needCurves(loop, () => false);
  const fill = simulateFill(loop, readFluid(document.fluid));
  return {
    primes: fill.primes,
    passive_ml: fill.passiveMl,
    finished: fill.finished,
    pulses: fill.pulses.map(({ runS, movedMl, fallsBackMl, refillMl, pouredRunning, speed }) => ({
      run_s: runS,
      moved_ml: movedMl,
      falls_back_ml: fallsBackMl,
      refill_ml: refillMl,
      pour: pouredRunning ? 'while-running' : 'after',
      speed,
    })),
    total_ml: fill.totalMl,
    least_ml: fill.leastMl,
    most_ml: fill.mostMl,
    lift_mm: fill.liftMm,
    shutoff_mm: fill.shutoffMm,
    by_hand: fill.tooQuick === null,
    ...(fill.tooQuick === null ? {} : { reason: tooQuickWords(loop, fill.tooQuick) }),
    overflow_ml: fill.overflowMl,
    ...(fill.overflowMl > 0 ? { warning: OVERFLOW } : {}),
  };
}
