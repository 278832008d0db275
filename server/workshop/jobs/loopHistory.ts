import { and, desc, eq } from 'drizzle-orm';
import { daysBetween } from '../../../core/base/units/calendar.js';
import { COOLANT_CLASSES } from '../../../core/machine/liquids/classes.js';
import { compareBaselines } from '../../../core/physics/diagnosis/compare.js';
import type { BaselineReading } from '../../../core/physics/diagnosis/reading.js';
import { comesSoon } from '../../../core/workshop/due-dates/season.js';
import type { Scope } from '../../base/database/client.js';
import { dueItem } from '../../base/database/tables/due-dates.js';
import { loop, loopRevision } from '../../base/database/tables/loops.js';
import { baseline, fill } from '../../base/database/tables/runs.js';
import { idFrom, type Ask } from '../../base/http/context.js';
import { notFound } from '../../base/http/errors.js';
import { cameFilledOf } from '../../machine/loops/inside.js';
import { newestRevision } from '../../machine/loops/revisions.js';
import { wishesOf } from './wanted.js';
import { productOf } from '../coolants/products.js';
import { falloutByLoop } from '../due-dates/falloutSeen.js';
import { hotSeasonOf } from '../due-dates/dust.js';

/** What a loop that was never filled here came with. */
async function cameWith(scope: Scope, loopId: string): Promise<{ filledOn: string | null; productId: string | null }> {
  const came = await cameFilledOf(scope, loopId);
  return { filledOn: came?.since ?? null, productId: came?.productId ?? null };
}

/** What is known of the loop's liquid and baseline, for the advice on scope. */
export async function loopHistory({ scope, today }: Pick<Ask, 'scope' | 'today'>, loopId: string) {
  const [last] = await scope
    .select({ filledOn: fill.filledOn, productId: fill.productId, dyes: fill.dyes })
    .from(fill)
    .innerJoin(loopRevision, eq(loopRevision.id, fill.revisionId))
    .where(eq(loopRevision.loopId, loopId))
    .orderBy(desc(fill.filledOn), desc(fill.createdAt))
    .limit(1);
  const { filledOn, productId } = last ?? (await cameWith(scope, loopId));
  const product = await productOf(scope, productId);
  const [own] = await scope.select({ coolantId: loop.coolantProductId }).from(loop).where(eq(loop.id, loopId));
  const [due] = await scope
    .select({ dueOn: dueItem.dueOn, reason: dueItem.reason, clocks: dueItem.clocks })
    .from(dueItem)
    .where(and(eq(dueItem.loopId, loopId), eq(dueItem.state, 'open'), eq(dueItem.kind, 'coolant-service')))
    .limit(1);
  const measured = await scope
    .select({ reading: baseline.reading, takenAt: baseline.takenAt })
    .from(baseline)
    .innerJoin(loopRevision, eq(loopRevision.id, baseline.revisionId))
    .where(and(eq(loopRevision.loopId, loopId), eq(baseline.before, false)))
    .orderBy(desc(baseline.takenAt))
    .limit(NEWEST_READINGS);
  return {
    filledOn,
    ageDays: filledOn === null ? null : daysBetween(filledOn, today),
    coolantId: own?.coolantId ?? null,
    coolantName: product?.name ?? null,
    coolantClass: product?.coolantClass ?? null,
    lifeMonths: product ? (product.sheetLifeMonths ?? COOLANT_CLASSES[product.coolantClass].baseLifeMonths) : null,
    dyes: last?.dyes ?? [],
    baselineFlowLph: measured.find(({ reading }) => reading.flowLph !== null)?.reading.flowLph ?? null,
    risenK: risenOf(measured),
    fallout: filledOn === null ? null : (await falloutByLoop(scope, [loopId]))(loopId, filledOn),
    dueSoon: due ? comesSoon(coolantDueOn(due), today, await hotSeasonOf(scope)) : null,
  };
}

/** readings that the advice looks at: several sensors at a few hand-overs */
const NEWEST_READINGS = 24;

interface Measured {
  readonly reading: BaselineReading;
  readonly takenAt: Date;
}
/** K by which the sensor that rose most has risen from one hand-over to the next, the newest first; null: none was read at two in one setting. */
function risenOf(measured: readonly Measured[]): number | null {
  const [newest] = measured;
  const last = measured.filter(({ takenAt }) => takenAt.getTime() === newest?.takenAt.getTime());
  const risen = last.flatMap(({ reading, takenAt }) => {
    const older = measured.find(
      (each) => each.takenAt < takenAt && each.reading.setting === reading.setting && each.reading.sensor === reading.sensor,
    );
    return older ? (compareBaselines(older.reading, reading).changeK ?? []) : [];
  });
  return risen.length === 0 ? null : Math.max(...risen);
}

/** A machine that its own readings call in need not have its coolant changed for that: then the next clock is the coolant's. */
const coolantDueOn = ({ dueOn, reason, clocks }: Pick<typeof dueItem.$inferSelect, 'dueOn' | 'reason' | 'clocks'>): string =>
  reason.why === 'condition' ? (clocks.find(({ kind }) => kind !== 'condition')?.dueOn ?? dueOn) : dueOn;

/** History of a loop for a job that is about to be booked. */
export async function readLoopHistory(ask: Ask) {
  const loopId = idFrom(ask.request, 'id', 'loop');
  const [own] = await ask.scope.select({ id: loop.id }).from(loop).where(eq(loop.id, loopId));
  if (!own) throw notFound('loop');
  const { file } = await newestRevision(ask.scope, loopId);
  return { ...(await loopHistory(ask, loopId)), file, wishes: await wishesOf(ask.scope, loopId, file) };
}
