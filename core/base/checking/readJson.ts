import type Joi from 'joi';

/** A text that should be a document of some shape; null where it is none. For messages and addresses, which nobody is told what is wrong with. */
export function readJson<T>(schema: Joi.Schema, text: string, options: Joi.ValidationOptions = {}): T | null {
  try {
    const { error, value } = schema.validate(JSON.parse(text) as unknown, options) as { error?: Error; value: T };
    return error ? null : value;
  } catch {
    return null;
  }
}
