import Joi from 'joi';
import { dataAddress, id } from '../../base/checking/fields.js';

/** JPEG, PNG or WebP of at most a megabyte, as a data address; a device makes it small before it sends it. */
export interface PhotoInput {
  readonly id: string;
  readonly caption: string;
  readonly image: string;
  readonly jobId: string | null;
  /** who took it, where somebody else delivers it */
  readonly madeBy?: string;
}
export const MOST_PHOTO_BYTES = 1_000_000;
export const PHOTO_TYPES = ['image/jpeg', 'image/png', 'image/webp'];
export const photoSchema = Joi.object({
  id: id().required(),
  caption: Joi.string().trim().allow('').max(200).required(),
  jobId: id().allow(null).required(),
  madeBy: id(),
  image: dataAddress(PHOTO_TYPES, MOST_PHOTO_BYTES, 'a JPEG, PNG or WebP picture of at most 1 MB').required(),
});
