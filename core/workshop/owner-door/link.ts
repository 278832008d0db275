import Joi from 'joi';
import { id } from '../../base/checking/fields.js';

export interface LinkInput {
  /** null: of the machine, whatever is done to it */
  readonly jobId: string | null;
}
export const linkSchema = Joi.object({ jobId: id().allow(null).required() });

/** A link as the desk sees it: everything but its secret, which nobody has. */
export interface OwnerLinkRow {
  readonly id: string;
  readonly jobId: string | null;
  readonly madeAt: string;
  /** null: a letter carried it */
  readonly by: string | null;
  readonly expiresAt: string;
  readonly endedAt: string | null;
  /** when it was opened last; null: never */
  readonly seenAt: string | null;
}
