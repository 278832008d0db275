import { eq } from 'drizzle-orm';
import type { NextVisit } from '../../../core/workshop/calls/answers.js';
import { nextKind } from '../../../core/workshop/calls/nextVisit.js';
import { usualEstimate } from '../../../core/workshop/jobs/usualEstimate.js';
import { loop } from '../../base/database/tables/loops.js';
import { idFrom, type Ask } from '../../base/http/context.js';
import { notFound } from '../../base/http/errors.js';
import { newestRevision } from '../../machine/loops/revisions.js';
import { loopHistory } from '../jobs/loopHistory.js';
import { boardJobOf } from '../planning/board.js';

/** What a loop comes in for when its date comes, and what that takes: the same hours as are offered on the phone. */
export async function readNextVisit(ask: Ask): Promise<NextVisit> {
  const id = idFrom(ask.request, 'id', 'loop');
  const [own] = await ask.scope.select({ id: loop.id }).from(loop).where(eq(loop.id, id));
  if (!own) throw notFound('loop');
  const { file } = await newestRevision(ask.scope, id);
  const history = await loopHistory(ask, id);
  // by then its date has come, whatever else speaks for a visit today
  const kind = nextKind({ ...history, dueSoon: history.dueSoon ?? 'over' });
  const { hours, coolantMl } = usualEstimate(kind, file);
  const { attendedMinutes, learnedFrom } = await boardJobOf(ask, { id: 'next', kind, hours, file, windows: [], arrivesOn: null });
  return { kind, hours: learnedFrom > 0 ? attendedMinutes / 60 : hours, learnedFrom, coolantMl };
}
