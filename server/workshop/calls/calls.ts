import { and, asc, eq, inArray, or, sql, type SQL } from 'drizzle-orm';
import { alikeDigits, digitsOfCaller } from '../../../core/workshop/calls/who.js';
import type { Owner, SystemRow } from '../../../core/workshop/machines/answers.js';
import type { CallAnswer, CallJob, CallMachine, CallRun } from '../../../core/workshop/calls/answers.js';
import { asBookedKind } from '../../../core/workshop/job-kinds/kinds.js';
import { consent, serviceJob } from '../../base/database/tables/jobs.js';
import { dueItem } from '../../base/database/tables/due-dates.js';
import { loop } from '../../base/database/tables/loops.js';
import { job, owner, system } from '../../base/database/tables/machines.js';
import { run } from '../../base/database/tables/runs.js';
import { whereIs } from '../../../core/workshop/jobs/arrival.js';
import { freshenLines } from '../machine-list/freshLines.js';
import { foundRefs, wordsIn } from '../../base/database/foundRefs.js';
import { readyToFetch } from '../jobs/comings.js';
import { appointmentsOf } from '../planning/appointments.js';
import type { Ask } from '../../base/http/context.js';

/** machines that one answer names: more are no answer on the phone */
const SHOWN = 8;
/** machines that words are looked for in more closely: those that are found by them at all */
const MOST_LOOKED_AT = 1000;
const literal = (word: string): string => `%${word.replace(/[\\%_]/gu, '\\$&')}%`;

/** Machines that somebody on the phone may mean: by the number in any form, or by every word of a name. */
export async function whoCalls(ask: Ask, who: string): Promise<CallAnswer> {
  const { scope, today, account } = ask;
  const digits = digitsOfCaller(who);
  const words = wordsIn(who);
  await freshenLines(ask);
  // the index finds who may be meant, and only they are looked at word by word
  const near = await scope
    .select({ id: system.id })
    .from(system)
    .where(
      inArray(
        system.id,
        digits === null
          ? foundRefs('machine', words, MOST_LOOKED_AT)
          : sql`(${foundRefs('machine', words, MOST_LOOKED_AT)} union select s.id from system s where s.owner_id in ${foundRefs('phone', [digits], MOST_LOOKED_AT)})`,
      ),
    );
  const called = sql`fold_text(concat_ws(' ', ${owner.name}, ${system.name}, ${system.tag}, ${owner.email}))`;
  const byWords = and(...words.map((word) => sql`${called} like fold_text(${literal(word)})`));
  const byNumber = digits === null ? undefined : sql`regexp_replace(coalesce(${owner.phone}, ''), '\\D', '', 'g') like ${`%${digits}`}`;
  const found = await scope
    .select(CALLED)
    .from(system)
    .innerJoin(owner, eq(owner.id, system.ownerId))
    .where(and(eq(system.forCourse, false), inArray(system.id, near.map(({ id }) => id)), byNumber === undefined ? byWords : or(byNumber, byWords)))
    .orderBy(sql`${system.state} = 'retired'`, sql`lower(${who.trim()}) not in (lower(${system.name}), lower(${owner.name}), lower(coalesce(${system.tag}, '')))`, asc(owner.name), asc(system.name))
    .limit(SHOWN + 1); // prettier-ignore
  const sure = digits === null ? found : [...found].sort((a, b) => alikeDigits(b.phone, who) - alikeDigits(a.phone, who));
  return { today, timeZone: account.timeZone, machines: await answersOf(ask, sure.slice(0, SHOWN)), more: found.length > SHOWN };
}

const CALLED = {
  id: system.id,
  name: system.name,
  tag: system.tag,
  state: system.state,
  owner: owner.name,
  phone: owner.phone,
  email: owner.email,
};

/** The same answers for one machine, on its page, where it is known already. */
export async function answersFor(ask: Ask, { system: own, owner: whose }: Answered): Promise<CallMachine | null> {
  const { id, name, tag, state } = own;
  return (await answersOf(ask, [{ id, name, tag, state, owner: whose.name, phone: whose.phone, email: whose.email }]))[0] ?? null;
}

interface Answered {
  readonly system: Pick<SystemRow, 'id' | 'name' | 'tag' | 'state'>;
  readonly owner: Pick<Owner, 'name' | 'phone' | 'email'>;
}

type Called = Omit<CallMachine, 'systemId' | 'loops' | 'due' | 'job' | 'ready' | 'run'> & { readonly id: string };

