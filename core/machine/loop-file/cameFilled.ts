import Joi from 'joi';
import { day, id } from '../../base/checking/fields.js';

/** A loop that somebody else filled: full, with a coolant that is known or not, since about a day or since nobody knows when. */
export interface CameFilled {
  /** null: unknown; it mixes with nothing */
  readonly productId: string | null;
  /** about; null: nobody knows */
  readonly since: string | null;
  /** day on which it was taken in here */
  readonly notedOn: string;
}

export type CameFilledInput = Omit<CameFilled, 'notedOn'>;

export const cameFilledSchema = Joi.object({ productId: id().allow(null).required(), since: day().allow(null).required() });
