import { and, asc, eq, gte } from 'drizzle-orm';
import { alias } from 'drizzle-orm/pg-core';
import { changesProcedure } from '../../../core/bench/runs/entries/all.js';
import type { RunEvent } from '../../../core/bench/runs/log.js';
import { RunFold } from '../../../core/bench/runs/replay.js';
import type { Scope } from '../../base/database/client.js';
import { person } from '../../base/database/tables/people.js';
import { run, runEvent } from '../../base/database/tables/runs.js';
import { notFound } from '../../base/http/errors.js';

/** runs whose state is carried forward in memory; a bench has one, a workshop some dozens */
const MOST_FOLDS = 128;

/** Newest last. Shared by the requests of one process: a fold is used at once, never kept over another await. */
const folds = new Map<string, RunFold>();

const deliverer = alias(person, 'deliverer');

/** @param from first number wanted */
export async function loadEvents(scope: Scope, runId: string, from = 1): Promise<RunEvent[]> {
  const rows = await scope
    .select({
      id: runEvent.id,
      seq: runEvent.seq,
      at: runEvent.happenedAt,
      by: person.name,
      deliveredBy: deliverer.name,
      body: runEvent.body,
    })
    .from(runEvent)
    .innerJoin(person, eq(person.id, runEvent.personId))
    .leftJoin(deliverer, eq(deliverer.id, runEvent.deliveredBy))
    .where(and(eq(runEvent.runId, runId), gte(runEvent.seq, from)))
    .orderBy(asc(runEvent.seq));
  return rows.map(({ deliveredBy, ...row }) => ({ ...row, at: row.at.toISOString(), ...(deliveredBy === null ? {} : { deliveredBy }) }));
}

/**
 * The run as its log makes it now. What this process has folded already is not read again: only its last entry is looked
 * at, since a transaction that was rolled back may have left one that never came to be.
 */
export async function foldOf(scope: Scope, runId: string): Promise<RunFold> {
  const known = folds.get(runId);
  if (known) {
    const count = known.events.length;
    const [last, ...fresh] = await loadEvents(scope, runId, Math.max(1, count));
    // a new scope brings new steps, a part left out another loop
    const rescoped = fresh.some(({ body }) => changesProcedure(body));
    if (count > 0 && last?.id === known.events[count - 1]?.id && !rescoped) return carryOn(runId, known, fresh);
  }
  const [row] = await scope.select({ procedure: run.procedure }).from(run).where(eq(run.id, runId));
  if (!row) throw notFound('run');
  return carryOn(runId, new RunFold(row.procedure), await loadEvents(scope, runId));
}

function carryOn(runId: string, fold: RunFold, events: readonly RunEvent[]): RunFold {
  // another request may have folded some of them in the meantime
  for (const event of events) if (event.seq === fold.events.length + 1) fold.push(event);
  folds.delete(runId);
  folds.set(runId, fold);
  const oldest = folds.size > MOST_FOLDS ? folds.keys().next().value : undefined;
  if (oldest !== undefined) folds.delete(oldest);
  return fold;
}

/** The run's steps change: what was folded with the old ones is let go. */
export const forgetFold = (runId: string): void => void folds.delete(runId);
