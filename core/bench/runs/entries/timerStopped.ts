import { say } from '../../../base/words/say.js';
import type { EntryDefinition } from '../entry.js';
import { stepOf } from '../procedure.js';
import { switchPump } from '../state.js';
import { key, step } from './fields.js';
import { refuseUnknownTimer } from './timerStarted.js';

export interface TimerStoppedEntry {
  readonly type: 'timer-stopped';
  readonly step: string;
  readonly timer: string;
}

export const timerStopped: EntryDefinition<TimerStoppedEntry> = {
  schema: { step, timer: key.required() },
  belongs: 'own-step',
  apply: (state, entry, { at }, procedure) => {
    const running = state.timers[entry.timer];
    if (running) state.timers[entry.timer] = { ...running, stoppedAt: at };
    if (stepOf(procedure, entry.step)?.kind === 'wet-run') switchPump(state, false, at);
  },
  refuse: refuseUnknownTimer,
  reads: (entry, { procedure }) =>
    say('Timer stopped: {stepOf}', {
      stepOf: stepOf(procedure, entry.step)?.timers.find(({ id }) => id === entry.timer)?.label ?? entry.timer,
    }),
};
