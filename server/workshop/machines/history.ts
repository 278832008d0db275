import type { HistoryEntry, HistoryPiece } from '../../../core/workshop/machines/answers.js';
import { historyPlaceText, type HistoryPlace } from '../../../core/workshop/machines/historyQuery.js';
import { and, desc, eq, inArray, notInArray, or, sql, type SQL } from 'drizzle-orm';
import type { AnyPgColumn } from 'drizzle-orm/pg-core';
import type { DueKind } from '../../../core/workshop/due-dates/attention.js';
import { REVISION_KINDS } from '../../../core/machine/loop-file/revisionKinds.js';
import { JOB_WORDS } from '../../../core/workshop/job-kinds/kinds.js';
import { capital, say, sayWord } from '../../../core/base/words/say.js';
import { findingWords, outcomeWords, reasonWords } from '../../../core/edge/words/dates.js';
import { formatDay } from '../../../core/base/units/dates.js';
import { formatIn, formatMl } from '../../../core/base/units/display.js';
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

/** A piece of a machine's history: what lies before a place in it, the newest first, and no more than some. */
interface Piece {
  readonly systemId: string;
  readonly before: HistoryPlace | null;
  readonly limit: number;
}
type Source = (scope: Scope, piece: Piece) => Promise<HistoryEntry[]>;

/** An instant as entries are sorted by it: as text, like the calendar days among them. */
const instantText = (instant: AnyPgColumn): SQL<string> =>
  sql<string>`to_char(${instant} at time zone 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS.MS"Z"')`;

const isBefore = (piece: Piece, at: SQL<string>, id: AnyPgColumn): SQL | undefined =>
  piece.before === null ? undefined : sql`(${at} collate "C", ${id}) < (${piece.before[0]}, ${piece.before[1]}::uuid)`;
const newestFirst = (at: SQL<string>, id: AnyPgColumn): SQL[] => [sql`${at} collate "C" desc`, desc(id)];

const NONE = { runId: null, colour: null };
const STATE_WORDS: Record<string, string> = { booked: ', booked', active: ', in progress', cancelled: ', abandoned', done: '' };

