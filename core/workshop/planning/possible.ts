import { canBeDone } from './bound.js';
import type { PlacedJob, PlanJob, PlanProblem } from './problem.js';

/** Why a job fits nowhere, whatever else is planned. */
export type Hindrance = 'owner-days' | 'skill' | 'kit' | 'hours';
export const HINDRANCE_WORDS: Readonly<Record<Hindrance, string>> = {
  'owner-days': 'its owner’s days are too short for it',
  skill: 'nobody with hours has the skill it asks for',
  kit: 'the workshop has none of the kit it needs',
  hours: 'nobody’s hours are long enough for one of its steps',
};

export interface Possible {
  /** the problem without the jobs that fit nowhere */
  readonly problem: PlanProblem;
  readonly left: readonly { readonly id: string; readonly why: Hindrance }[];
  /** placements of the smaller problem, told in the whole one's numbers */
  readonly back: (placed: readonly PlacedJob[]) => PlacedJob[];
}

/** One impossible job must not keep all others off the board: it is set aside, with the reason. */
export function setAsideImpossible(problem: PlanProblem): Possible {
  const kept: number[] = [];
  const left: { id: string; why: Hindrance }[] = [];
  problem.jobs.forEach((job, index) => {
    if (canBeDone(problem, index)) kept.push(index);
    else left.push({ id: job.id, why: hindranceOf(problem, job) });
  });
  return {
    problem: { ...problem, jobs: kept.map((index) => problem.jobs[index] as PlanJob) },
    left,
    back: (placed) => placed.map((each) => ({ ...each, job: kept[each.job] as number })),
  };
}

/** The one constraint without which it would fit; several at once count as the last of them. */
function hindranceOf(problem: PlanProblem, job: PlanJob): Hindrance {
  const bare: PlanJob = { ...job, windows: [], steps: job.steps.map((step) => ({ ...step, kits: [], skills: [] })) };
  const fits = (changed: PlanJob): boolean => canBeDone({ ...problem, jobs: [changed] }, 0);
  if (!fits(bare)) return 'hours';
  if (fits({ ...job, windows: [] })) return 'owner-days';
  return fits({ ...job, windows: [], steps: job.steps.map((step) => ({ ...step, skills: [] })) }) ? 'skill' : 'kit';
}
