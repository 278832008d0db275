import { say } from '../../../base/words/say.js';
import Joi from 'joi';
import { passedOver, refusal, type EntryDefinition, type Override } from '../entry.js';
import { openingAgainst } from '../locks.js';
import { key, override } from './fields.js';

export interface PortEntry {
  readonly type: 'port';
  readonly port: string;
  readonly open: boolean;
  /** a bottle hangs on it above the machine: nothing leaves there, whatever stand the case is in */
  readonly bottle?: true;
  readonly override?: Override;
}

export const port: EntryDefinition<PortEntry> = {
  schema: { port: key.required(), open: Joi.boolean().required(), bottle: Joi.valid(true), override },
  belongs: 'anytime',
  apply: (state, { port: name, open, bottle }) => {
    if (open && !bottle) state.openPorts.add(name);
    else state.openPorts.delete(name);
    if (open && bottle) state.bottleOn = name;
    else if (state.bottleOn === name) state.bottleOn = null;
  },
  refuse: (entry, { procedure: { facts } }) =>
    !facts || facts.ports.some(({ name }) => name === entry.port)
      ? null
      : refusal('unknown-item', { why: 'unknown-port', name: entry.port }),
  locks: (entry, { procedure, state }) =>
    entry.open && !entry.bottle && procedure.facts ? openingAgainst(procedure, state, procedure.facts, entry.port) : [],
  reads: (entry, { procedure }) =>
    `${entry.open ? (entry.bottle ? say('Bottle connected') : say('Opened')) : say('Closed')}: ${procedure.facts?.ports.find(({ name }) => name === entry.port)?.label ?? entry.port}${passedOver(entry.override)}`,
};
