import { say } from '../../../base/words/say.js';
import Joi from 'joi';
import { refusal, type EntryDefinition } from '../entry.js';
import { jointAgainst } from '../locks.js';
import { key } from './fields.js';

export interface JointEntry {
  readonly type: 'joint';
  readonly joint: string;
  readonly open: boolean;
}

export const joint: EntryDefinition<JointEntry> = {
  schema: { joint: key.required(), open: Joi.boolean().required() },
  belongs: 'anytime',
  apply: ({ openJoints }, entry) => void (entry.open ? openJoints.add(entry.joint) : openJoints.delete(entry.joint)),
  refuse: (entry, { procedure: { facts } }) =>
    !facts || facts.joints.some(({ id }) => id === entry.joint)
      ? null
      : refusal('unknown-item', { why: 'unknown-joint', name: entry.joint }),
  locks: (entry, { procedure, state }) => (entry.open && procedure.facts ? jointAgainst(procedure, state) : []),
  reads: (entry, { nameOf }) => `${entry.open ? say('Joint undone') : say('Joint closed')}: ${nameOf(entry.joint)}`,
};
