import { say } from '../../../core/base/words/say.js';
import { conflictWords } from '../../../core/edge/words/plan.js';
import { and, asc, eq, gte, inArray, isNotNull, or, sql } from 'drizzle-orm';
import { withStandIns } from '../../../core/workshop/planning/standIns.js';
import { planConflicts } from '../../../core/workshop/planning/planConflicts.js';
import { learnDuration, type ThoughtOf } from '../../../core/workshop/planning/jobSteps.js';
import {
  buildProblem,
  type BoardJob,
  type RunningNow,
  type WaitingRun,
  type WorkshopBoard,
} from '../../../core/workshop/planning/workshopPlan.js';
import type {
  AbsenceInput,
  BoardInput,
  ConfirmInput,
  KitsInput,
  ShiftsInput,
  SkillsInput,
  StandInInput,
} from '../../../core/workshop/planning/schema.js';
import { usualHours } from '../../../core/workshop/jobs/usualHours.js';
import { besideAs, type BesideWork } from '../../../core/workshop/jobs/beside.js';
import { asBookedKind } from '../../../core/workshop/job-kinds/kinds.js';
import type { LoopFile } from '../../../core/machine/loop-file/loopFile.js';
import { hasRigidTube } from '../../../core/bench/inspection/items.js';
import { DEFAULT_SCHOOLS, LEAK_SCHOOLS, WET_SCHOOLS } from '../../../core/physics/leak-testing/schools.js';
import { schoolsAfter, type WorkshopSchools } from '../../../core/workshop/jobs/usualSchools.js';
import { dayIn } from '../../../core/base/units/calendar.js';
import { refuse } from '../../../core/base/checking/input.js';
import { bench, person, workshop, isRealBench } from '../../base/database/tables/people.js';
import { run } from '../../base/database/tables/runs.js';
import { idFrom, type Ask } from '../../base/http/context.js';
import { DomainError, notFound, stale } from '../../base/http/errors.js';
import { consent, serviceJob } from '../../base/database/tables/jobs.js';
import { loop, type loopRevision } from '../../base/database/tables/loops.js';
import { tellSlot } from '../messages/slots.js';
import { owner, job, system } from '../../base/database/tables/machines.js';
import { KIT_LASTS_MINUTES, KIT_OF_STEP } from '../../../core/workshop/planning/capacities.js';
import type { Procedure } from '../../../core/bench/runs/procedure.js';
import type { RunState } from '../../../core/bench/runs/state.js';
import { foldOf } from '../../bench/runs/folds.js';
import { finishedRuns } from './finishedRuns.js';
import { absence, kit, shift, slot } from '../../base/database/tables/planning.js';

/** ms with somebody at it that a run in progress needs from now on, where nobody planned it: a guess until it is signed off */
const HANDS_LAST_MS = 6 * 3_600_000;

/** ms back from now to which slots of finished work stand on the board: last week, to look back at */
const PAST_SLOTS_MS = 8 * 86_400_000;

/** Everything a plan depends on. */
export async function readBoard(ask: Ask): Promise<WorkshopBoard> {
  const { scope, account, clock, today } = ask;
  const now = clock.now();
  const slots = (
    await scope
      .select({ slot })
      .from(slot)
      .innerJoin(job, eq(job.id, slot.jobId))
      .where(or(inArray(job.state, ['booked', 'waiting', 'active']), gte(slot.endsAt, new Date(now.getTime() - PAST_SLOTS_MS))))
      .orderBy(asc(slot.startsAt))
  ).map((row) => row.slot);
  const [own] = await scope.select({ version: workshop.version }).from(workshop).where(eq(workshop.id, account.workshopId));
  const people = await scope
    .select({ id: person.id, name: person.name, role: person.role, skills: person.skills, version: person.version })
    .from(person)
    .where(eq(person.active, true))
    .orderBy(asc(person.name));
  return {
    now: now.toISOString(),
    today,
    timeZone: account.timeZone,
    benches: await scope.select({ id: bench.id, name: bench.name }).from(bench).where(isRealBench).orderBy(asc(bench.position)),
    people: people.filter(({ role }) => role !== 'front-desk').map(({ id, name, skills, version }) => ({ id, name, skills, version })),
    workshopVersion: own?.version ?? 1,
    kits: await scope.select({ kind: kit.kind, count: kit.count }).from(kit).orderBy(asc(kit.kind)),
    shifts: await scope
      .select({ personId: shift.personId, weekday: shift.weekday, fromMinute: shift.fromMinute, toMinute: shift.toMinute })
      .from(shift)
      .orderBy(asc(shift.weekday), asc(shift.fromMinute)),
    absences: await scope
      .select({
        id: absence.id,
        personId: absence.personId,
        fromDay: absence.fromDay,
        toDay: absence.toDay,
        part: absence.part,
        why: absence.why,
        reason: absence.reason,
      })
      .from(absence)
      .orderBy(asc(absence.fromDay)),
    jobs: await boardJobs(ask),
    slots: slots.map(({ jobId, benchId, steps, confirmed, version }) => ({ jobId, benchId, steps, confirmed, version })),
    waiting: await waitingRuns(ask),
    running: await runningNow(ask, slots),
  };
}

