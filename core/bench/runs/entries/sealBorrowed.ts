import { say } from '../../../base/words/say.js';
import { refusal, type EntryDefinition } from '../entry.js';
import type { BorrowedSeal } from '../state.js';
import { isPlace } from './doubt.js';
import { key, sentence } from './fields.js';

/** A seal was taken from one place to close another: the first stays open until it has one again. */
export interface SealBorrowedEntry extends Pick<BorrowedSeal, 'from' | 'text'> {
  readonly type: 'seal-borrowed';
}

export const sealBorrowed: EntryDefinition<SealBorrowedEntry> = {
  schema: { from: key.required(), text: sentence.max(300).required() },
  belongs: 'anytime',
  apply: (state, { from, text }, made) => void state.borrowedSeals.push({ from, text, ...made, fitted: null }),
  refuse: ({ from }, standing) =>
    isPlace(from, standing) || standing.procedure.facts?.ports.some(({ name }) => name === from)
      ? null
      : refusal('unknown-item', { why: 'unknown-place', name: from }),
  reads: ({ from, text }, { nameOf }) => say('Seal taken from {nameOf}: {text}; that place stays open', { nameOf: nameOf(from), text }),
};
