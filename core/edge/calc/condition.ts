import Joi from 'joi';
import { finite } from '../../base/checking/fields.js';
import { readInput, refuse } from '../../base/checking/input.js';
import { kaplanMeier, type Life } from '../../base/statistics/lives.js';
import { logRank } from '../../base/statistics/logRank.js';
import { theilSen, type DayValue } from '../../base/statistics/theilSen.js';
import { ageAtRisk, fitWeibull } from '../../base/statistics/weibull.js';
import { colourDifference, type Lab } from '../../machine/liquids/colourDifference.js';
import { compareReadings } from '../../physics/diagnosis/compareReadings.js';
import { LEAST_SAMPLES, saturate } from '../../physics/diagnosis/saturation.js';
import { DAYS_PER_YEAR } from '../../base/units/physics.js';
import { differenceWords } from '../words/readings.js';
import { asReading, readingSchema, temperature, type ReadingDocument } from './readingInput.js';

const MOST_POINTS = 20_000;

const saturateSchema = Joi.object({
  samples: Joi.array()
    .items(Joi.object({ t_s: finite().min(-1e10).max(1e10).required(), temp_c: temperature().required() }))
    .min(LEAST_SAMPLES)
    .max(MOST_POINTS)
    .required(),
});

export function calcSaturate(input: unknown): object {
  const { samples } = readInput<{ samples: { t_s: number; temp_c: number }[] }>(saturateSchema, input);
  samples.forEach(({ t_s }, index) => {
    if (index > 0 && t_s < (samples[index - 1]?.t_s ?? 0)) refuse(`samples[${index}].t_s`, `lies before the sample above it (got ${t_s})`);
  });
  const found = saturate(samples.map(({ t_s, temp_c }) => ({ tS: t_s, tempC: temp_c })));
  if (!found) return refuse('samples', 'all have the same time: no curve can be seen');
  return {
    final_c: found.finalC,
    final_sd_c: Number.isFinite(found.finalSdC) ? found.finalSdC : null,
    tau_s: found.tauS,
    reached_fraction: found.reachedFraction,
    minutes_to_half_kelvin: found.minutesToHalfKelvin,
  };
}

const compareSchema = Joi.object({ before: readingSchema.required(), after: readingSchema.required() });

export function calcCompare(input: unknown): object {
  const { before, after } = readInput<{ before: ReadingDocument; after: ReadingDocument }>(compareSchema, input);
  const { comparable, differences, parts } = compareReadings(asReading(before), asReading(after));
  return {
    comparable,
    differences: differences.map(differenceWords),
    parts: Object.fromEntries(
      Object.entries(parts).map(([id, { changeK, sdK, changeKPerW, verdict, atLeast }]) => [
        id,
        { change_k: changeK, sd_k: sdK, change_k_per_w: changeKPerW, verdict, ...(atLeast ? { at_least: true } : {}) },
      ]),
    ),
  };
}

const trendSchema = Joi.object({
  points: Joi.array()
    .items(Joi.object({ day: finite().min(-1e6).max(1e6).required(), value: finite().min(-1e12).max(1e12).required() }))
    .min(4)
    .max(2000)
    .required(),
  limit: finite().min(-1e12).max(1e12).required(),
});

export function calcTrend(input: unknown): object {
  const { points, limit } = readInput<{ points: DayValue[]; limit: number }>(trendSchema, input);
  const found = theilSen(points, limit);
  if (!found) return refuse('points', 'all lie on one day: no line can be seen');
  const aYear = (slope: number | null): number | null => (slope === null ? null : slope * DAYS_PER_YEAR);
  return {
    slope_per_year: aYear(found.slope),
    low_per_year: aYear(found.low),
    high_per_year: aYear(found.high),
    crosses_day: found.crossesDay,
    crosses_low_day: found.crossesLowDay,
    crosses_high_day: found.crossesHighDay,
  };
}

const months = (): Joi.NumberSchema => finite().max(1200);
const lifeSchema = Joi.object({
  months: months().greater(0).required(),
  event: Joi.boolean().required(),
  entry_months: months().min(0),
});
const livesSchema = (least: number): Joi.ArraySchema => Joi.array().items(lifeSchema).min(least).max(MOST_POINTS);

interface LifeDocument {
  months: number;
  event: boolean;
  entry_months?: number;
}

const asLives = (lives: readonly LifeDocument[], path: string): Life[] =>
  lives.map(({ months: age, event, entry_months: entryMonths = 0 }, index) => {
    if (entryMonths >= age)
      refuse(`${path}[${index}].entry_months`, `must lie before the life’s end at ${age} months (got ${entryMonths})`);
    return { months: age, event, entryMonths };
  });

export function calcLife(input: unknown): object {
  const schema = Joi.object({ lives: livesSchema(1).required(), risk: finite().greater(0).less(1).required() });
  const document = readInput<{ lives: LifeDocument[]; risk: number }>(schema, input);
  const lives = asLives(document.lives, 'lives');
  const weibull = fitWeibull(lives);
  const age = weibull && ageAtRisk(lives, weibull, document.risk);
  return {
    steps: kaplanMeier(lives).map((step) => ({
      months: step.months,
      at_risk: step.atRisk,
      events: step.events,
      survival: step.survival,
    })),
    weibull,
    interval_months: age?.months ?? null,
    interval_low_months: age?.lowMonths ?? null,
    interval_high_months: age?.highMonths ?? null,
  };
}

const matesSchema = Joi.object({
  groups: Joi.array()
    .items(Joi.object({ name: Joi.string().allow('').max(200).required(), lives: livesSchema(0).required() }))
    .min(2)
    .max(500)
    .required(),
});

export function calcMates(input: unknown): object {
  const { groups } = readInput<{ groups: { name: string; lives: LifeDocument[] }[] }>(matesSchema, input);
  return logRank(groups.map(({ name, lives }, index) => ({ name, lives: asLives(lives, `groups[${index}].lives`) })));
}

const labSchema = Joi.object({
  L: finite().min(0).max(100).required(),
  a: finite().min(-200).max(200).required(),
  b: finite().min(-200).max(200).required(),
});

export function calcColour(input: unknown): object {
  const { a, b } = readInput<{ a: Lab; b: Lab }>(Joi.object({ a: labSchema.required(), b: labSchema.required() }), input);
  return { delta_e: colourDifference(a, b) };
}
