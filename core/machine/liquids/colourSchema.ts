import { finite, id } from '../../base/checking/fields.js';

/** The liquid beside its retained sample, as a photograph told it: difference ΔE₀₀ with its standard deviation. */
export interface ColourRead {
  readonly deltaE: number;
  readonly sd: number;
  /** the picture it was read from; null: it is not kept */
  readonly photoId: string | null;
}
export const colourReadFields = {
  deltaE: finite().min(0).max(200).required(),
  sd: finite().min(0).max(100).required(),
  photoId: id().allow(null).required(),
};
