import { and, eq, inArray, sql } from 'drizzle-orm';
import { earlyGroups } from '../../../core/workshop/learned-lives/earlyGroups.js';
import { lifeGroups } from '../../../core/workshop/learned-lives/lifeGroups.js';
import { coolantProduct } from '../../base/database/tables/coolants.js';
import { earlyLot, learnedLife } from '../../base/database/tables/learned-lives.js';
import { fittedPart } from '../../base/database/tables/lots.js';
import { workshop } from '../../base/database/tables/people.js';
import type { Scope } from '../../base/database/client.js';
import { fillLives, partGroup, partLives } from './knownLives.js';

export interface Working {
  readonly workshopId: string;
  readonly today: string;
  readonly at: Date;
}

/** rows of one insert */
const BATCH = 500;

/**
 * Works out anew how long fills last in this workshop and which lots fail early. Dates follow with `redate`. Nightly, when something that
 * ended a coolant was found, and when somebody asks.
 */
export async function refreshLives(scope: Scope, working: Working): Promise<void> {
  const { workshopId, today, at } = working;
  // two at once would write every row twice
  await scope.execute(sql`select pg_advisory_xact_lock(hashtext(${`lives ${workshopId}`}))`);
  const [own] = await scope.select({ risk: workshop.lifeRisk }).from(workshop).where(eq(workshop.id, workshopId));
  if (!own) return;
  const sheets = await scope.select({ id: coolantProduct.id, months: coolantProduct.sheetLifeMonths }).from(coolantProduct);
  const fills = await fillLives(scope, today);
  const groups = lifeGroups(fills, new Map(sheets.map(({ id, months }) => [id, months])), own.risk);
  await scope.delete(learnedLife);
  const rows = groups.map((life) => ({
    workshopId,
    by: life.by,
    key: life.key,
    fills: life.fills,
    failed: life.failed,
    months: life.learned?.months ?? null,
    lowMonths: life.learned?.lowMonths ?? null,
    life,
    createdAt: at,
  }));
  for (let from = 0; from < rows.length; from += BATCH) await scope.insert(learnedLife).values(rows.slice(from, from + BATCH));
  await keepEarly(scope, working, [
    ...fills.map(({ coolantClass, lotId, ...life }) => ({ ...life, kind: coolantClass, group: lotId })),
    ...(await partLives(scope, today)),
  ]);
}

/** Lots that fail early are kept with the day on which that was seen first; one that does so no more is over, and stays on record. */
async function keepEarly(scope: Scope, { workshopId, today, at }: Working, lives: Parameters<typeof earlyGroups>[0]): Promise<void> {
  const found = earlyGroups(lives);
  const bags = await scope.selectDistinct({ make: fittedPart.make, lot: fittedPart.lot }).from(fittedPart);
  const bagOf = new Map(bags.map((bag) => [partGroup(bag.make, bag.lot), bag]));
  const stands: string[] = [];
  for (const { group, machines, observed, expected, p } of found) {
    const what = bagOf.get(group) ?? { lotId: group };
    const figures = { machines, observed, expected, p, overOn: null };
    const [row] = await scope
      .insert(earlyLot)
      .values({ workshopId, ...what, ...figures, seenOn: today, createdAt: at })
      .onConflictDoUpdate({ target: [earlyLot.workshopId, earlyLot.lotId, earlyLot.make, earlyLot.lot], set: figures })
      .returning({ id: earlyLot.id });
    if (row) stands.push(row.id);
  }
  await scope
    .update(earlyLot)
    .set({ overOn: today })
    .where(and(sql`${earlyLot.overOn} is null`, stands.length > 0 ? sql`not ${inArray(earlyLot.id, stands)}` : undefined));
}
