import { and, asc, eq, gt } from 'drizzle-orm';
import type { RunEvent } from '../../core/commissioning/events.js';
import type { RunEventInput } from '../../core/commissioning/eventSchema.js';
import { refuseEntry, type Refusal } from '../../core/commissioning/rules.js';
import { replay } from '../../core/commissioning/state.js';
import { refuse } from '../../core/checking/check.js';
import { person } from '../accounts/tables.js';
import { coolantBatch, coolantProduct } from '../coolants/tables.js';
import type { Scope } from '../database/client.js';
import type { Account } from '../http/context.js';
import type { Clock } from '../http/clock.js';
import { DomainError, notFound } from '../http/errors.js';
import { bookEntry } from '../jobs/book.js';
import { tellBench } from '../instruments/commands.js';
import { aheadOf } from '../practice/clock.js';
import { pushNotice } from '../push/notices.js';
import { run, runEvent } from './tables.js';

/** Who writes into a log, and with which transaction and clock. A request has all of it. */
export interface Writer {
  readonly scope: Scope;
  readonly clock: Clock;
  readonly account: Pick<Account, 'workshopId' | 'personId' | 'personName'>;
}

/** @param after only entries with a higher number */
export async function loadEvents(scope: Scope, runId: string, after = 0): Promise<RunEvent[]> {
  const rows = await scope
    .select({ id: runEvent.id, seq: runEvent.seq, at: runEvent.happenedAt, by: person.name, body: runEvent.body })
    .from(runEvent)
    .innerJoin(person, eq(person.id, runEvent.personId))
    .where(and(eq(runEvent.runId, runId), gt(runEvent.seq, after)))
    .orderBy(asc(runEvent.seq));
  return rows.map((row) => ({ ...row, at: row.at.toISOString() }));
}

/** How far a device's clock may run ahead before its instant is not believed. */
const CLOCK_SLACK_MS = 60_000;

function happenedAt(input: RunEventInput, startedAt: Date, now: Date): Date {
  if (input.at === undefined) return now;
  const at = new Date(input.at);
  if (at.getTime() > now.getTime() + CLOCK_SLACK_MS) refuse('at', `cannot lie in the future (got ${input.at})`);
  if (at.getTime() < startedAt.getTime() - CLOCK_SLACK_MS)
    refuse('at', `cannot lie before the run began at ${startedAt.toISOString()} (got ${input.at})`);
  return at;
}

export type Appended = { readonly event: RunEvent; readonly now: string } | { readonly refusal: Refusal };

export const asSentence = (message: string): string => `${message.charAt(0).toUpperCase()}${message.slice(1)}.`;

/**
 * Adds one entry to the log, or says why not. The run's row is locked first, so that two devices number their entries
 * one after the other. An entry that is already there is not added again, and answers as it did the first time.
 */
export async function tryAppend(writer: Writer, runId: string, input: RunEventInput): Promise<Appended> {
  const { scope, account, clock } = writer;
  const [row] = await scope.select().from(run).where(eq(run.id, runId)).for('update');
  if (!row) throw notFound('run');
  const events = await loadEvents(scope, runId);
  const known = events.find(({ id }) => id === input.id);
  const now = new Date(clock.now().getTime() + (row.jobId === null ? await aheadOf(scope, runId) : 0));
  if (known) return { event: known, now: now.toISOString() };
  if (row.state === 'abandoned') throw new DomainError('refused', 'This run was abandoned; start a new one.');
  if (input.body.type === 'signed-off')
    throw new DomainError('refused', 'Sign off with its own request, so that record and dates are made with it.');
  const body =
    input.body.type === 'coolant'
      ? { ...input.body, ...(await coolantNames(scope, input.body.productId, input.body.batchId)) }
      : input.body;
  const before = replay(row.procedure, events);
  const refusal = refuseEntry(row.procedure, before, events, body, now.getTime());
  if (refusal) return { refusal };
  const event = await insertEvent(writer, {
    id: input.id,
    runId,
    seq: events.length + 1,
    at: happenedAt(input, row.startedAt, now),
    body,
    by: account.personName,
  });
  await bookEntry(writer, row.jobId, body, before, events);
  if (row.benchId !== null) await tellBench(scope, account.workshopId, row.benchId, row.procedure, [...events, event], before);
  return { event, now: now.toISOString() };
}

/** As `tryAppend`, for people: a refusal is an error with its reason. */
export async function append(writer: Writer, runId: string, input: RunEventInput): Promise<{ event: RunEvent; now: string }> {
  const done = await tryAppend(writer, runId, input);
  if ('refusal' in done) throw new DomainError('refused', asSentence(done.refusal.message), { reason: done.refusal.code });
  return done;
}

/** Names as the store has them, whatever the device sent: the record must be readable without the store. */
async function coolantNames(scope: Scope, productId: string, batchId: string | null): Promise<{ productName: string; lot: string | null }> {
  const [product] = await scope.select({ name: coolantProduct.name }).from(coolantProduct).where(eq(coolantProduct.id, productId));
  if (!product) throw notFound('coolant');
  if (batchId === null) return { productName: product.name, lot: null };
  const [batch] = await scope
    .select({ lot: coolantBatch.lot })
    .from(coolantBatch)
    .where(and(eq(coolantBatch.id, batchId), eq(coolantBatch.productId, productId)));
  if (!batch) throw notFound('coolant batch');
  return { productName: product.name, lot: batch.lot };
}

export async function insertEvent(
  { scope, account, clock }: Writer,
  entry: { id: string; runId: string; seq: number; at: Date; body: RunEvent['body']; by: string },
): Promise<RunEvent> {
  // The id comes from a device. One that another workshop used cannot be seen here and would break the key: the database answers with a conflict.
  await scope.insert(runEvent).values({
    id: entry.id,
    workshopId: account.workshopId,
    runId: entry.runId,
    seq: entry.seq,
    happenedAt: entry.at,
    personId: account.personId,
    body: entry.body,
    createdAt: clock.now(),
  });
  await pushNotice(scope, account.workshopId, { kind: 'run', runId: entry.runId, seq: entry.seq });
  return { id: entry.id, seq: entry.seq, at: entry.at.toISOString(), by: entry.by, body: entry.body };
}
