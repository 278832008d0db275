import { firstReason } from '../core/workshop/due-dates/facts.js';
import { and, asc, eq, inArray, sql } from 'drizzle-orm';
import type { DustPlace } from '../core/workshop/due-dates/facts.js';
import { seededRandom } from '../core/base/random/random.js';
import { addDays, daysBetween } from '../core/base/units/calendar.js';
import { fill } from '../server/base/database/tables/runs.js';
import type { Scope } from '../server/base/database/client.js';
import { restartDust } from '../server/workshop/due-dates/cleaned.js';
import { redate } from '../server/workshop/due-dates/redate.js';
import { dueItem, postponement } from '../server/base/database/tables/due-dates.js';
import type { Account } from '../server/base/http/context.js';
import { fittedPart } from '../server/base/database/tables/lots.js';
import { loop, loopRevision } from '../server/base/database/tables/loops.js';
import { kit } from '../server/base/database/tables/planning.js';
import { system } from '../server/base/database/tables/machines.js';
import { usageReading } from '../server/base/database/tables/usage.js';
import { atNoon } from './afterwards.js';

interface Shop {
  readonly scope: Scope;
  readonly today: string;
  readonly now: Date;
  readonly accounts: readonly Account[];
}

/** The demo's hot months. While they last its stories keep the dates they were written with: then it has no such rule. */
export function demoSeason(today: string): { hotFromMonth: number | null; hotUntilMonth: number | null } {
  const month = Number(today.slice(5, 7));
  return month >= 5 && month <= 8 ? { hotFromMonth: null, hotUntilMonth: null } : { hotFromMonth: 6, hotUntilMonth: 8 };
}

/** What the demo's benches share. */
export async function countKits(scope: Scope, workshopId: string): Promise<void> {
  await scope.insert(kit).values([
    { workshopId, kind: 'pump-supply', count: 2 },
    { workshopId, kind: 'pressure-tester', count: 1 },
    { workshopId, kind: 'flush-rig', count: 1 },
  ]);
}

interface Machine {
  readonly systemId: string;
  readonly loopId: string;
  readonly filledOn: string;
}

/** Where the demo's machines stand and how they are used: dust, hour meters, logs, and one owner who puts it off again and again. */
export async function giveHabits(shop: Shop): Promise<void> {
  const machines = await machinesInService(shop.scope);
  const random = seededRandom(90_127);
  const desk = shop.accounts[3] as Account;
  for (const [index, machine] of machines.entries()) {
    const place = random.pick(['clean', 'clean', 'usual', 'usual', 'dusty'] as const);
    await clean(shop, machine, place);
    if (index % 3 === 0) await readMeter(shop, machine, random.between(1.5, 9));
    if (index % 4 === 0) await keepBag(shop, machine, index % 8 === 0 ? 'R-2208' : 'R-2231');
    if (index % 3 === 0) continue;
    if (index % 7 === 1) await keepLog(shop, machine, random.between(2, 6), random.between(31, 41));
  }
  await redate(shop.scope, { everything: true });
  await putOffAgain(shop, desk);
}

async function machinesInService(scope: Scope): Promise<Machine[]> {
  return scope
    .select({
      systemId: system.id,
      loopId: sql<string>`(array_agg(${loop.id} order by ${fill.filledOn} desc))[1]`,
      filledOn: sql<string>`max(${fill.filledOn})::text`,
    })
    .from(fill)
    .innerJoin(loopRevision, eq(loopRevision.id, fill.revisionId))
    .innerJoin(loop, eq(loop.id, loopRevision.loopId))
    .innerJoin(system, eq(system.id, loop.systemId))
    .where(eq(system.state, 'in-service'))
    .groupBy(system.id)
    .orderBy(asc(system.name), asc(system.id));
}

