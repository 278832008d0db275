import type { PlanProblem } from './problem.js';
import type { PlacedJob } from './problem.js';

/**
 * What is wrong with a plan, in words; empty: nothing. Written from the rules alone and sharing nothing with the search,
 * so that it can judge it, and plans that people drag together.
 */
export function checkPlan({ nowMs, jobs, technicians, benches, kits }: PlanProblem, plan: readonly PlacedJob[]): string[] {
  const wrong: string[] = [];
  const say = (words: string): void => void wrong.push(words);
  const seen = new Set<number>();
  for (const { job: index, bench, steps } of plan) {
    const job = jobs[index];
    if (!job || seen.has(index)) {
      say(`job ${index} is unknown or planned twice`);
      continue;
    }
    seen.add(index);
    if (!benches[bench]) say(`${job.id} stands on no bench`);
    if (steps.length !== job.steps.length) say(`${job.id} has ${steps.length} of ${job.steps.length} steps`);
    const windows = job.windows ?? [];
    const [begins, ends] = [steps[0]?.from ?? 0, steps.at(-1)?.to ?? 0];
    if (windows.length > 0 && !windows.some(({ from, to }) => begins >= from - 1e-6 && ends <= to + 1e-6))
      say(`${job.id} is here on days that its owner needs it`);
    steps.forEach((step, k) => {
      const wanted = job.steps[k];
      if (!wanted) return;
      if (step.from < nowMs || step.from < job.releaseMs) say(`${job.id} step ${k} begins before it can`);
      if (Math.abs(step.to - step.from - wanted.durationMs) > 1e-6) say(`${job.id} step ${k} has another length`);
      const before = steps[k - 1];
      if (before && step.from < before.to - 1e-6) say(`${job.id} step ${k} begins before the one before it ends`);
      if (before && wanted.maxWaitMs !== null && step.from - before.to > wanted.maxWaitMs + 1e-6) say(`${job.id} step ${k} waits too long`);
      if (wanted.attended !== (step.technician !== null)) say(`${job.id} step ${k} has ${wanted.attended ? 'nobody' : 'somebody'} at it`);
      if (step.technician !== null) {
        const { shifts = [], skills } = technicians[step.technician] ?? {};
        const lacks = (wanted.skills ?? []).filter((skill) => skills !== undefined && !skills.includes(skill));
        if (lacks.length > 0) say(`${job.id} step ${k} has somebody at it who lacks ${lacks.join(', ')}`);
        if (!shifts.some(({ from, to }) => step.from >= from - 1e-6 && step.to <= to + 1e-6))
          say(`${job.id} step ${k} lies outside a shift`);
      }
    });
  }
  if (seen.size !== jobs.length) say(`${jobs.length - seen.size} jobs are not planned`);
  const overlap = (spans: readonly { from: number; to: number; what: string }[], where: string): void => {
    const sorted = spans.filter(({ from, to }) => to > from).sort((a, b) => a.from - b.from);
    sorted.forEach((span, k) => {
      const next = sorted[k + 1];
      if (next && next.from < span.to - 1e-6) say(`${where}: ${span.what} and ${next.what} at the same time`);
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
        ...(taken ?? []).map((span) => ({ ...span, what: 'what is agreed' })),
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
    if (Math.max(0, ...most) > count) say(`${Math.max(...most)} of ${count} ${id} are held at once`);
  }
  return wrong;
}
