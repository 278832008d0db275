import { say } from '../../../base/words/say.js';
import Joi from 'joi';
import { finite } from '../../../base/checking/fields.js';
import { bySource, passedOver, type EntryDefinition, type Override } from '../entry.js';
import { lowMarkAgainst, pumpAgainst } from '../locks.js';
import { switchPump, type ReadingSource, type RunState } from '../state.js';
import { override, source } from './fields.js';

export interface PumpEntry {
  readonly type: 'pump';
  readonly on: boolean;
  /** share of full speed it was set to first, where it was ordered to run slower */
  readonly speed?: number;
  readonly override?: Override;
  readonly source?: ReadingSource;
}

export const pump: EntryDefinition<PumpEntry> = {
  schema: { on: Joi.boolean().required(), speed: finite().greater(0).max(1), override, source },
  belongs: 'anytime',
  apply: (state, { on }, { at }) => {
    switchPump(state, on, at);
    if (!on) stopWetClock(state, at);
  },
  locks: ({ on }, { procedure, state, nowMs }) =>
    on && procedure.facts
      ? [...pumpAgainst(procedure, state, procedure.facts), ...lowMarkAgainst(procedure, state, procedure.facts, nowMs)]
      : [],
  reads: ({ on, source: from, override: passed }) =>
    say('Pump {on}{bySource}{passedOver}', { on: on ? 'on' : 'off', bySource: bySource(from), passedOver: passedOver(passed) }),
};

/** The wet test's clock counts a running pump. */
function stopWetClock(state: RunState, at: string): void {
  for (const [id, timer] of Object.entries(state.timers)) {
    const isWet = state.steps.some((step) => step.id === timer.step && step.kind === 'wet-run');
    if (isWet && timer.stoppedAt === null) state.timers[id] = { ...timer, stoppedAt: at };
  }
}
