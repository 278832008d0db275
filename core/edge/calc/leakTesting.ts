import Joi from 'joi';
import { readInput, refuse } from '../../base/checking/input.js';
import { finite, positiveMl, volumeMl } from '../../base/checking/fields.js';
import { judgeDecay } from '../../physics/leak-testing/decay.js';
import { holdMinutes } from '../../physics/leak-testing/hold.js';
import { STANDARD_ATMOSPHERE_KPA } from '../../base/units/physics.js';

/** kPa; outside this no weather and no altitude of a workshop lies */
const atmosphere = (): Joi.NumberSchema => finite().min(50).max(120);
const gauge = (): Joi.NumberSchema => finite().greater(-100).max(1000);
const temperature = (): Joi.NumberSchema => finite().min(-40).max(120);
const limit = (): Joi.NumberSchema => finite().min(1e-9).max(1e3).required();
const resolution = (): Joi.NumberSchema => finite().greater(0).max(100).required();
const tempSd = (): Joi.NumberSchema => finite().min(0).max(20);

const holdSchema = Joi.object({
  volume_ml: positiveMl().required(),
  limit_mbar_l_s: limit(),
  resolution_kpa: resolution(),
  temp_sd_k: tempSd(),
  gauge_kpa: gauge(),
});

interface HoldDocument {
  volume_ml: number;
  limit_mbar_l_s: number;
  resolution_kpa: number;
  temp_sd_k?: number;
  gauge_kpa?: number;
}

export function calcHold(input: unknown): object {
  const document = readInput<HoldDocument>(holdSchema, input);
  return {
    minutes: holdMinutes({
      volumeMl: document.volume_ml,
      limitMbarLs: document.limit_mbar_l_s,
      resolutionKpa: document.resolution_kpa,
      tempSdK: document.temp_sd_k,
      gaugeKpa: document.gauge_kpa,
    }),
  };
}

const decaySchema = Joi.object({
  volume_ml: positiveMl().min(1).required(),
  readings: Joi.array()
    .items(
      Joi.object({
        t_s: finite().min(0).max(1e8).required(),
        gauge_kpa: gauge().required(),
        temp_c: temperature().required(),
        atmosphere_kpa: atmosphere(),
      }),
    )
    .min(1)
    .max(100_000)
    .required(),
  atmosphere_kpa: atmosphere(),
  resolution_kpa: resolution(),
  limit_mbar_l_s: limit(),
  temp_sd_k: tempSd(),
  liquid_ml: volumeMl(),
  working_kpa: finite().greater(0).max(1000),
});

interface DecayDocument {
  volume_ml: number;
  readings: { t_s: number; gauge_kpa: number; temp_c: number; atmosphere_kpa?: number }[];
  atmosphere_kpa?: number;
  resolution_kpa: number;
  limit_mbar_l_s: number;
  temp_sd_k?: number;
  liquid_ml?: number;
  working_kpa?: number;
}

export function calcDecay(input: unknown): object {
  const document = readInput<DecayDocument>(decaySchema, input);
  document.readings.forEach(({ t_s }, index) => {
    const before = document.readings[index - 1];
    if (before && t_s <= before.t_s)
      refuse(`readings[${index}].t_s`, `times must rise from reading to reading; ${t_s} s follows ${before.t_s} s`);
  });
  if ((document.liquid_ml ?? 0) >= document.volume_ml) {
    refuse(
      'liquid_ml',
      `must be less than volume_ml (${document.volume_ml}): without gas there is no air test (got ${document.liquid_ml})`,
    );
  }
  const result = judgeDecay({
    volumeMl: document.volume_ml,
    readings: document.readings.map(({ t_s, gauge_kpa, temp_c, atmosphere_kpa }) => ({
      tS: t_s,
      gaugeKpa: gauge_kpa,
      tempC: temp_c,
      atmosphereKpa: atmosphere_kpa,
    })),
    atmosphereKpa: document.atmosphere_kpa ?? STANDARD_ATMOSPHERE_KPA,
    resolutionKpa: document.resolution_kpa,
    limitMbarLs: document.limit_mbar_l_s,
    tempSdK: document.temp_sd_k,
    liquidMl: document.liquid_ml,
    workingKpa: document.working_kpa,
  });
  return {
    leak_mbar_l_s: result.leakMbarLs,
    se_mbar_l_s: result.seMbarLs,
    verdict: result.verdict,
    ...(result.moreMinutes === null ? {} : { more_minutes: result.moreMinutes }),
    settled_after_s: result.settledAfterS,
    excluded_ml_per_day: result.excludedMlPerDay,
  };
}
