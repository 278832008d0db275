import type { OwnerStage } from '../../workshop/owner-door/stands.js';
import type { StepKind } from './procedure.js';
import { currentKind, timerFace, type RunState } from './state.js';

const STAGE: Readonly<Record<StepKind, OwnerStage>> = {
  'part-test': 'preparing',
  checks: 'preparing',
  'dry-test': 'air-test',
  fill: 'filling',
  'wet-run': 'wet-test',
  bleed: 'bleeding',
  power: 'finishing',
  baseline: 'measuring',
  'sign-off': 'finishing',
  drain: 'draining',
  rinse: 'cleaning',
  clean: 'cleaning',
  inspect: 'inspecting',
  swap: 'working',
  repair: 'working',
};

export interface OwnersStage {
  readonly stage: OwnerStage;
  readonly endsAt: string | null;
}

/** What is done at a run's present step, as its owner is told, and when the step's running clock ends; null: none runs. */
export function ownersStage(state: RunState, nowMs: number): OwnersStage {
  const ends = Object.values(state.timers)
    .filter((timer) => timer.step === state.current && timerFace(timer, nowMs).running)
    .map(({ startedAt, seconds }) => Date.parse(startedAt) + seconds * 1000);
  return {
    stage: STAGE[currentKind(state) ?? 'sign-off'],
    endsAt: ends.length === 0 ? null : new Date(Math.max(...ends)).toISOString(),
  };
}
