import type { RunEvent } from '../commissioning/events.js';
import { RINSE_AS, type Flow } from '../draining/ledger.js';
import type { ItemFindings } from '../inspection/grade.js';
import type { ServiceEntry } from './entries.js';

type Of<T extends ServiceEntry['type']> = Extract<ServiceEntry, { type: T }>;
/** An entry with when and by whom it was made. */
export type Noted<T> = T & { readonly eventId: string; readonly at: string; readonly by: string };

export interface Soak {
  readonly cleaner: string;
  readonly mostMinutes: number;
  readonly startedAt: string;
  endedAt: string | null;
}

/** What the entries of a service make of it. Empty in a commissioning. */
export interface ServiceState {
  /** every liquid that went in, came out or was lost, in the order it happened */
  readonly flows: Flow[];
  readonly drains: Noted<Of<'drained'>>[];
  readonly rinses: Noted<Of<'rinse'>>[];
  readonly waters: Noted<Of<'water'>>[];
  readonly soaks: Soak[];
  /** the last look at each item, and the first one where there were several: before and after cleaning */
  readonly sheet: Map<string, { first: ItemFindings; last: ItemFindings; looks: number }>;
  cause: Noted<Of<'cause'>> | null;
  readonly swaps: Noted<Of<'swapped'>>[];
  readonly used: Noted<Of<'used'>>[];
  readonly temporaryFixes: Noted<Of<'temporary-fix'>>[];
  readonly photos: Noted<Of<'photo'>>[];
  readonly rescopes: Noted<Of<'rescoped'>>[];
}

export const emptyService = (): ServiceState => ({
  flows: [],
  drains: [],
  rinses: [],
  waters: [],
  soaks: [],
  sheet: new Map(),
  cause: null,
  swaps: [],
  used: [],
  temporaryFixes: [],
  photos: [],
  rescopes: [],
});

/** Applies one entry of a service to its state. */
export function applyService(state: ServiceState, entry: ServiceEntry, { id: eventId, at, by }: RunEvent): void {
  const noted = <T extends ServiceEntry>(value: T): Noted<T> => ({ ...value, eventId, at, by });
  const flow = (way: Flow['way'], liquid: Flow['liquid'], volumeMl: number): void =>
    void state.flows.push({ eventId, at, way, liquid, volumeMl });
  switch (entry.type) {
    case 'drained':
      state.drains.push(noted(entry));
      return flow('out', 'old', entry.volumeMl);
    case 'lost':
      return flow('lost', 'old', entry.volumeMl);
    case 'rinse':
      state.rinses.push(noted(entry));
      return flow('in', RINSE_AS[entry.liquid], entry.volumeMl);
    case 'water':
      return void state.waters.push(noted(entry));
    case 'soak': {
      const running = state.soaks.find(({ endedAt }) => endedAt === null);
      if (running) running.endedAt = at;
      if (entry.on) state.soaks.push({ cleaner: entry.cleaner, mostMinutes: entry.mostMinutes, startedAt: at, endedAt: null });
      return;
    }
    case 'inspected': {
      const before = state.sheet.get(entry.item);
      state.sheet.set(entry.item, { first: before?.first ?? entry.findings, last: entry.findings, looks: (before?.looks ?? 0) + 1 });
      return;
    }
    case 'cause':
      state.cause = noted(entry);
      return;
    case 'swapped':
      state.swaps.push(noted(entry));
      // a part that left full took its liquid along
      if (entry.heldMl > 0) flow('out', 'old', entry.heldMl);
      return;
    case 'used':
      return void state.used.push(noted(entry));
    case 'temporary-fix':
      return void state.temporaryFixes.push(noted(entry));
    case 'photo':
      return void state.photos.push(noted(entry));
    case 'rescoped':
      return void state.rescopes.push(noted(entry));
  }
}

export interface SoakFace {
  readonly running: boolean;
  /** min; negative once the cleaner is in longer than its sheet allows */
  readonly leftMinutes: number;
  /** min beyond the limit; 0 within it */
  readonly overMinutes: number;
}

/** What a soak shows at an instant. It runs on instants in the log, so a reload loses nothing. */
export function soakFace({ startedAt, endedAt, mostMinutes }: Soak, nowMs: number): SoakFace {
  const until = endedAt === null ? nowMs : Date.parse(endedAt);
  const minutes = Math.max(0, (until - Date.parse(startedAt)) / 60_000);
  return { running: endedAt === null, leftMinutes: mostMinutes - minutes, overMinutes: Math.max(0, minutes - mostMinutes) };
}

export const runningSoak = ({ soaks }: ServiceState): Soak | null => soaks.find(({ endedAt }) => endedAt === null) ?? null;
