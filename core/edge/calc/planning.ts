import Joi from 'joi';
import { readInput, refuse } from '../../base/checking/input.js';
import { finite, instant } from '../../base/checking/fields.js';
import { arrange } from '../../workshop/planning/arrange.js';
import { canBeDone } from '../../workshop/planning/bound.js';
import { endOf, lateMinutes, MINUTE_MS, type PlanJob, type PlanProblem, type Span } from '../../workshop/planning/problem.js';

interface PlanDocument {
  now: string;
  technicians: { id: string; shifts: { from: string; to: string }[] }[];
  benches: { id: string }[];
  jobs: {
    id: string;
    release: string;
    due: string;
    weight: number;
    steps: { minutes: number; attended: boolean; max_wait_minutes?: number }[];
  }[];
  seconds: number;
}

/** min; a year. Longer steps are a slip of the finger */
const MOST_MINUTES = 527_040;
const MOST = { technicians: 200, shifts: 5000, benches: 500, jobs: 2000, steps: 100, seconds: 600, weight: 1e9 } as const;

const key = Joi.string().min(1).max(120).required();
const minutes = (): Joi.NumberSchema => finite().min(0).max(MOST_MINUTES);
const schema = Joi.object({
  now: instant().required(),
  technicians: Joi.array()
    .items(
      Joi.object({
        id: key,
        shifts: Joi.array()
          .items(Joi.object({ from: instant().required(), to: instant().required() }))
          .max(MOST.shifts)
          .required(),
      }),
    )
    .unique('id')
    .max(MOST.technicians)
    .required(),
  benches: Joi.array()
    .items(Joi.object({ id: key }))
    .unique('id')
    .max(MOST.benches)
    .required(),
  jobs: Joi.array()
    .items(
      Joi.object({
        id: key,
        release: instant().required(),
        due: instant().required(),
        weight: finite().min(0).max(MOST.weight).required(),
        steps: Joi.array()
          .items(Joi.object({ minutes: minutes().required(), attended: Joi.boolean().required(), max_wait_minutes: minutes() }))
          .min(1)
          .max(MOST.steps)
          .required(),
      }),
    )
    .unique('id')
    .max(MOST.jobs)
    .required(),
  seconds: finite().min(0).max(MOST.seconds).required(),
});

/** Shifts in order; what touches or overlaps is one. */
function mergeShifts(shifts: readonly Span[]): Span[] {
  const merged: Span[] = [];
  for (const shift of [...shifts].sort((a, b) => a.from - b.from)) {
    const last = merged.at(-1);
    if (last && shift.from <= last.to) merged[merged.length - 1] = { from: last.from, to: Math.max(last.to, shift.to) };
    else merged.push(shift);
  }
  return merged;
}

function problemOf({ now, technicians, benches, jobs }: PlanDocument): PlanProblem {
  return {
    nowMs: Date.parse(now),
    technicians: technicians.map(({ id, shifts }, person) => ({
      id,
      shifts: mergeShifts(
        shifts.map(({ from, to }, index): Span => {
          const span = { from: Date.parse(from), to: Date.parse(to) };
          if (span.to <= span.from) refuse(`technicians[${person}].shifts[${index}].to`, `must lie after from (${from}; got ${to})`);
          return span;
        }),
      ),
    })),
    benches,
    jobs: jobs.map(({ id, release, due, weight, steps }): PlanJob => ({
      id,
      releaseMs: Date.parse(release),
      dueMs: Date.parse(due),
      weight,
      steps: steps.map(({ minutes: length, attended, max_wait_minutes: wait }) => ({
        durationMs: length * MINUTE_MS,
        attended,
        maxWaitMs: wait === undefined ? null : wait * MINUTE_MS,
      })),
    })),
  };
}

/** What no order of jobs could mend, with the place of the first one. */
function refuseImpossible(problem: PlanProblem): void {
  if (problem.jobs.length > 0 && problem.benches.length === 0) refuse('benches', 'there is no bench to work at; name at least one');
  problem.jobs.forEach((job, index) => {
    if (!canBeDone(problem, index))
      refuse(
        `jobs[${index}].steps`,
        `"${job.id}" fits into no shifts that are given, even alone: longer shifts, later ones, or shorter steps`,
      );
  });
}

/** @param clock ms; the search ends when `seconds` of it have passed */
export function calcPlan(input: unknown, clock: () => number = Date.now): object {
  const document = readInput<PlanDocument>(schema, input);
  const problem = problemOf(document);
  refuseImpossible(problem);
  const until = clock() + document.seconds * 1000;
  const plan = arrange(problem, { isOver: () => clock() >= until });
  if (!plan) refuse('technicians', 'their shifts are too short for all jobs together: give more shifts, or fewer jobs');
  const iso = (ms: number): string => new Date(ms).toISOString();
  return {
    jobs: plan.jobs.map((placed) => {
      const job = problem.jobs[placed.job] as PlanJob;
      return {
        id: job.id,
        bench: problem.benches[placed.bench]?.id,
        steps: placed.steps.map(({ from, to, technician }) => ({
          start: iso(from),
          end: iso(to),
          ...(technician === null ? {} : { technician: problem.technicians[technician]?.id }),
        })),
        late_minutes: lateMinutes(job, endOf(placed)),
      };
    }),
    weighted_late_minutes: plan.weightedLateMinutes,
    lower_bound: plan.lowerBound,
  };
}
