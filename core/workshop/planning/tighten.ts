import { latestIn, release, take } from './freeTime.js';
import { emptyBoard, putOnBoard, type Board } from './place.js';
import { holdKits, kitsFrom, letGoKits } from './kits.js';
import { startOf, type PlacedJob, type PlacedStep, type PlanJob, type PlanProblem, type PlanStep, type Span } from './problem.js';

/**
 * Moves early steps of each job as late as its end allows: nothing ends later, but a machine is taken from its owner
 * only when work begins, and its bench is free until then. Longest possible waits become shorter, never longer.
 */
export function tighten(problem: PlanProblem, plan: readonly PlacedJob[]): PlacedJob[] {
  const board = emptyBoard(problem);
  for (const placed of plan) putOnBoard(problem, board, placed);
  return [...plan]
    .sort((a, b) => startOf(b) - startOf(a))
    .map((placed) => tightenJob(problem, board, placed))
    .sort((a, b) => a.job - b.job);
}

function tightenJob(problem: PlanProblem, board: Board, placed: PlacedJob): PlacedJob {
  const job = problem.jobs[placed.job] as PlanJob;
  const steps: PlacedStep[] = [...placed.steps];
  const takenBy = (technician: number): Span[] => board.technicians[technician] as Span[];
  for (const { technician, from, to } of placed.steps) if (technician !== null) release(takenBy(technician), { from, to });
  placed.steps.forEach((span, index) => letGoKits(board.kits, job.steps[index] as PlanStep, span));
  for (let index = steps.length - 2; index >= 0; index -= 1) {
    const step = steps[index] as PlacedStep;
    const until = (steps[index + 1] as PlacedStep).from;
    const { durationMs } = job.steps[index] as PlanJob['steps'][number];
    const shifts = step.technician === null ? [] : (problem.technicians[step.technician]?.shifts ?? []);
    const latest = step.technician === null ? until - durationMs : latestIn(shifts, takenBy(step.technician), until, durationMs);
    const from = Math.max(step.from, latest ?? step.from);
    steps[index] = { ...step, from, to: from + durationMs };
  }
  // a step that could not follow would leave a longer wait than is allowed: then the job stays as it was
  const keepsWaits = job.steps.every(
    ({ maxWaitMs }, index) =>
      index === 0 || maxWaitMs === null || (steps[index] as PlacedStep).from - (steps[index - 1] as PlacedStep).to <= maxWaitMs + 1e-3,
  );
  const keepsKits = steps.every((span, index) => kitsFrom(problem, board.kits, job.steps[index] as PlanStep, span.from) === span.from);
  const tight = keepsWaits && keepsKits ? steps : [...placed.steps];
  tight.forEach((span, index) => holdKits(board.kits, job.steps[index] as PlanStep, span));
  for (const { technician, from, to } of tight) if (technician !== null) take(takenBy(technician), { from, to });
  return { ...placed, steps: tight };
}
