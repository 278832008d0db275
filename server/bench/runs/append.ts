import { tellBench } from '../commands/commands.js';
import { aheadOf } from './practised.js';
import { and, eq } from 'drizzle-orm';
import { refusal, type Refusal } from '../../../core/bench/runs/entry.js';
import type { RunEvent, RunEventInput } from '../../../core/bench/runs/log.js';
import { ownersStage, type OwnersStage } from '../../../core/bench/runs/ownersStage.js';
import type { Coolant } from '../../../core/bench/runs/state.js';
import type { Procedure } from '../../../core/bench/runs/procedure.js';
import { refuseEntry } from '../../../core/bench/runs/rules.js';
import { movesOfEntry } from '../../../core/bench/simulated-bench/movesOfEntry.js';
import { refuse } from '../../../core/base/checking/input.js';
import { refusalWords } from '../../../core/edge/words/bench.js';
import { asSentence, say } from '../../../core/base/words/say.js';
import type { Scope } from '../../base/database/client.js';
import { coolantLot, coolantProduct } from '../../base/database/tables/coolants.js';
import { run, runEvent } from '../../base/database/tables/runs.js';
import { DomainError, notFound } from '../../base/http/errors.js';
import { pushNotice } from '../../base/push/notices.js';
import { makerOf, type Maker } from '../../workshop/people/maker.js';
import { keepContents } from './contents.js';
import { book, bookingOf } from './book.js';
import type { Writer } from './writer.js';
import { foldOf } from './folds.js';

/** How far a device's clock may run ahead before its instant is not believed. */
const CLOCK_SLACK_MS = 60_000;

function happenedAt(input: RunEventInput, startedAt: Date, now: Date): Date {
  if (input.at === undefined) return now;
  const at = new Date(input.at);
  if (at.getTime() > now.getTime() + CLOCK_SLACK_MS) refuse('at', say('cannot lie in the future (got {at})', { at: input.at }));
  if (at.getTime() < startedAt.getTime() - CLOCK_SLACK_MS)
    refuse(
      'at',
      say('cannot lie before the run began at {toISOString} (got {at})', { toISOString: startedAt.toISOString(), at: input.at }),
    );
  return at;
}

export type Appended = { readonly event: RunEvent; readonly now: string } | { readonly refusal: Refusal; readonly procedure: Procedure };

/**
 * Adds one entry to the log, or says why not. The run's row is locked first, so that two devices number their entries
 * one after the other. An entry that is already there is not added again, and answers as it did the first time.
 */
export async function tryAppend(writer: Writer, runId: string, input: RunEventInput): Promise<Appended> {
  const { scope, account, clock } = writer;
  const [row] = await scope
    .select({ jobId: run.jobId, loopId: run.loopId, benchId: run.benchId, state: run.state, startedAt: run.startedAt })
    .from(run)
    .where(eq(run.id, runId))
    .for('update');
  if (!row) throw notFound('run');
  const now = new Date(clock.now().getTime() + (row.jobId === null ? await aheadOf(scope, runId) : 0));
  const coolant =
    input.body.type === 'coolant' ? { ...input.body, ...(await coolantNames(scope, input.body.productId, input.body.lotId)) } : null;
  const maker = await makerOf(scope, account, input.madeBy);
  const fold = await foldOf(scope, runId);
  const { procedure } = fold;
  const known = fold.find(input.id);
  if (known) return { event: known, now: now.toISOString() };
  if (row.state === 'abandoned') throw new DomainError('refused', say('This run was abandoned; start a new one.'));
  if (input.body.type === 'waits' || input.body.type === 'resumed')
    return { refusal: refusal('unsafe', { why: 'wait-elsewhere' }), procedure };
  if (input.body.type === 'signed-off')
    throw new DomainError('refused', say('Sign off with its own request, so that record and dates are made with it.'));
  const body = coolant ?? input.body;
  const refused = refuseEntry(procedure, fold.state, fold.events, body, now.getTime());
  if (refused) return { refusal: refused, procedure };
  const booking = row.jobId === null ? null : bookingOf(input.id, body, fold);
  const stageWas = ownersStage(fold.state, now.getTime());
  const pumpWasOn = fold.state.pump?.on === true;
  const event = await insertEvent(writer, {
    id: input.id,
    runId,
    seq: fold.events.length + 1,
    at: happenedAt(input, row.startedAt, now),
    body,
    maker,
  });
  const after = fold.push(event).state;
  await keepContents(scope, { ...row, workshopId: account.workshopId, runId, seq: event.seq, procedure }, after.contents);
  await keepStage(scope, runId, stageWas, ownersStage(after, now.getTime()));
  const told = { pumpWasOn, pumpIsOn: after.pump?.on === true, moves: movesOfEntry(body, after, procedure) };
  if (booking && row.jobId !== null) await book(writer, row.jobId, booking);
  if (row.benchId !== null) await tellBench(scope, account.workshopId, row.benchId, told);
  return { event, now: now.toISOString() };
}

