import type { WaitsSince } from '../jobs/waitFor.js';
import type { BookedKind } from '../job-kinds/kinds.js';
import type { OwnerWindow } from '../jobs/schema.js';
import type { KitKind, Skill } from './capacities.js';
import { addDays, instantIn } from '../../base/units/calendar.js';
import { PLAN } from './defaults.js';
import { jobSteps, type NamedStep } from './jobSteps.js';
import { MINUTE_MS, upToQuarter, type PlacedJob, type PlanJob, type PlanProblem, type Span } from './problem.js';
import { joined, shiftsOf, type Absence, type AbsenceWhy, type Shift } from './shifts.js';

/** A booked job as the board knows it. */
export interface BoardJob {
  readonly id: string;
  readonly kind: BookedKind;
  readonly systemName: string;
  readonly ownerName: string;
  readonly attendedMinutes: number;
  /** runs that the duration was learned from; 0: an estimate */
  readonly learnedFrom: number;
  readonly wetMinutes: number;
  readonly rigid: boolean;
  /** days in which its owner can do without it; empty: any */
  readonly windows: readonly OwnerWindow[];
  /** day it may come in; null: at once */
  readonly arrivesOn: string | null;
  /** day on which its parts are expected; null: none are awaited */
  readonly partsOn: string | null;
  readonly neededBy: string | null;
  readonly bookedOn: string;
  readonly consented: boolean;
}

export interface BoardSlot {
  readonly jobId: string;
  readonly benchId: string;
  readonly steps: readonly { readonly what: string; readonly from: string; readonly to: string; readonly personId: string | null }[];
  readonly confirmed: boolean;
  readonly version: number;
}

/** A run in progress: it holds its bench until it is likely over. */
export interface RunningNow {
  readonly runId: string;
  readonly benchId: string;
  readonly systemName: string;
  readonly until: string;
  /** kits that it holds at the step it is at, each until it likely lets go */
  readonly holds: readonly { readonly kit: KitKind; readonly until: string }[];
  /** nobody planned when it ends: `until` moves on with the clock, so a plan keeps clear of it but is not refused for it */
  readonly isGuess: boolean;
}

/** A run that waits off its bench. */
export interface WaitingRun {
  readonly runId: string;
  readonly systemName: string;
  readonly ownerName: string;
  readonly waits: WaitsSince;
}

/** Everything that a plan depends on, as the server tells it. */
export interface WorkshopBoard {
  readonly now: string;
  readonly today: string;
  readonly timeZone: string;
  readonly benches: readonly { readonly id: string; readonly name: string }[];
  /** `skills` null: nobody wrote them down, so everything */
  readonly people: readonly {
    readonly id: string;
    readonly name: string;
    readonly skills: readonly Skill[] | null;
    /** of skills and hours */
    readonly version: number;
  }[];
  /** of the count of kits */
  readonly workshopVersion: number;
  /** how many of each kit there are; a kit that is not listed is always there */
  readonly kits: readonly { readonly kind: KitKind; readonly count: number }[];
  readonly shifts: readonly Shift[];
  readonly absences: readonly (Absence & { readonly id: string; readonly why: AbsenceWhy; readonly reason: string })[];
  readonly jobs: readonly BoardJob[];
  readonly slots: readonly BoardSlot[];
  readonly running: readonly RunningNow[];
  /** runs off their benches: each needs one again on the day it waits for */
  readonly waiting: readonly WaitingRun[];
}

export interface BuiltProblem {
  readonly problem: PlanProblem;
  /** jobs that may be moved, in the problem's order */
  readonly jobs: readonly BoardJob[];
  readonly steps: readonly (readonly NamedStep[])[];
  /** where they stand now, as far as they stand anywhere */
  readonly current: readonly PlacedJob[];
}

const DAY_MINUTES = 24 * 60;
/** A step's time, in ms. */
export const span = ({ from, to }: { readonly from: string; readonly to: string }): Span => ({
  from: Date.parse(from),
  to: Date.parse(to),
});

/** Appointments that nobody but a hand moves: confirmed slots. */
export const fixedSlots = ({ slots }: WorkshopBoard): readonly BoardSlot[] => slots.filter(({ confirmed }) => confirmed);

/** A plan to be arranged keeps clear of guesses and leaves hands time to begin; one that people decided on need not. */
export type PlanPurpose = 'arrange' | 'check';

/**
 * The plan's problem: what is confirmed or in progress is taken out of shifts and benches, the rest is free to move.
 * A job that was promised counts as late from the end of that day; one nobody promised after some weeks.
 */
