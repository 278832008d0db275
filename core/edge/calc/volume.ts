import Joi from 'joi';
import { readInput } from '../../base/checking/input.js';
import { readLoopFile } from '../../machine/loop-file/loopFileSchema.js';
import { loopVolume } from '../../machine/loop-file/volume.js';

const schema = Joi.object({ loop: Joi.any().required() });

export function calcVolume(input: unknown): object {
  const { loop } = readInput<{ loop: unknown }>(schema, input);
  const { volumeMl, sdMl, parts } = loopVolume(readLoopFile(loop, 'loop'));
  return {
    total_ml: volumeMl,
    sd_ml: sdMl,
    parts: parts.map((part) => ({ id: part.id, volume_ml: part.volumeMl, sd_ml: part.sdMl })),
  };
}