/** As `tryAppend`, for people: a refusal is an error with its reason. */
export async function append(writer: Writer, runId: string, input: RunEventInput): Promise<{ event: RunEvent; now: string }> {
  const done = await tryAppend(writer, runId, input);
  if ('refusal' in done) throw refusedBy(done.procedure, done.refusal);
  return done;
}

export const refusedBy = (procedure: Procedure, refused: Refusal): DomainError =>
  new DomainError('refused', asSentence(refusalWords(procedure, refused)), { reason: refused.code });

/** Names as the store has them, whatever the device sent: the record must be readable without the store. */
async function coolantNames(
  scope: Scope,
  productId: string,
  lotId: string | null,
): Promise<Pick<Coolant, 'productName' | 'lot' | 'product'>> {
  const [product] = await scope
    .select({
      name: coolantProduct.name,
      form: coolantProduct.form,
      targetFraction: coolantProduct.targetFraction,
      leastFraction: coolantProduct.leastFraction,
    })
    .from(coolantProduct)
    .where(eq(coolantProduct.id, productId));
  if (!product) throw notFound('coolant');
  const { name: productName, ...poured } = product;
  if (lotId === null) return { productName, lot: null, product: poured };
  const [lot] = await scope
    .select({ lot: coolantLot.lot })
    .from(coolantLot)
    .where(and(eq(coolantLot.id, lotId), eq(coolantLot.productId, productId)));
  if (!lot) throw notFound('coolant lot');
  return { productName, lot: lot.lot, product: poured };
}

/** What an owner is told of a run, where it changed. */
async function keepStage(scope: Scope, runId: string, was: OwnersStage, is: OwnersStage): Promise<void> {
  if (was.stage === is.stage && was.endsAt === is.endsAt) return;
  await scope
    .update(run)
    .set({ stage: is.stage, stageEndsAt: is.endsAt === null ? null : new Date(is.endsAt) })
    .where(eq(run.id, runId));
}

export async function insertEvent(
  { scope, account, clock }: Writer,
  entry: { id: string; runId: string; seq: number; at: Date; body: RunEvent['body']; maker?: Maker },
): Promise<RunEvent> {
  const { personId, personName, deliverer } = entry.maker ?? { ...account, deliverer: null };
  // The id comes from a device. One that another workshop used cannot be seen here and would break the key: the database answers with a conflict.
  await scope.insert(runEvent).values({
    id: entry.id,
    workshopId: account.workshopId,
    runId: entry.runId,
    seq: entry.seq,
    happenedAt: entry.at,
    personId,
    deliveredBy: deliverer?.personId ?? null,
    body: entry.body,
    createdAt: clock.now(),
  });
  await pushNotice(scope, account.workshopId, { kind: 'run', runId: entry.runId, seq: entry.seq });
  return {
    id: entry.id,
    seq: entry.seq,
    at: entry.at.toISOString(),
    by: personName,
    ...(deliverer ? { deliveredBy: deliverer.personName } : {}),
    body: entry.body,
  };
}
