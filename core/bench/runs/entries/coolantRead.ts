import { say } from '../../../base/words/say.js';
import { finite } from '../../../base/checking/fields.js';
import { formatPercent, grouped } from '../../../base/units/display.js';
import { refusal, type EntryDefinition } from '../entry.js';
import type { CoolantRead } from '../state.js';

/** The coolant inside was measured, a drop of it taken at the fill port: strength by a refractometer, pH by strip or meter. */
export interface CoolantReadEntry extends CoolantRead {
  readonly type: 'coolant-read';
}

export const coolantRead: EntryDefinition<CoolantReadEntry> = {
  schema: {
    strength: finite().min(0).max(1).allow(null).required(),
    ph: finite().min(0).max(14).allow(null).required(),
  },
  belongs: 'anytime',
  refuse: ({ strength, ph }) => (strength === null && ph === null ? refusal('unsafe', { why: 'nothing-read' }) : null),
  apply: ({ coolantReads }, { strength, ph }, made) => void coolantReads.push({ strength, ph, ...made }),
  reads: (entry) => say('Coolant measured: {coolantReadWords}', { coolantReadWords: coolantReadWords(entry) }),
};

export const coolantReadWords = ({ strength, ph }: CoolantRead): string =>
  [
    ...(strength === null ? [] : [say('{formatPercent} concentrate', { formatPercent: formatPercent(strength) })]),
    ...(ph === null ? [] : [say('pH {toFixed}', { toFixed: grouped(ph, 1) })]),
  ].join(', ');
