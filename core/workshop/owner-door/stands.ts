import type { Whereabouts } from '../jobs/arrival.js';
import type { WaitFor } from '../jobs/waitFor.js';

/** What is done to a machine on a bench, as its owner is told of it. */
export const OWNER_STAGES = [
  'preparing',
  'measuring',
  'draining',
  'cleaning',
  'inspecting',
  'working',
  'air-test',
  'filling',
  'wet-test',
  'bleeding',
  'finishing',
] as const;
export type OwnerStage = (typeof OWNER_STAGES)[number];

/** A run as its owner may know it: nothing of its log. */
export interface OwnersRun {
  /** null: it began before this was kept */
  readonly stage: OwnerStage | null;
  /** when the clock of that stage ends; null: none runs */
  readonly stageEndsAt: string | null;
  /** null: it stands on a bench */
  readonly waitsFor: WaitFor | null;
  readonly waitsUntil: string | null;
}

export interface OwnersFacts {
  /** null: no job is open, and none is ready to be fetched */
  readonly where: Whereabouts | null;
  readonly run: OwnersRun | null;
  /** agreed with the owner, both ends; null: none is */
  readonly slot: { readonly from: string; readonly to: string } | null;
  readonly partsOn: string | null;
  readonly doneOn: string | null;
  readonly fetchedOn: string | null;
  readonly today: string;
  readonly nowMs: number;
}

/** Where a machine stands, for its owner. */
export type Stands =
  | { readonly at: 'home' }
  | { readonly at: 'booked' }
  | { readonly at: 'awaited'; readonly from: string }
  | { readonly at: 'missed' }
  | { readonly at: 'here' }
  | { readonly at: 'bench'; readonly stage: OwnerStage | null; readonly until: string | null }
  | { readonly at: 'waits'; readonly for: WaitFor; readonly until: string | null }
  | { readonly at: 'ready'; readonly since: string | null }
  | { readonly at: 'fetched'; readonly on: string };

export function standsAt({ where, run, slot, partsOn, doneOn, fetchedOn, today }: OwnersFacts): Stands {
  if (where === 'fetched' && fetchedOn !== null) return { at: 'fetched', on: fetchedOn };
  if (where === 'ready') return { at: 'ready', since: doneOn };
  if (run?.waitsFor) return { at: 'waits', for: run.waitsFor, until: run.waitsUntil };
  if (run) return { at: 'bench', stage: run.stage, until: run.stageEndsAt };
  if (where === 'here') return partsOn !== null && partsOn >= today ? { at: 'waits', for: 'parts', until: partsOn } : { at: 'here' };
  if (where === 'missed') return { at: 'missed' };
  if (slot) return { at: 'awaited', from: slot.from };
  return { at: where === null ? 'home' : 'booked' };
}

/**
 * When it is ready, and how sure that is: `agreed` an end that was agreed with its slot, if its tests pass the first time · `not-before`
 * the day on which what it waits for is expected · `late` the agreed end has passed · `open` nobody can tell yet.
 */
export type ReadyWhen =
  | { readonly sure: 'agreed'; readonly at: string }
  | { readonly sure: 'not-before'; readonly on: string }
  | { readonly sure: 'late' }
  | { readonly sure: 'open' };

/** null where it is not with the workshop, nor on its way there: nothing is promised */
export function readyWhen(facts: OwnersFacts): ReadyWhen | null {
  const stands = standsAt(facts);
  if (['ready', 'fetched', 'home', 'booked', 'missed'].includes(stands.at)) return null;
  if (stands.at === 'waits')
    return stands.until === null || stands.for === 'owner' ? { sure: 'open' } : { sure: 'not-before', on: stands.until };
  const { slot, nowMs } = facts;
  if (!slot) return { sure: 'open' };
  return Date.parse(slot.to) < nowMs ? { sure: 'late' } : { sure: 'agreed', at: slot.to };
}