/** Runs on their benches: until when by the plan, and the kit that each holds at its step. */
async function runningNow({ scope, clock }: Ask, slots: readonly (typeof slot.$inferSelect)[]): Promise<RunningNow[]> {
  const nowMs = clock.now().getTime();
  const running = await scope
    .select({ runId: run.id, benchId: run.benchId, jobId: run.jobId, systemName: system.name, procedure: run.procedure })
    .from(run)
    .innerJoin(loop, eq(loop.id, run.loopId))
    .innerJoin(system, eq(system.id, loop.systemId))
    .where(and(eq(run.state, 'active'), isNotNull(run.benchId)));
  const rows: RunningNow[] = [];
  for (const { runId, benchId, jobId, systemName, procedure } of running) {
    const plannedMs = slots.find((each) => each.jobId === jobId)?.endsAt.getTime() ?? 0;
    const isGuess = plannedMs <= nowMs;
    const { state } = await foldOf(scope, runId);
    const untilMs = isGuess ? nowMs + HANDS_LAST_MS + clocksLeftMs(procedure, state, nowMs) : plannedMs;
    const kit = KIT_OF_STEP[procedure.steps.find(({ id }) => id === state.current)?.kind ?? ''];
    const kitMs = kit === 'pump-supply' ? untilMs : Math.min(untilMs, nowMs + KIT_LASTS_MINUTES * 60_000);
    rows.push({
      runId,
      benchId: benchId as string,
      systemName,
      holds: kit ? [{ kit, until: new Date(kitMs).toISOString() }] : [],
      until: new Date(untilMs).toISOString(),
      isGuess,
    });
  }
  return rows;
}

/** ms that the clocks of a run still hold its bench: a day's wet test holds it a day, whoever is there. */
function clocksLeftMs({ steps }: Procedure, state: RunState, nowMs: number): number {
  const at = steps.findIndex(({ id }) => id === state.current);
  const ahead = at < 0 ? [] : steps.slice(at).flatMap(({ timers }) => timers);
  return ahead.reduce((sum, { id, seconds }) => {
    const { startedAt = null } = state.timers[id] ?? {};
    const left = seconds * 1000 - (startedAt === null ? 0 : nowMs - Date.parse(startedAt));
    return sum + Math.max(0, left);
  }, 0);
}

/** The day somebody looks again, soonest first. */
async function waitingRuns({ scope }: Ask): Promise<WaitingRun[]> {
  const rows = await scope
    .select({ runId: run.id, systemName: system.name, ownerName: owner.name, waits: run.waits })
    .from(run)
    .innerJoin(loop, eq(loop.id, run.loopId))
    .innerJoin(system, eq(system.id, loop.systemId))
    .innerJoin(owner, eq(owner.id, system.ownerId))
    .where(isNotNull(run.waits))
    .orderBy(sql`${run.waits} ->> 'until'`);
  return rows.flatMap(({ waits, ...row }) => (waits ? [{ ...row, waits }] : []));
}

