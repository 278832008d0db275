import Joi from 'joi';
import { lotOnBagSchema } from '../lots/schema.js';
import { day, finite, id, note, positiveMl, volumeMl } from '../checking/fields.js';
import { CLARITIES, FLUSH, RINSE_LIQUIDS } from '../flushing/defaults.js';
import { CAUSE_KEYS, DEPOSITS, SEALS, SURFACES, TOUCHES, WALLS } from '../inspection/grade.js';
import { SUSPECTS, SWAP_ACTIONS, USE_LIMIT_KEYS, type ServiceEntryType } from './entries.js';
import { JOB_KIND_KEYS } from './kinds.js';

const step = Joi.string().min(1).max(120).required();
const item = Joi.string().min(1).max(160);
const words = Joi.string().trim().min(1).max(1000);
const oneOf = (values: readonly string[]): Joi.StringSchema => Joi.string().valid(...values);

const findings = Joi.object({
  deposit: oneOf(DEPOSITS).required(),
  surface: oneOf(SURFACES).required(),
  seal: oneOf(SEALS).allow(null).required(),
  worn: Joi.boolean().required(),
  touch: oneOf(TOUCHES).allow(null).required(),
  wall: oneOf(WALLS).allow(null).required(),
  text: note().required(),
});

/** One schema for each entry of a service; they join those of the commissioning. */
export const SERVICE_BODIES: Record<ServiceEntryType, Joi.SchemaMap> = {
  drained: {
    step,
    volumeMl: positiveMl().max(20_000).required(),
    how: oneOf(['jug', 'scale']).required(),
    wasteId: id().allow(null).required(),
    source: oneOf(['hand', 'instrument', 'simulated']),
  },
  lost: { step, volumeMl: positiveMl().max(20_000).required(), text: words.required() },
  rinse: { step, liquid: oneOf(RINSE_LIQUIDS).required(), volumeMl: positiveMl().max(20_000).required() },
  water: { step, ph: finite().min(0).max(14).allow(null).required(), clarity: oneOf(CLARITIES).required() },
  soak: {
    step,
    on: Joi.boolean().required(),
    cleaner: words.max(120).required(),
    mostMinutes: finite().greater(0).max(FLUSH.mostSoakMinutes).required().messages({
      'number.max': '{{#label}} can be a day at most ({#limit} min): longer than that no cleaner stays in a part',
    }),
  },
  inspected: { step, item: item.required(), findings: findings.required() },
  cause: {
    step,
    cause: oneOf(CAUSE_KEYS).required(),
    suspect: oneOf(SUSPECTS).required(),
    item: item.allow(null).required(),
    particlesStayed: Joi.boolean().required(),
    text: note().required(),
  },
  swapped: {
    step,
    item: item.required(),
    action: oneOf(SWAP_ACTIONS).required(),
    text: words.required(),
    heldMl: volumeMl().required(),
    bag: lotOnBagSchema,
  },
  used: { step, itemId: id().required(), itemName: words.max(120).required(), count: finite().greater(0).max(1000).required() },
  'temporary-fix': {
    step,
    what: words.required(),
    awaits: words.required(),
    until: day().required(),
    limits: Joi.array()
      .items(oneOf(USE_LIMIT_KEYS))
      .min(1)
      .unique()
      .required()
      .messages({ 'array.min': 'a temporary fix comes with at least one limit of use' }),
  },
  photo: { step, photoId: id().required(), caption: note().max(200).required() },
  rescoped: { step, kind: oneOf(JOB_KIND_KEYS).required(), reason: words.min(3).required() },
};
