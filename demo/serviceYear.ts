import { signOff } from '../server/bench/closing/signOff.js';
import { RunFold } from '../core/bench/runs/replay.js';
import type { RunEvent } from '../core/bench/runs/log.js';
import { randomUUID } from 'node:crypto';
import { DEFAULT_SCHOOLS } from '../core/physics/leak-testing/schools.js';
import { SETTLING_WINDOW_DAYS } from '../core/workshop/due-dates/defaults.js';
import { JOB_KINDS, type JobKind } from '../core/workshop/job-kinds/kinds.js';
import type { JobInput } from '../core/workshop/jobs/schema.js';
import type { Random } from '../core/base/random/random.js';
import { addDays } from '../core/base/units/calendar.js';
import { coolantLot } from '../server/base/database/tables/coolants.js';
import type { Scope } from '../server/base/database/client.js';
import type { Account } from '../server/base/http/context.js';
import { book, bookingOf } from '../server/bench/runs/book.js';
import { agree, bookJob } from '../server/workshop/jobs/jobs.js';
import { startJob } from '../server/bench/services/start.js';
import { lend, loansFor } from '../server/workshop/store/loans.js';
import { serviceJob } from '../server/base/database/tables/jobs.js';
import { keptPart, storeItem, storeMove } from '../server/base/database/tables/store.js';
import { arrange } from '../core/workshop/planning/arrange.js';
import { buildProblem, toSlots } from '../core/workshop/planning/workshopPlan.js';
import { confirmSlot, readBoard, saveSlots } from '../server/workshop/planning/board.js';
import { absence, shift } from '../server/base/database/tables/planning.js';
import { system } from '../server/base/database/tables/machines.js';
import { wasteContainer } from '../server/base/database/tables/waste.js';
import { eq, sql } from 'drizzle-orm';
import { actAs } from './actAs.js';
import type { ServiceScript } from './serviceHands.js';
import { playRun, type DemoCoolant } from './technician.js';

/** What the year's stories need of the demo's world. */
export interface ServiceWorld {
  readonly scope: Scope;
  readonly random: Random;
  readonly today: string;
  readonly accounts: readonly Account[];
  readonly coolants: readonly DemoCoolant[];
  /** white pastel of the lot that falls out early */
  readonly early: DemoCoolant;
  /** a machine whose loop was commissioned on a day */
  makeMachine(name: string, coolant: DemoCoolant, day: string): Promise<{ systemId: string; loopId: string }>;
  /** settling checks that were made meanwhile */
  settle(systemId: string): Promise<void>;
  insertLog(account: Account, runId: string, events: readonly RunEvent[]): Promise<void>;
}

const SHELF = [
  { name: 'O-ring 11 × 2', kind: 'seal', unit: 'pcs', lot: 'K3', count: 64, reorderAt: 40, priceMinor: 40 },
  { name: 'O-ring 24 × 2', kind: 'seal', unit: 'pcs', lot: '', count: 9, reorderAt: 12, priceMinor: 60 },
  { name: 'Gasket, graphics block', kind: 'seal', unit: 'pcs', lot: '', count: 5, reorderAt: 2, priceMinor: 650 },
  { name: 'Soft tube 10/16', kind: 'tube', unit: 'm', lot: 'T7', count: 11.5, reorderAt: 6, priceMinor: 480 },
  { name: 'Rigid tube 12/16', kind: 'tube', unit: 'm', lot: '', count: 4, reorderAt: 4, priceMinor: 720 },
  { name: 'Plug G1/4', kind: 'plug', unit: 'pcs', lot: '', count: 21, reorderAt: 10, priceMinor: 320 },
  { name: 'Fan screw M3 × 30', kind: 'screw', unit: 'pcs', lot: '', count: 130, reorderAt: 60, priceMinor: 15 },
  { name: 'Paste', kind: 'paste', unit: 'g', lot: '', count: 18, reorderAt: 10, priceMinor: null },
  { name: 'Citric cleaner', kind: 'cleaner', unit: 'mL', lot: '', count: 900, reorderAt: 500, priceMinor: 1900 },
  { name: 'Distilled water', kind: 'water', unit: 'mL', lot: '', count: 18_000, reorderAt: 10_000, priceMinor: 150 },
] as const;