async function boardJobs({ scope, account }: Ask): Promise<BoardJob[]> {
  const rows = await scope
    .select({
      job,
      service: serviceJob,
      systemName: system.name,
      ownerName: owner.name,
      file: sql<
        typeof loopRevision.$inferSelect.file
      >`(select file from loop_revision where loop_revision.loop_id = ${serviceJob.loopId} and loop_revision.kind <> 'wanted' order by number desc limit 1)`,
    })
    .from(serviceJob)
    .innerJoin(job, eq(job.id, serviceJob.jobId))
    .innerJoin(system, eq(system.id, job.systemId))
    .innerJoin(owner, eq(owner.id, system.ownerId))
    .where(inArray(job.state, ['booked', 'waiting']))
    .orderBy(asc(serviceJob.createdAt));
  const [shop] = await scope.select({ schools: workshop.schools }).from(workshop).where(eq(workshop.id, account.workshopId));
  const consents = await scope
    .select({ jobId: consent.jobId, number: consent.estimateNumber })
    .from(consent)
    .where(inArray(consent.jobId, rows.map((row) => row.job.id))); // prettier-ignore
  const finished = await finishedRuns({ scope });
  return rows.map(({ job: own, service, systemName, ownerName, file }): BoardJob => {
    const kind = asBookedKind(own.kind);
    const learned = learnDuration(kind, hasRigidTube(file), thoughtOf(kind, service.estimate.hours, file, service.beside), finished);
    return {
      id: own.id,
      kind,
      systemName,
      ownerName,
      attendedMinutes: learned.minutes,
      learnedFrom: learned.runs,
      rigid: hasRigidTube(file),
      windows: service.windows,
      wetMinutes: wetMinutesOf(kind, shop?.schools),
      arrivesOn: [service.partsOn, service.dropOffOn].reduce(
        (late, each) => (each !== null && (late === null || each > late) ? each : late),
        null,
      ),
      partsOn: service.partsOn,
      neededBy: service.neededBy,
      bookedOn: dayIn(account.timeZone, own.createdAt),
      consented: consents.some(({ jobId, number }) => jobId === own.id && number === service.estimateNumber),
    };
  });
}

/** A job as the board would know it, before it is booked: by what such jobs took here, or by the hours that are thought of. */
export async function boardJobOf(
  { scope, account, today }: Ask,
  {
    id,
    kind,
    hours,
    file,
    windows,
    arrivesOn,
  }: Pick<BoardJob, 'id' | 'kind' | 'windows' | 'arrivesOn'> & { readonly hours: number; readonly file: LoopFile },
): Promise<BoardJob> {
  const [shop] = await scope.select({ schools: workshop.schools }).from(workshop).where(eq(workshop.id, account.workshopId));
  const rigid = hasRigidTube(file);
  const learned = learnDuration(kind, rigid, thoughtOf(kind, hours, file), await finishedRuns({ scope }));
  return {
    id,
    kind,
    systemName: '',
    ownerName: '',
    attendedMinutes: learned.minutes,
    learnedFrom: learned.runs,
    rigid,
    windows,
    wetMinutes: wetMinutesOf(kind, shop?.schools),
    arrivesOn,
    partsOn: null,
    neededBy: null,
    bookedOn: today,
    consented: false,
  };
}

const thoughtOf = (kind: BoardJob['kind'], hours: number, file: LoopFile, beside: readonly BesideWork[] = []): ThoughtOf => ({
  estimateMinutes: hours * 60,
  usualMinutes: usualHours(kind, file, null, besideAs(kind, beside)) * 60,
});

/** min that only the pump runs after such a job */
function wetMinutesOf(kind: BoardJob['kind'], schools: WorkshopSchools = DEFAULT_SCHOOLS): number {
  const { leak, wet } = schoolsAfter(kind, schools);
  return LEAK_SCHOOLS[leak].wet ? WET_SCHOOLS[wet].seconds / 60 : 0;
}

/** Two people who change a board at once must not cross. */
const oneAtATime = ({ scope, account }: Ask): Promise<unknown> =>
  scope.execute(sql`select id from workshop where id = ${account.workshopId} for update`);

