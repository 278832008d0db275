import Joi from 'joi';
import { say } from '../../../base/words/say.js';
import { beginDryTest } from '../dryTest.js';
import { refusal, remark, type EntryDefinition } from '../entry.js';
import type { ProcedureStep } from '../procedure.js';
import { forgetPlaces } from '../state.js';
import { item, reason, step } from './fields.js';

/** A build goes on with another drawing of its loop: something did not fit, or was thought of better. Nothing wet is inside yet. */
export interface RelaidEntry {
  readonly type: 'relaid';
  readonly step: string;
  /** number of the drawing that was wanted */
  readonly revision: number;
  readonly reason: string;
  /** parts that are no part of it any more, tubes that are not or are made anew */
  readonly outParts: readonly string[];
  readonly outTubes: readonly string[];
}

/** Steps that look at every part and joint: what a new drawing brings is done in them, and what it leaves as it was stays ticked. */
export const looksAtAll = ({ does, kind }: Pick<ProcedureStep, 'does' | 'kind'>): boolean =>
  kind === 'dry-test' || does.includes('new-parts') || does.includes('closes');

const items = Joi.array().items(item).max(400).required();

export const relaid: EntryDefinition<RelaidEntry> = {
  schema: { step, revision: Joi.number().integer().min(1).required(), reason: reason.allow(''), outParts: items, outTubes: items },
  belongs: 'own-step',
  // it is written by its own request, so that loop and steps change with it
  refuse: () => refusal('unsafe', { why: 'rebuilt-elsewhere' }),
  moves: (book, { outParts, outTubes }) => book.wentWith([...outParts, ...outTubes]),
  apply: (state, { outParts, outTubes, revision }, made, procedure) => {
    state.service.rebuilds.push(made);
    if (state.dryReadings.length > 0)
      beginDryTest(procedure, state, remark(made, say('Test over: the loop was laid out anew, drawing {revision}', { revision })));
    const gone = new Set([...outParts, ...outTubes]);
    for (const own of state.steps) {
      if (own.status === 'current') own.status = 'to-come';
      if (!looksAtAll(own)) continue;
      if (own.status === 'done') Object.assign(own, { status: 'to-come', doneAt: null, deviation: null });
      const checks = procedure.steps.find(({ id }) => id === own.id)?.checks ?? [];
      for (const { id, place } of checks) if (place !== undefined && gone.has(place)) Reflect.deleteProperty(own.checks, id);
    }
    forgetPlaces(state, outParts, outTubes);
  },
  carriesOver: ({ outParts, outTubes }) => new Map([...outParts, ...outTubes].map((id) => [id, `${id} (out)`])),
  reads: ({ revision, reason: why }) =>
    say('Laid out anew: goes on with drawing {revision}{why}', { revision, why: why ? `: ${why}` : '' }),
};
