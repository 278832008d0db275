import { grouped } from '../../../base/units/display.js';
import { say, sayWord } from '../../../base/words/say.js';
import { finite } from '../../../base/checking/fields.js';
import { CLARITIES, CLARITY_WORDS } from '../../../machine/liquids/rinsing.js';
import type { EntryDefinition } from '../entry.js';
import type { WaterRead } from '../state.js';
import { oneOf, step } from './fields.js';
import { onlyInService } from './service.js';

export interface WaterEntry extends WaterRead {
  readonly type: 'water';
  readonly step: string;
}

export const water: EntryDefinition<WaterEntry> = {
  schema: { step, ph: finite().min(0).max(14).allow(null).required(), clarity: oneOf(CLARITIES).required() },
  belongs: 'own-step',
  apply: ({ service }, { ph, clarity }, made) => void service.waters.push({ ph, clarity, ...made }),
  refuse: onlyInService,
  reads: ({ ph, clarity }) =>
    say('Water read: {clarity}{say}', {
      clarity: sayWord(CLARITY_WORDS[clarity]),
      say: ph === null ? '' : say(', pH {ph}', { ph: grouped(ph, 1) }),
    }),
};
