import { say } from '../../../base/words/say.js';
import Joi from 'joi';
import { finite, id } from '../../../base/checking/fields.js';
import type { EntryDefinition } from '../entry.js';
import { doubtsAgainst, leaksAgainst, mixAgainst } from '../locks.js';
import type { Coolant } from '../state.js';
import { oneOf } from './fields.js';

export interface CoolantEntry extends Coolant {
  readonly type: 'coolant';
}

export const coolant: EntryDefinition<CoolantEntry> = {
  schema: {
    productId: id().required(),
    productName: Joi.string().max(120).required(),
    lotId: id().allow(null).required(),
    lot: Joi.string().max(60).allow(null).required(),
    // the server's own shelf says it
    product: Joi.object({
      form: oneOf(['ready-mix', 'concentrate']).required(),
      targetFraction: finite().min(0).max(1).allow(null).required(),
      leastFraction: finite().min(0).max(1).allow(null).required(),
    }),
  },
  // what is a lot was a batch up to release 1
  upgrade: ({ batchId, ...entry }) => (batchId === undefined ? entry : { ...entry, lotId: batchId }),
  belongs: { kind: 'fill' },
  apply: (state, { productId, productName, lotId, lot, product }) => {
    state.coolant = { productId, productName, lotId, lot, ...(product ? { product } : {}) };
  },
  locks: ({ productId }, { procedure, state }) =>
    procedure.facts ? [...doubtsAgainst(state), ...leaksAgainst(state), ...mixAgainst(procedure, state, productId)] : [],
  reads: ({ productName, lot }) => say('Coolant: {productName}{say}', { productName, say: lot ? say(', lot {lot}', { lot }) : '' }),
};
