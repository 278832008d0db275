import Joi from 'joi';
import { say } from '../../../base/words/say.js';
import { backOf, loadMayStay } from '../checkIds.js';
import { refusal, type EntryDefinition } from '../entry.js';
import { stepThat } from '../procedure.js';
import { reason } from './fields.js';

/** Board, cards and drives stay on the supply although liquid will go in: only where the lead allows it, and only behind a passed air test. */
export interface LoadsStayEntry {
  readonly type: 'loads-stay';
  /** false: they are pulled after all */
  readonly stay: boolean;
  readonly reason?: string;
}

export const loadsStay: EntryDefinition<LoadsStayEntry> = {
  schema: { stay: Joi.boolean().required(), reason: reason.when('stay', { is: true, then: Joi.required() }) },
  belongs: 'anytime',
  apply: (state, { stay, reason: said }, made, procedure) => {
    state.loadsStay = stay ? { ...made, text: said ?? '' } : null;
    const own = state.steps.find(({ id }) => id === stepThat(procedure, 'isolates')?.id)?.checks;
    const back = state.steps.find(({ kind }) => kind === 'power')?.checks;
    for (const { id } of stepThat(procedure, 'isolates')?.checks ?? []) {
      if (!own || !loadMayStay(id)) continue;
      // what a hand had pulled before stays pulled
      if (stay && own[id]?.mark === 'done') continue;
      const { at, by } = made;
      own[id] = stay ? { mark: 'not-needed', reason: say('left on the supply'), at, by } : { mark: 'done', reason: null, at, by };
      const comesBack = backOf(id);
      if (back)
        back[comesBack] = stay ? { mark: 'not-needed', reason: say('was not pulled'), at, by } : { mark: 'open', reason: null, at, by };
    }
  },
  refuse: ({ stay }, { procedure, state }) => {
    if (stay && !procedure.loadsMayStay) return refusal('unsafe', { why: 'loads-not-allowed' });
    if (!stay && state.loadsStay === null) return refusal('unknown-item', { why: 'loads-not-on' });
    return null;
  },
  reads: ({ stay, reason: said }) =>
    stay
      ? say('Loads left on the supply, as the lead allows ({said}): a leak would meet live electronics', { said: said ?? '' })
      : say('Every load is off the supply after all'),
};