/** Puts jobs on the board: all of them, or none. A plan that breaks a rule is refused in words; a confirmed slot is not moved. */
export async function saveSlots(ask: Ask, { slots, off }: BoardInput): Promise<WorkshopBoard> {
  const { scope, account, clock } = ask;
  await oneAtATime(ask);
  if (off.length > 0) await scope.delete(slot).where(and(inArray(slot.jobId, [...off]), eq(slot.confirmed, false)));
  const board = await readBoard(ask);
  slots.forEach((given, index) => {
    const known = board.slots.find(({ jobId }) => jobId === given.jobId);
    const own = board.jobs.find(({ id }) => id === given.jobId);
    if (!own) refuse(`slots[${index}].jobId`, say('is not a booked job that waits for its slot'));
    if ((known?.version ?? 0) !== given.version) throw stale('plan', given, known ?? null);
    if (known?.confirmed)
      refuse(
        `slots[${index}].jobId`,
        say('{systemName} is confirmed with its owner; take the confirmation back first', { systemName: own.systemName }),
      );
  });
  const changed = new Set(slots.map(({ jobId }) => jobId));
  const after: WorkshopBoard = {
    ...board,
    slots: [...board.slots.filter(({ jobId }) => !changed.has(jobId)), ...slots.map((given) => ({ ...given, confirmed: false }))],
  };
  refuseBroken(after);
  for (const given of slots) {
    const [first, last] = [given.steps[0], given.steps.at(-1)];
    const values = {
      benchId: given.benchId,
      startsAt: new Date(first?.from ?? ''),
      endsAt: new Date(last?.to ?? ''),
      steps: [...given.steps],
      version: given.version + 1,
    };
    await scope
      .insert(slot)
      .values({ ...values, workshopId: account.workshopId, jobId: given.jobId, createdAt: clock.now() })
      .onConflictDoUpdate({ target: [slot.workshopId, slot.jobId], set: values });
  }
  return readBoard(ask);
}

/** What a job, bench, person or kit of the board is called. */
const nameIn =
  ({ jobs, benches, people }: WorkshopBoard) =>
  (id: string): string =>
    jobs.find((each) => each.id === id)?.systemName ?? [...benches, ...people].find((each) => each.id === id)?.name ?? id;

function refuseBroken(board: WorkshopBoard): void {
  const built = buildProblem(board, 'check');
  const placed = new Set(built.current.map(({ job: at }) => at));
  const unplaced = board.slots.filter(
    ({ jobId, confirmed }) =>
      !confirmed && built.jobs.some(({ id }) => id === jobId) && !placed.has(built.jobs.findIndex(({ id }) => id === jobId)),
  );
  if (unplaced.length > 0) refuse('slots', say('has a job whose steps are not those of its kind; arrange it anew'));
  const wrong = planConflicts(built.problem, built.current).filter(({ why }) => why !== 'not-planned');
  if (wrong[0]) refuse('slots', conflictWords(wrong[0], nameIn(board)));
}

/** An appointment that was told to the owner stands; taken back, it may move again. */
export async function confirmSlot(
  ask: Ask,
  input: ConfirmInput,
  jobId = idFrom(ask.request, 'id', 'job'),
): Promise<WorkshopBoard & { told: boolean }> {
  const { scope, account, clock } = ask;
  const [known] = await scope
    .select({ slot, systemId: job.systemId })
    .from(slot)
    .innerJoin(job, eq(job.id, slot.jobId))
    .where(eq(slot.jobId, jobId));
  if (!known) throw notFound('slot of this job');
  const changed = await scope
    .update(slot)
    .set({ confirmed: input.confirmed, version: input.version + 1 })
    .where(and(eq(slot.jobId, jobId), eq(slot.version, input.version)))
    .returning({ id: slot.id });
  if (changed.length === 0) throw stale('plan', input, known.slot);
  const told =
    input.confirmed &&
    (await tellSlot(
      scope,
      { workshopId: account.workshopId, personId: account.personId, at: clock.now() },
      {
        systemId: known.systemId,
        jobId,
        startsAt: known.slot.startsAt,
        endsAt: known.slot.endsAt,
        version: input.version + 1,
        timeZone: account.timeZone,
      },
    ));
  return { ...(await readBoard(ask)), told };
}

