import { say } from '../../base/words/say.js';
import Joi from 'joi';
import { name, rowVersion, volumeMl } from '../../base/checking/fields.js';
import { refuse } from '../../base/checking/input.js';
import { LOOP_FORMAT, LOOP_VERSION, type LoopComponent } from '../loop-file/loopFile.js';
import { readLoopFile } from '../loop-file/loopFileSchema.js';
import { SHEET_FACTS, type OwnPartInput } from './ownParts.js';
import { CATALOGUE, findCataloguePart, makeComponent, type CataloguePart } from './parts.js';
import { PLACES, type Place } from './places.js';

export type OwnPartEdit = OwnPartInput & { readonly version: number };

const fields = {
  label: name().required(),
  like: Joi.string()
    .valid(...CATALOGUE.map(({ key }) => key))
    .required(),
  volumeMl: volumeMl().required(),
  volumeSdMl: volumeMl().allow(null).required(),
  facts: Joi.object(Object.fromEntries(SHEET_FACTS.map((key) => [key, Joi.any()]))).required(),
  geometry: Joi.object({
    place: Joi.string()
      .valid(...Object.keys(PLACES))
      .required(),
    ports: Joi.object().required(),
    box: Joi.object(),
    flow: Joi.array(),
    closures: Joi.object(),
  })
    .allow(null)
    .required(),
};
export const ownPartSchema = Joi.object(fields);
export const ownPartEditSchema = Joi.object({ ...fields, version: rowVersion() });

/**
 * Facts and shape are held to what a loop file may carry: the part is laid into one and read like any that comes in.
 * @throws InputProblem
 */
export function demandPart({ label, like, volumeMl: ml, volumeSdMl, facts, geometry }: OwnPartInput): void {
  const base = findCataloguePart(like) as CataloguePart;
  const place = (geometry?.place ?? base.places[0]) as Place;
  const { place: _place, ...shape } = geometry ?? { place: null };
  const part: LoopComponent = {
    ...makeComponent(base, place, 'part'),
    label,
    volume_ml: ml,
    ...(volumeSdMl === null ? {} : { volume_sd_ml: volumeSdMl }),
    ...facts,
    ...(shape as Partial<LoopComponent>),
  };
  if (part.kind === 'reservoir' && (part.max_fill_ml ?? 0) > ml)
    refuse(
      'facts.max_fill_ml',
      say('the fill mark cannot lie above the {ml} mL that it holds (got {max_fill_ml})', { ml, max_fill_ml: part.max_fill_ml }),
    );
  readLoopFile({ format: LOOP_FORMAT, version: LOOP_VERSION, components: [part], tubes: [] }, 'part');
}
