import { nextService, type DueClock, type DueInput } from './due.js';

/** An open coolant service as it stands, with what its date is computed from. */
export interface OpenService {
  readonly id: string;
  readonly dueOn: string;
  readonly reason: string;
  readonly clocks: readonly DueClock[];
  /** how often the owner put it off */
  readonly postponed: number;
  readonly from: DueInput;
}

export interface Redated {
  readonly id: string;
  readonly before: string;
  readonly dueOn: string;
  readonly reason: string;
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
    const reason = !isPutOff
      ? service.reason
      : overtakes
        ? `${service.reason}; earlier than when it was put off until ${item.dueOn}: tell the owner`
        : item.reason;
    const same = dueOn === item.dueOn && reason === item.reason && sameClocks(service.clocks, item.clocks);
    return same ? [] : [{ id: item.id, before: item.dueOn, dueOn, reason, estimated: service.estimated, clocks: service.clocks }];
  });
}

const sameClocks = (a: readonly DueClock[], b: readonly DueClock[]): boolean =>
  a.length === b.length && a.every(({ dueOn, reason }, index) => dueOn === b[index]?.dueOn && reason === b[index]?.reason);
