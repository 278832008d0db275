import type { HistoryEntry } from '../../../core/workshop/machines/answers.js';
import { and, desc, eq } from 'drizzle-orm';
import { REVISION_KINDS } from '../../../core/machine/loop-file/revisionKinds.js';
import { JOB_WORDS } from '../../../core/workshop/jobs/kinds.js';
import { capital, say, sayWord } from '../../../core/base/words/say.js';
import { findingWords, outcomeWords, reasonWords } from '../../../core/edge/words/dates.js';
import { formatDay } from '../../../core/base/units/dates.js';
import { formatMl } from '../../../core/base/units/display.js';
import { person } from '../../base/database/tables/people.js';
import { baseline, fill, run } from '../../base/database/tables/runs.js';
import { message } from '../../base/database/tables/messages.js';
import { photo } from '../../base/database/tables/photos.js';
import { coolantProduct } from '../../base/database/tables/coolants.js';
import { dueItem, postponement } from '../../base/database/tables/due-dates.js';
import type { Scope } from '../../base/database/client.js';
import type { Ask } from '../../base/http/context.js';
import { loop, loopRevision } from '../../base/database/tables/loops.js';
import { finding, job } from '../../base/database/tables/machines.js';

type Source = (scope: Scope, systemId: string) => Promise<HistoryEntry[]>;

const NONE = { runId: null, colour: null };
const STATE_WORDS: Record<string, string> = { booked: ', booked', active: ', in progress', cancelled: ', abandoned', done: '' };

const jobs: Source = async (scope, systemId) => {
  const rows = await scope
    .select({
      job,
      by: person.name,
      runId: run.id,
      signedOffAt: run.signedOffAt,
      pouredMl: fill.pouredMl,
      drainedMl: fill.drainedMl,
      rinses: fill.rinses,
      rinseMl: fill.rinseMl,
      coolantName: coolantProduct.name,
      colour: coolantProduct.colour,
    })
    .from(job)
    .innerJoin(person, eq(person.id, job.personId))
    .leftJoin(run, eq(run.jobId, job.id))
    .leftJoin(fill, eq(fill.jobId, job.id))
    .leftJoin(coolantProduct, eq(coolantProduct.id, fill.productId))
    .where(eq(job.systemId, systemId));
  return rows.map((row) => ({
    id: row.job.id,
    at: row.signedOffAt?.toISOString() ?? row.job.doneOn ?? row.job.createdAt.toISOString(),
    kind: row.runId ? 'run' : 'job',
    title: capital(`${sayWord(JOB_WORDS[row.job.kind]) ?? row.job.kind}${sayWord(STATE_WORDS[row.job.state]) ?? ''}`),
    text: [volumes(row), row.job.note].filter(Boolean).join('. '),
    by: row.job.doneBy || (row.job.importId ? null : row.by),
    runId: row.runId,
    colour: row.colour,
    open: row.job.state === 'active',
  }));
};

const revisions: Source = async (scope, systemId) => {
  const rows = await scope
    .select({
      id: loopRevision.id,
      at: loopRevision.createdAt,
      number: loopRevision.number,
      kind: loopRevision.kind,
      reason: loopRevision.reason,
      loopName: loop.name,
      by: person.name,
    })
    .from(loopRevision)
    .innerJoin(loop, eq(loop.id, loopRevision.loopId))
    .innerJoin(person, eq(person.id, loopRevision.personId))
    .where(eq(loop.systemId, systemId));
  return rows.map((row) => ({
    id: row.id,
    at: row.at.toISOString(),
    kind: 'revision',
    title: say('{loopName}: revision {number}, {kind}', { loopName: row.loopName, number: row.number, kind: REVISION_KINDS[row.kind] }),
    text: row.reason,
    by: row.by,
    ...NONE,
  }));
};

const findings: Source = async (scope, systemId) => {
  const rows = await scope.select().from(finding).where(eq(finding.systemId, systemId)).orderBy(desc(finding.foundAt));
  return rows.map((row) => ({
    id: row.id,
    at: row.foundAt.toISOString(),
    kind: 'finding',
    title: say('Finding'),
    text: findingWords(row.fact),
    by: null,
    ...NONE,
  }));
};

type ClosedDate = typeof dueItem.$inferSelect;

/** How a date that was closed stands in the history; null where something else there tells of it. */
function closedEntry(due: ClosedDate): Pick<HistoryEntry, 'kind' | 'title' | 'text'> | null {
  const outcome = due.outcome ? outcomeWords(due.outcome) : '';
  switch (due.kind) {
    case 'settling-check':
      return due.outcome && ['filled-anew', 'topped-up', 'loop-ended', 'machine-retired'].includes(due.outcome.why)
        ? null
        : { kind: 'check', title: say('Settling check'), text: capital(outcome) };
    case 'dust-clean':
      return due.outcome?.why === 'done' ? { kind: 'check', title: say('Fins and filters cleaned'), text: capital(outcome) } : null;
    case 'paste-renewal':
      return due.outcome?.why === 'done' ? { kind: 'check', title: say('Paste renewed'), text: capital(outcome) } : null;
    case 'stirring':
      return due.outcome?.why === 'done' ? { kind: 'check', title: say('Stirred'), text: capital(outcome) } : null;
    case 'follow-up':
      return {
        kind: 'follow-up',
        title: say('Follow-up closed'),
        text: [reasonWords(due.reason), ...(outcome ? [outcome] : [])].map(capital).join('. '),
      };
    default:
      return null;
  }
}

