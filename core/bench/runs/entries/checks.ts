import Joi from 'joi';
import { refusal, type EntryDefinition } from '../entry.js';
import { checkText, stepOf } from '../procedure.js';
import { check } from './check.js';
import { key, step } from './fields.js';

/** One look at one kind of thing at many places, all of them sound: one touch, one line, one undo. */
export interface ChecksEntry {
  readonly type: 'checks';
  readonly step: string;
  readonly checks: readonly string[];
}

const each = ({ step: of, checks }: ChecksEntry) => checks.map((id) => ({ type: 'check', step: of, check: id, mark: 'done' }) as const);

export const checks: EntryDefinition<ChecksEntry> = {
  schema: { step, checks: Joi.array().items(key).min(1).max(200).unique().required() },
  belongs: 'own-step',
  apply: (state, entry, made, procedure) => {
    for (const one of each(entry)) check.apply(state, one, made, procedure);
  },
  refuse: (entry, standing) => {
    const items = stepOf(standing.procedure, entry.step)?.checks ?? [];
    const looks = new Set(entry.checks.map((id) => items.find((item) => item.id === id)?.together ?? null));
    for (const one of each(entry)) {
      const refused = check.refuse?.(one, standing);
      if (refused) return refused;
    }
    // what guards people is ticked one by one
    return looks.size > 1 || looks.has(null) ? refusal('unsafe', { why: 'one-by-one' }) : null;
  },
  locks: (entry, standing) => each(entry).flatMap((one) => check.locks?.(one, standing) ?? []),
  reads: (entry, { procedure }) => {
    const first = stepOf(procedure, entry.step)?.checks.find(({ id }) => id === entry.checks[0]);
    return `${first?.together ?? checkText(procedure, entry.step, entry.checks[0] ?? '')} (${entry.checks.length})`;
  },
};
