import type { PlanProblem } from './problem.js';
import type { PlacedJob } from './problem.js';

/** What is wrong with a plan: a job by its id, a step by its number. */
export type PlanConflict =
  | { readonly why: 'unknown-or-twice'; readonly index: number }
  | { readonly why: 'no-bench' | 'owner-needs-it'; readonly job: string }
  | { readonly why: 'steps-missing'; readonly job: string; readonly has: number; readonly wants: number }
  | {
      readonly why: 'too-early' | 'other-length' | 'before-the-last' | 'waits-too-long' | 'nobody' | 'somebody' | 'outside-shift';
      readonly job: string;
      readonly step: number;
    }
  | { readonly why: 'lacks-skill'; readonly job: string; readonly step: number; readonly skills: readonly string[] }
  | { readonly why: 'not-planned'; readonly count: number }
  | { readonly why: 'same-time'; readonly where: string; readonly first: string | null; readonly second: string | null }
  | { readonly why: 'kit-short'; readonly kit: string; readonly held: number; readonly count: number };

/**
 * What is wrong with a plan; empty: nothing. Written from the rules alone and sharing nothing with the search,
 * so that it can judge it, and plans that people drag together.
 */
export function planConflicts({ nowMs, jobs, technicians, benches, kits }: PlanProblem, plan: readonly PlacedJob[]): PlanConflict[] {
  const wrong: PlanConflict[] = [];
  const say = (conflict: PlanConflict): void => void wrong.push(conflict);
  const seen = new Set<number>();
  for (const { job: index, bench, steps } of plan) {
    const job = jobs[index];
    if (!job || seen.has(index)) {
      say({ why: 'unknown-or-twice', index });
      continue;
    }
    seen.add(index);
    if (!benches[bench]) say({ why: 'no-bench', job: job.id });
    if (steps.length !== job.steps.length) say({ why: 'steps-missing', job: job.id, has: steps.length, wants: job.steps.length });
    const windows = job.windows ?? [];
    const [begins, ends] = [steps[0]?.from ?? 0, steps.at(-1)?.to ?? 0];
    if (windows.length > 0 && !windows.some(({ from, to }) => begins >= from - 1e-6 && ends <= to + 1e-6))
      say({ why: 'owner-needs-it', job: job.id });
    steps.forEach((step, k) => {
      const wanted = job.steps[k];
      if (!wanted) return;
      if (step.from < nowMs || step.from < job.releaseMs) say({ why: 'too-early', job: job.id, step: k });
      if (Math.abs(step.to - step.from - wanted.durationMs) > 1e-6) say({ why: 'other-length', job: job.id, step: k });
      const before = steps[k - 1];
      if (before && step.from < before.to - 1e-6) say({ why: 'before-the-last', job: job.id, step: k });
      if (before && wanted.maxWaitMs !== null && step.from - before.to > wanted.maxWaitMs + 1e-6)
        say({ why: 'waits-too-long', job: job.id, step: k });
      if (wanted.attended !== (step.technician !== null)) say({ why: wanted.attended ? 'nobody' : 'somebody', job: job.id, step: k });
      if (step.technician !== null) {
        const { shifts = [], skills } = technicians[step.technician] ?? {};
        const lacks = (wanted.skills ?? []).filter((skill) => skills !== undefined && !skills.includes(skill));
        if (lacks.length > 0) say({ why: 'lacks-skill', job: job.id, step: k, skills: lacks });
        if (!shifts.some(({ from, to }) => step.from >= from - 1e-6 && step.to <= to + 1e-6))
          say({ why: 'outside-shift', job: job.id, step: k });
      }
    });
  }
  if (seen.size !== jobs.length) say({ why: 'not-planned', count: jobs.length - seen.size });
  const overlap = (spans: readonly { from: number; to: number; what: string | null }[], where: string): void => {
    const sorted = spans.filter(({ from, to }) => to > from).sort((a, b) => a.from - b.from);
    sorted.forEach((span, k) => {
      const next = sorted[k + 1];
      if (next && next.from < span.to - 1e-6) say({ why: 'same-time', where, first: span.what, second: next.what });
    });
  };
  technicians.forEach(({ id }, person) =>
    overlap(
      plan.flatMap(({ job, steps }) =>
        steps.flatMap((step) => (step.technician === person ? [{ from: step.from, to: step.to, what: jobs[job]?.id ?? '' }] : [])),
      ),
      id,
    ),
  );
  benches.forEach(({ id, taken }, bench) =>
    overlap(
      [
        ...(taken ?? []).map((span) => ({ ...span, what: null })),
        ...plan.flatMap((placed) =>
          placed.bench === bench
            ? [{ from: placed.steps[0]?.from ?? 0, to: placed.steps.at(-1)?.to ?? 0, what: jobs[placed.job]?.id ?? '' }]
            : [],
        ),
      ],
      id,
    ),
  );
  for (const { id, count, taken = [] } of kits ?? []) {
    const own = plan.flatMap(({ job, steps }) => steps.filter((step, k) => step.to > step.from && jobs[job]?.steps[k]?.kits?.includes(id)));
    const held = [...taken, ...own];
    // the most are held at the start of one of them; what cannot move may hold too many by itself, which nobody can mend here
    const most = own.map((span) => {
      const met = held.filter(({ from, to }) => from < span.to - 1e-6 && to > span.from + 1e-6);
      const starts = met.map(({ from }) => Math.max(from, span.from));
      return Math.max(...starts.map((at) => met.filter(({ from, to }) => from <= at + 1e-6 && to > at + 1e-6).length));
    });
    if (Math.max(0, ...most) > count) say({ why: 'kit-short', kit: id, held: Math.max(...most), count });
  }
  return wrong;
}
