import Joi from 'joi';
import { READING_CHOICES, type Reading } from '../../base/units/reading.js';
import { rowVersion } from '../../base/checking/fields.js';

const fields = Object.fromEntries(
  Object.entries(READING_CHOICES).map(([key, values]) => [key, Joi.valid(...values)]),
) as Record<keyof Reading, Joi.Schema>; // prettier-ignore

/** What somebody reads another way than the workshop; what is left out is as there. */
export type OwnReading = Partial<Reading>;
export const ownReadingSchema = Joi.object(fields);

export type ReadingEdit = Reading & { readonly version: number };
export const readingEditSchema = Joi.object({
  ...Object.fromEntries(Object.entries(fields).map(([key, schema]) => [key, schema.required()])),
  version: rowVersion(),
});
