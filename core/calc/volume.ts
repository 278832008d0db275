import Joi from 'joi';
import { check } from '../checking/check.js';
import { readLoopFile } from '../loops/loopFileSchema.js';
import { loopVolume } from '../loops/volume.js';

const schema = Joi.object({ loop: Joi.any().required() });

export function calcVolume(input: unknown): object {
  const { loop } = check<{ loop: unknown }>(schema, input);
  const { volumeMl, sdMl, parts } = loopVolume(readLoopFile(loop, 'loop'));
  return {
    total_ml: volumeMl,
    sd_ml: sdMl,
    parts: parts.map((part) => ({ id: part.id, volume_ml: part.volumeMl, sd_ml: part.sdMl })),
  };
}