export function buildProblem(board: WorkshopBoard, purpose: PlanPurpose = 'arrange'): BuiltProblem {
  const isCheck = purpose === 'check';
  const clockMs = Date.parse(board.now);
  const nowMs = isCheck ? clockMs - PLAN.graceMinutes * MINUTE_MS : upToQuarter(clockMs + PLAN.leadMinutes * MINUTE_MS);
  /** what cannot move lets go on a quarter hour: the next one begins then */
  const letGo = ({ from, to }: Span): Span => ({ from, to: isCheck ? to : upToQuarter(to) });
  const fixed = fixedSlots(board);
  const fixedIds = new Set(fixed.map(({ jobId }) => jobId));
  const jobs = board.jobs.filter(({ id }) => !fixedIds.has(id));
  const steps = jobs.map((job) => jobSteps(job));
  const days = { from: board.today, count: PLAN.horizonDays };
  const problem: PlanProblem = {
    nowMs,
    technicians: board.people.map(({ id, skills }) => ({
      id,
      ...(skills === null ? {} : { skills }),
      shifts: shiftsOf(
        id,
        board.timeZone,
        days,
        board.shifts,
        board.absences,
        fixed.flatMap((slot) => slot.steps.filter(({ personId }) => personId === id).map((step) => letGo(span(step)))),
      ),
    })),
    benches: board.benches.map(({ id }) => ({
      id,
      taken: joined([
        ...fixed
          .filter(({ benchId }) => benchId === id)
          .map((slot) => letGo({ from: Date.parse(slot.steps[0]?.from ?? ''), to: Date.parse(slot.steps.at(-1)?.to ?? '') })),
        ...board.running
          .filter(({ benchId, isGuess }) => benchId === id && !(isCheck && isGuess))
          .map(({ until }) => letGo({ from: clockMs, to: Math.max(clockMs, Date.parse(until)) })),
      ]).filter(({ from, to }) => to > from),
    })),
    kits: board.kits.map(({ kind, count }) => ({
      id: kind,
      count,
      taken: [...fixed.flatMap((slot) => kitSpans(board, slot, kind)), ...heldByRuns(board, kind, isCheck)].map(letGo),
    })),
    jobs: jobs.map((job, index): PlanJob => ({
      id: job.id,
      windows: [...job.windows]
        .sort((a, b) => a.from.localeCompare(b.from))
        .map(({ from, to }) => ({
          from: instantIn(board.timeZone, from, 0),
          to: instantIn(board.timeZone, to, DAY_MINUTES),
        })),
      releaseMs: job.arrivesOn === null ? nowMs : Math.max(nowMs, instantIn(board.timeZone, job.arrivesOn, 0)),
      dueMs: instantIn(board.timeZone, job.neededBy ?? addDays(job.bookedOn, PLAN.unpromisedDays), DAY_MINUTES),
      weight: job.neededBy === null ? PLAN.unpromisedWeight : PLAN.promisedWeight,
      steps: steps[index] as readonly NamedStep[],
    })),
  };
  return { problem, jobs, steps, current: currentPlacements(board, problem, jobs, steps) };
}

/** When an agreed slot holds a kit: by the steps of its job's kind, as far as they still fit. */
function kitSpans(board: WorkshopBoard, slot: BoardSlot, kind: KitKind): Span[] {
  const job = board.jobs.find(({ id }) => id === slot.jobId);
  const steps = job ? jobSteps(job) : [];
  return steps.length === slot.steps.length ? slot.steps.filter((_, index) => steps[index]?.kits?.includes(kind)).map(span) : [];
}

/** What runs on their benches hold now. A plan that people decided on is not refused for a guess. */
function heldByRuns(board: WorkshopBoard, kit: KitKind, isCheck: boolean): Span[] {
  const clockMs = Date.parse(board.now);
  return board.running
    .filter(({ isGuess }) => !(isCheck && isGuess))
    .flatMap(({ holds }) => holds.filter((each) => each.kit === kit))
    .map(({ until }) => ({ from: clockMs, to: Date.parse(until) }))
    .filter(({ from, to }) => to > from);
}

/** Slots as placements; one whose steps or bench no longer fit the job is not a placement any more. */
function currentPlacements(
  board: WorkshopBoard,
  problem: PlanProblem,
  jobs: readonly BoardJob[],
  steps: readonly (readonly NamedStep[])[],
): PlacedJob[] {
  return board.slots.flatMap((slot): PlacedJob[] => {
    const job = jobs.findIndex(({ id }) => id === slot.jobId);
    const bench = problem.benches.findIndex(({ id }) => id === slot.benchId);
    if (job < 0 || bench < 0 || slot.steps.length !== steps[job]?.length) return [];
    const placed = slot.steps.map((step) => ({
      ...span(step),
      technician: step.personId === null ? null : problem.technicians.findIndex(({ id }) => id === step.personId),
    }));
    return placed.some(({ technician }) => technician === -1) ? [] : [{ job, bench, steps: placed }];
  });
}

/** Placements as slots, as they are saved. */
export const toSlots = (board: WorkshopBoard, { problem, jobs, steps }: BuiltProblem, placed: readonly PlacedJob[]): BoardSlot[] =>
  placed.map((each) => {
    const id = (jobs[each.job] as BoardJob).id;
    const known = board.slots.find(({ jobId }) => jobId === id);
    return {
      jobId: id,
      benchId: (problem.benches[each.bench] as { id: string }).id,
      steps: each.steps.map((step, index) => ({
        what: steps[each.job]?.[index]?.what ?? 'work',
        from: new Date(step.from).toISOString(),
        to: new Date(step.to).toISOString(),
        personId: step.technician === null ? null : (problem.technicians[step.technician]?.id ?? null),
      })),
      confirmed: false,
      version: known?.version ?? 0,
    };
  });
