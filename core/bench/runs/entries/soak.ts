import { say } from '../../../base/words/say.js';
import Joi from 'joi';
import { finite } from '../../../base/checking/fields.js';
import { FLUSH } from '../../../machine/liquids/rinsing.js';
import { refusal, type EntryDefinition } from '../entry.js';
import { runningSoak } from '../state.js';
import { sentence, step } from './fields.js';

export interface SoakEntry {
  readonly type: 'soak';
  readonly step: string;
  readonly on: boolean;
  readonly cleaner: string;
  /** min; from the cleaner's own sheet */
  readonly mostMinutes: number;
}

export const soak: EntryDefinition<SoakEntry> = {
  schema: {
    step,
    on: Joi.boolean().required(),
    cleaner: sentence.max(120).required(),
    mostMinutes: finite().greater(0).max(FLUSH.mostSoakMinutes).required().messages({
      'number.max': '{{#label}} can be a day at most ({#limit} min): longer than that no cleaner stays in a part',
    }),
  },
  belongs: 'own-step',
  apply: ({ service }, { on, cleaner, mostMinutes }, { at }) => {
    const running = runningSoak(service);
    if (running) running.endedAt = at;
    if (on) service.soaks.push({ cleaner, mostMinutes, startedAt: at, endedAt: null });
  },
  refuse: ({ on }, { procedure, state }) => {
    if (!procedure.service) return refusal('unknown-item', { why: 'not-a-service' });
    const running = runningSoak(state.service);
    if (on && running) return refusal('step-open', { why: 'cleaner-is-in', cleaner: running.cleaner });
    return !on && !running ? refusal('unknown-item', { why: 'no-cleaner-in' }) : null;
  },
  reads: ({ on, cleaner, mostMinutes }) =>
    on ? say('Cleaner in: {cleaner}, at most {mostMinutes} min', { cleaner, mostMinutes }) : say('Cleaner out: {cleaner}', { cleaner }),
};