async function answersOf(ask: Ask, shown: readonly Called[]): Promise<CallMachine[]> {
  if (shown.length === 0) return [];
  const ids = shown.map(({ id }) => id);
  const dues = await duesOf(ask, ids);
  const jobs = await jobsOf(ask, ids);
  const runs = await runsOf(ask, ids);
  const loops = await loopsOf(ask, ids);
  const ready = await readyToFetch(ask, ids);
  return shown.map(({ id, ...each }): CallMachine => {
    const openJob = jobs.get(id) ?? null;
    const openRun = runs.get(id) ?? null;
    // a run ends when its slot does, where it was planned
    const runNow = openRun && { ...openRun, until: openRun.waits ? null : (openJob?.slot?.to ?? null) };
    return {
      systemId: id,
      ...each,
      loops: loops.get(id) ?? [],
      due: dues.get(id) ?? null,
      job: openJob,
      ready: ready.find(({ systemId }) => systemId === id) ?? null,
      run: runNow,
    };
  });
}

/** The loops of each machine: what falls due first before what was made first. */
export async function loopsOf({ scope }: Ask, ids: readonly string[]): Promise<Map<string, CallMachine['loops']>> {
  const first = sql`(select min(${dueItem.dueOn}) from ${dueItem} where ${dueItem.loopId} = ${loop.id} and ${dueItem.state} = 'open' and ${dueItem.kind} not in ('dust-clean', 'paste-renewal', 'stirring'))`;
  const rows = await scope
    .select({ systemId: loop.systemId, id: loop.id, name: loop.name })
    .from(loop)
    .where(inArray(loop.systemId, [...ids]))
    .orderBy(sql`${first} nulls last`, asc(loop.createdAt));
  return new Map(ids.map((id) => [id, rows.filter(({ systemId }) => systemId === id).map((each) => ({ id: each.id, name: each.name }))]));
}

/** The earliest date of each that is not dust. */
async function duesOf({ scope }: Ask, ids: readonly string[]): Promise<Map<string, CallMachine['due']>> {
  const rows = await scope
    .selectDistinctOn([dueItem.systemId], {
      systemId: dueItem.systemId,
      dueOn: dueItem.dueOn,
      reason: dueItem.reason,
      estimated: dueItem.estimated,
      postponed: dueItem.postponed,
    })
    .from(dueItem)
    .where(and(inArray(dueItem.systemId, [...ids]), eq(dueItem.state, 'open'), inArray(dueItem.kind, ['coolant-service', 'follow-up'])))
    .orderBy(dueItem.systemId, asc(dueItem.dueOn));
  return new Map(rows.map(({ systemId, ...due }) => [systemId, due]));
}

async function jobsOf({ scope }: Ask, ids: readonly string[]): Promise<Map<string, CallJob>> {
  const agreed: SQL<boolean> = sql`exists (select 1 from ${consent} where ${consent.jobId} = ${job.id} and ${consent.estimateNumber} = ${serviceJob.estimateNumber})`;
  const rows = await scope
    .select({
      systemId: job.systemId,
      id: job.id,
      kind: job.kind,
      neededBy: serviceJob.neededBy,
      state: job.state,
      estimate: serviceJob.estimate,
      broughtOn: serviceJob.broughtOn,
      notComeOn: serviceJob.notComeOn,
      fetchedOn: serviceJob.fetchedOn,
      consented: agreed,
    })
    .from(serviceJob)
    .innerJoin(job, eq(job.id, serviceJob.jobId))
    .where(and(inArray(job.systemId, [...ids]), inArray(job.state, ['booked', 'active', 'waiting'])))
    .orderBy(asc(job.createdAt));
  const appointments = await appointmentsOf(scope, rows.map(({ id }) => id)); // prettier-ignore
  return new Map(
    rows.map(({ systemId, kind, state, fetchedOn, ...each }) => [
      systemId,
      { ...each, kind: asBookedKind(kind), where: whereIs(state, { ...each, fetchedOn }), slot: appointments.get(each.id) ?? null },
    ]),
  );
}

async function runsOf({ scope }: Ask, ids: readonly string[]): Promise<Map<string, CallRun>> {
  const rows = await scope
    .select({ systemId: loop.systemId, id: run.id, waits: run.waits })
    .from(run)
    .innerJoin(loop, eq(loop.id, run.loopId))
    .where(and(inArray(loop.systemId, [...ids]), eq(run.state, 'active'), sql`${run.jobId} is not null`));
  return new Map(rows.map(({ systemId, id, waits }) => [systemId, { id, until: null, waits }]));
}