/** Others do what somebody who is away had in hand, at the same time: a confirmed appointment stands as its owner was told. */
export async function standIn(ask: Ask, input: StandInInput): Promise<WorkshopBoard> {
  const { scope } = ask;
  const jobId = idFrom(ask.request, 'id', 'job');
  await oneAtATime(ask);
  const board = await readBoard(ask);
  const known = board.slots.find((each) => each.jobId === jobId);
  if (!known) throw notFound('slot of this job');
  if (known.version !== input.version) throw stale('plan', input, known);
  const other = withStandIns(board, jobId);
  if (!other) throw new DomainError('refused', say('Nobody is away in it, or nobody who can do it is free for all of it.'));
  await scope
    .update(slot)
    .set({ steps: [...other.steps], version: input.version + 1 })
    .where(eq(slot.jobId, jobId));
  return readBoard(ask);
}

export async function clearSlot(ask: Ask): Promise<WorkshopBoard> {
  const jobId = idFrom(ask.request, 'id', 'job');
  const gone = await ask.scope
    .delete(slot)
    .where(and(eq(slot.jobId, jobId), eq(slot.confirmed, false)))
    .returning({ id: slot.id });
  if (gone.length === 0) throw new DomainError('refused', say('This job has no slot, or one that is confirmed with its owner.'));
  return readBoard(ask);
}

export async function setShifts(ask: Ask, { shifts, version }: ShiftsInput): Promise<WorkshopBoard> {
  const { scope, account } = ask;
  const personId = idFrom(ask.request, 'id', 'person');
  await changePerson(ask, personId, version, {});
  await scope.delete(shift).where(eq(shift.personId, personId));
  if (shifts.length > 0) await scope.insert(shift).values(shifts.map((each) => ({ ...each, workshopId: account.workshopId, personId })));
  return readBoard(ask);
}

/** What somebody can do that not everybody can; null: everything. */
export async function setSkills(ask: Ask, { skills, version }: SkillsInput): Promise<WorkshopBoard> {
  await changePerson(ask, idFrom(ask.request, 'id', 'person'), version, { skills: skills === null ? null : [...skills] });
  return readBoard(ask);
}

async function changePerson(
  { scope }: Ask,
  personId: string,
  version: number,
  to: Pick<Partial<typeof person.$inferInsert>, 'skills'>,
): Promise<void> {
  const changed = await scope
    .update(person)
    .set({ ...to, version: version + 1 })
    .where(and(eq(person.id, personId), eq(person.version, version)))
    .returning({ id: person.id });
  if (changed.length > 0) return;
  const [now] = await scope.select({ id: person.id, name: person.name, skills: person.skills }).from(person).where(eq(person.id, personId));
  if (!now) throw notFound('person');
  throw stale('person', to, now);
}

/** How many of each kit there are; what is left out is not counted, and always there. */
export async function setKits(ask: Ask, { kits, version }: KitsInput): Promise<WorkshopBoard> {
  const { scope, account } = ask;
  const changed = await scope
    .update(workshop)
    .set({ version: version + 1 })
    .where(and(eq(workshop.id, account.workshopId), eq(workshop.version, version)))
    .returning({ id: workshop.id });
  if (changed.length === 0) throw stale('count of kits', { kits }, (await readBoard(ask)).kits);
  await scope.delete(kit).where(eq(kit.workshopId, account.workshopId));
  if (kits.length > 0) await scope.insert(kit).values(kits.map((each) => ({ ...each, workshopId: account.workshopId })));
  return readBoard(ask);
}

export async function addAbsence(ask: Ask, input: AbsenceInput): Promise<WorkshopBoard> {
  const { scope, account } = ask;
  const [own] = await scope.select({ id: person.id }).from(person).where(eq(person.id, input.personId));
  if (!own) throw notFound('person');
  await scope.insert(absence).values({ ...input, workshopId: account.workshopId });
  return readBoard(ask);
}

export async function endAbsence(ask: Ask): Promise<WorkshopBoard> {
  const gone = await ask.scope
    .delete(absence)
    .where(eq(absence.id, idFrom(ask.request, 'id', 'absence')))
    .returning({ id: absence.id });
  if (gone.length === 0) throw notFound('absence');
  return readBoard(ask);
}
