import { say } from '../../base/words/say.js';
import Joi from 'joi';
import { readInput, refuse } from '../../base/checking/input.js';
import { STANDING_NAMES } from './orientation.js';
import { finite, fraction, MOST, volumeMl } from '../../base/checking/fields.js';
import { LOOP_FORMAT, LOOP_VERSION, type LoopFile } from './loopFile.js';

const identifier = Joi.string().min(1).max(80);
const coordinate = finite().min(-MOST.lengthMm).max(MOST.lengthMm);
const point = Joi.array().ordered(coordinate.required(), coordinate.required(), coordinate.required()).length(3);
const portRef = Joi.array().ordered(identifier.required(), identifier.required()).length(2);
const curvePoint = Joi.array()
  .ordered(finite().min(0).max(MOST.flowLph).required(), finite().min(0).max(MOST.pressureKpa).required())
  .length(2);
const closure = Joi.string().valid('plug', 'cap', 'valve');

const word = (): Joi.StringSchema => Joi.string().trim().min(1).max(80);
const named = Joi.object({ model: word().required(), revision: word() });
const sideMm = (): Joi.NumberSchema => finite().greater(0).max(MOST.lengthMm);
const count = (): Joi.NumberSchema => Joi.number().integer().min(0).max(20);
const fit = Joi.object({
  listed: Joi.array().items(named).max(200),
  sits_on: named,
  slots: count(),
  length_mm: sideMm(),
  height_mm: sideMm(),
  power_leads: count(),
  threads: Joi.object().pattern(identifier, word()).max(40),
  holes_mm: Joi.array().items(Joi.array().ordered(coordinate.required(), coordinate.required(), finite().greater(0).max(400).required()).length(3)).max(100), // prettier-ignore
}).unknown(true);
/** Room in a case, as it is measured. */
export const roomInFileSchema = Joi.object({
  radiators: Joi.object()
    .pattern(
      identifier,
      Joi.object({ length_mm: sideMm().required(), width_mm: sideMm().required(), depth_mm: sideMm().required() }).unknown(true),
    )
    .max(40),
  card: Joi.object({ slots: count().required(), length_mm: sideMm().required(), height_mm: sideMm().required() }).unknown(true),
  power_leads: count(),
}).unknown(true);

const component = Joi.object({
  id: identifier.required(),
  kind: Joi.string().min(1).max(40).required(),
  volume_ml: volumeMl().required(),
  volume_sd_ml: volumeMl(),
  ports: Joi.object().pattern(identifier, point).min(1).max(40).required(),
  box: Joi.object({ min: point.required(), max: point.required() }).unknown(true),
  flow: Joi.array().ordered(identifier.required(), identifier.required()).length(2),
  resistance: Joi.alternatives(
    Joi.object({
      linear_kpa_per_lpm: finite().min(0).max(MOST.resistance).required(),
      quadratic_kpa_per_lpm2: finite().min(0).max(MOST.resistance).required(),
    }).unknown(true),
    Joi.object({ points: Joi.array().items(curvePoint).min(2).max(200).required() }).unknown(true),
  ),
  curve: Joi.array().items(curvePoint).min(2).max(200),
  speed: fraction(),
  speed_fixed: Joi.boolean(),
  materials: Joi.array().items(Joi.string().max(60)).max(20),
  closures: Joi.object().pattern(identifier, closure),
  max_fill_ml: volumeMl(),
  low_mark_ml: volumeMl(),
  label: Joi.string().min(1).max(120),
  catalogue: Joi.string().max(80),
  place: Joi.string().max(40),
  unit: Joi.string().max(80),
  pressure_rating_kpa: finite().greater(0).max(MOST.pressureKpa),
  out_of_reach: Joi.array().items(identifier).max(40).unique(),
  may_stand: Joi.array().items(Joi.string().valid(...STANDING_NAMES)),
  port_fits: Joi.object().pattern(
    identifier,
    Joi.object({
      bore_mm: finite().greater(0).max(100).required(),
      outer_mm: finite().greater(0).max(120).required(),
      soft: Joi.boolean(),
    }),
  ),
  fit,
  learned: Joi.object({
    prior_ml: volumeMl().required(),
    prior_sd_ml: volumeMl().required(),
    fills: Joi.number().integer().min(1).max(1000).required(),
  }).unknown(true),
}).unknown(true);

const tube = Joi.object({
  id: identifier.required(),
  from: portRef.required(),
  to: portRef.required(),
  bore_mm: finite().min(0.1).max(100).required(),
  outer_mm: finite().greater(0).max(120).required(),
  material: Joi.string().min(1).max(60).required(),
  path: Joi.array().items(point).max(1000),
  length_mm: finite().greater(0).max(MOST.lengthMm),
  inside: Joi.boolean(),
  fittings: Joi.array().items(Joi.string().max(40)).max(50),
  bodies: Joi.object({ from: Joi.array().items(word()).max(6), to: Joi.array().items(word()).max(6) }).unknown(true),
}).unknown(true);

