import type { DateReason } from './facts.js';
import { nextService, type DueClock, type DueInput } from './due.js';

/** An open coolant service as it stands, with what its date is computed from. */
export interface OpenService {
  readonly id: string;
  readonly dueOn: string;
  readonly reason: DateReason;
  readonly clocks: readonly DueClock[];
  /** how often the owner put it off */
  readonly postponed: number;
  readonly from: DueInput;
}

export interface Redated {
  readonly id: string;
  readonly before: string;
  readonly dueOn: string;
  readonly reason: DateReason;
  readonly estimated: boolean;
  readonly clocks: readonly DueClock[];
}

/**
 * Computes every date anew and returns those that change. What an owner put off keeps the agreed day, unless a clock now
 * ends before that day and earlier than it did when the risk was told: then that clock counts, and the reason says both.
 */
export function redateAll(open: readonly OpenService[]): Redated[] {
  return open.flatMap((item) => {
    const service = nextService(item.from);
    const known = item.clocks[0]?.dueOn ?? item.dueOn;
    const isPutOff = item.postponed > 0;
    const overtakes = service.dueOn < known && service.dueOn < item.dueOn;
    const dueOn = isPutOff && !overtakes ? item.dueOn : service.dueOn;
    const reason: DateReason = !isPutOff
      ? service.reason
      : overtakes
        ? { why: 'overtaken', agreed: item.dueOn, first: service.reason }
        : item.reason;
    const same = dueOn === item.dueOn && sameReason(reason, item.reason) && sameClocks(service.clocks, item.clocks);
    return same ? [] : [{ id: item.id, before: item.dueOn, dueOn, reason, estimated: service.estimated, clocks: service.clocks }];
  });
}

const sameClocks = (a: readonly DueClock[], b: readonly DueClock[]): boolean =>
  a.length === b.length && a.every(({ dueOn, reason }, index) => dueOn === b[index]?.dueOn && sameReason(reason, b[index]?.reason));

/** Stored documents keep no order of their keys. */
function sameReason(a: unknown, b: unknown): boolean {
  if (typeof a !== 'object' || typeof b !== 'object' || a === null || b === null) return a === b;
  const [own, other] = [a as Record<string, unknown>, b as Record<string, unknown>];
  const keys = Object.keys(own);
  return keys.length === Object.keys(other).length && keys.every((key) => sameReason(own[key], other[key]));
}