const jobs: Source = async (scope, piece) => {
  const at = sql<string>`coalesce(${instantText(run.signedOffAt)}, ${job.doneOn}::text, ${instantText(job.createdAt)})`;
  const rows = await scope
    .select({
      job,
      at,
      by: person.name,
      runId: run.id,
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
    .where(and(eq(job.systemId, piece.systemId), isBefore(piece, at, job.id)))
    .orderBy(...newestFirst(at, job.id))
    .limit(piece.limit);
  return rows.map((row) => ({
    id: row.job.id,
    at: row.at,
    kind: row.runId ? 'run' : 'job',
    title: capital(`${sayWord(JOB_WORDS[row.job.kind]) ?? row.job.kind}${sayWord(STATE_WORDS[row.job.state]) ?? ''}`),
    text: [volumes(row), row.job.note].filter(Boolean).join('. '),
    by: row.job.doneBy || (row.job.importId ? null : row.by),
    runId: row.runId,
    colour: row.colour,
    open: row.job.state === 'active',
  }));
};

const revisions: Source = async (scope, piece) => {
  const at = instantText(loopRevision.createdAt);
  const rows = await scope
    .select({
      id: loopRevision.id,
      at,
      number: loopRevision.number,
      kind: loopRevision.kind,
      reason: loopRevision.reason,
      loopName: loop.name,
      by: person.name,
    })
    .from(loopRevision)
    .innerJoin(loop, eq(loop.id, loopRevision.loopId))
    .innerJoin(person, eq(person.id, loopRevision.personId))
    .where(and(eq(loop.systemId, piece.systemId), isBefore(piece, at, loopRevision.id)))
    .orderBy(...newestFirst(at, loopRevision.id))
    .limit(piece.limit);
  return rows.map((row) => ({
    id: row.id,
    at: row.at,
    kind: 'revision',
    title: say('{loopName}: revision {number}, {kind}', { loopName: row.loopName, number: row.number, kind: REVISION_KINDS[row.kind] }),
    text: row.reason,
    by: row.by,
    ...NONE,
  }));
};

const findings: Source = async (scope, piece) => {
  const at = instantText(finding.foundAt);
  const rows = await scope
    .select({ id: finding.id, fact: finding.fact, at })
    .from(finding)
    .where(and(eq(finding.systemId, piece.systemId), isBefore(piece, at, finding.id)))
    .orderBy(...newestFirst(at, finding.id))
    .limit(piece.limit);
  return rows.map((row) => ({
    id: row.id,
    at: row.at,
    kind: 'finding',
    title: say('Finding'),
    text: findingWords(row.fact),
    by: null,
    ...NONE,
  }));
};

/** What ends a settling check that something else in the history tells of. */
const TOLD_ELSEWHERE = ['filled-anew', 'topped-up', 'loop-ended', 'machine-retired'];

/** Closed dates that have something to tell of their own. */
const isTold = or(
  eq(dueItem.kind, 'follow-up'),
  and(eq(dueItem.kind, 'settling-check'), notInArray(sql`coalesce(${dueItem.outcome} ->> 'why', '')`, TOLD_ELSEWHERE)),
  and(inArray(dueItem.kind, ['dust-clean', 'paste-renewal', 'stirring']), sql`${dueItem.outcome} ->> 'why' = 'done'`),
);

const CLOSED_TITLES: Readonly<Record<Exclude<DueKind, 'coolant-service'>, string>> = {
  'settling-check': 'Settling check',
  'dust-clean': 'Fins and filters cleaned',
  'paste-renewal': 'Paste renewed',
  stirring: 'Stirred',
  'follow-up': 'Follow-up closed',
};

const closedDates: Source = async (scope, piece) => {
  const at = instantText(dueItem.closedAt);
  const rows = await scope
    .select({ due: dueItem, at, by: person.name })
    .from(dueItem)
    .leftJoin(person, eq(person.id, dueItem.closedBy))
    .where(and(eq(dueItem.systemId, piece.systemId), eq(dueItem.state, 'closed'), isTold, isBefore(piece, at, dueItem.id)))
    .orderBy(...newestFirst(at, dueItem.id))
    .limit(piece.limit);
  return rows.flatMap(({ due, at: closedAt, by }): HistoryEntry[] => {
    if (due.kind === 'coolant-service') return [];
    const isFollowUp = due.kind === 'follow-up';
    const outcome = due.outcome ? [outcomeWords(due.outcome)] : [];
    return [
      {
        id: due.id,
        at: closedAt,
        kind: isFollowUp ? 'follow-up' : 'check',
        title: sayWord(CLOSED_TITLES[due.kind]) ?? '',
        text: [...(isFollowUp ? [reasonWords(due.reason)] : []), ...outcome].map(capital).join('. '),
        by,
        ...NONE,
      },
    ];
  });
};

const postponements: Source = async (scope, piece) => {
  const at = instantText(postponement.createdAt);
  const rows = await scope
    .select({ row: postponement, at, by: person.name })
    .from(postponement)
    .innerJoin(dueItem, eq(dueItem.id, postponement.dueItemId))
    .innerJoin(person, eq(person.id, postponement.personId))
    .where(and(eq(dueItem.systemId, piece.systemId), isBefore(piece, at, postponement.id)))
    .orderBy(...newestFirst(at, postponement.id))
    .limit(piece.limit);
  return rows.map(({ row, at: putOffAt, by }) => ({
    id: row.id,
    at: putOffAt,
    kind: 'postponed',
    title: say('Put off until {formatDay}', { formatDay: formatDay(row.until) }),
    text: say('{replace}. The risk was told.', { replace: row.reason.replace(/\.+$/, '') }),
    by,
    ...NONE,
  }));
};

const readings: Source = async (scope, piece) => {
  const at = instantText(baseline.takenAt);
  const rows = await scope
    .select({ id: baseline.id, at, reading: baseline.reading, runId: baseline.runId, before: baseline.before })
    .from(baseline)
    .innerJoin(loopRevision, eq(loopRevision.id, baseline.revisionId))
    .innerJoin(loop, eq(loop.id, loopRevision.loopId))
    .where(and(eq(loop.systemId, piece.systemId), isBefore(piece, at, baseline.id)))
    .orderBy(...newestFirst(at, baseline.id))
    .limit(piece.limit);
  return rows.map(({ id, at: takenAt, reading: { setting, sensor, partC, roomC, flowLph }, runId, before }) => ({
    id,
    at: takenAt,
    kind: 'reading',
    title: before ? say('Measured before the service, {setting}', { setting }) : say('Measured, {setting}', { setting }),
    text: say('{sensor} {rise} above the room{flow}', {
      sensor,
      rise: formatIn('K', partC - roomC, 1),
      flow: flowLph === null ? '' : `, ${formatIn('L/h', flowLph)}`,
    }),
    by: null,
    runId,
    colour: null,
  }));
};

const photographs: Source = async (scope, piece) => {
  const at = instantText(photo.createdAt);
  const rows = await scope
    .select({ id: photo.id, at, caption: photo.caption, by: person.name })
    .from(photo)
    .innerJoin(person, eq(person.id, photo.personId))
    .where(and(eq(photo.systemId, piece.systemId), isBefore(piece, at, photo.id)))
    .orderBy(...newestFirst(at, photo.id))
    .limit(piece.limit);
  return rows.map(({ id, at: takenAt, caption, by }) => ({
    id,
    at: takenAt,
    kind: 'photo',
    title: say('Photograph'),
    text: caption,
    by,
    photoId: id,
    ...NONE,
  }));
};

const messages: Source = async (scope, piece) => {
  const at = instantText(message.createdAt);
  const rows = await scope
    .select({ id: message.id, at, subject: message.subject, state: message.state, by: person.name })
    .from(message)
    .leftJoin(person, eq(person.id, message.personId))
    .where(and(eq(message.systemId, piece.systemId), isBefore(piece, at, message.id)))
    .orderBy(...newestFirst(at, message.id))
    .limit(piece.limit);
  return rows.map(({ id, at: writtenAt, subject, state, by }) => ({
    id,
    at: writtenAt,
    kind: 'message',
    title: say('Message {say}', { say: state === 'sent' ? say('sent') : state === 'failed' ? say('could not be sent') : say('waits') }),
    text: subject,
    by,
    ...NONE,
  }));
};

const SOURCES: readonly Source[] = [jobs, revisions, findings, closedDates, postponements, readings, photographs, messages];

/** entries that one piece brings */
const EACH_PIECE = 60;

/** What happened to a system, the newest first: a piece of it, and where the next one begins. */
export async function systemHistory({ scope }: Pick<Ask, 'scope'>, systemId: string, before: HistoryPlace | null): Promise<HistoryPiece> {
  const piece = { systemId, before, limit: EACH_PIECE + 1 };
  const entries: HistoryEntry[] = [];
  for (const source of SOURCES) entries.push(...(await source(scope, piece)));
  entries.sort((a, b) => (a.at === b.at ? (a.id < b.id ? 1 : -1) : a.at < b.at ? 1 : -1));
  const shown = entries.slice(0, EACH_PIECE);
  const last = entries.length > EACH_PIECE ? shown.at(-1) : undefined;
  return { entries: shown, before: last ? historyPlaceText([last.at, last.id]) : null };
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
