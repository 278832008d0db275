import { say } from '../../../core/base/words/say.js';
import type { Scope } from '../../base/database/client.js';
import { looksOf } from '../fallout/looks.js';
import { insideOf } from '../../machine/loops/inside.js';
import { and, asc, desc, eq, getTableColumns, inArray, sql } from 'drizzle-orm';
import { escalationOf } from '../../../core/workshop/due-dates/escalation.js';
import { attentionOf, isInRun } from '../../../core/workshop/due-dates/attention.js';
import type { SystemEdit, SystemInput } from '../../../core/workshop/machines/schema.js';
import { fill, isReal, run } from '../../base/database/tables/runs.js';
import { dueItem } from '../../base/database/tables/due-dates.js';

import { usagePage } from '../usage/usage.js';
import { ownPolicies, ownPolicy, setPolicy } from '../due-dates/policies.js';
import { endLinks } from '../owner-links/links.js';
import { redate } from '../due-dates/redate.js';
import { idFrom, type Ask } from '../../base/http/context.js';
import { DomainError, notFound, stale } from '../../base/http/errors.js';
import { isInside, loop, loopRevision } from '../../base/database/tables/loops.js';
import { told } from './told.js';
import { owner, system } from '../../base/database/tables/machines.js';

export async function addSystem({ scope, account }: Ask, input: SystemInput) {
  const { policy, ...values } = input;
  const [made] = await scope
    .insert(system)
    .values({ workshopId: account.workshopId, ...values })
    .returning();
  const row = made as NonNullable<typeof made>;
  await setPolicy(scope, account.workshopId, { systemId: row.id }, policy);
  return { ...told(row), policy };
}

/** Where a machine stands that was given up and comes back: in service where something is inside or was, planned where it never was filled. */
async function stateBack({ scope }: Ask, systemId: string): Promise<'in-service' | 'planned'> {
  const [own] = await scope
    .select({ id: loop.id })
    .from(loop)
    .leftJoin(loopRevision, eq(loopRevision.loopId, loop.id))
    .leftJoin(fill, eq(fill.revisionId, loopRevision.id))
    .where(and(eq(loop.systemId, systemId), sql`(${fill.id} is not null or ${loop.cameFilled} is not null)`))
    .limit(1);
  return own ? 'in-service' : 'planned';
}

/** Nothing falls due on a machine that was given up; what was closed for that alone is open again when it comes back. */
async function closeOrReopenDues({ scope, account, clock }: Ask, systemId: string, isRetired: boolean): Promise<void> {
  const own = eq(dueItem.systemId, systemId);
  if (isRetired) {
    const outcome = { why: 'machine-retired' } as const;
    await scope
      .update(dueItem)
      .set({ state: 'closed', outcome, closedAt: clock.now(), closedBy: account.personId })
      .where(and(own, eq(dueItem.state, 'open')));
  } else
    await scope
      .update(dueItem)
      .set({ state: 'open', outcome: null, closedAt: null, closedBy: null })
      .where(and(own, eq(dueItem.state, 'closed'), sql`${dueItem.outcome} ->> 'why' = 'machine-retired'`));
}

export async function editSystem(ask: Ask, input: SystemEdit) {
  const { scope, request, account } = ask;
  const id = idFrom(request, 'id', 'system');
  const { version, policy, ...values } = input;
  const [now] = await scope.select().from(system).where(eq(system.id, id));
  if (!now) throw notFound('system');
  if (now.version !== version) throw stale('system', input, { ...told(now), policy: await ownPolicy(scope, { systemId: id }) });
  if (values.state !== now.state && (isInRun(values.state) || isInRun(now.state))) {
    throw new DomainError(
      'refused',
      isInRun(now.state)
        ? say('A run is in progress on this machine; finish it first.')
        : say('A machine comes onto the bench by starting a run.'),
    );
  }
  const comesBack = now.state === 'retired' && values.state !== 'retired';
  const [after] = await scope
    .update(system)
    .set({ ...values, ...(comesBack ? { state: await stateBack(ask, id) } : {}), version: version + 1 })
    .where(and(eq(system.id, id), eq(system.version, version)))
    .returning();
  if (!after) throw new DomainError('conflict', say('Somebody else saved at the same moment; look again.'));
  await setPolicy(scope, account.workshopId, { systemId: id }, policy);
  if ((values.state === 'retired') !== (now.state === 'retired')) await closeOrReopenDues(ask, id, values.state === 'retired');
  // whoever had it before sees it no more
  if (values.ownerId !== now.ownerId) await endLinks(scope, id, ask.clock.now());
  await redate(scope, { systemId: id });
  return { ...told(after), policy };
}