const intake = (symptom: string): JobInput['intake'] => ({
  symptom,
  condition: '',
  signs: [],
  dataSafe: 'yes',
  signsIn: 'the owner, by phone',
  flowLph: null,
});
const estimateOf = (kind: JobKind, partsText = ''): JobInput['estimate'] => ({
  hours: JOB_KINDS[kind].hours.soft,
  partsText,
  coolantMl: JOB_KINDS[kind].fill === 'anew' ? 900 : 0,
  priceText: '',
  parts: [],
});
const at = (day: string, hour: number): Date => new Date(`${day}T${String(hour).padStart(2, '0')}:20:00Z`);

/** A stocked shelf, two waste cans and two loan machines. @returns id of the can for used coolant */
async function stockWorkshop({ scope, accounts }: ServiceWorld): Promise<string> {
  const workshopId = (accounts[0] as Account).workshopId;
  const items = await scope
    .insert(storeItem)
    .values(SHELF.map((item) => ({ ...item, workshopId })))
    .returning();
  const { personId } = accounts[0] as Account;
  const counted = items.filter(({ count }) => count !== 0);
  await scope
    .insert(storeMove)
    .values(counted.map(({ id, count }) => ({ workshopId, itemId: id, change: count, reason: 'first count', personId })));
  await scope.update(coolantLot).set({ stockMl: 3400, samplePlace: 'window shelf' }).where(eq(coolantLot.workshopId, workshopId));
  const cans = await scope
    .insert(wasteContainer)
    .values([
      { workshopId, label: 'Grey can', kind: 'used-coolant', capacityMl: 20_000 },
      { workshopId, label: 'Rinse drum', kind: 'rinse-water', capacityMl: 25_000 },
    ])
    .returning({ id: wasteContainer.id });
  await scope.insert(keptPart).values(
    [
      { name: 'Loan tower, small', condition: 'good, left foot missing' },
      { name: 'Loan tower, loud', condition: 'good; its fans are heard' },
    ].map((each) => ({ workshopId, ...each, kind: 'loan-machine' as const, place: 'under the desk' })),
  );
  return (cans[0] as { id: string }).id;
}

/** A stocked workshop, and a year of led services with their causes and outcomes. */
export async function playServiceYear(world: ServiceWorld): Promise<void> {
  const { today, coolants } = world;
  const wasteId = await stockWorkshop(world);
  const [clear, , red, white] = coolants as [DemoCoolant, DemoCoolant, DemoCoolant, DemoCoolant];
  const { early } = world;
  const tell = (
    name: string,
    kind: JobKind,
    days: number,
    symptom: string,
    script: ServiceScript,
    coolant = clear,
    partId: string | null = null,
    refill = coolant,
  ) => playService(world, { name, kind, days, symptom, script: { wasteId, ...script }, coolant, partId, refill });

  await tell('Weir tower', 'flush-refill', 21, 'A year is over; it got a little louder.', { before: 47, rinses: 3 });
  for (const name of ['Ferry cube', 'Lamp box']) await world.makeMachine(name, early, addDays(today, -64));
  await tell(
    'Cellar press',
    'strip-clean',
    12,
    'Hot after ten minutes, was fine in spring.',
    {
      before: 58,
      findings: {
        graphics: { deposit: 'layer', text: 'white paste between the fins' },
        processor: { deposit: 'film' },
        pump: { deposit: 'film' },
      },
      cause: {
        cause: 'fallout',
        suspect: 'coolant-lot',
        item: null,
        particlesStayed: true,
        text: 'the retained sample has a layer at its foot as well',
      },
      cleaner: { name: 'citric cleaner', minutes: 85, mostMinutes: 120 },
    },
    early,
    null,
    white,
  );
  await tell('Mosaic desk', 'leak-repair', 6, 'A brown ring on the shelf under it.', {
    leak: {
      at: '',
      text: 'a brown ring under the lower joint, dry to the touch',
      cause: 'cut-not-square',
      fix: 'end trimmed square; the run is a little short now',
    },
    temporary: {
      what: 'a run that was trimmed and pulls a little',
      awaits: 'half a metre of the same grey tube',
      until: addDays(today, 11),
      limits: ['do-not-move', 'level-daily'],
    },
  });
  await tell(
    'Orchard rig',
    'partial-drain',
    40,
    'A new graphics card with its own block.',
    { swaps: [{ item: 'graphics', action: 'replaced', text: 'block for the new card, checked against its board', heldMl: 0 }] },
    red,
    'graphics',
  );
  await tell('Gravel box', 'retirement', 30, 'Goes over to air; the owner moves abroad.', {
    swaps: [
      { item: 'pump', action: 'removed', text: 'drawer 3, rinsed and dry', heldMl: 0 },
      { item: 'roof-radiator', action: 'removed', text: 'top shelf, capped', heldMl: 60 },
    ],
  });
  await allFetched(world, addDays(today, -7));
  await bookBacklog(world);
  await planBacklog(world);
}