/** Shape only; `readLoopFile` also checks what refers to what. */
export const loopFileSchema = Joi.object({
  format: Joi.string().valid(LOOP_FORMAT).required(),
  version: Joi.number().valid(LOOP_VERSION).required(),
  name: Joi.string().allow('').max(200),
  case: Joi.alternatives(
    Joi.string().max(40),
    Joi.object({
      name: Joi.string().min(1).max(120).required(),
      depth_mm: finite().greater(0).max(MOST.lengthMm).required(),
      height_mm: finite().greater(0).max(MOST.lengthMm).required(),
      width_mm: finite().greater(0).max(MOST.lengthMm).required(),
      mounts: Joi.object().pattern(identifier, point).max(40),
      room: roomInFileSchema,
    }).unknown(true),
  ),
  panel_z_mm: coordinate,
  components: Joi.array().items(component).max(5000).required(),
  tubes: Joi.array().items(tube).max(10_000).required(),
}).unknown(true);

/**
 * Reads a loop file that came from outside.
 * @param root where the document sits, for the paths of errors, e.g. `loop`
 * @throws InputProblem; nothing is repaired
 */
export function readLoopFile(input: unknown, root = ''): LoopFile {
  const wrapped = root === '' ? loopFileSchema : Joi.object({ [root]: loopFileSchema.required() });
  const checked = readInput<Record<string, LoopFile> & LoopFile>(wrapped, root === '' ? input : { [root]: input });
  const loop: LoopFile = root === '' ? checked : (checked[root] as LoopFile);
  demandReferences(loop, root === '' ? '' : `${root}.`);
  return loop;
}

function demandReferences(loop: LoopFile, prefix: string): void {
  const seen = new Map<string, string>();
  const claim = (id: string, path: string): void => {
    const earlier = seen.get(id);
    if (earlier !== undefined)
      refuse(path, say('the id "{id}" is already used by {earlier}; every part and tube needs its own', { id, earlier }));
    seen.set(id, path);
  };
  loop.components.forEach((part, index) => {
    const path = `${prefix}components[${index}]`;
    claim(part.id, `${path}.id`);
    const ports = Object.keys(part.ports);
    const known = (port: string, where: string): void => {
      if (!Object.hasOwn(part.ports, port))
        refuse(where, say('"{port}" is not a port of {id}; its ports are {join}', { port, id: part.id, join: ports.join(', ') }));
    };
    part.flow?.forEach((port, end) => known(port, `${path}.flow[${end}]`));
    for (const port of Object.keys(part.closures ?? {})) known(port, `${path}.closures.${port}`);
    if (part.box) demandBox(part.box.min, part.box.max, `${path}.box`);
    demandReservoirMarks(part, path);
    demandCurve(part.curve, `${path}.curve`, 'falls');
    if (part.resistance && 'points' in part.resistance) demandCurve(part.resistance.points, `${path}.resistance.points`, 'rises');
  });
  const parts = new Map(loop.components.map((part) => [part.id, part]));
  loop.tubes.forEach((tube, index) => {
    const path = `${prefix}tubes[${index}]`;
    claim(tube.id, `${path}.id`);
    if (tube.outer_mm <= tube.bore_mm)
      refuse(
        `${path}.outer_mm`,
        say('the outer diameter must be larger than the bore of {bore_mm} mm (got {outer_mm})', {
          bore_mm: tube.bore_mm,
          outer_mm: tube.outer_mm,
        }),
      );
    (['from', 'to'] as const).forEach((end) => {
      const [id, port] = tube[end];
      const part = parts.get(id);
      if (!part) refuse(`${path}.${end}`, say('there is no component "{id}"; a tube ends at a component of this file', { id }));
      if (!Object.hasOwn(part.ports, port))
        refuse(
          `${path}.${end}`,
          say('"{port}" is not a port of {id}; its ports are {keys}', { port, id, keys: Object.keys(part.ports).join(', ') }),
        );
    });
  });
}

/** Flow rises from point to point; a pump's pressure must not rise with it, a loss must not fall: one flow, one pressure. */
function demandCurve(points: LoopFile['components'][number]['curve'], path: string, pressure: 'falls' | 'rises'): void {
  points?.forEach(([lph, kpa], step) => {
    const before = points[step - 1];
    if (!before) return;
    if (lph <= before[0])
      refuse(`${path}[${step}]`, say('flow must rise from point to point; {lph} L/h follows {before} L/h', { lph, before: before[0] }));
    if (pressure === 'falls' ? kpa > before[1] : kpa < before[1]) {
      const rule = pressure === 'falls' ? say("a pump's pressure must not rise with flow") : say('a loss must not fall with flow');
      refuse(`${path}[${step}]`, say('{rule}; {kpa} kPa follows {before} kPa', { rule, kpa, before: before[1] }));
    }
  });
}

function demandBox(min: readonly number[], max: readonly number[], path: string): void {
  const axis = [0, 1, 2].find((a) => (min[a] as number) >= (max[a] as number));
  if (axis !== undefined) refuse(path, say('min must lie below max on every axis; on {axis} it does not', { axis: 'xyz'[axis] }));
}

function demandReservoirMarks(part: LoopFile['components'][number], path: string): void {
  const { max_fill_ml: full, low_mark_ml: low, volume_ml: whole } = part;
  if (full !== undefined && full > whole)
    refuse(`${path}.max_fill_ml`, say('cannot be more than the {whole} mL the part holds (got {full})', { whole, full }));
  if (low !== undefined && low > (full ?? whole))
    refuse(`${path}.low_mark_ml`, say('must lie below the fill mark of {whole} mL (got {low})', { whole: full ?? whole, low }));
}
