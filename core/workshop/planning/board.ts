import { planConflicts } from './planConflicts.js';
import { emptyBoard, placeJob, putOnBoard, type Board } from './place.js';
import { kitsFrom } from './kits.js';
import {
  endOf,
  lateMinutes,
  MINUTE_MS,
  QUARTER_MS,
  startOf,
  upToQuarter,
  type PlacedJob,
  type PlanJob,
  type PlanProblem,
} from './problem.js';

/** How one job moves when the plan changes. */
export interface MovedJob {
  readonly id: string;
  readonly fromMs: number | null;
  readonly toMs: number;
  readonly benchBefore: number | null;
  readonly bench: number;
  readonly endMs: number;
  /** min late before and after; more after: a promise breaks */
  readonly lateBefore: number;
  readonly lateAfter: number;
  /** nothing changes but who does it */
  readonly hands: boolean;
}

/** What would change between two plans, those that get late first. */
export function compareBoards(problem: PlanProblem, before: readonly PlacedJob[], after: readonly PlacedJob[]): MovedJob[] {
  const old = new Map(before.map((placed) => [placed.job, placed]));
  return after
    .flatMap((placed): MovedJob[] => {
      const job = problem.jobs[placed.job] as PlanJob;
      const was = old.get(placed.job);
      const stays =
        was !== undefined &&
        was.bench === placed.bench &&
        Math.abs(startOf(was) - startOf(placed)) < MINUTE_MS &&
        Math.abs(endOf(was) - endOf(placed)) < MINUTE_MS;
      // who does it counts as well: the old hands may be ill
      if (stays && was.steps.every(({ technician }, index) => technician === placed.steps[index]?.technician)) return [];
      return [
        {
          id: job.id,
          fromMs: was ? startOf(was) : null,
          toMs: startOf(placed),
          benchBefore: was?.bench ?? null,
          bench: placed.bench,
          endMs: endOf(placed),
          lateBefore: was ? lateMinutes(job, endOf(was)) : 0,
          lateAfter: lateMinutes(job, endOf(placed)),
          hands: stays,
        },
      ];
    })
    .sort((a, b) => b.lateAfter - b.lateBefore - (a.lateAfter - a.lateBefore));
}

/** One bench of a problem, the others as if they were not there. */
const onlyBench = (problem: PlanProblem, board: Board, bench: number, index: number): PlacedJob | null => {
  const alone: PlanProblem = { ...problem, benches: [problem.benches[bench] as PlanProblem['benches'][number]] };
  const placed = placeJob(alone, { ...board, benches: [board.benches[bench] ?? []] }, index);
  return placed && { ...placed, bench };
};

/** The job on its bench at the first whole quarter hour that fits: nobody tells an owner "at seven minutes past". */
function onQuarter(problem: PlanProblem, board: Board, index: number, bench: number, atMs: number): PlacedJob | null {
  let fromMs = Math.max((problem.jobs[index] as PlanJob).releaseMs, atMs);
  for (let tries = 0; tries < QUARTER_TRIES; tries += 1) {
    const releaseMs = upToQuarter(fromMs);
    const jobs = problem.jobs.map((job, at) => (at === index ? { ...job, releaseMs } : job));
    const placed = onlyBench({ ...problem, jobs }, board, bench, index);
    if (!placed || startOf(placed) % QUARTER_MS === 0) return placed;
    fromMs = startOf(placed);
  }
  return null;
}
/** odd starts that are passed over before the job is said to fit nowhere: more than a board has shifts */
const QUARTER_TRIES = 2000;

export interface Dragged {
  readonly placed: readonly PlacedJob[];
  readonly moved: readonly MovedJob[];
  /** jobs that find no place any more */
  readonly left: readonly string[];
}

/**
 * What happens when a job is put on a bench at a time: it goes there as early as hands and bench allow from then on,
 * every other job that stands in its way moves behind, in the order they stood; the rest stays. What is agreed is part
 * of the problem's shifts and benches and never moves.
 * @returns null where the job fits nowhere on that bench
 */
export function dragJob(problem: PlanProblem, current: readonly PlacedJob[], index: number, bench: number, atMs: number): Dragged | null {
  const board = emptyBoard(problem);
  const own = onQuarter(problem, board, index, bench, atMs);
  if (!own) return null;
  putOnBoard(problem, board, own);
  const placed: PlacedJob[] = [own];
  const left: string[] = [];
  const others = [...current].filter(({ job }) => job !== index).sort((a, b) => startOf(a) - startOf(b));
  const moving: PlacedJob[] = [];
  // whoever is not in the way stays where it is
  for (const each of others) {
    if (clashes(own, each) || lacksKit(problem, board, each)) moving.push(each);
    else {
      putOnBoard(problem, board, each);
      placed.push(each);
    }
  }
  for (const each of moving) {
    const again = placeJob(problem, board, each.job);
    if (!again) left.push((problem.jobs[each.job] as PlanJob).id);
    else {
      putOnBoard(problem, board, again);
      placed.push(again);
    }
  }
  return { placed, moved: compareBoards(problem, current, placed), left };
}

/** A kit that the dragged job took is missing where this one stands. */
const lacksKit = (problem: PlanProblem, board: Board, { job, steps }: PlacedJob): boolean =>
  steps.some((span, index) => {
    const step = (problem.jobs[job] as PlanJob).steps[index];
    return step !== undefined && kitsFrom(problem, board.kits, step, span.from) !== span.from;
  });

function clashes(a: PlacedJob, b: PlacedJob): boolean {
  const meet = (x: { from: number; to: number }, y: { from: number; to: number }): boolean => x.from < y.to && y.from < x.to;
  if (a.bench === b.bench && meet({ from: startOf(a), to: endOf(a) }, { from: startOf(b), to: endOf(b) })) return true;
  return a.steps.some((x) => x.technician !== null && b.steps.some((y) => y.technician === x.technician && meet(x, y)));
}

/** Placements that hold no more: a step in the past, a shift that went, a job that grew. */
export function brokenPlacements(problem: PlanProblem, placed: readonly PlacedJob[]): PlacedJob[] {
  const kept: PlacedJob[] = [];
  const broken: PlacedJob[] = [];
  for (const each of [...placed].sort((a, b) => startOf(a) - startOf(b))) {
    const wrong = planConflicts(problem, [...kept, each]).filter(({ why }) => why !== 'not-planned');
    if (wrong.length > 0) broken.push(each);
    else kept.push(each);
  }
  return broken;
}
