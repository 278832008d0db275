import { randomUUID } from 'node:crypto';
import { startRun } from '../server/bench/commissioning/start.js';
import { signOff } from '../server/bench/closing/signOff.js';
import { leaveToWait } from '../server/bench/waiting/wait.js';
import { checksBeforeWaiting } from '../core/bench/runs/waiting.js';
import { USUAL_READING } from '../core/base/units/reading.js';
import type { RunEvent } from '../core/bench/runs/log.js';
import { eq, sql } from 'drizzle-orm';
import { DEFAULT_SCHOOLS, type Schools } from '../core/physics/leak-testing/schools.js';
import type { ServiceKind } from '../core/workshop/job-kinds/kinds.js';
import { addDays, addMonths, dayIn, daysBetween } from '../core/base/units/calendar.js';
import { bench, person, workshop } from '../server/base/database/tables/people.js';
import { hashPassword } from '../server/workshop/people/password.js';
import { keepContents } from '../server/bench/runs/contents.js';
import { foldOf } from '../server/bench/runs/folds.js';
import { run, runEvent } from '../server/base/database/tables/runs.js';
import { caseTemplate } from '../server/base/database/tables/drawing.js';
import { coolantLot, coolantProduct } from '../server/base/database/tables/coolants.js';
import { enterWorkshop, type Database, type Scope } from '../server/base/database/client.js';
import { DEFAULT_POLICY, setPolicy } from '../server/workshop/due-dates/policies.js';
import type { Clock } from '../server/base/http/clock.js';
import type { Account } from '../server/base/http/context.js';
import { createLoop } from '../server/machine/loops/revisions.js';
import { loopRevision } from '../server/base/database/tables/loops.js';
import { recordService } from '../server/workshop/machines/services.js';
import { owner, system } from '../server/base/database/tables/machines.js';
import { actAs } from './actAs.js';
import { atNoon, earlier, putOff, retire, settle } from './afterwards.js';
import { countKits, demoSeason, giveHabits } from './habits.js';
import { badLot, tellByLives } from './lifeStories.js';
import { tellByLogs } from './logStories.js';
import { giveConnectors } from './connectors.js';
import { knockAtDoor } from './ownersDoor.js';
import { giveFallout } from './fallout.js';
import { exampleLoop } from './exampleLoops.js';
import { demoLoop, usualDemoLoop } from './loops.js';
import { playServiceYear } from './serviceYear.js';
import {
  CASES,
  COMPANIES,
  DEMO_BENCHES,
  DEMO_CASES,
  DEMO_COOLANTS,
  DEMO_PEOPLE,
  DEMO_SIGN_IN,
  DEMO_WORKSHOP,
  FINDINGS,
  FIRST_NAMES,
  LAST_NAMES,
  MACHINES,
  SERVICE_NOTES,
} from './people.js';
import { seededRandom, type Random } from '../core/base/random/random.js';
import { STORIES, type Story } from './stories.js';
import { playRun, type DemoCoolant } from './technician.js';

/** Any number: two servers starting on one empty database must not seed twice. */
const SEED_LOCK = 418_003;

/** Fills an empty database with the demo workshop. Returns false where a workshop already exists; nothing is touched then. */
export async function seedDemo(database: Database, clock: Clock): Promise<boolean> {
  const passwordHash = await hashPassword(DEMO_SIGN_IN.password);
  return database.transaction(async (scope) => {
    await scope.execute(sql`select pg_advisory_xact_lock(${SEED_LOCK})`);
    const [existing] = await scope.select({ id: workshop.id }).from(workshop).limit(1);
    if (existing) return false;
    const world = await makeWorkshop(scope, clock, passwordHash);
    for (const [index, story] of STORIES.entries()) await makeSystem(world, story, index);
    const white = await badLot(scope, world.today, world.coolants[3] as DemoCoolant);
    await playServiceYear({
      ...world,
      early: white,
      makeMachine: (name, coolant, day) => makeMachine(world, name, coolant, day),
      settle: (systemId) => settle(world, systemId, 'fine'),
      insertLog: (...log) => insertLog(world, ...log),
    });
    await tellByLives(world, white);
    await giveHabits(world);
    await tellByLogs(world);
    await giveConnectors(scope);
    await giveFallout(scope, { ...(world.accounts[0] as Account), today: world.today });
    await knockAtDoor(scope, world.accounts[0] as Account, world.now);
    return true;
  });
}

interface World {
  readonly scope: Scope;
  readonly random: Random;
  readonly today: string;
  readonly now: Date;
  readonly accounts: readonly Account[];
  readonly owners: readonly string[];
  readonly benches: readonly string[];
  readonly coolants: readonly (DemoCoolant & { coolantClass: string; sheetLifeMonths: number | null })[];
}

