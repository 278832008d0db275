import { addDays } from '../../../core/base/units/calendar.js';
import { untold } from '../../../core/bench/runs/waiting.js';
import type { Cause, RunState } from '../../../core/bench/runs/state.js';
import { findingWords } from '../../../core/edge/words/dates.js';
import { finding } from '../../base/database/tables/machines.js';
import type { Ask } from '../../base/http/context.js';
import { openFollowUp } from '../../workshop/due-dates/open.js';
import { suspectedIn, type Mate } from '../../workshop/lots/mates.js';

export interface Telling {
  readonly row: { readonly loopId: string };
  readonly jobId: string;
  readonly systemId: string;
  /** the run as it is before the entry that tells: what an earlier wait told is not told again */
  readonly state: Pick<RunState, 'service' | 'owed' | 'waits'>;
}

/**
 * What concerns others before the run is over: each temporary fix and whatever is owed opens its own follow-up, each machine of a suspected lot
 * gets its flag. Told once: when the run begins to wait, or at its end.
 */
export async function tellOthers(ask: Ask, telling: Telling): Promise<readonly Mate[]> {
  const { fixes, owed, causes } = untold(telling.state);
  const followUps = [
    ...fixes.map(({ what, awaits, until, limits, then }) => ({
      dueOn: until,
      reason: { why: 'temporary', what, awaits, limits, ...(then ? { then } : {}) } as const,
    })),
    ...owed.map(({ kind, what, until }) => ({ dueOn: until, reason: { why: 'owed', kind, what } as const })),
  ];
  for (const followUp of followUps)
    await openFollowUp(ask.scope, {
      workshopId: ask.account.workshopId,
      systemId: telling.systemId,
      loopId: telling.row.loopId,
      ...followUp,
      at: ask.clock.now(),
    });
  const mates: Mate[] = [];
  for (const cause of causes) mates.push(...(await flagLot(ask, telling, cause)));
  return mates;
}

/** days in which the other machines of a suspected lot are looked at */
const MATES_DAYS = 14;

/** Other machines that hold the suspected lot now: each gets a finding and a day on which somebody looks. */
async function flagLot(ask: Ask, { jobId, systemId }: Telling, cause: Cause): Promise<readonly Mate[]> {
  const { scope, account, today, clock } = ask;
  const { what, mates } = await suspectedIn(scope, { jobId, systemId, suspect: cause.suspect, item: cause.item });
  const isCoolant = cause.suspect === 'coolant-lot';
  for (const mate of mates) {
    const lot = { what: what ?? '', cause: cause.cause };
    await scope.insert(finding).values({
      workshopId: account.workshopId,
      systemId: mate.systemId,
      jobId: null,
      fact: { why: 'same-lot', ...lot },
      text: findingWords({ why: 'same-lot', ...lot }),
      severity: 'watch',
      foundAt: clock.now(),
    });
    await openFollowUp(scope, {
      workshopId: account.workshopId,
      systemId: mate.systemId,
      loopId: mate.loopId,
      dueOn: addDays(today, MATES_DAYS),
      reason: { why: 'same-lot', isCoolant, ...lot },
      at: clock.now(),
    });
  }
  return mates;
}
