import { say } from '../../../base/words/say.js';
import Joi from 'joi';
import { backOf, PULLED, SUPPLY_OFF_AGAIN } from '../checkIds.js';
import { refusal, type EntryDefinition } from '../entry.js';
import { laterThan } from '../laterChecks.js';
import { spillsAgainst } from '../locks.js';
import { checkText, stepOf } from '../procedure.js';
import type { CheckMark, Made, RunState } from '../state.js';
import { key, reason, step } from './fields.js';

export interface CheckEntry {
  readonly type: 'check';
  readonly step: string;
  readonly check: string;
  readonly mark: CheckMark;
  readonly reason?: string;
}

export const check: EntryDefinition<CheckEntry> = {
  schema: {
    step,
    check: key.required(),
    mark: Joi.string().valid('done', 'open', 'not-needed').required(),
    reason: reason.when('mark', { is: 'not-needed', then: Joi.required() }),
  },
  belongs: 'own-step',
  apply: (state, entry, made) => {
    mirrorPulled(state, entry, made);
    const own = state.steps.find(({ id }) => id === entry.step);
    if (own) own.checks[entry.check] = { mark: entry.mark, reason: entry.reason ?? null, at: made.at, by: made.by };
  },
  refuse: (entry, { procedure, state, nowMs }) => {
    const own = stepOf(procedure, entry.step);
    const known = own?.checks.find(({ id }) => id === entry.check);
    if (!known) return refusal('unknown-item', { why: 'unknown-check', step: own?.title ?? entry.step, name: entry.check });
    if (entry.mark === 'not-needed' && !known.mayNotApply) return refusal('unsafe', { why: 'always-needed', text: known.text });
    const later = entry.mark === 'done' ? laterThan(procedure, state, entry.step, known, nowMs) : null;
    return later && refusal('too-early', { why: 'check-later', text: known.text, ...later });
  },
  locks: (entry, { procedure, state, nowMs }) =>
    entry.mark === 'done' && stepOf(procedure, entry.step)?.kind === 'power' && entry.check !== SUPPLY_OFF_AGAIN
      ? spillsAgainst(state, nowMs)
      : [],
  reads: (entry, { procedure }) => {
    const text = checkText(procedure, entry.step, entry.check);
    return entry.mark === 'done'
      ? text
      : entry.mark === 'open'
        ? say('Unticked: {text}', { text })
        : say('Not needed: {text} ({reason})', { text, reason: entry.reason ?? '' });
  },
};

/** What was never pulled need not come back: its line in the return to power answers itself, and opens again with it. */
function mirrorPulled(state: RunState, { check: id, mark }: CheckEntry, { at, by }: Made): void {
  if (!id.startsWith(PULLED)) return;
  const checks = state.steps.find(({ kind }) => kind === 'power')?.checks;
  const back = backOf(id);
  if (!checks) return;
  if (mark === 'not-needed') checks[back] = { mark: 'not-needed', reason: say('was not pulled'), at, by };
  else if (checks[back]?.mark === 'not-needed') checks[back] = { mark: 'open', reason: null, at, by };
}
