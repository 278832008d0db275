import { timerFace, runningSoak } from './state.js';
import type { Cause, Made, Owed, RunState, TemporaryFix, Wait } from './state.js';
import type { Procedure } from './procedure.js';

/** What it waits for now; null: it does not. */
export function waitingNow({ waits }: Pick<RunState, 'waits'>): Wait | null {
  const last = waits.at(-1);
  return last && last.resumed === null ? last : null;
}

/** What must be true before somebody walks away from an opened machine, and before hands go on with it. Ids stand for places. */
export type StandCheck =
  | { readonly check: 'supply-out' | 'air-let-off' | 'tray-under' | 'labelled' | 'supply-still-out' | 'dry-under' }
  | { readonly check: 'ends-capped' | 'ends-still-capped'; readonly places: readonly string[] }
  | { readonly check: 'leak-stilled'; readonly places: readonly string[] }
  | { readonly check: 'stays-turned'; readonly to: RunState['stand']['to'] };

export const STAND_CHECK_IDS = [
  'supply-out',
  'air-let-off',
  'ends-capped',
  'leak-stilled',
  'stays-turned',
  'tray-under',
  'labelled',
  'supply-still-out',
  'ends-still-capped',
  'dry-under',
] as const satisfies readonly StandCheck['check'][];

/** Ports and joints that are recorded open. */
const openEnds = ({ openPorts, openJoints }: RunState): string[] => [...openPorts, ...openJoints];

const mayHoldLiquid = ({ contents }: RunState): boolean => contents.insideMl === null || contents.insideMl > 1;

/** Before a run is left to wait: nobody stands beside it. */
export function checksBeforeWaiting(state: RunState): StandCheck[] {
  const ends = openEnds(state);
  const leaks = state.leaks.filter(({ mended, inAir }) => mended === null && !inAir).map(({ where }) => where);
  const inAirTest = state.steps.find(({ id }) => id === state.current)?.kind === 'dry-test';
  return [
    { check: 'supply-out' },
    ...(inAirTest ? [{ check: 'air-let-off' } as const] : []),
    ...(ends.length > 0 ? [{ check: 'ends-capped', places: ends } as const] : []),
    ...(leaks.length > 0 && mayHoldLiquid(state) ? [{ check: 'leak-stilled', places: [...new Set(leaks)] } as const] : []),
    ...(state.stand.to === 'upright' ? [] : [{ check: 'stays-turned', to: state.stand.to } as const]),
    ...(mayHoldLiquid(state) ? [{ check: 'tray-under' } as const] : []),
    { check: 'labelled' },
  ];
}

/** Before hands go on: somebody may have been at it in the meantime. */
export function checksBeforeGoingOn(state: RunState): StandCheck[] {
  const ends = openEnds(state);
  return [
    { check: 'supply-still-out' },
    ...(ends.length > 0 ? [{ check: 'ends-still-capped', places: ends } as const] : []),
    ...(mayHoldLiquid(state) ? [{ check: 'dry-under' } as const] : []),
  ];
}

/** Of these checks, those that nobody ticked. */
export const unseen = (checks: readonly StandCheck[], seen: readonly string[]): StandCheck[] =>
  checks.filter(({ check }) => !seen.includes(check));

export type WaitHindrance =
  | { readonly why: 'wait-pump-on' }
  | { readonly why: 'wait-timer'; readonly label: string }
  | { readonly why: 'wait-cleaner-in'; readonly cleaner: string };

/** A pump that runs is watched by nobody once its bench is left. */
export const pumpHindersLeaving = ({ pump }: Pick<RunState, 'pump'>): WaitHindrance | null =>
  pump?.on === true ? { why: 'wait-pump-on' } : null;

/** What goes on by itself cannot be left: a pump, a clock that stands for one, a cleaner with its limit. */
export function hindersWaiting(procedure: Procedure, state: RunState, nowMs: number): WaitHindrance | null {
  const pump = pumpHindersLeaving(state);
  if (pump) return pump;
  const running = Object.entries(state.timers).find(([, timer]) => timerFace(timer, nowMs).running);
  if (running) {
    const named = procedure.steps.flatMap(({ timers }) => timers).find(({ id }) => id === running[0]);
    return { why: 'wait-timer', label: named?.label ?? running[0] };
  }
  const soak = runningSoak(state.service);
  return soak && { why: 'wait-cleaner-in', cleaner: soak.cleaner };
}

/** What others were not told of yet: temporary fixes and what is owed without their follow-up, causes whose lot is not flagged. */
export function untold({ service, owed, waits }: Pick<RunState, 'service' | 'owed' | 'waits'>): {
  readonly fixes: readonly (TemporaryFix & Made)[];
  readonly owed: readonly (Owed & Made)[];
  readonly causes: readonly (Cause & Made)[];
} {
  const told = new Set(waits.flatMap((wait) => wait.told));
  const isNew = ({ eventId }: Made): boolean => !told.has(eventId);
  return {
    fixes: service.temporaryFixes.filter(isNew),
    owed: owed.filter(isNew),
    causes: service.causes.filter(isNew),
  };
}
