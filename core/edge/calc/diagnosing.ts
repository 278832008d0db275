import Joi from 'joi';
import { refuse } from '../../base/checking/input.js';
import { SEEN_SIGNS } from '../../physics/diagnosis/causes.js';
import { diagnose } from '../../physics/diagnosis/diagnose.js';
import { READING_ERRORS, reachedOf } from '../../physics/diagnosis/loadReading.js';
import { fluid, needCurves, needKnown, readFluid, readLoopDocument, type FluidInput } from './loopInput.js';
import { asReading, readingSchema, type ReadingDocument } from './readingInput.js';

const schema = Joi.object({
  loop: Joi.any().required(),
  fluid: fluid.required(),
  before: readingSchema.required(),
  after: readingSchema.required(),
  seen: Joi.array()
    .items(Joi.string().valid(...SEEN_SIGNS))
    .max(SEEN_SIGNS.length),
});

interface DiagnoseDocument {
  loop: unknown;
  fluid: FluidInput;
  before: ReadingDocument;
  after: ReadingDocument;
  seen?: string[];
}

export function calcDiagnose(input: unknown): object {
  const document = readLoopDocument<DiagnoseDocument>(schema, input);
  const { loop, seen = [] } = document;
  needCurves(loop, () => false);
  const blocks = new Set(loop.components.filter(({ kind }) => kind === 'block').map(({ id }) => id));
  for (const side of ['before', 'after'] as const) {
    const own = document[side];
    needKnown(Object.keys(own.powers_w), `${side}.powers_w`, blocks, 'a block');
    needKnown(Object.keys(own.parts_c), `${side}.parts_c`, blocks, 'a block');
    if (reachedOf(asReading(own)) < READING_ERRORS.leastReached)
      refuse(
        own.reached_fraction === undefined ? `${side}.minutes` : `${side}.reached_fraction`,
        'is so short a load that nothing can be told from it',
      );
  }
  const found = diagnose(loop, readFluid(document.fluid), asReading(document.before), asReading(document.after), [...new Set(seen)]);
  if (!found) return refuse('loop', 'has no steady state under this load: nothing flows, or no radiator gives its heat off');
  const causes = found.causes.map(({ cause, part, probability }) => ({ cause, part, probability }));
  return { causes, next: found.next };
}
