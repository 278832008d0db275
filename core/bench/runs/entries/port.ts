import Joi from 'joi';
import { passedOver, refusal, type EntryDefinition, type Override } from '../entry.js';
import { openingAgainst } from '../locks.js';
import { key, override } from './fields.js';

export interface PortEntry {
  readonly type: 'port';
  readonly port: string;
  readonly open: boolean;
  readonly override?: Override;
}

export const port: EntryDefinition<PortEntry> = {
  schema: { port: key.required(), open: Joi.boolean().required(), override },
  belongs: 'anytime',
  apply: ({ openPorts }, entry) => void (entry.open ? openPorts.add(entry.port) : openPorts.delete(entry.port)),
  refuse: (entry, { procedure: { facts } }) =>
    !facts || facts.ports.some(({ name }) => name === entry.port)
      ? null
      : refusal('unknown-item', { why: 'unknown-port', name: entry.port }),
  locks: (entry, { procedure, state }) =>
    entry.open && procedure.facts ? openingAgainst(procedure, state, procedure.facts, entry.port) : [],
  reads: (entry, { procedure }) =>
    `${entry.open ? 'Opened' : 'Closed'}: ${procedure.facts?.ports.find(({ name }) => name === entry.port)?.label ?? entry.port}${passedOver(entry.override)}`,
};
