import Joi from 'joi';

/** s between two words of the guard to each bench, and after which a device may take it that nobody watches */
export const GUARD = { everyS: 10, silentS: 30 } as const;

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
export function readGuard(payload: string): GuardWord | null {
  try {
    const { error, value } = schema.validate(JSON.parse(payload) as unknown) as { error?: Error; value: GuardWord };
    return error ? null : value;
  } catch {
    return null;
  }
}