async function makeWorkshop(scope: Scope, clock: Clock, passwordHash: string): Promise<World> {
  const random = seededRandom(20_417);
  const today = dayIn(DEMO_WORKSHOP.timeZone, clock.now());
  const workshopId = randomUUID();
  await enterWorkshop(scope, workshopId);
  await scope.insert(workshop).values({ id: workshopId, ...DEMO_WORKSHOP, schools: DEFAULT_SCHOOLS, ...demoSeason(today) });
  await setPolicy(scope, workshopId, {}, DEFAULT_POLICY);
  const people = await scope
    .insert(person)
    .values(DEMO_PEOPLE.map((each) => ({ workshopId, ...each, skills: each.skills ? [...each.skills] : null, passwordHash, isDemo: true })))
    .returning();
  const benches = await scope
    .insert(bench)
    .values(DEMO_BENCHES.map((name, index) => ({ workshopId, name, position: index + 1 })))
    .returning();
  await countKits(scope, workshopId);
  await scope.insert(caseTemplate).values(DEMO_CASES.map((each) => ({ workshopId, ...each })));
  const products = await scope
    .insert(coolantProduct)
    .values(DEMO_COOLANTS.map((each) => ({ workshopId, ...each })))
    .returning();
  const lots = await scope
    .insert(coolantLot)
    .values(
      products.map(({ id }, index) => ({
        workshopId,
        productId: id,
        lot: `L${String(407 + 13 * index)}`,
        openedOn: addDays(today, -20 - 9 * index),
      })),
    )
    .returning();
  return {
    scope,
    random,
    today,
    now: clock.now(),
    benches: benches.map(({ id }) => id),
    owners: await makeOwners(scope, random, workshopId),
    accounts: people.map((each) => ({
      personId: each.id,
      personName: each.name,
      firstPassword: false,
      doorOpen: true,
      role: each.role as Account['role'],
      workshopId,
      workshopName: DEMO_WORKSHOP.name,
      contact: DEMO_WORKSHOP.contact,
      reading: USUAL_READING,
      ownReading: {},
      workshopReading: USUAL_READING,
      timeZone: DEMO_WORKSHOP.timeZone,
    })),
    coolants: products.map((product, index) => ({
      productId: product.id,
      productName: product.name,
      lotId: (lots[index] as { id: string }).id,
      lot: (lots[index] as { lot: string }).lot,
      coolantClass: product.coolantClass,
      sheetLifeMonths: product.sheetLifeMonths,
    })),
  };
}

async function makeOwners(scope: Scope, random: Random, workshopId: string): Promise<string[]> {
  const people = FIRST_NAMES.map((first, index) => `${first} ${LAST_NAMES[(index * 5) % LAST_NAMES.length]}`);
  const rows = await scope
    .insert(owner)
    .values(
      [...people, ...COMPANIES].map((name) => ({
        workshopId,
        name,
        email: `${name.toLowerCase().replace(/[^a-z]+/g, '.')}@post.example`,
        phone: `+351 555 ${String(Math.floor(random.between(100, 999)))} ${String(Math.floor(random.between(100, 999)))}`,
        channel: random.pick(['phone', 'email', 'text'] as const),
        note: '',
      })),
    )
    .returning({ id: owner.id });
  return rows.map(({ id }) => id);
}

/** Months since the last fill that put a machine where its story says, given how long its coolant lasts. */
function lastFillDay(world: World, story: Story, lifeMonths: number): string {
  const { random, today } = world;
  switch (story) {
    case 'overdue':
      return addDays(addMonths(today, -lifeMonths), -Math.round(random.between(4, 60)));
    case 'soon':
      return addDays(addMonths(today, -lifeMonths), Math.round(random.between(3, 27)));
    case 'settling':
      return addDays(today, -Math.round(random.between(2, 6)));
    default:
      return addDays(today, -Math.round(random.between(0.15, 0.8) * lifeMonths * 30));
  }
}

