import { keepLedger, type Ledger } from '../draining/ledger.js';
import { fillVolume, type FillPlan } from '../filling/fillPlan.js';
import type { LoopFile } from '../loops/loopFile.js';
import type { Volume } from '../loops/volume.js';
import type { ServiceFacts } from './serviceFacts.js';
import type { ServiceState } from './serviceState.js';

/** What a service expects to pour, before anything was measured: the loop at its mark without what the twin keeps inside. */
export function refillPlan(loop: LoopFile, { kind, leftMl, takeOut, inside }: ServiceFacts): FillPlan {
  const whole = fillVolume(loop);
  const empty = kind === 'strip-clean' || inside === null;
  const stays = empty ? 0 : kind === 'partial-drain' && takeOut ? whole.volumeMl - takeOut.drawFirstMl - takeOut.insideMl : (leftMl ?? 0);
  return {
    kind: 'gravity',
    total: { volumeMl: Math.max(0, whole.volumeMl - stays), sdMl: whole.sdMl },
    reason: 'What came out goes in again; once the drain is measured, the book says how much.',
  };
}

export const ledgerOf = (service: ServiceFacts, { flows }: ServiceState): Ledger => keepLedger(service.inside, flows);

/** The book as it stood before the first pour of the refill. */
export function ledgerBeforeRefill(service: ServiceFacts, { flows }: ServiceState, firstPourId: string | null): Ledger {
  const until = firstPourId === null ? flows.length : flows.findIndex(({ eventId }) => eventId === firstPourId);
  return keepLedger(service.inside, flows.slice(0, until < 0 ? flows.length : until));
}

/** mL that the refill should take: the loop at its mark less what the book says is inside. */
export function refillVolume(service: ServiceFacts, planned: Volume, before: Ledger): Volume {
  if (before.insideMl === null || service.inside === null) return planned;
  return {
    volumeMl: Math.max(0, service.inside.volumeMl - Math.max(0, before.insideMl)),
    sdMl: before.emptied ? service.inside.sdMl : Math.hypot(before.sdMl, REFILL_MARK_SD_ML),
  };
}

/** mL by which two people read the same fill mark differently */
const REFILL_MARK_SD_ML = 15;
