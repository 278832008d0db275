import { say } from '@core/base/words/say.js';
import { isDrawnDown } from '@core/bench/runs/drawDown.js';
import { stepOfKind, type ProcedureStep } from '@core/bench/runs/procedure.js';
import { timerFace } from '@core/bench/runs/state.js';
import { computed, type ComputedRef, type Ref } from 'vue';
import { orderedSpeed, usePumpSwitch } from './pumpSwitch.js';
import type { RunDesk } from './useRun.js';

export interface RunPump {
  /** the pump has its place on the screen: in every step with power, and wherever it runs */
  readonly powered: ComputedRef<boolean>;
  readonly running: ComputedRef<boolean>;
  /** just stopped: the switch starts nothing for a moment */
  readonly rests: Readonly<Ref<boolean>>;
  /** drawn down for a leak after the fill: it is filled again in this very step */
  readonly refilling: ComputedRef<boolean>;
  /** the wet test's clock where it is the switch: since when it runs, and what the switch says while it does not; else null */
  readonly clock: ComputedRef<{ readonly since: string | null; readonly words: string } | null>;
  toggle(): void;
  /** stops it, whatever step is looked at */
  off(): void;
}

/** The pump of a run as one switch. In the wet test the clock is the switch, unless the pump runs without it. */
export function useRunPump(
  desk: RunDesk,
  step: Readonly<Ref<ProcedureStep | null>>,
  locked: Readonly<Ref<boolean>>,
  now: Readonly<Ref<number>>,
): RunPump {
  const procedure = computed(() => desk.answer.value?.run.procedure ?? null);
  const kind = computed(() => step.value?.kind ?? null);
  const pumpOn = computed(() => desk.state.value?.pump?.on === true);
  const wet = computed(() => (procedure.value ? stepOfKind(procedure.value, 'wet-run') : undefined));
  const started = computed(() => {
    const timer = wet.value?.timers[0];
    return (timer && desk.state.value?.timers[timer.id]) ?? null;
  });
  const clockRuns = computed(() => started.value !== null && timerFace(started.value, now.value).running);
  const running = computed(() => pumpOn.value || clockRuns.value);

  const refilling = computed(
    () =>
      (kind.value === 'wet-run' || kind.value === 'bleed') &&
      procedure.value !== null &&
      desk.state.value !== null &&
      isDrawnDown(procedure.value, desk.state.value),
  );
  const byHand = computed(
    () => ['fill', 'bleed', 'rinse'].includes(kind.value ?? '') || refilling.value || (pumpOn.value && !clockRuns.value),
  );
  const powered = computed(
    () => procedure.value?.facts !== undefined && (running.value || (!locked.value && (byHand.value || kind.value === 'wet-run'))),
  );
  const clock = computed(() => {
    if (kind.value !== 'wet-run' || byHand.value) return null;
    const again = started.value !== null && !timerFace(started.value, now.value).finished;
    return {
      since: clockRuns.value ? (started.value?.startedAt ?? null) : null,
      words: again ? say('Pump on, start again') : say('Pump on, start the clock'),
    };
  });
  const { rests } = usePumpSwitch(running);

  function off(): void {
    const timer = wet.value?.timers[0];
    if (clockRuns.value && wet.value && timer) desk.send({ type: 'timer-stopped', step: wet.value.id, timer: timer.id });
    else if (pumpOn.value) desk.send({ type: 'pump', on: false });
  }
  function on(): void {
    const timer = wet.value?.timers[0];
    const fills = kind.value === 'fill' || kind.value === 'rinse' || refilling.value;
    if (byHand.value) desk.send({ type: 'pump', on: true, ...(fills ? orderedSpeed(procedure.value, desk.state.value, now.value) : {}) });
    else if (clock.value && wet.value && timer) desk.send({ type: 'timer-started', step: wet.value.id, timer: timer.id });
  }
  function toggle(): void {
    if (running.value) off();
    else if (!locked.value && !rests.value) on();
  }
  return { powered, running, rests, refilling, clock, toggle, off };
}