/** What was done went home again; what was done since then still waits for its owner. */
async function allFetched({ scope }: ServiceWorld, before: string): Promise<void> {
  await scope
    .update(serviceJob)
    .set({ fetchedOn: sql`(select done_on from job where job.id = ${serviceJob.jobId})` })
    .where(sql`exists (select 1 from job where job.id = ${serviceJob.jobId} and job.state = 'done' and job.done_on <= ${before})`);
}

interface Telling {
  readonly name: string;
  readonly kind: JobKind;
  readonly days: number;
  readonly symptom: string;
  readonly script: ServiceScript;
  readonly coolant: DemoCoolant;
  readonly partId: string | null;
  /** what went in instead */
  readonly refill: DemoCoolant;
}

/** A machine that came in, was led through its service and signed off, by the code that does it today. */
async function playService(world: ServiceWorld, told: Telling): Promise<void> {
  const { random, today, accounts } = world;
  const day = addDays(today, -told.days);
  const yearly = told.kind === 'flush-refill' || told.kind === 'retirement';
  const { systemId, loopId } = await world.makeMachine(
    told.name,
    told.coolant,
    addDays(day, -Math.round(yearly ? random.between(340, 380) : random.between(90, 220))),
  );
  const account = random.pick(accounts.slice(0, 3));
  const desk = accounts[3] as Account;
  const booked = await bookJob(actAs(world, desk, at(addDays(day, -3), 10), systemId), {
    loopId,
    kind: told.kind,
    partId: told.partId,
    intake: intake(told.symptom),
    estimate: estimateOf(told.kind),
    neededBy: addDays(day, 2),
    partsOn: null,
    dropOffOn: null,
    windows: [],
    note: '',
  });
  await agree(actAs(world, desk, at(addDays(day, -2), 11), booked.id), { how: 'phone', words: 'agreed', version: booked.version });
  const leak = ['partial-drain', 'flush-refill', 'retirement'].includes(told.kind) ? ('wet-only' as const) : ('dry-then-wet' as const);
  const { run } = await startJob(actAs(world, account, at(day, 8), booked.id), {
    benchId: null,
    schools: { ...DEFAULT_SCHOOLS, leak, wet: 'ten-minutes' },
    openedJoints: [],
  });
  // the leak of the story sits at a run of this very loop
  const where = run.procedure.facts?.joints[3]?.id ?? run.procedure.facts?.joints[0]?.id ?? '';
  const script = told.script.leak ? { ...told.script, leak: { ...told.script.leak, at: where } } : told.script;
  const events = playRun({
    procedure: run.procedure,
    startMs: at(day, 8).getTime(),
    random,
    coolant: told.refill,
    by: account.personName,
    service: script,
  });
  await world.insertLog(account, run.id, events);
  const end = new Date(Date.parse(events.at(-1)?.at ?? at(day, 17).toISOString()) + 120_000);
  const fold = new RunFold(run.procedure);
  for (const event of events) {
    const booking = bookingOf(event.id, event.body, fold);
    fold.push(event);
    if (booking) await book(actAs(world, account, end), booked.id, booking);
  }
  await signOff(actAs(world, account, end, run.id), { id: randomUUID(), remark: '' });
  if (told.days > SETTLING_WINDOW_DAYS.to) await world.settle(systemId);
}

