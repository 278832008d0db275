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
  const { staysMl, leftMl } = staysAfter(service, inside?.volumeMl ?? 0);
  const nextOutMl = insideMl === null || staysMl === null ? null : Math.max(0, insideMl - staysMl);
  const rinses = rinsesOf(flows);
  if (!inside || insideMl === null) return { rinses: rinses.length, shares: [], coming: [], nextOutMl };
  const shares = [1, ...rinses.map(({ end }) => keepTally(inside, flows.slice(0, end)).shares.old)];
  // one that still stands inside may not be whole yet
  const rinseMl = rinses.findLast(({ end }) => flows.slice(end).some(({ way }) => way === 'out'))?.ml ?? inside.volumeMl - (staysMl ?? 0);
  const coming = thinning(shares.at(-1) ?? 1, service.targetOldFraction, leftMl, rinseMl);
  return { rinses: rinses.length, shares, coming, nextOutMl };
}

/** Shares of old liquid after each rinse to come, until few enough are left or nobody looks that far. */
function thinning(share: number, target: number, leftMl: number, rinseMl: number): number[] {
  const coming: number[] = [];
  let now = share;
  while (now > target && coming.length < MOST_AHEAD) {
    now *= leftMl / (leftMl + rinseMl);
    coming.push(now);
  }
  return coming;
}

/** mL that a rinse leaves when it is let out: never less than the film on the walls. `staysMl`: by the stand alone, null where nobody can tell */
export const staysAfter = (service: ServiceFacts, insideMl: number): { staysMl: number | null; leftMl: number } => {
  const staysMl = rinseStandOf(service)?.leftMl ?? service.leftMl;
  const filmMl = LEDGER.filmShare * insideMl;
  return { staysMl, leftMl: Math.max(filmMl, staysMl ?? filmMl) };
};

/**
 * Rinses between the drain of a service and what may stand beside what is left, as the bench will count them; null: nobody can tell, or
 * more than anybody goes on for.
 * @param mostOldFraction share of the old liquid that may be left
 */
export function rinsesAhead(service: ServiceFacts, mostOldFraction: number): number | null {
  if (mostOldFraction >= 1) return 0;
  const { inside } = service;
  if (!inside) return null;
  const { staysMl, leftMl } = staysAfter(service, inside.volumeMl);
  if (staysMl === null) return null;
  const coming = thinning(1, mostOldFraction, leftMl, inside.volumeMl - staysMl);
  return (coming.at(-1) ?? 1) <= mostOldFraction ? coming.length : null;
}
