import { say } from '../../../core/base/words/say.js';
import { and, asc, desc, eq, gte, inArray, lte, sql } from 'drizzle-orm';
import { refuse } from '../../../core/base/checking/input.js';
import { dayIn } from '../../../core/base/units/calendar.js';
import type { Priced } from '../../../core/workshop/prices/priced.js';
import { passesConsent, priceTaken, type Taken } from '../../../core/workshop/prices/lines.js';
import type { BillRow, BillsAnswer, JobBill } from '../../../core/workshop/prices/answers.js';
import type { BillsQuery } from '../../../core/workshop/prices/schema.js';
import type { PriceList } from '../../../core/workshop/prices/rates.js';
import { consent, serviceJob } from '../../base/database/tables/jobs.js';
import { job, owner, system } from '../../base/database/tables/machines.js';
import { fill, run } from '../../base/database/tables/runs.js';
import { storeMove } from '../../base/database/tables/store.js';
import type { Scope } from '../../base/database/client.js';
import type { Ask } from '../../base/http/context.js';
import { attendedMinutes } from '../planning/attended.js';
import { readPriceList } from './priceList.js';

/** days that one table of bills may hold: a year and a day */
const MOST_DAYS = 366;

/** What jobs took, by job: hours, coolant poured, things off the shelf. */
async function takenBy(scope: Scope, jobIds: readonly string[]): Promise<(jobId: string) => Taken> {
  if (jobIds.length === 0) return () => ({ hours: null, poured: [], items: [] });
  const ids = [...jobIds];
  const moves = await scope
    .select({ jobId: storeMove.jobId, itemId: storeMove.itemId, amount: sql<number>`-sum(${storeMove.change})` })
    .from(storeMove)
    .where(inArray(storeMove.jobId, ids))
    .groupBy(storeMove.jobId, storeMove.itemId)
    .orderBy(asc(storeMove.itemId));
  const fills = await scope
    .select({ jobId: fill.jobId, coolantId: fill.productId, ml: fill.pouredMl })
    .from(fill)
    .where(inArray(fill.jobId, ids));
  const runs = await scope
    .select({ id: run.id, jobId: run.jobId })
    .from(run)
    .where(and(inArray(run.jobId, ids), eq(run.state, 'signed-off')));
  const attended = await attendedMinutes(
    scope,
    runs.map(({ id }) => id),
  );
  return (jobId) => {
    const known = runs.filter((each) => each.jobId === jobId).flatMap(({ id }) => attended.get(id) ?? []);
    return {
      hours: known.length === 0 ? null : Math.round(known.reduce((sum, each) => sum + each, 0) / 15) / 4,
      poured: fills.flatMap((each) => (each.jobId === jobId && each.coolantId !== null && each.ml !== null ? [{ coolantId: each.coolantId, ml: each.ml }] : [])), // prettier-ignore
      items: moves.filter((each) => each.jobId === jobId).map(({ itemId, amount }) => ({ itemId, amount: Number(amount) })),
    };
  };
}

/** What one job costs so far, against what its owner agreed to last. */
export async function billOf(ask: Pick<Ask, 'scope' | 'account'>, jobId: string): Promise<JobBill> {
  const { scope } = ask;
  const [own] = await scope
    .select({ kind: job.kind, state: job.state, estimate: serviceJob.estimate })
    .from(serviceJob)
    .innerJoin(job, eq(job.id, serviceJob.jobId))
    .where(eq(job.id, jobId));
  const [last] = await scope
    .select({ estimate: consent.estimate })
    .from(consent)
    .where(eq(consent.jobId, jobId))
    .orderBy(desc(consent.createdAt), desc(consent.estimateNumber))
    .limit(1);
  const agreed = last?.estimate.priced ?? null;
  if (!own || !['active', 'done'].includes(own.state)) return { used: null, agreed, passes: false };
  const list = await readPriceList(ask);
  const used = priceTaken(list, own.kind, own.estimate, (await takenBy(scope, [jobId]))(jobId));
  return { used, agreed, passes: used !== null && agreed !== null && passesConsent(list.rates, agreed, used) };
}

/** Jobs that were finished between two days, with what is asked for each: the table that the bookkeeping takes. */
export async function readBills(ask: Ask, { from, to }: BillsQuery): Promise<BillsAnswer> {
  if (to < from) refuse('to', say('must not lie before the first day, {from}', { from }));
  if (Date.parse(to) - Date.parse(from) > MOST_DAYS * 86_400_000)
    refuse('to', say('must lie within {MOST_DAYS} days of {from}', { MOST_DAYS, from }));
  const { scope, account } = ask;
  const day = sql<string>`to_char(${run.signedOffAt} at time zone ${account.timeZone}, 'YYYY-MM-DD')`;
  const rows = await scope
    .selectDistinctOn([job.id], {
      jobId: job.id,
      kind: job.kind,
      owner: owner.name,
      system: system.name,
      estimate: serviceJob.estimate,
      signedOffAt: run.signedOffAt,
    }) // prettier-ignore
    .from(serviceJob)
    .innerJoin(job, eq(job.id, serviceJob.jobId))
    .innerJoin(system, eq(system.id, job.systemId))
    .innerJoin(owner, eq(owner.id, system.ownerId))
    .innerJoin(run, and(eq(run.jobId, job.id), eq(run.state, 'signed-off')))
    .where(and(eq(job.state, 'done'), gte(day, from), lte(day, to)))
    .orderBy(job.id, desc(run.signedOffAt));
  const list: PriceList = await readPriceList(ask);
  const taken = await takenBy(scope, rows.map(({ jobId }) => jobId)); // prettier-ignore
  const bills = rows.flatMap(({ estimate, signedOffAt, ...each }): BillRow[] => {
    const bill: Priced | null = priceTaken(list, each.kind, estimate, taken(each.jobId));
    return bill && signedOffAt ? [{ ...each, on: dayIn(account.timeZone, signedOffAt), bill }] : [];
  });
  return { rows: bills.sort((a, b) => a.on.localeCompare(b.on) || a.owner.localeCompare(b.owner)) };
}