/** Machines that are booked for the coming days: the planner's backlog. */
const BACKLOG: readonly {
  kind: JobKind;
  symptom: string;
  inDays: number;
  agreed: boolean;
  parts?: string;
  ownerDays?: readonly [number, number];
  lend?: boolean;
}[] = [
  { kind: 'flush-refill', symptom: 'Smells a little when it is warm.', inDays: 6, agreed: true },
  { kind: 'drain-refill', symptom: 'A year is over, runs fine.', inDays: 9, agreed: true },
  { kind: 'strip-clean', symptom: 'Loud, hot at once under load.', inDays: 8, agreed: true, parts: 'tube 10/16, 2 m', lend: true },
  { kind: 'closed-loop', symptom: 'Dusty, fans loud.', inDays: 3, agreed: true },
  { kind: 'flush-refill', symptom: 'The colour went pale.', inDays: 13, agreed: false, ownerDays: [7, 12] },
  { kind: 'drain-refill', symptom: 'Owner wants it done before the holidays.', inDays: 11, agreed: true },
];

async function bookBacklog(world: ServiceWorld): Promise<void> {
  const { scope, today, accounts } = world;
  const desk = accounts[3] as Account;
  const rows = await scope
    .select({
      systemId: system.id,
      loopId: sql<string>`(select id from loop where loop.system_id = system.id order by created_at limit 1)`,
    })
    .from(system)
    .where(eq(system.state, 'in-service'))
    .orderBy(system.name)
    .limit(60);
  for (const [index, job] of BACKLOG.entries()) {
    const row = rows[(index * 7 + 2) % rows.length] as (typeof rows)[number];
    const booked = await bookJob(actAs(world, desk, at(addDays(today, -1 - (index % 3)), 10), row.systemId), {
      loopId: row.loopId,
      kind: job.kind,
      partId: null,
      intake: intake(job.symptom),
      estimate: estimateOf(job.kind, job.parts ?? ''),
      neededBy: addDays(today, job.inDays),
      partsOn: job.parts ? addDays(today, 3) : null,
      dropOffOn: null,
      windows: job.ownerDays ? [{ from: addDays(today, job.ownerDays[0]), to: addDays(today, job.ownerDays[1]) }] : [],
      note: '',
    });
    const [spare] = job.lend ? (await loansFor(scope, booked.id)).free : [];
    if (spare)
      await lend(actAs(world, desk, at(addDays(today, -1), 12), booked.id), { keptPartId: spare.id, untilDay: addDays(today, job.inDays) });
    if (job.agreed)
      await agree(actAs(world, desk, at(addDays(today, -1), 11), booked.id), { how: 'phone', words: 'agreed', version: booked.version });
  }
}

/** The hours of the demo's people, one of them away for two days, and a plan of which two slots are told to their owners. */
async function planBacklog({ scope, today, accounts }: ServiceWorld): Promise<void> {
  const [lead, ...others] = accounts as [Account, ...Account[]];
  const workshopId = lead.workshopId;
  const hands = [lead, ...others.slice(0, 2)];
  await scope
    .insert(shift)
    .values(
      hands.flatMap(({ personId }, index) =>
        [1, 2, 3, 4, 5].map((weekday) => ({ workshopId, personId, weekday, fromMinute: 540, toMinute: index === 0 ? 780 : 1050 })),
      ),
    );
  await scope.insert(absence).values({
    workshopId,
    personId: (hands[2] as Account).personId,
    fromDay: addDays(today, 5),
    toDay: addDays(today, 6),
    reason: 'course',
  });
  // from tomorrow on: what stands in the past would be no plan
  const morning = at(addDays(today, 1), 6);
  const ask = actAs({ scope }, lead, morning);
  const board = await readBoard(ask);
  const built = buildProblem(board);
  let looks = 0;
  const plan = arrange(built.problem, { isOver: () => (looks += 1) > 40 });
  if (!plan) return;
  const after = await saveSlots(ask, {
    slots: toSlots(board, built, plan.jobs).map(({ jobId, benchId, steps, version }) => ({ jobId, benchId, steps, version })),
    off: [],
  });
  for (const { jobId, version } of after.slots.slice(0, 2))
    await confirmSlot(actAs({ scope }, lead, morning, jobId), { confirmed: true, version });
}
