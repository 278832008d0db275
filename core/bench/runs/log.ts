import { say } from '../../base/words/say.js';
import Joi from 'joi';
import { readInput, InputProblem, refuse } from '../../base/checking/input.js';
import { id, instant } from '../../base/checking/fields.js';
import { definitionOf, ENTRIES, type RunEventBody, type RunEventType } from './entries/all.js';
import { placesOf, type Procedure } from './procedure.js';

/** One entry of the log, in the order it was recorded. Nothing is ever changed or removed; undo is an entry too. */
export interface RunEvent {
  /** made on the device that recorded it; the same entry sent twice is kept once */
  readonly id: string;
  /** 1, 2, 3 … in the run */
  readonly seq: number;
  /** ISO instant at which it happened */
  readonly at: string;
  readonly by: string;
  /** who was signed in when it reached the server, where that was somebody else */
  readonly deliveredBy?: string;
  readonly body: RunEventBody;
}

export interface RunEventInput {
  readonly id: string;
  /** when it happened, if not now */
  readonly at?: string;
  /** person who made it, where somebody else delivers it */
  readonly madeBy?: string;
  readonly body: RunEventBody;
}

const envelope = Joi.object({
  id: id().required(),
  at: instant(),
  madeBy: id(),
  body: Joi.object({ type: Joi.string().required() }).unknown(true).required(),
});

/** Whether this program knows a kind of entry. A log may hold others: a newer program wrote them. */
export const isKnownKind = (kind: string): kind is RunEventType => Object.hasOwn(ENTRIES, kind);

/** Reads a stored entry, of this program or an older one. One of a kind that only a newer one knows stays as it is: see `replay.ts`. */
export function readStoredEntry(stored: unknown): RunEventBody {
  const type = (stored as { type?: unknown } | null)?.type;
  if (typeof type !== 'string') throw new Error('a stored entry has no type');
  return { ...upgraded(type, stored as Record<string, unknown>), type } as RunEventBody;
}

const upgraded = (kind: string, written: Record<string, unknown>): Record<string, unknown> =>
  (isKnownKind(kind) ? ENTRIES[kind].upgrade?.(written) : undefined) ?? written;

const SCHEMAS = new Map<RunEventType, Joi.ObjectSchema>();
function schemaOf(kind: RunEventType): Joi.ObjectSchema {
  const made = SCHEMAS.get(kind) ?? Joi.object(ENTRIES[kind].schema);
  SCHEMAS.set(kind, made);
  return made;
}

/** Reads one entry as a device sends it. */
export function readRunEvent(input: unknown): RunEventInput {
  const event = readInput<RunEventInput>(envelope, input);
  const { type, ...rest } = event.body as { type: string };
  if (!isKnownKind(type))
    refuse(
      'body.type',
      say('"{slice}" is not a kind of entry; known are {keys}', { slice: type.slice(0, 40), keys: Object.keys(ENTRIES).join(', ') }),
    );
  try {
    // a device may have waited with it since before it knew better
    const body = readInput<object>(schemaOf(type), upgraded(type, rest));
    return { ...event, body: { type, ...body } as RunEventBody };
  } catch (error) {
    if (!(error instanceof InputProblem)) throw error;
    throw new InputProblem(error.fields.map((field) => ({ path: `body.${field.path}`, message: field.message })));
  }
}

/** One entry of the log as a sentence, readable years later without the procedure at hand. */
export function describeEntry(procedure: Procedure, { body }: RunEvent, all: readonly RunEvent[]): string {
  if (!isKnownKind(body.type)) return say('An entry of a newer version of the program ({type})', { type: (body as { type: string }).type });
  const places = placesOf(procedure);
  return definitionOf(body).reads(body, {
    procedure,
    portOf: (port) => procedure.facts?.ports.find(({ name }) => name === port)?.label ?? port,
    nameOf: (place) => places.find((each) => each.id === place)?.name ?? place,
    sentenceOf: (eventId) => {
      const target = all.find(({ id: each }) => each === eventId);
      return target ? describeEntry(procedure, target, all) : 'an entry';
    },
  });
}
