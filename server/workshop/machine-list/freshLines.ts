import { and, asc, desc, eq, inArray, sql } from 'drizzle-orm';
import { groupBy } from '../../../core/base/numerics/groupBy.js';
import type { DateReason } from '../../../core/workshop/due-dates/facts.js';
import { nameKey } from '../../../core/workshop/machine-list/nameKey.js';
import { standingOf } from '../../../core/workshop/machine-list/standing.js';
import { ATTENTION_ORDER, type OpenDue } from '../../../core/workshop/due-dates/attention.js';
import type { Scope } from '../../base/database/client.js';
import { coolantProduct } from '../../base/database/tables/coolants.js';
import { dueItem } from '../../base/database/tables/due-dates.js';
import { machineLine, NEVER } from '../../base/database/tables/lines.js';
import { loop, loopRevision } from '../../base/database/tables/loops.js';
import { owner, system } from '../../base/database/tables/machines.js';
import { fill } from '../../base/database/tables/runs.js';

/** machines that are worked out at once */
const AT_ONCE = 2000;

/** Where the scope's workshop stands, and its day. */
export interface OfDay {
  readonly scope: Scope;
  readonly today: string;
}

/**
 * Makes the lines true that something was written about since, and those that the day itself turned. Whoever reads a
 * list calls this first; with nothing to do it costs three looks into indexes. Two at once wait for each other at the
 * marks, and again at the lines: the later one sees what the earlier one wrote.
 */
export async function freshenLines({ scope, today }: OfDay): Promise<void> {
  const { rows } = await scope.execute<{ id: string }>(sql`
    with marked as (delete from stale_line returning system_id)
    select system_id as id from marked union
    select id from machine_line where holds_until < ${today} union select id from machine_line where said_on > ${today}`);
  const ids = rows.map(({ id }) => id).sort();
  for (let from = 0; from < ids.length; from += AT_ONCE) await freshen({ scope, today }, ids.slice(from, from + AT_ONCE));
}

async function freshen({ scope, today }: OfDay, ids: string[]): Promise<void> {
  await scope
    .select({ id: machineLine.id })
    .from(machineLine)
    .where(inArray(machineLine.id, ids))
    .orderBy(asc(machineLine.id))
    .for('update');
  const machines = await scope
    .select({ system, owner })
    .from(system)
    .innerJoin(owner, eq(owner.id, system.ownerId))
    .where(and(inArray(system.id, ids), eq(system.forCourse, false)));
  const dues = await openDuesOf(scope, ids);
  const coolants = await coolantOf(scope, ids);
  const planned = groupBy(
    await scope
      .select({ systemId: loop.systemId, productId: coolantProduct.id, name: coolantProduct.name })
      .from(loop)
      .innerJoin(coolantProduct, eq(coolantProduct.id, loop.coolantProductId))
      .where(inArray(loop.systemId, ids))
      .orderBy(asc(loop.createdAt)),
    ({ systemId }) => systemId,
  );
  const lines = machines.map(({ system: machine, owner: whose }) => {
    const { attention, next, holdsUntil } = standingOf(machine.state, dues.get(machine.id) ?? [], today);
    const filled = coolants.get(machine.id);
    const wanted = planned.get(machine.id) ?? [];
    const liquids = new Set([filled?.name, ...wanted.map(({ name }) => name)]);
    return {
      id: machine.id,
      workshop_id: machine.workshopId,
      rank: ATTENTION_ORDER.indexOf(attention),
      next_due_on: next?.dueOn ?? NEVER,
      name_key: nameKey(machine.name),
      words: [machine.name, whose.name, machine.tag, machine.caseText, ...liquids, whose.phone, whose.email, machine.builtBy, machine.note, whose.note].filter(Boolean).join(' '),
      coolant_id: filled?.productId ?? wanted[0]?.productId ?? null,
      filled_on: filled?.filledOn ?? null,
      said_on: today,
      holds_until: holdsUntil ?? NEVER,
    };
  }); // prettier-ignore
  await scope.execute(sql`
    insert into machine_line (id, workshop_id, rank, next_due_on, name_key, words, coolant_id, filled_on, said_on, holds_until)
    select * from jsonb_to_recordset(${JSON.stringify(lines)}::jsonb)
      as line (id uuid, workshop_id uuid, rank smallint, next_due_on date, name_key text, words text, coolant_id uuid, filled_on date, said_on date, holds_until date)
    on conflict (id) do update set rank = excluded.rank, next_due_on = excluded.next_due_on, name_key = excluded.name_key,
      words = excluded.words, coolant_id = excluded.coolant_id, filled_on = excluded.filled_on, said_on = excluded.said_on, holds_until = excluded.holds_until`);
}

/** The open dates of some machines, the earliest first. */
export async function openDuesOf(scope: Scope, systemIds: string[]): Promise<Map<string, (OpenDue & { reason: DateReason })[]>> {
  const dues = await scope
    .select({
      systemId: dueItem.systemId,
      kind: dueItem.kind,
      dueOn: dueItem.dueOn,
      reason: dueItem.reason,
      postponed: dueItem.postponed,
      firstDueOn: sql<string | null>`${dueItem.clocks} -> 0 ->> 'dueOn'`,
    })
    .from(dueItem)
    .where(and(inArray(dueItem.systemId, systemIds), eq(dueItem.state, 'open')))
    .orderBy(asc(dueItem.dueOn), asc(dueItem.kind));
  return groupBy(dues, ({ systemId }) => systemId);
}

/** What each of some machines was filled with last, and when. One that never was is not among them. */
async function coolantOf(scope: Scope, systemIds: string[]) {
  const fills = await scope
    .selectDistinctOn([loop.systemId], {
      systemId: loop.systemId,
      filledOn: fill.filledOn,
      productId: coolantProduct.id,
      name: coolantProduct.name,
    })
    .from(fill)
    .innerJoin(loopRevision, eq(loopRevision.id, fill.revisionId))
    .innerJoin(loop, eq(loop.id, loopRevision.loopId))
    .innerJoin(coolantProduct, eq(coolantProduct.id, fill.productId))
    .where(inArray(loop.systemId, systemIds))
    .orderBy(loop.systemId, desc(fill.filledOn), desc(fill.createdAt));
  return new Map(fills.map(({ systemId, ...last }) => [systemId, last]));
}
