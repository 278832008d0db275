import type { Fluid } from '../../machine/liquids/fluids.js';
import Joi from 'joi';
import { readInput, refuse } from '../../base/checking/input.js';
import { finite } from '../../base/checking/fields.js';
import { pumpsWithoutCurve } from '../../physics/flow/network.js';
import { vesselsWithoutBox } from '../../physics/geometry/network.js';
import { STANDING, STANDING_NAMES, type StandingName, type Tilt } from '../../machine/loop-file/orientation.js';
import type { LoopFile } from '../../machine/loop-file/loopFile.js';
import { readLoopFile } from '../../machine/loop-file/loopFileSchema.js';

/** Fields that several commands share. */
export const names = Joi.array().items(Joi.string().min(1).max(200)).max(2000);

const degrees = finite().min(-360).max(360).required();
const ORIENTATION_RULE = `{{#label}} must be one of ${STANDING_NAMES.join(', ')}, or an object with pitch_deg and roll_deg`;
export const orientation = Joi.alternatives(
  Joi.string().valid(...STANDING_NAMES),
  Joi.object({ pitch_deg: degrees, roll_deg: degrees }),
).messages({
  'alternatives.match': ORIENTATION_RULE,
  'alternatives.types': ORIENTATION_RULE,
  'any.only': ORIENTATION_RULE,
});

export type OrientationInput = StandingName | { pitch_deg: number; roll_deg: number };

export const readTilt = (input: OrientationInput): Tilt =>
  typeof input === 'string' ? STANDING[input] : { pitchDeg: input.pitch_deg, rollDeg: input.roll_deg };

/** From gases to syrups; outside of it a figure is in the wrong unit. */
export const fluid = Joi.object({
  density_kg_m3: finite().min(100).max(5000).required(),
  viscosity_mpa_s: finite().min(0.01).max(1000).required(),
});

export interface FluidInput {
  density_kg_m3: number;
  viscosity_mpa_s: number;
}

export const readFluid = (input: FluidInput): Fluid => ({ densityKgM3: input.density_kg_m3, viscosityMPaS: input.viscosity_mpa_s });

/** Checks a document and the loop in it. */
export function readLoopDocument<T extends { loop: unknown }>(schema: Joi.Schema, input: unknown): Omit<T, 'loop'> & { loop: LoopFile } {
  const document = readInput<T>(schema, input);
  return { ...document, loop: readLoopFile(document.loop, 'loop') };
}

/** Refuses a loop whose heights cannot be told. */
export function needBoxes(loop: LoopFile): void {
  const missing = vesselsWithoutBox(loop)[0];
  if (missing) {
    const index = loop.components.indexOf(missing);
    refuse(`loop.components[${index}].box`, `is required here: without the box of ${missing.id} its liquid has no height`);
  }
}

/** Refuses a loop with a pump that runs and has no curve. */
export function needCurves(loop: LoopFile, standing: (id: string) => boolean): void {
  const missing = pumpsWithoutCurve(loop).find(({ id }) => !standing(id));
  if (missing) {
    const index = loop.components.indexOf(missing);
    refuse(`loop.components[${index}].curve`, `is required here: without the curve of ${missing.id} its pressure cannot be told`);
  }
}

/** Refuses names that are not in `known`. `what` says what they should be. */
export function needKnown(given: readonly string[] | undefined, path: string, known: ReadonlySet<string>, what: string): void {
  given?.forEach((name, index) => {
    if (!known.has(name)) refuse(`${path}[${index}]`, `"${name}" is not ${what} of this loop`);
  });
}

export const tubeIds = (loop: LoopFile): Set<string> => new Set(loop.tubes.map(({ id }) => id));

/** Every port and every tube end, as openings are named. */
export function openingNames(loop: LoopFile): Set<string> {
  return new Set([
    ...loop.components.flatMap(({ id, ports }) => Object.keys(ports).map((port) => `${id}.${port}`)),
    ...loop.tubes.flatMap(({ id }) => [`${id}.from`, `${id}.to`]),
  ]);
}