async function makeSystem(world: World, story: Story, index: number): Promise<void> {
  const { scope, random, today } = world;
  const own = world.accounts[0] as Account;
  const [made] = await scope
    .insert(system)
    .values({
      workshopId: own.workshopId,
      ownerId: world.owners[(index * 5) % world.owners.length] as string,
      name: `${MACHINES[index % MACHINES.length]}${index >= MACHINES.length ? ` ${Math.floor(index / MACHINES.length) + 1}` : ''}`,
      caseText: random.pick(CASES),
      builtBy: random.pick(['this workshop', 'its owner', 'another builder']),
      hoursPerDay: random.next() < 0.4 ? Math.round(random.between(2, 12)) : null,
      note: '',
    })
    .returning({ id: system.id });
  const systemId = (made as { id: string }).id;
  // Show coolant lasts days: only the machine on the far bench gets it.
  const usable = world.coolants.filter(({ coolantClass }) => coolantClass !== 'show');
  const coolant = random.pick(usable);
  const lifeMonths = Math.min(
    12,
    coolant.sheetLifeMonths ?? ({ clear: 12, opaque: 3, biocide: 6 } as Record<string, number>)[coolant.coolantClass] ?? 12,
  );
  const fresh = ['planned', 'on-bench', 'waiting'].includes(story);
  const lastFill = fresh ? today : lastFillDay(world, story, lifeMonths);
  const commissioned = fresh ? today : earlier(lastFill, addDays(today, -Math.round(random.between(380, 800))));
  const plannedAt = fresh ? addDays(today, -Math.round(random.between(2, 9))) : addDays(commissioned, -6);
  const usual = demoLoop(random, 'Main loop');
  const example = exampleLoop(story, index - STORIES.indexOf(story));
  const loop = await createLoop(actAs(world, random.pick(world.accounts.slice(0, 3)), atNoon(plannedAt, 10)), {
    systemId,
    name: example?.name ?? 'Main loop',
    coolantProductId: coolant.productId,
    file: example ?? usual,
  });
  if (story === 'planned') return;
  if (story === 'waiting') return waits(world, loop.id, coolant);
  if (story === 'on-bench') return onBench(world, loop.id, coolant, index);
  await commission(world, loop.id, coolant, commissioned);
  await servicesUntil(world, { systemId, loopId: loop.id, coolant, from: commissioned, lastFill, everyMonths: lifeMonths });
  await settle(world, systemId, story);
  if (story === 'retired') await retire(world, systemId);
  if (story === 'overdue' && random.next() < 0.5) await putOff(world, systemId);
}

/** A machine of a story of its own: built here, commissioned on a day, its settling check made. */
async function makeMachine(world: World, name: string, coolant: DemoCoolant, day: string): Promise<{ systemId: string; loopId: string }> {
  const { scope, random } = world;
  const own = world.accounts[0] as Account;
  const [made] = await scope
    .insert(system)
    .values({
      workshopId: own.workshopId,
      ownerId: random.pick(world.owners),
      name,
      caseText: random.pick(CASES),
      builtBy: 'this workshop',
      hoursPerDay: Math.round(random.between(3, 9)),
      note: '',
    })
    .returning({ id: system.id });
  const systemId = (made as { id: string }).id;
  const loop = await createLoop(actAs(world, own, atNoon(addDays(day, -4), 10)), {
    systemId,
    name: 'Main loop',
    coolantProductId: coolant.productId,
    file: usualDemoLoop(),
  });
  await commission(world, loop.id, coolant, day);
  await settle(world, systemId, 'fine');
  return { systemId, loopId: loop.id };
}

/** A finished commissioning, signed off in the past by the same code that signs one off today. */
async function commission(world: World, loopId: string, coolant: DemoCoolant, day: string): Promise<void> {
  const { random } = world;
  const account = random.pick(world.accounts.slice(0, 3));
  const begun = atNoon(day);
  const schools: Schools = { ...DEFAULT_SCHOOLS, wet: random.pick(['hours', 'hours', 'ten-minutes'] as const) };
  const { run: row } = await startRun(actAs(world, account, begun), {
    loopId,
    benchId: null,
    schools,
    openedJoints: [],
    lostMl: null,
    practice: null,
  });
  const events = playRun({ procedure: row.procedure, startMs: begun.getTime(), random, coolant, by: account.personName });
  await insertLog(world, account, row.id, events);
  const end = new Date(Date.parse(events.at(-1)?.at ?? begun.toISOString()) + 120_000);
  await signOff(actAs(world, account, end, row.id), {
    id: random.uuid(),
    remark: random.pick(['Handed over with its first sample.', 'Quiet setting kept.', 'Owner shown the level mark.']),
  });
}

async function insertLog({ scope }: World, account: Account, runId: string, events: readonly RunEvent[]): Promise<void> {
  await scope.insert(runEvent).values(
    events.map(({ id, seq, at, body }) => ({
      id,
      workshopId: account.workshopId,
      runId,
      seq,
      happenedAt: new Date(at),
      personId: account.personId,
      body,
      createdAt: new Date(at),
    })),
  );
}

