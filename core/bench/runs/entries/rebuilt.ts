import Joi from 'joi';
import { say } from '../../../base/words/say.js';
import { refusal, type EntryDefinition } from '../entry.js';
import { expectedDrains } from '../contents.js';
import { drainsDownTo, type ServiceFacts } from '../facts.js';
import { forgetPlaces } from '../state.js';
import { step } from './fields.js';

/** The loop was changed: from here on the loop, its book and its refill are those of the drawing that was wanted. */
export interface RebuiltEntry {
  readonly type: 'rebuilt';
  readonly step: string;
  /** parts that came out, each with its place said before */
  readonly outParts: readonly string[];
  /** tubes that came out, or were renewed under their own id */
  readonly outTubes: readonly string[];
}

/** Measures in the jug before the first of what ran at the joints and out of the parts. */
const drainsBefore = (service: ServiceFacts): number => Math.max(0, expectedDrains(service).length - (drainsDownTo(service) ? 1 : 0));

const ids = Joi.array().items(Joi.string().min(1).max(120)).max(400).required();

export const rebuilt: EntryDefinition<RebuiltEntry> = {
  schema: { step, outParts: ids, outTubes: ids },
  belongs: 'own-step',
  // it is written by its own request, so that loop and steps change with it
  refuse: () => refusal('unsafe', { why: 'rebuilt-elsewhere' }),
  // emptied over the jug and measured: what the book still has in it stands elsewhere
  moves: (book, { outParts, outTubes }, { service: { drains } }, { service }) => {
    if (!service?.change || drains.length <= drainsBefore(service)) book.wentWith([...outParts, ...outTubes]);
  },
  apply: (state, { outParts, outTubes }, made) => {
    state.service.rebuilds.push(made);
    forgetPlaces(state, outParts, outTubes);
  },
  // what came out gives nothing to what goes in under the same id: that is dry
  carriesOver: ({ outParts, outTubes }) => new Map([...outParts, ...outTubes].map((id) => [id, `${id} (out)`])),
  reads: () => say('The loop is now as it was wanted'),
};
