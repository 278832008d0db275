import Joi from 'joi';
import { simulateFill } from '../../physics/filling/fillSimulation.js';
import { fillByGravity } from '../../physics/filling/gravityFill.js';
import { fluid, needBoxes, needCurves, readFluid, readLoopDocument, type FluidInput } from './loopInput.js';

const schema = Joi.object({ loop: Joi.any().required(), fluid: fluid.required() });

export function calcFill(input: unknown): object {
  const document = readLoopDocument<{ loop: unknown; fluid: FluidInput }>(schema, input);
  const { loop } = document;
  needBoxes(loop);
  if (!loop.components.some(({ kind }) => kind === 'reservoir')) {
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
    pulses: fill.pulses.map(({ runS, movedMl, fallsBackMl, refillMl }) => ({
      run_s: runS,
      moved_ml: movedMl,
      falls_back_ml: fallsBackMl,
      refill_ml: refillMl,
    })),
    total_ml: fill.totalMl,
    lift_mm: fill.liftMm,
    shutoff_mm: fill.shutoffMm,
  };
}