/** Two machines on benches: one in the middle of its wet test, one at its dry test. */
async function onBench(world: World, loopId: string, coolant: DemoCoolant, index: number): Promise<void> {
  const { random, scope } = world;
  const first = index % 2 === 1;
  const account = world.accounts[first ? 1 : 2] as Account;
  const begun = new Date(world.now.getTime() - (first ? 5 : 1.6) * 3_600_000);
  const { run: row } = await startRun(actAs(world, account, begun), {
    loopId,
    benchId: world.benches[first ? 0 : 1] as string,
    schools: { ...DEFAULT_SCHOOLS, wet: first ? 'day' : 'hours' },
    openedJoints: [],
    lostMl: null,
    practice: null,
  });
  const events = playRun({
    procedure: row.procedure,
    startMs: begun.getTime(),
    random,
    coolant,
    by: account.personName,
    stopIn: first ? 'wet' : 'dry',
  });
  // The day's work may not lie in the future, and the dry test's last reading was a moment ago: slide it there.
  const late = Date.parse(events.at(-1)?.at ?? '') - world.now.getTime() + 90_000;
  const ahead = first ? Math.max(0, late) : late;
  await insertLog(
    world,
    account,
    row.id,
    events.map((event) => ({ ...event, at: new Date(Date.parse(event.at) - ahead).toISOString() })),
  );
  const { state } = await foldOf(scope, row.id);
  await keepContents(scope, { ...row, runId: row.id, seq: events.length }, state.contents);
  if (ahead !== 0)
    await scope
      .update(run)
      .set({ startedAt: new Date(begun.getTime() - ahead) })
      .where(eq(run.id, row.id));
}

/** A build that was filled, lost a drop at a fitting and waits for its seal since last evening. */
async function waits(world: World, loopId: string, coolant: DemoCoolant): Promise<void> {
  const { random, now, scope } = world;
  const account = world.accounts[1] as Account;
  const begun = new Date(now.getTime() - 26 * 3_600_000);
  const { run: row } = await startRun(actAs(world, account, begun), {
    loopId,
    benchId: null,
    schools: { ...DEFAULT_SCHOOLS, wet: 'hours' },
    openedJoints: [],
    lostMl: null,
    practice: null,
  });
  const events = playRun({ procedure: row.procedure, startMs: begun.getTime(), random, coolant, by: account.personName, stopIn: 'bleed' });
  const early = Date.parse(events.at(-1)?.at ?? '') - (now.getTime() - 15 * 3_600_000);
  const shifted = events.map((event) => ({ ...event, at: new Date(Date.parse(event.at) - early).toISOString() }));
  await insertLog(world, account, row.id, shifted);
  await scope
    .update(run)
    .set({ startedAt: new Date(begun.getTime() - early) })
    .where(eq(run.id, row.id));
  const left = new Date(now.getTime() - 14 * 3_600_000);
  const { state } = await foldOf(scope, row.id);
  await leaveToWait(actAs(world, account, left, row.id), {
    id: random.uuid(),
    for: 'parts',
    what: 'a seal 11.1 × 2 for the plate’s terminal, two on order',
    until: addDays(world.today, 2),
    lies: 'shelf 3, panel and screws in the blue tray',
    seen: checksBeforeWaiting(state).map(({ check }) => check),
  });
}

interface ServicePlan {
  readonly systemId: string;
  readonly loopId: string;
  readonly coolant: DemoCoolant;
  readonly from: string;
  readonly lastFill: string;
  readonly everyMonths: number;
}

/** Refills between commissioning and the last fill, roughly as often as the coolant asks. */
async function servicesUntil(world: World, plan: ServicePlan): Promise<void> {
  const { random, scope } = world;
  const [revision] = await scope
    .select({ volumeMl: loopRevision.volumeMl })
    .from(loopRevision)
    .where(eq(loopRevision.loopId, plan.loopId))
    .limit(1);
  const total = revision?.volumeMl ?? 800;
  const days: string[] = [];
  for (
    let day = addMonths(plan.from, plan.everyMonths);
    daysBetween(day, plan.lastFill) > 40;
    day = addMonths(day, plan.everyMonths + random.between(0, 1.5))
  )
    days.push(day);
  if (plan.lastFill !== plan.from) days.push(plan.lastFill);
  for (const [index, doneOn] of days.entries()) {
    const kind: ServiceKind = random.pick(['drain-refill', 'drain-refill', 'flush-refill', 'strip-clean'] as const);
    const drained = Math.round((total * random.between(0.78, 0.92)) / 5) * 5;
    await recordService(actAs(world, random.pick(world.accounts.slice(0, 3)), atNoon(doneOn, 15), plan.systemId), {
      loopId: plan.loopId,
      kind,
      doneOn,
      productId: plan.coolant.productId,
      drainedMl: drained,
      pouredMl: drained + Math.round(random.between(0, 6)) * 5,
      note: random.pick(SERVICE_NOTES),
      finding: index % 3 === 1 ? random.pick(FINDINGS) : '',
    });
  }
}
