import type { NextVisit } from '../../../core/workshop/calls/answers.js';
import { nextKind } from '../../../core/workshop/calls/nextVisit.js';
import { usualEstimate } from '../../../core/workshop/jobs/usualEstimate.js';
import { eq } from 'drizzle-orm';
import { system } from '../../base/database/tables/machines.js';
import { idFrom, type Ask } from '../../base/http/context.js';
import { notFound } from '../../base/http/errors.js';
import { newestRevision } from '../../machine/loops/revisions.js';
import { loopHistory } from '../jobs/loopHistory.js';
import { boardJobOf } from '../planning/board.js';
import { loopsOf } from './calls.js';

/**
 * What a machine comes in for when the first date of its loops comes, and what that takes: the same hours as are offered
 * on the phone. Without a loop nothing can be told.
 */
export async function readNextVisit(ask: Ask): Promise<{ next: NextVisit | null }> {
  const id = idFrom(ask.request, 'id', 'system');
  const [own] = await ask.scope.select({ id: system.id }).from(system).where(eq(system.id, id));
  if (!own) throw notFound('system');
  const [first] = (await loopsOf(ask, [id])).get(id) ?? [];
  if (!first) return { next: null };
  const { file } = await newestRevision(ask.scope, first.id);
  const history = await loopHistory(ask, first.id);
  // by then its date has come, whatever else speaks for a visit today
  const kind = nextKind({ ...history, dueSoon: history.dueSoon ?? 'over' });
  const { hours, coolantMl } = usualEstimate(kind, file);
  const { attendedMinutes, learnedFrom } = await boardJobOf(ask, { id: 'next', kind, hours, file, windows: [], arrivesOn: null });
  return { next: { kind, hours: learnedFrom > 0 ? attendedMinutes / 60 : hours, learnedFrom, coolantMl } };
}
