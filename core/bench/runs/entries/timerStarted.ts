import { say } from '../../../base/words/say.js';
import { refusal, type EntryDefinition, type Standing } from '../entry.js';
import { drawnAgainst, lowMarkAgainst, openAgainst, pumpAgainst } from '../locks.js';
import { stepOf } from '../procedure.js';
import { switchPump } from '../state.js';
import { key, step } from './fields.js';

export interface TimerStartedEntry {
  readonly type: 'timer-started';
  readonly step: string;
  readonly timer: string;
}

export const timerStarted: EntryDefinition<TimerStartedEntry> = {
  schema: { step, timer: key.required() },
  belongs: 'own-step',
  apply: (state, entry, { at }, procedure) => {
    const seconds = procedure.steps.flatMap(({ timers }) => timers).find(({ id }) => id === entry.timer)?.seconds ?? 0;
    state.timers[entry.timer] = { step: entry.step, startedAt: at, stoppedAt: null, seconds };
    // the wet test's clock starts with the pump and stops with it
    if (stepOf(procedure, entry.step)?.kind === 'wet-run') switchPump(state, true, at);
  },
  refuse: refuseUnknownTimer,
  locks: (entry, { procedure, state, nowMs }) => {
    const kind = stepOf(procedure, entry.step)?.kind;
    // the machine's own power runs its pump
    if (kind === 'power') return openAgainst(procedure, state);
    return procedure.facts && kind === 'wet-run'
      ? [
          ...drawnAgainst(procedure, state),
          ...pumpAgainst(procedure, state, procedure.facts),
          ...lowMarkAgainst(procedure, state, procedure.facts, nowMs),
        ]
      : [];
  },
  reads: (entry, { procedure }) =>
    say('Timer started: {stepOf}', {
      stepOf: stepOf(procedure, entry.step)?.timers.find(({ id }) => id === entry.timer)?.label ?? entry.timer,
    }),
};

export function refuseUnknownTimer(entry: { readonly step: string; readonly timer: string }, { procedure }: Standing) {
  const own = stepOf(procedure, entry.step);
  return own?.timers.some(({ id }) => id === entry.timer)
    ? null
    : refusal('unknown-item', { why: 'unknown-timer', step: own?.title ?? entry.step, name: entry.timer });
}
