import Joi from 'joi';
import { readInput, refuse } from '../../base/checking/input.js';
import { finite, fraction, positiveMl, volumeMl } from '../../base/checking/fields.js';
import { diluteReadyMix, doseConcentrate } from '../../machine/shop-sums/dose.js';
import { planRinses } from '../../machine/shop-sums/rinse.js';

const rinseSchema = Joi.object({
  left_ml: volumeMl().required(),
  rinse_ml: positiveMl().required(),
  target_fraction: finite().greater(0).max(1).required(),
});

export function calcRinse(input: unknown): object {
  const document = readInput<{ left_ml: number; rinse_ml: number; target_fraction: number }>(rinseSchema, input);
  const { rinses, fractionAfter } = planRinses(document.left_ml, document.rinse_ml, document.target_fraction);
  return { rinses, fraction_after: fractionAfter };
}

const doseSchema = Joi.object({
  loop_ml: positiveMl().required(),
  left_ml: volumeMl().required(),
  target_fraction: fraction(),
  ready_mix_fraction: fraction(),
  sheet_minimum: fraction(),
})
  .xor('target_fraction', 'ready_mix_fraction')
  .and('ready_mix_fraction', 'sheet_minimum')
  .messages({
    'object.missing': 'give target_fraction to dose a concentrate, or ready_mix_fraction with sheet_minimum to check a ready-mix',
    'object.xor': 'give either target_fraction or ready_mix_fraction, not both',
    'object.and': 'ready_mix_fraction and sheet_minimum belong together; one of them is missing',
  });

interface DoseDocument {
  loop_ml: number;
  left_ml: number;
  target_fraction?: number;
  ready_mix_fraction?: number;
  sheet_minimum?: number;
}

export function calcDose(input: unknown): object {
  const document = readInput<DoseDocument>(doseSchema, input);
  if (document.left_ml > document.loop_ml) refuse('left_ml', `cannot be more than loop_ml (${document.loop_ml}); got ${document.left_ml}`);
  if (document.target_fraction === undefined) {
    const strength = diluteReadyMix(
      document.loop_ml,
      document.left_ml,
      document.ready_mix_fraction as number,
      document.sheet_minimum as number,
    );
    return { final_fraction: strength.finalFraction, enough: strength.enough };
  }
  const dose = doseConcentrate(document.loop_ml, document.left_ml, document.target_fraction);
  return {
    concentrate_ml: dose.concentrateMl,
    water_ml: dose.waterMl,
    pour_fraction: dose.pourFraction,
    possible: dose.possible,
    ...(dose.drainMoreMl === null ? {} : { drain_more_ml: dose.drainMoreMl }),
  };
}
