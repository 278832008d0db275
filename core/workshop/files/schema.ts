import Joi from 'joi';
import { dataAddress, id } from '../../base/checking/fields.js';
import { FILE_KINDS, FILE_TYPES, MOST_FILE_BYTES, type FileKind } from './kinds.js';

export interface FileInput {
  /** made on the device: sent twice, it is kept once */
  readonly id: string;
  readonly name: string;
  readonly kind: FileKind;
  readonly note: string;
  /** data address */
  readonly content: string;
}
export const fileSchema = Joi.object({
  id: id().required(),
  name: Joi.string()
    .trim()
    .min(1)
    .max(160)
    // no way into a folder, nothing that a header or a shell takes for its own
    .pattern(/^[^\p{Cc}/\\"<>|:*?]+$/u, 'a plain file name')
    .required(),
  kind: Joi.string()
    .valid(...FILE_KINDS)
    .required(),
  note: Joi.string().trim().allow('').max(300).required(),
  content: dataAddress(Object.keys(FILE_TYPES), MOST_FILE_BYTES, 'a PDF, picture, text or table of at most 5 MB').required(),
});