/** Fins were cleaned at the last fill; where dust comes quickly, by the desk's advice in between. */
async function clean({ scope, today, accounts }: Shop, { systemId, loopId, filledOn }: Machine, place: DustPlace): Promise<void> {
  const own = accounts[1] as Account;
  await scope.update(system).set({ dustPlace: place }).where(eq(system.id, systemId));
  const between = addDays(filledOn, 80);
  const on = place === 'dusty' && between < today ? between : filledOn;
  await restartDust(scope, { workshopId: own.workshopId, systemId, loopId, on, personId: own.personId, at: atNoon(on, 14) });
}

async function readMeter({ scope, today, accounts }: Shop, { systemId, filledOn }: Machine, perDay: number): Promise<void> {
  const days = Math.min(daysBetween(filledOn, today), 60);
  if (days < 10) return;
  const { workshopId, personId } = accounts[3] as Account;
  const before = Math.round(perDay * 210);
  const own = { workshopId, systemId, personId, source: 'meter' as const, fromOn: null };
  await scope.insert(usageReading).values([
    { ...own, readOn: filledOn, hours: before, note: 'at the refill', createdAt: atNoon(filledOn, 16) },
    {
      ...own,
      readOn: addDays(filledOn, days),
      hours: before + Math.round(perDay * days),
      note: 'told on the phone',
      createdAt: atNoon(addDays(filledOn, days), 11),
    },
  ]);
}

/** The bag of the pump's seal set was kept at the last fill. */
async function keepBag({ scope, accounts }: Shop, { systemId, loopId, filledOn }: Machine, lot: string): Promise<void> {
  const { workshopId } = accounts[1] as Account;
  await scope.insert(fittedPart).values({
    workshopId,
    systemId,
    loopId,
    itemId: 'pump',
    make: 'Pump seal set, brown',
    lot,
    fittedOn: filledOn,
    createdAt: atNoon(filledOn, 13),
  });
}

async function keepLog({ scope, today, accounts }: Shop, { systemId, filledOn }: Machine, perDay: number, coolantC: number): Promise<void> {
  const untilOn = addDays(filledOn, 20);
  if (untilOn >= today) return;
  const { workshopId, personId } = accounts[3] as Account;
  const fromOn = addDays(filledOn, 5);
  await scope.insert(usageReading).values({
    workshopId,
    systemId,
    personId,
    source: 'log',
    fromOn,
    readOn: untilOn,
    hours: Math.round(10 * perDay * (daysBetween(fromOn, untilOn) + 1)) / 10,
    meanCoolantC: Math.round(10 * coolantC) / 10,
    note: 'log.csv from its owner',
    createdAt: atNoon(untilOn, 18),
  });
}

/** days that the owner of the story asks for */
const AGAIN_DAYS = 22;

/** One owner who hears the risk a second time: the item stays open, and grows louder. */
async function putOffAgain({ scope, today }: Shop, desk: Account): Promise<void> {
  const [item] = await scope
    .select({ item: dueItem })
    .from(dueItem)
    .innerJoin(system, eq(system.id, dueItem.systemId))
    .where(
      and(eq(dueItem.kind, 'coolant-service'), eq(dueItem.state, 'open'), inArray(dueItem.postponed, [1]), eq(system.state, 'in-service')),
    )
    .orderBy(asc(dueItem.dueOn), asc(dueItem.id))
    .limit(1);
  if (!item) return;
  const { id, dueOn, reason } = item.item;
  const until = addDays(today, AGAIN_DAYS);
  const words = 'A film has to be cut first; it runs cool, he says.';
  await scope.insert(postponement).values({
    workshopId: desk.workshopId,
    dueItemId: id,
    from: dueOn,
    until,
    reason: words,
    personId: desk.personId,
    createdAt: atNoon(addDays(today, -1), 10),
  });
  await scope
    .update(dueItem)
    .set({
      dueOn: until,
      postponed: 2,
      version: 3,
      reason: { why: 'put-off', until, said: words, first: firstReason(reason) },
    })
    .where(eq(dueItem.id, id));
}
