import { randomUUID } from 'node:crypto';
import { and, desc, eq, inArray, sql } from 'drizzle-orm';
import { isInRun } from '../../../core/workshop/due-dates/attention.js';
import { nextService } from '../../../core/workshop/due-dates/due.js';
import type { ImportAnswer } from '../../../core/workshop/importing/answers.js';
import type { HistoryKey, Mapping } from '../../../core/workshop/importing/fields.js';
import { HistoryTableReader, type PastWork } from '../../../core/workshop/importing/historyTable.js';
import type { ImportInput } from '../../../core/workshop/importing/schema.js';
import { plainWord } from '../../../core/workshop/importing/words.js';
import { coolantProduct } from '../../base/database/tables/coolants.js';
import { dueItem } from '../../base/database/tables/due-dates.js';
import { isInside, loop, loopRevision } from '../../base/database/tables/loops.js';
import { job, system } from '../../base/database/tables/machines.js';
import { person } from '../../base/database/tables/people.js';
import { fill } from '../../base/database/tables/runs.js';
import type { Ask } from '../../base/http/context.js';
import { clockInputs } from '../due-dates/clockInputs.js';
import { openMissingDust } from '../due-dates/dust.js';
import { tellDates } from '../due-dates/writeDates.js';
import { countDates, openBatch, readRows, TableWriter } from './batch.js';
import { namedCoolants, writeCoolants, type Product } from './coolants.js';

/** Machines of the workshop as a history finds them. */
async function machinesForHistory({ scope }: Ask) {
  const { rows } = await scope.execute<{ id: string; name: string; tag: string; owner: string; state: string; loop_id: string | null; filled: string[] | null }>(sql`
    select s.id, s.name, s.tag, o.name as owner, s.state,
      (select l.id from loop l where l.system_id = s.id order by l.created_at limit 1) as loop_id,
      (select array_agg(distinct f.filled_on::text) from fill f join loop_revision r on r.id = f.revision_id join loop l on l.id = r.loop_id where l.system_id = s.id) as filled
    from system s join owner o on o.id = s.owner_id where not s.for_course and s.state <> 'retired'`); // prettier-ignore
  return rows;
}

/** Reads a history, and unless it is a trial, writes all of it that can be taken; clocks start again where a later fill came in. */
export async function importHistory(ask: Ask, input: ImportInput): Promise<ImportAnswer> {
  const { scope, account, today } = ask;
  const coolants = await namedCoolants(ask, input.coolants);
  const machines = await machinesForHistory(ask);
  const reader = new HistoryTableReader({
    mapping: input.mapping as Mapping<HistoryKey>,
    dayOrder: input.dayOrder,
    today,
    coolants: coolants.uses,
    kinds: new Map(input.kinds.map(({ word, kind }) => [plainWord(word), kind])),
    machines: machines.map(({ id, name, tag, owner, state, filled }) => ({
      systemId: id,
      name,
      tag,
      owner,
      filledOn: filled ?? [],
      inRun: isInRun(state as 'planned'),
    })),
  });
  await readRows(input.rows, (line, cells) => reader.row(line, cells));
  const { works, refused, leftOut } = reader.result();
  const products = works.map(({ fill: own }) => (own === null ? null : coolants.productOf(own.coolantName, own.coolant)));
  const counts = { owners: 0, systems: 0, works: works.length, coolants: coolants.made.size };
  const loopOf = new Map(machines.map(({ id, loop_id }) => [id, loop_id]));
  if (input.dryRun || works.length === 0) {
    const dates = countDates(await datesAfter(ask, works, products), today);
    return { importId: null, ...counts, dates, refused, leftOut };
  }
  const batch = await openBatch(ask, input, counts);
  await writeCoolants(ask, batch.id, coolants);
  const people = new Map(
    (await scope.select({ id: person.id, name: person.name }).from(person)).map(({ id, name }) => [plainWord(name), id]),
  );
  const revisionOf = await newestRevisions(
    ask,
    works.map(({ systemId }) => loopOf.get(systemId) ?? null).filter((id) => id !== null),
  );
  const own = { workshopId: account.workshopId, createdAt: batch.at };
  const placed = works.map((work, index) => ({ work, product: products[index] ?? null, jobId: randomUUID(), fillId: randomUUID() }));
  const writer = new TableWriter(scope);
  await writer.add(job, { ...own, state: 'done', importId: batch.id }, placed, ({ work, jobId }) => ({
    id: jobId,
    systemId: work.systemId,
    kind: work.kind,
    doneOn: work.on,
    note: work.note,
    personId: people.get(plainWord(work.by)) ?? account.personId,
    doneBy: work.by,
  }));
  await writer.add(fill, own, placed, ({ work, product, jobId, fillId }) => {
    const revisionId = revisionOf.get(loopOf.get(work.systemId) ?? '');
    return product === null || work.fill === null || revisionId === undefined
      ? null
      : { id: fillId, revisionId, jobId, productId: product.id, filledOn: work.on, pouredMl: work.fill.pouredMl };
  });
  await writer.end();
  const touched = [...new Set(placed.filter(({ product }) => product !== null).map(({ work }) => loopOf.get(work.systemId)))].filter((id) => id !== null && id !== undefined); // prettier-ignore
  const dues = await redateLoops(ask, touched, batch.at);
  await openMissingDust(scope, [...new Set(placed.map(({ work }) => work.systemId))]);
  await tellDates(scope);
  return { importId: batch.id, ...counts, dates: countDates(dues, today), refused, leftOut };
}

