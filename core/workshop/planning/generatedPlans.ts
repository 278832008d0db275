import { seededRandom } from '../../base/random/random.js';
import { MINUTE_MS, type PlanProblem } from './problem.js';

/** Workshops made from a seed, for tests and the benchmark: the same seed gives the same one on every machine. */

const HOUR_MS = 60 * MINUTE_MS;
const DAY_MS = 24 * HOUR_MS;
const MONDAY = Date.parse('2026-03-09T00:00:00Z');

export interface PlanSize {
  readonly jobs: number;
  readonly benches: number;
  readonly technicians: number;
  readonly days: number;
  readonly mostSteps: number;
  /** skills, kits and owners' days as well */
  readonly scarce?: boolean;
}

export function generatePlan(seed: number, { jobs, benches, technicians, days, mostSteps, scarce = false }: PlanSize): PlanProblem {
  const random = seededRandom(seed);
  const whole = (low: number, high: number): number => Math.floor(random.between(low, high + 1));
  const shifts = (): PlanProblem['technicians'][number]['shifts'] =>
    Array.from({ length: days }, (_, day) => day)
      .filter((day) => day % 7 < 5 && random.next() > 0.1)
      .flatMap((day) => {
        const from = MONDAY + day * DAY_MS + (8 + whole(0, 1)) * HOUR_MS;
        return [
          { from, to: from + 4 * HOUR_MS },
          { from: from + 5 * HOUR_MS, to: from + 8.5 * HOUR_MS },
        ];
      });
  const plain: PlanProblem = {
    nowMs: MONDAY + 7 * HOUR_MS,
    technicians: Array.from({ length: technicians }, (_, index) => ({ id: `technician ${index + 1}`, shifts: shifts() })),
    benches: Array.from({ length: benches }, (_, index) => ({ id: `bench ${index + 1}` })),
    jobs: Array.from({ length: jobs }, (_, index) => {
      const releaseMs = MONDAY + whole(0, Math.max(1, Math.floor(days / 3))) * DAY_MS + whole(8, 15) * HOUR_MS;
      return {
        id: `job ${index + 1}`,
        releaseMs,
        dueMs: releaseMs + whole(6, 24 * Math.max(2, Math.floor(days / 3))) * HOUR_MS,
        weight: whole(1, 5),
        steps: Array.from({ length: whole(1, mostSteps) }, (_, step) => {
          const attended = random.next() < 0.65;
          return {
            durationMs: (attended ? whole(1, 12) * 15 : whole(2, 24) * 60) * MINUTE_MS,
            attended,
            maxWaitMs: step > 0 && random.next() < 0.2 ? whole(0, 20) * HOUR_MS : null,
          };
        }),
      };
    }),
  };
  return scarce ? withScarcity(plain, random.next, days) : plain;
}

const SKILLS = ['bends', 'solders'];

function withScarcity(plain: PlanProblem, next: () => number, days: number): PlanProblem {
  return {
    ...plain,
    kits: [
      { id: 'supply', count: 1, taken: next() < 0.3 ? [{ from: MONDAY + 9 * HOUR_MS, to: MONDAY + 15 * HOUR_MS }] : [] },
      { id: 'tester', count: 2 },
    ],
    technicians: plain.technicians.map((each, index) => (index === 0 ? each : { ...each, skills: SKILLS.filter(() => next() < 0.5) })),
    jobs: plain.jobs.map((job) => ({
      ...job,
      windows: next() < 0.3 ? [0, 1].map((n) => windowFrom(job.releaseMs + n * Math.ceil(days / 2) * DAY_MS, 2 + 3 * next())) : [],
      steps: job.steps.map((step) => ({
        ...step,
        skills: step.attended && next() < 0.3 ? [SKILLS[next() < 0.5 ? 0 : 1] as string] : [],
        kits: ['supply', 'tester'].filter(() => next() < 0.25),
      })),
    })),
  };
}

const windowFrom = (from: number, lengthDays: number): { from: number; to: number } => ({ from, to: from + lengthDays * DAY_MS });

/** Ends a search after so many looks, on every machine alike. */
export function afterLooks(most: number): () => boolean {
  let asked = 0;
  return () => (asked += 1) > most;
}
