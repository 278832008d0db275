import { say } from '../../../base/words/say.js';
import { finite } from '../../../base/checking/fields.js';
import { STANDING_NAMES, STANDING_TOWARDS, type StandingName } from '../../../machine/loop-file/orientation.js';
import { passedOver, type EntryDefinition, type Override } from '../entry.js';
import { turnAgainst } from '../locks.js';
import { oneOf, override } from './fields.js';

export interface TurnEntry {
  readonly type: 'turn';
  readonly to: StandingName;
  readonly angleDeg: number;
  readonly override?: Override;
}

export const turn: EntryDefinition<TurnEntry> = {
  schema: { to: oneOf(STANDING_NAMES).required(), angleDeg: finite().min(0).max(180).required(), override },
  belongs: 'anytime',
  apply: (state, { to, angleDeg }) => {
    state.stand = { to, angleDeg };
  },
  locks: ({ to, angleDeg }, { procedure, state }) => (procedure.facts ? turnAgainst(procedure, state, procedure.facts, to, angleDeg) : []),
  reads: ({ to, angleDeg, override: passed }) =>
    angleDeg === 0
      ? say('Case upright')
      : say('Case turned {to}, {angleDeg}°{passedOver}', {
          to: STANDING_TOWARDS[to],
          angleDeg: Math.round(angleDeg),
          passedOver: passedOver(passed),
        }),
};
