import Joi from 'joi';
import { airFromRiseMl } from '../../physics/air/rise.js';
import { readInput, refuse } from '../../base/checking/input.js';
import { finite, MOST } from '../../base/checking/fields.js';
import { cutList } from '../../machine/shop-sums/cutList.js';
import { wallLoss } from '../../machine/shop-sums/wallLoss.js';
import { TUBE_MATERIAL_NAMES, type TubeMaterialName, type TubePiece } from '../../machine/materials/tubes.js';
import { fanScrews, SCREWS } from '../../machine/shop-sums/fanScrews.js';
import { STANDARD_ATMOSPHERE_KPA } from '../../base/units/physics.js';

const lengthMm = (): Joi.NumberSchema => finite().min(0).max(MOST.lengthMm);
const gaugeKpa = (): Joi.NumberSchema => finite().min(-100).max(MOST.pressureKpa);

const tubes = Joi.array()
  .items(
    Joi.object({
      material: Joi.string()
        .valid(...TUBE_MATERIAL_NAMES)
        .required(),
      bore_mm: finite().min(0.1).max(100).required(),
      outer_mm: finite().greater(0).max(120).required(),
      length_mm: lengthMm().required(),
    }),
  )
  .max(1000);

interface TubeInput {
  material: TubeMaterialName;
  bore_mm: number;
  outer_mm: number;
  length_mm: number;
}

function readTubes(given: readonly TubeInput[]): TubePiece[] {
  return given.map(({ material, bore_mm, outer_mm, length_mm }, index) => {
    if (outer_mm <= bore_mm)
      refuse(`tubes[${index}].outer_mm`, `the outer diameter must be larger than the bore of ${bore_mm} mm (got ${outer_mm})`);
    return { material, boreMm: bore_mm, outerMm: outer_mm, lengthMm: length_mm };
  });
}

/** kPa; with less between pump on and pump off no level tells anything, and the sum would run away */
const LEAST_SQUEEZE_KPA = 1e-6;

const riseSchema = Joi.object({
  level_rise_mm: finite().min(-1000).max(1000).required(),
  area_mm2: finite().greater(0).max(1e6).required(),
  run_gauge_kpa: gaugeKpa().required(),
  off_gauge_kpa: gaugeKpa(),
  atmosphere_kpa: finite().min(30).max(120),
  tubes,
});

interface RiseDocument {
  level_rise_mm: number;
  area_mm2: number;
  run_gauge_kpa: number;
  off_gauge_kpa?: number;
  atmosphere_kpa?: number;
  tubes?: TubeInput[];
}

export function calcRise(input: unknown): object {
  const document = readInput<RiseDocument>(riseSchema, input);
  const offGaugeKpa = document.off_gauge_kpa ?? 0;
  const atmosphereKpa = document.atmosphere_kpa ?? STANDARD_ATMOSPHERE_KPA;
  if (document.run_gauge_kpa - offGaugeKpa < LEAST_SQUEEZE_KPA)
    refuse(
      'run_gauge_kpa',
      `must be above off_gauge_kpa (${offGaugeKpa}): where the pump adds no pressure, air is not squeezed and its rise tells nothing (got ${document.run_gauge_kpa})`,
    );
  if (offGaugeKpa + atmosphereKpa <= 0)
    refuse('off_gauge_kpa', `lies below vacuum at ${atmosphereKpa} kPa of atmosphere (got ${offGaugeKpa})`);
  const air = airFromRiseMl({
    levelRiseMm: document.level_rise_mm,
    areaMm2: document.area_mm2,
    runGaugeKpa: document.run_gauge_kpa,
    offGaugeKpa,
    atmosphereKpa,
    tubes: readTubes(document.tubes ?? []),
  });
  return { air_ml: air };
}

const lossSchema = Joi.object({ tubes: tubes.required(), temp_c: finite().min(-40).max(120).required() });

export function calcLoss(input: unknown): object {
  const document = readInput<{ tubes: TubeInput[]; temp_c: number }>(lossSchema, input);
  const { mlPerMonth, range } = wallLoss(readTubes(document.tubes), document.temp_c);
  return { ml_per_month: mlPerMonth, range };
}

const screwsSchema = Joi.object({
  fan_mm: lengthMm().required(),
  washers_mm: lengthMm().required(),
  flange_mm: lengthMm().required(),
  clearance_mm: lengthMm().required(),
  thread_min_mm: lengthMm(),
  stock_mm: Joi.array().items(finite().greater(0).max(MOST.lengthMm)).max(1000).required(),
});

interface ScrewsDocument {
  fan_mm: number;
  washers_mm: number;
  flange_mm: number;
  clearance_mm: number;
  thread_min_mm?: number;
  stock_mm: number[];
}

export function calcScrews(input: unknown): object {
  const document = readInput<ScrewsDocument>(screwsSchema, input);
  const { minMm, maxMm, fits } = fanScrews(
    {
      fanMm: document.fan_mm,
      washersMm: document.washers_mm,
      flangeMm: document.flange_mm,
      clearanceMm: document.clearance_mm,
      threadMinMm: document.thread_min_mm ?? SCREWS.threadMinMm,
    },
    document.stock_mm,
  );
  return { min_mm: minMm, max_mm: maxMm, fits };
}

const cutSchema = Joi.object({
  pieces_mm: Joi.array().items(finite().greater(0).max(MOST.lengthMm)).max(2000).required(),
  stock_mm: finite().greater(0).max(MOST.lengthMm).required(),
  kerf_mm: finite().min(0).max(100),
});

export function calcCut(input: unknown): object {
  const document = readInput<{ pieces_mm: number[]; stock_mm: number; kerf_mm?: number }>(cutSchema, input);
  document.pieces_mm.forEach((length, index) => {
    if (length > document.stock_mm)
      refuse(`pieces_mm[${index}]`, `is longer than the stock of ${document.stock_mm} mm; join it or buy longer stock (got ${length})`);
  });
  const { stocks, wasteMm } = cutList(document.pieces_mm, document.stock_mm, document.kerf_mm ?? 0);
  return { stocks, waste_mm: wasteMm };
}
