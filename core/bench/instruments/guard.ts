import Joi from 'joi';
import { readJson } from '../../base/checking/readJson.js';

/** s between two words of the guard to each bench */
export const GUARD_EVERY_S = 10;

/** What the servers tell the devices of a bench, retained: whether somebody watches, and where to go when that one goes. */
export interface GuardWord {
  /** readings are followed, and the pump is stopped where it must be */
  readonly on: boolean;
  /** where brokers are, the one of now first; empty with an outside broker, which stays where it is */
  readonly brokers: readonly string[];
  /** ISO instant of this word */
  readonly at: string;
}

const schema = Joi.object({
  on: Joi.boolean().required(),
  brokers: Joi.array().items(Joi.string().max(300)).max(64).required(),
  at: Joi.string().isoDate().required(),
}).unknown(true);

export const guardPayload = (word: GuardWord): string => JSON.stringify(word);

/** null where it is no word of a guard. */
export const readGuard = (payload: string): GuardWord | null => readJson(schema, payload);
