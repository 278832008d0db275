import Joi from 'joi';
import { check, InputProblem, refuse } from '../checking/check.js';
import { finite, id, instant, note, positiveMl } from '../checking/fields.js';
import { STANDING_NAMES } from '../geometry/orientation.js';
import { SERVICE_BODIES } from '../jobs/entrySchema.js';
import { LEAK_AMOUNT, LEAK_WHEN, type RunEventBody, type RunEventType } from './events.js';

const key = Joi.string().min(1).max(120);
const reason = Joi.string().trim().min(3).max(1000);
const source = Joi.string().valid('hand', 'instrument', 'simulated');
const override = Joi.object({ rule: key.required(), reason: reason.required() });
const sentence = Joi.string().trim().min(1).max(1000);
const levelMm = finite().min(-1000).max(1000).required();

const baseline = Joi.object({
  setting: Joi.string().trim().min(1).max(80).required(),
  workload: Joi.string().trim().min(1).max(120).required(),
  durationMinutes: finite().greater(0).max(2880).required(),
  powerW: finite().min(0).max(3000).allow(null).required(),
  sensor: Joi.string().trim().min(1).max(80).required(),
  statistic: Joi.string().valid('peak', 'mean of the last five minutes', 'last value').required(),
  panels: Joi.string().valid('on', 'off').required(),
  pumpPercent: finite().min(0).max(100).required(),
  fanPercent: finite().min(0).max(100).required(),
  roomC: finite().min(-10).max(60).required(),
  partC: finite().min(-10).max(130).required(),
  coolantC: finite().min(-10).max(100).allow(null).required(),
  flowLph: finite().min(0).max(3000).allow(null).required(),
  levelMm: finite().min(-1000).max(1000).allow(null).required(),
});

/** One schema for each type of entry: an entry without one does not compile. */
const BODIES: Record<RunEventType, Joi.SchemaMap> = {
  check: {
    step: key.required(),
    check: key.required(),
    mark: Joi.string().valid('done', 'open', 'not-needed').required(),
    reason: reason.when('mark', { is: 'not-needed', then: Joi.required() }),
  },
  note: { step: key.required(), text: note().trim().min(1).disallow('').required() },
  'timer-started': { step: key.required(), timer: key.required() },
  'timer-stopped': { step: key.required(), timer: key.required() },
  'dry-reading': {
    gaugeKpa: finite().min(-20).max(200).required(),
    tempC: finite().min(-10).max(60).required(),
    atmosphereKpa: finite().min(50).max(120),
    source,
  },
  pump: { on: Joi.boolean().required(), override, source },
  port: { port: key.required(), open: Joi.boolean().required(), override },
  joint: { joint: key.required(), open: Joi.boolean().required() },
  turn: {
    to: Joi.string()
      .valid(...STANDING_NAMES)
      .required(),
    angleDeg: finite().min(0).max(180).required(),
    override,
  },
  level: { levelMl: finite().min(0).max(20_000).required(), source },
  doubt: { part: key.required(), text: sentence.required() },
  'part-test': {
    part: key.required(),
    tight: Joi.boolean().required(),
    how: sentence.required(),
    leftMl: finite().min(0).max(5000).required(),
  },
  leak: {
    at: key.required(),
    when: Joi.string()
      .valid(...LEAK_WHEN)
      .required(),
    amount: Joi.string()
      .valid(...LEAK_AMOUNT)
      .required(),
    text: note().required(),
  },
  'leak-mended': { leak: id().required(), cause: key.required(), fix: sentence.required() },
  'leak-retested': { leak: id().required(), dry: Joi.boolean().required() },
  spill: { onElectronics: Joi.boolean().required(), text: sentence.required() },
  'spill-rinsed': { spill: id().required(), with: sentence.required() },
  'dry-restarted': { reason: reason.required() },
  coolant: {
    productId: id().required(),
    productName: Joi.string().max(120).required(),
    batchId: id().allow(null).required(),
    lot: Joi.string().max(60).allow(null).required(),
  },
  pour: { volumeMl: positiveMl().max(20_000).required(), source },
  'bleed-cycle': { runningMm: levelMm, stoppedMm: levelMm, bubbles: Joi.boolean().required(), noise: Joi.boolean().required(), source },
  baseline: { reading: baseline.required(), before: Joi.boolean() },
  'step-done': { step: key.required() },
  deviation: { step: key.required(), reason: reason.required() },
  withdrawn: { event: id().required() },
  'signed-off': { remark: note().required() },
  correction: { about: id().allow(null).required(), text: note().trim().min(3).disallow('').required() },
  ...SERVICE_BODIES,
};

export interface RunEventInput {
  readonly id: string;
  /** when it happened, if not now */
  readonly at?: string;
  readonly body: RunEventBody;
}

const envelope = Joi.object({
  id: id().required(),
  at: instant(),
  body: Joi.object({ type: Joi.string().required() }).unknown(true).required(),
});

/** Reads one entry as a device sends it. */
export function readRunEvent(input: unknown): RunEventInput {
  const event = check<RunEventInput>(envelope, input);
  const { type, ...rest } = event.body as { type: string };
  if (!Object.hasOwn(BODIES, type)) {
    refuse('body.type', `"${type.slice(0, 40)}" is not a kind of entry; known are ${Object.keys(BODIES).join(', ')}`);
  }
  try {
    const body = check<object>(Joi.object(BODIES[type as RunEventType]), rest);
    return { ...event, body: { type, ...body } as RunEventBody };
  } catch (error) {
    if (!(error instanceof InputProblem)) throw error;
    throw new InputProblem(error.fields.map((field) => ({ path: `body.${field.path}`, message: field.message })));
  }
}
