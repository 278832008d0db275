import Joi from 'joi';
import { id } from '../../../base/checking/fields.js';
import type { EntryDefinition } from '../entry.js';
import { doubtsAgainst, leaksAgainst, mixAgainst } from '../locks.js';
import type { Coolant } from '../state.js';

export interface CoolantEntry extends Coolant {
  readonly type: 'coolant';
}

export const coolant: EntryDefinition<CoolantEntry> = {
  schema: {
    productId: id().required(),
    productName: Joi.string().max(120).required(),
    batchId: id().allow(null).required(),
    lot: Joi.string().max(60).allow(null).required(),
  },
  belongs: { kind: 'fill' },
  apply: (state, { productId, productName, batchId, lot }) => {
    state.coolant = { productId, productName, batchId, lot };
  },
  locks: ({ productId }, { procedure, state }) =>
    procedure.facts ? [...doubtsAgainst(state), ...leaksAgainst(state), ...mixAgainst(procedure, state, productId)] : [],
  reads: ({ productName, lot }) => `Coolant: ${productName}${lot ? `, lot ${lot}` : ''}`,
};
