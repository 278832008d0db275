import { eq, sql } from 'drizzle-orm';
import { demandPast } from '../../../core/base/checking/input.js';
import type { FalloutAnswer } from '../../../core/workshop/fallout/answers.js';
import { falloutSchema, type FalloutInput } from '../../../core/workshop/fallout/schema.js';
import { falloutLook } from '../../base/database/tables/fallout.js';
import { loop, loopRevision } from '../../base/database/tables/loops.js';
import { fill } from '../../base/database/tables/runs.js';
import { bodyAs, idFrom, type Ask } from '../../base/http/context.js';
import { notFound } from '../../base/http/errors.js';
import type { Routes } from '../../base/http/routes.js';
import { redate } from '../due-dates/redate.js';
import { looksOf } from './looks.js';

/** Fallout of a loop's liquid as dated stages: seen, and struck out where it was wrong. */
export function falloutRoutes(routes: Routes): void {
  routes.post<FalloutAnswer>('/loops/:id/fallout', (ask) => writeDown(ask, bodyAs<FalloutInput>(ask.request, falloutSchema)));
  routes.delete<FalloutAnswer>('/fallout-looks/:id', (ask) => strike(ask, ask.clock.now()));
  routes.post<FalloutAnswer>('/fallout-looks/:id/back', (ask) => strike(ask, null));
}

async function answerFor({ scope }: Ask, loopId: string): Promise<FalloutAnswer> {
  const [own] = await scope
    .select({ filledOn: sql<string | null>`max(${fill.filledOn})::text` })
    .from(loop)
    .leftJoin(loopRevision, eq(loopRevision.loopId, loop.id))
    .leftJoin(fill, eq(fill.revisionId, loopRevision.id))
    .where(eq(loop.id, loopId))
    .groupBy(loop.id);
  if (!own) throw notFound('loop');
  return { ...own, looks: (await looksOf(scope, [loopId]))(loopId) };
}

async function writeDown(ask: Ask, input: FalloutInput): Promise<FalloutAnswer> {
  const { scope, account, clock, today } = ask;
  demandPast('on', input.on, today);
  const loopId = idFrom(ask.request, 'id', 'loop');
  const [own] = await scope.select({ systemId: loop.systemId }).from(loop).where(eq(loop.id, loopId));
  if (!own) throw notFound('loop');
  await scope
    .insert(falloutLook)
    .values({ ...input, workshopId: account.workshopId, loopId, personId: account.personId, createdAt: clock.now() })
    .onConflictDoNothing();
  await redate(scope, { systemId: own.systemId });
  return answerFor(ask, loopId);
}

async function strike(ask: Ask, at: Date | null): Promise<FalloutAnswer> {
  const { scope, request } = ask;
  const [row] = await scope
    .update(falloutLook)
    .set({ struckAt: at })
    .where(eq(falloutLook.id, idFrom(request, 'id', 'look')))
    .returning({ loopId: falloutLook.loopId });
  if (!row) throw notFound('look');
  const [own] = await scope.select({ systemId: loop.systemId }).from(loop).where(eq(loop.id, row.loopId));
  await redate(scope, { systemId: (own as { systemId: string }).systemId });
  return answerFor(ask, row.loopId);
}