async function newestRevisions({ scope }: Ask, loopIds: readonly string[]): Promise<ReadonlyMap<string, string>> {
  const found = new Map<string, string>();
  if (loopIds.length === 0) return found;
  const rows = await scope
    .selectDistinctOn([loopRevision.loopId], { loopId: loopRevision.loopId, id: loopRevision.id })
    .from(loopRevision)
    .where(and(inArray(loopRevision.loopId, [...new Set(loopIds)]), isInside))
    .orderBy(loopRevision.loopId, desc(loopRevision.number));
  for (const { loopId, id } of rows) found.set(loopId, id);
  return found;
}

/** The days that machines would have after a trial: of each the latest fill of the table. */
async function datesAfter(ask: Ask, works: readonly PastWork[], products: readonly (Product | null)[]): Promise<string[]> {
  const inputOf = await clockInputs(ask.scope, { loopIds: [], systemIds: [] });
  const rows = await ask.scope
    .select({
      id: system.id,
      ownerId: system.ownerId,
      hoursPerDay: system.hoursPerDay,
      coolantC: system.coolantC,
      condition: system.condition,
    })
    .from(system);
  const holders = new Map(rows.map((row) => [row.id, row]));
  const latest = new Map<string, { on: string; product: Product }>();
  works.forEach((work, index) => {
    const product = products[index];
    const before = latest.get(work.systemId);
    if (product && (!before || before.on < work.on)) latest.set(work.systemId, { on: work.on, product });
  });
  return [...latest].flatMap(([systemId, { on, product }]) => {
    const machine = holders.get(systemId);
    const own = { filledOn: on, intervalShare: 1, intervalReason: [], promisedOn: null };
    return machine ? [nextService(inputOf({ loopId: '', fill: own, product, machine })).dueOn] : [];
  });
}

/**
 * Loops whose newest fill is another now: the service that was open is answered, and the next gets its day from that fill. A promise that
 * nobody knew the fill of belongs to it now.
 * @returns the day of each
 */
async function redateLoops(ask: Ask, loopIds: readonly string[], at: Date): Promise<string[]> {
  const { scope, account } = ask;
  if (loopIds.length === 0) return [];
  const newest = await scope
    .selectDistinctOn([loopRevision.loopId], {
      loopId: loopRevision.loopId,
      fill: { id: fill.id, filledOn: fill.filledOn, intervalShare: fill.intervalShare, intervalReason: fill.intervalReason, promisedOn: fill.promisedOn }, // prettier-ignore
      product: coolantProduct,
      machine: {
        id: system.id,
        ownerId: system.ownerId,
        hoursPerDay: system.hoursPerDay,
        coolantC: system.coolantC,
        condition: system.condition,
      },
    })
    .from(fill)
    .innerJoin(loopRevision, eq(loopRevision.id, fill.revisionId))
    .innerJoin(coolantProduct, eq(coolantProduct.id, fill.productId))
    .innerJoin(loop, eq(loop.id, loopRevision.loopId))
    .innerJoin(system, eq(system.id, loop.systemId))
    .where(inArray(loopRevision.loopId, [...loopIds]))
    .orderBy(loopRevision.loopId, desc(fill.filledOn), desc(fill.createdAt));
  const open = await scope
    .select({ loopId: dueItem.loopId, id: dueItem.id, fillId: dueItem.fillId, dueOn: dueItem.dueOn, reason: dueItem.reason })
    .from(dueItem)
    .where(and(inArray(dueItem.loopId, [...loopIds]), eq(dueItem.state, 'open'), eq(dueItem.kind, 'coolant-service')));
  const openOf = new Map(open.map((row) => [row.loopId, row]));
  const changed = newest
    .filter(({ loopId, fill: own }) => openOf.get(loopId)?.fillId !== own.id)
    .map((row) => {
      const before = openOf.get(row.loopId);
      const promised = before?.fillId === null && before.reason.why === 'promised' ? before.dueOn : null;
      return { ...row, fill: { ...row.fill, promisedOn: row.fill.promisedOn ?? promised } };
    });
  const stale = changed.flatMap(({ loopId }) => openOf.get(loopId)?.id ?? []);
  if (stale.length > 0)
    await scope
      .update(dueItem)
      .set({ state: 'closed', outcome: { why: 'filled-anew' }, closedAt: at, closedBy: account.personId })
      .where(inArray(dueItem.id, stale));
  const inputOf = await clockInputs(scope, { loopIds, systemIds: changed.map(({ machine }) => machine.id) });
  const rows = changed.map(({ loopId, fill: own, product, machine }) => {
    const { dueOn, reason, estimated, clocks } = nextService(inputOf({ loopId, fill: own, product, machine }));
    return { systemId: machine.id, loopId, fillId: own.id, dueOn, reason, estimated, clocks: [...clocks] };
  });
  const writer = new TableWriter(scope);
  await writer.add(dueItem, { workshopId: account.workshopId, createdAt: at, kind: 'coolant-service' }, rows, (row) => row);
  await writer.end();
  const now = changed.map(({ loopId, fill: own, product }) => ({
    loop: loopId,
    fill: own.id,
    product: product.id,
    promised: own.promisedOn,
  }));
  await scope.execute(sql`
    with now as (select * from jsonb_to_recordset(${JSON.stringify(now)}::jsonb) as n (loop uuid, fill uuid, product uuid, promised date)),
      kept as (update fill set promised_on = now.promised from now where fill.id = now.fill and now.promised is not null)
    update loop set coolant_product_id = now.product, version = version + 1 from now
      where loop.id = now.loop and loop.coolant_product_id is distinct from now.product`);
  return rows.map(({ dueOn }) => dueOn);
}