const closedDates: Source = async (scope, systemId) => {
  const rows = await scope
    .select({ due: dueItem, by: person.name })
    .from(dueItem)
    .leftJoin(person, eq(person.id, dueItem.closedBy))
    .where(and(eq(dueItem.systemId, systemId), eq(dueItem.state, 'closed')));
  return rows.flatMap(({ due, by }) => {
    const told = closedEntry(due);
    return told ? [{ id: due.id, at: (due.closedAt as Date).toISOString(), by, ...told, ...NONE }] : [];
  });
};

const postponements: Source = async (scope, systemId) => {
  const rows = await scope
    .select({ row: postponement, by: person.name })
    .from(postponement)
    .innerJoin(dueItem, eq(dueItem.id, postponement.dueItemId))
    .innerJoin(person, eq(person.id, postponement.personId))
    .where(eq(dueItem.systemId, systemId));
  return rows.map(({ row, by }) => ({
    id: row.id,
    at: row.createdAt.toISOString(),
    kind: 'postponed',
    title: say('Put off until {formatDay}', { formatDay: formatDay(row.until) }),
    text: say('{replace}. The risk was told.', { replace: row.reason.replace(/\.+$/, '') }),
    by,
    ...NONE,
  }));
};

const readings: Source = async (scope, systemId) => {
  const rows = await scope
    .select({ id: baseline.id, at: baseline.takenAt, reading: baseline.reading, runId: baseline.runId, before: baseline.before })
    .from(baseline)
    .innerJoin(loopRevision, eq(loopRevision.id, baseline.revisionId))
    .innerJoin(loop, eq(loop.id, loopRevision.loopId))
    .where(eq(loop.systemId, systemId));
  return rows.map(({ id, at, reading: { setting, sensor, partC, roomC, flowLph }, runId, before }) => ({
    id,
    at: at.toISOString(),
    kind: 'reading',
    title: before ? say('Measured before the service, {setting}', { setting }) : say('Measured, {setting}', { setting }),
    text: say('{sensor} {roomC} K above the room{null}', {
      sensor,
      roomC: (partC - roomC).toFixed(1),
      null: flowLph === null ? '' : `, ${Math.round(flowLph)} L/h`,
    }),
    by: null,
    runId,
    colour: null,
  }));
};

const photographs: Source = async (scope, systemId) => {
  const rows = await scope
    .select({ id: photo.id, at: photo.createdAt, caption: photo.caption, by: person.name })
    .from(photo)
    .innerJoin(person, eq(person.id, photo.personId))
    .where(eq(photo.systemId, systemId));
  return rows.map(({ id, at, caption, by }) => ({
    id,
    at: at.toISOString(),
    kind: 'photo',
    title: say('Photograph'),
    text: caption,
    by,
    photoId: id,
    ...NONE,
  }));
};

const messages: Source = async (scope, systemId) => {
  const rows = await scope
    .select({ id: message.id, at: message.createdAt, subject: message.subject, state: message.state, by: person.name })
    .from(message)
    .leftJoin(person, eq(person.id, message.personId))
    .where(eq(message.systemId, systemId));
  return rows.map(({ id, at, subject, state, by }) => ({
    id,
    at: at.toISOString(),
    kind: 'message',
    title: say('Message {say}', { say: state === 'sent' ? say('sent') : state === 'failed' ? say('could not be sent') : say('waits') }),
    text: subject,
    by,
    ...NONE,
  }));
};

const SOURCES: readonly Source[] = [jobs, revisions, findings, closedDates, postponements, readings, photographs, messages];

/** Everything that happened to a system, newest first. */
export async function systemHistory({ scope }: Pick<Ask, 'scope'>, systemId: string): Promise<HistoryEntry[]> {
  const entries: HistoryEntry[] = [];
  for (const source of SOURCES) entries.push(...(await source(scope, systemId)));
  return entries.sort((a, b) => b.at.localeCompare(a.at));
}

interface Volumes {
  readonly pouredMl: number | null;
  readonly drainedMl: number | null;
  readonly rinses: number | null;
  readonly rinseMl: number | null;
  readonly coolantName: string | null;
}

function volumes(row: Volumes): string {
  if (row.pouredMl === null) return '';
  const out = row.drainedMl === null ? '' : say('{formatMl} out, ', { formatMl: formatMl(row.drainedMl) });
  const rinsed =
    row.rinses === null
      ? ''
      : say('{rinses} {rinses2} of {formatMl}, ', {
          rinses: row.rinses,
          rinses2: row.rinses === 1 ? 'rinse' : 'rinses',
          formatMl: formatMl(row.rinseMl ?? 0),
        });
  return say('{out}{rinsed}{formatMl} of {coolantName} in', {
    out,
    rinsed,
    formatMl: formatMl(row.pouredMl),
    coolantName: row.coolantName ?? 'coolant',
  });
}