/** The loops of a machine; what one came filled with counts until it is filled here. */
async function loopsOf(scope: Scope, systemId: string) {
  const rows = await scope
    .select({
      id: loop.id,
      name: loop.name,
      coolantProductId: loop.coolantProductId,
      cameFilled: loop.cameFilled,
      version: loop.version,
      filledOn: sql<
        string | null
      >`(select max(f.filled_on) from fill f join loop_revision r on r.id = f.revision_id where r.loop_id = loop.id)`,
      isLookedAt: sql<boolean>`exists (select 1 from fallout_look k where k.loop_id = loop.id)`,
    })
    .from(loop)
    .where(eq(loop.systemId, systemId))
    .orderBy(asc(loop.createdAt));
  return rows.map((each) => ({ ...each, cameFilled: each.filledOn === null ? each.cameFilled : null }));
}

export async function readSystem(ask: Ask) {
  const { scope, request } = ask;
  const id = idFrom(request, 'id', 'system');
  const [row] = await scope.select({ system, owner }).from(system).innerJoin(owner, eq(owner.id, system.ownerId)).where(eq(system.id, id));
  if (!row) throw notFound('system');
  const loops = await loopsOf(scope, id);
  const loopIds = loops.map((each) => each.id);
  const revisions =
    loopIds.length === 0
      ? []
      : await scope
          .selectDistinctOn([loopRevision.loopId], {
            loopId: loopRevision.loopId,
            number: loopRevision.number,
            kind: loopRevision.kind,
            volumeMl: loopRevision.volumeMl,
            volumeSdMl: loopRevision.volumeSdMl,
            file: loopRevision.file,
          })
          .from(loopRevision)
          .where(and(inArray(loopRevision.loopId, loopIds), isInside))
          .orderBy(loopRevision.loopId, desc(loopRevision.number));
  const dues = await scope
    .select({
      ...getTableColumns(dueItem),
      jobId: sql<string | null>`(select job.id from service_job join job on job.id = service_job.job_id
        where service_job.due_item_id = due_item.id and job.state in ('booked', 'waiting', 'active') limit 1)`,
    })
    .from(dueItem)
    .where(and(eq(dueItem.systemId, id), eq(dueItem.state, 'open')))
    .orderBy(asc(dueItem.dueOn));
  const runs =
    loopIds.length === 0
      ? []
      : await scope
          .select({ id: run.id, loopId: run.loopId, state: run.state, startedAt: run.startedAt })
          .from(run)
          .where(and(inArray(run.loopId, loopIds), isReal))
          .orderBy(desc(run.startedAt));
  const filledOn = loops.reduce<string | null>((last, each) => (each.filledOn !== null && (last === null || each.filledOn > last) ? each.filledOn : last), null); // prettier-ignore
  const revisionOf = (loopId: string) => revisions.find((revision) => revision.loopId === loopId) ?? null;
  // one after the other: a transaction asks one thing at a time
  const insides: (Awaited<ReturnType<typeof insideOf>> | null)[] = [];
  for (const { id: loopId } of loops) {
    const revision = revisionOf(loopId);
    insides.push(revision && (await insideOf(scope, loopId, revision.file)));
  }
  const looks = await looksOf(
    scope,
    loops.filter(({ isLookedAt }) => isLookedAt).map(({ id: loopId }) => loopId),
  );
  const policies = await ownPolicies(scope, { systemId: id, ownerId: row.owner.id });
  return {
    system: { ...told(row.system), policy: policies.system },
    owner: { ...told(row.owner), policy: policies.owner },
    attention: attentionOf(
      row.system.state,
      dues.map(({ kind, dueOn, postponed, clocks }) => ({ kind: kind, dueOn, postponed, firstDueOn: clocks[0]?.dueOn ?? null })),
      ask.today,
    ),
    loops: loops.map(({ filledOn: ownFilledOn, isLookedAt: _, ...each }, index) => ({
      ...each,
      fallout: { filledOn: ownFilledOn, looks: looks(each.id) },
      revision: revisionOf(each.id),
      inside: insides[index] ?? null,
      runs: runs.filter(({ loopId }) => loopId === each.id),
    })),
    dues: dues.map((due) => ({ ...due, escalation: escalationOf({ ...due, firstDueOn: due.clocks[0]?.dueOn ?? null }) })),
    usage: await usagePage(scope, id, row.system, filledOn),
  };
}
