import { say } from '../../../base/words/say.js';
import { refusal, remark, type EntryDefinition, type Standing } from '../entry.js';
import { key, sentence } from './fields.js';

export interface DoubtEntry {
  readonly type: 'doubt';
  readonly part: string;
  readonly text: string;
}

export const doubt: EntryDefinition<DoubtEntry> = {
  schema: { part: key.required(), text: sentence.required() },
  belongs: 'anytime',
  apply: (state, { part, text }, made) => void state.doubts.push({ ...remark(made, text), part, answer: null }),
  refuse: ({ part }, standing) => (isPlace(part, standing) ? null : refusal('unknown-item', { why: 'unknown-part', name: part })),
  reads: ({ part, text }, { nameOf }) => say('Felt wrong: {nameOf} ({text})', { nameOf: nameOf(part), text }),
};

/** Whether a run knows a part, a tube or a plug; one that knows none takes any. */
export const isPlace = (id: string, { procedure: { facts } }: Standing): boolean =>
  !facts || [...facts.parts, ...facts.joints, ...(facts.seals ?? [])].some((each) => each.id === id);
