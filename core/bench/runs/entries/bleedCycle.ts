import { formatMm } from '../../../base/units/display.js';
import { say } from '../../../base/words/say.js';
import Joi from 'joi';
import type { BleedCycle } from '../../../physics/air/bleed.js';
import { bySource, stamp, type EntryDefinition } from '../entry.js';
import type { ReadingSource } from '../state.js';
import { levelMm, source } from './fields.js';

export interface BleedCycleEntry extends BleedCycle {
  readonly type: 'bleed-cycle';
  readonly source?: ReadingSource;
}

export const bleedCycle: EntryDefinition<BleedCycleEntry> = {
  schema: { runningMm: levelMm, stoppedMm: levelMm, bubbles: Joi.boolean().required(), noise: Joi.boolean().required(), source },
  belongs: { kind: 'bleed' },
  apply: (state, { runningMm, stoppedMm, bubbles, noise, source: from }, made) =>
    void state.bleedCycles.push(stamp(made, { runningMm, stoppedMm, bubbles, noise }, from)),
  reads: ({ runningMm, stoppedMm, bubbles, noise, source: from }) =>
    say('Level {running} running, {stopped} stopped{say}{say2}{bySource}', {
      running: formatMm(runningMm),
      stopped: formatMm(stoppedMm),
      say: bubbles ? say(', bubbles at the return') : '',
      say2: noise ? say(', pump sounds of air') : '',
      bySource: bySource(from),
    }),
};
