import Joi from 'joi';
import { name, note } from '../../base/checking/fields.js';
import type { LoopFile } from '../loop-file/loopFile.js';

/** A loop that a workshop begins others with: what it builds again and again. */
export interface Layout {
  readonly id: string;
  readonly name: string;
  readonly note: string;
  readonly file: LoopFile;
}
export interface LayoutInput extends Pick<Layout, 'name' | 'note'> {
  /** checked by `readLoopFile` */
  readonly file: unknown;
}

export const layoutSchema = Joi.object({ name: name().required(), note: note().required(), file: Joi.any().required() });

/**
 * A loop as others may begin with it: what its own fills taught of its parts, and where hands do not reach in that very machine, belongs to
 * it alone.
 */
export function asLayout(file: LoopFile): LoopFile {
  return {
    ...file,
    components: file.components.map(({ learned, out_of_reach: _reach, ...part }) =>
      learned ? { ...part, volume_ml: learned.prior_ml, volume_sd_ml: learned.prior_sd_ml } : part,
    ),
  };
}
