import { keepTally, LEDGER, type Flow } from '../../physics/contents/ledger.js';
import { ledgerOf, type Kept } from './contents.js';
import { rinseStandOf, type ServiceFacts } from './facts.js';
import type { ServiceState } from './state.js';

/** A flush as hands count it: a rinse is all that goes in until something comes out again, in however many pours. */
export interface RinseForecast {
  /** so far */
  readonly rinses: number;
  /** share of old liquid, 0 to 1, before the first rinse and after each; empty where nobody knows what stood inside */
  readonly shares: readonly number[];
  /** the same after each rinse that is still to come until the target is met, or until nobody looks that far */
  readonly coming: readonly number[];
  /** mL that should come when what is inside now is let out as the machine stands; null: nobody can tell */
  readonly nextOutMl: number | null;
}

/** What came out of a loop before its first rinse, and how many rinses of how much went through. */
export interface Flushed {
  readonly outMl: number;
  readonly rinses: number;
  /** mL of a rinse, on average; 0 without one */
  readonly rinseMl: number;
}

export function flushedOf({ flows, rinses, drains }: Pick<ServiceState, 'flows' | 'rinses' | 'drains'>): Flushed {
  const ofRinse = new Set(rinses.map(({ eventId }) => eventId));
  const ofDrain = new Set(drains.map(({ eventId }) => eventId));
  const first = flows.findIndex(({ eventId }) => ofRinse.has(eventId));
  const before = first < 0 ? flows : flows.slice(0, first);
  const groups = rinsesOf(flows.filter(({ way, eventId }) => way !== 'in' || ofRinse.has(eventId)));
  return {
    outMl: before.reduce((sum, { eventId, volumeMl }) => (ofDrain.has(eventId) ? sum + volumeMl : sum), 0),
    rinses: groups.length,
    rinseMl: groups.length === 0 ? 0 : groups.reduce((sum, { ml }) => sum + ml, 0) / groups.length,
  };
}

const MOST_AHEAD = 8;

/** mL of each rinse so far, and where among the flows the last of it went in. */
function rinsesOf(flows: readonly Flow[]): { ml: number; end: number }[] {
  const found: { ml: number; end: number }[] = [];
  let isOut = true;
  flows.forEach(({ way, volumeMl }, index) => {
    if (way === 'out' || way === 'emptied') isOut = true;
    if (way !== 'in') return;
    if (isOut) found.push({ ml: 0, end: 0 });
    isOut = false;
    const last = found.at(-1) as (typeof found)[number];
    last.ml += volumeMl;
    last.end = index + 1;
  });
  return found;
}

/**
 * How thin the old liquid is and how many rinses are still needed, each as large as the last one that was let out, or as
 * what the loop takes. Dilution by mixing through: share after = share · left / (left + rinse).
 */
export function rinseForecast(service: ServiceFacts, state: Kept): RinseForecast {
  const { inside } = service;
  const { flows } = state.service;
  const { insideMl } = ledgerOf(service, state);
  const staysMl = rinseStandOf(service)?.leftMl ?? service.leftMl;
  const nextOutMl = insideMl === null || staysMl === null ? null : Math.max(0, insideMl - staysMl);
  const rinses = rinsesOf(flows);
  if (!inside || insideMl === null) return { rinses: rinses.length, shares: [], coming: [], nextOutMl };
  const shares = [1, ...rinses.map(({ end }) => keepTally(inside, flows.slice(0, end)).shares.old)];
  const filmMl = LEDGER.filmShare * inside.volumeMl;
  const leftMl = Math.max(filmMl, staysMl ?? filmMl);
  // one that still stands inside may not be whole yet
  const rinseMl = rinses.findLast(({ end }) => flows.slice(end).some(({ way }) => way === 'out'))?.ml ?? inside.volumeMl - (staysMl ?? 0);
  const coming: number[] = [];
  let share = shares.at(-1) ?? 1;
  while (share > service.targetOldFraction && coming.length < MOST_AHEAD) {
    share *= leftMl / (leftMl + rinseMl);
    coming.push(share);
  }
  return { rinses: rinses.length, shares, coming, nextOutMl };
}
