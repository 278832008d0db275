/** A stretch of time in ms since 1970, end not included. */
export interface Span {
  readonly from: number;
  readonly to: number;
}

export interface PlanStep {
  readonly durationMs: number;
  /** a technician stands at it; otherwise only the bench is held: a soak, a hold, a day's run */
  readonly attended: boolean;
  /** longest gap since the step before; null: any. Without meaning for a job's first step */
  readonly maxWaitMs: number | null;
  /** skills that whoever stands at it must have; missing: none */
  readonly skills?: readonly string[];
  /** kits of which one is held while it lasts; missing: none */
  readonly kits?: readonly string[];
}

export interface PlanJob {
  readonly id: string;
  /** the machine is there */
  readonly releaseMs: number;
  /** promised to be ready */
  readonly dueMs: number;
  /** what a minute late costs against others */
  readonly weight: number;
  /** the machine is in the workshop inside one of these only; missing or empty: whenever */
  readonly windows?: readonly Span[];
  readonly steps: readonly PlanStep[];
}

export interface PlanProblem {
  readonly nowMs: number;
  /** shifts in order, not overlapping */
  /** `skills` missing: this one can do everything */
  readonly technicians: readonly { readonly id: string; readonly shifts: readonly Span[]; readonly skills?: readonly string[] }[];
  /** `taken`: held by what is agreed or in progress; sorted, not overlapping */
  readonly benches: readonly { readonly id: string; readonly taken?: readonly Span[] }[];
  /** how many of a kit there are, and what is held by what cannot move; a kit not listed is always there */
  readonly kits?: readonly { readonly id: string; readonly count: number; readonly taken?: readonly Span[] }[];
  readonly jobs: readonly PlanJob[];
}

type Technician = PlanProblem['technicians'][number];
/** Whether somebody may stand at a step. */
export const hasSkills = ({ skills }: Pick<Technician, 'skills'>, step: PlanStep): boolean =>
  skills === undefined || (step.skills ?? []).every((skill) => skills.includes(skill));

/** Only shifts, benches and waits: what the exact search knows. */
export const isPlain = ({ kits, technicians, jobs }: PlanProblem): boolean =>
  !kits?.length && technicians.every(({ skills }) => skills === undefined) && jobs.every(({ windows }) => !windows?.length);

export interface PlacedStep extends Span {
  /** index into the technicians; null for an unattended step */
  readonly technician: number | null;
}

/** One job on its bench, from its first step's start to its last step's end. */
export interface PlacedJob {
  /** index into the jobs */
  readonly job: number;
  /** index into the benches */
  readonly bench: number;
  readonly steps: readonly PlacedStep[];
}

export interface Plan {
  /** in the problem's order of jobs */
  readonly jobs: readonly PlacedJob[];
  /** weight × minutes late, summed */
  readonly weightedLateMinutes: number;
}

/** Moves and offers begin on whole quarter hours: nobody says "at seven minutes past". */
export const QUARTER_MS = 15 * 60_000;
export const upToQuarter = (ms: number): number => Math.ceil(ms / QUARTER_MS) * QUARTER_MS;

export const MINUTE_MS = 60_000;

export const startOf = ({ steps }: PlacedJob): number => (steps[0] as PlacedStep).from;
export const endOf = ({ steps }: PlacedJob): number => (steps[steps.length - 1] as PlacedStep).to;
/** ms of all its steps, without waits */
export const workOf = ({ steps }: PlanJob): number => steps.reduce((sum, { durationMs }) => sum + durationMs, 0);
export const lateMinutes = ({ dueMs }: Pick<PlanJob, 'dueMs'>, endMs: number): number => Math.max(0, (endMs - dueMs) / MINUTE_MS);

/** Nothing of a job begins before it is there, or in the past. */
export const earliestOf = ({ nowMs }: PlanProblem, { releaseMs }: PlanJob): number => Math.max(nowMs, releaseMs);

/** Weighted minutes late of one job that ends then. */
export const lateCost = (job: Pick<PlanJob, 'dueMs' | 'weight'>, endMs: number): number => job.weight * lateMinutes(job, endMs);

export const weightedLate = ({ jobs }: PlanProblem, placed: readonly PlacedJob[]): number =>
  placed.reduce((sum, each) => sum + lateCost(jobs[each.job] as PlanJob, endOf(each)), 0);
