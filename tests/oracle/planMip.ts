import highsLoader from 'highs';
import { MINUTE_MS, type PlanProblem } from '../../core/workshop/planning/problem.js';

/**
 * The same planning problem as a mixed-integer program, solved by HiGHS: an answer that shares nothing with the search.
 * Starts are continuous; each attended step picks one shift of one technician; two steps with the same technician, and
 * two jobs on the same bench, come one after the other.
 * @returns least weighted late minutes, or null where there is no plan
 */
export async function optimumByMip({ nowMs, jobs, technicians, benches }: PlanProblem): Promise<number | null> {
  const highs = await highsLoader();
  const at = (ms: number): number => (ms - nowMs) / MINUTE_MS;
  const shifts = technicians.flatMap(({ shifts: own }, person) => own.map(({ from, to }) => ({ person, from: at(from), to: at(to) })));
  const big = Math.max(...shifts.map(({ to }) => to), ...jobs.map(({ releaseMs }) => at(releaseMs))) + jobs.reduce((sum, { steps }) => sum + steps.reduce((all, { durationMs }) => all + durationMs / MINUTE_MS, 0), 0) + 10_000; // prettier-ignore
  const rows: string[] = [];
  const bounds: string[] = [];
  const binaries: string[] = [];
  const start = (j: number, k: number): string => `s${j}_${k}`;
  const length = (j: number, k: number): number => (jobs[j]?.steps[k]?.durationMs ?? 0) / MINUTE_MS;
  const last = (j: number): number => (jobs[j]?.steps.length ?? 1) - 1;
  const objective = jobs.map(({ weight }, j) => `${weight} late${j}`).join(' + ');
  jobs.forEach((job, j) => {
    bounds.push(`late${j} >= 0`);
    rows.push(`${start(j, last(j))} - late${j} <= ${at(job.dueMs) - length(j, last(j))}`);
    job.steps.forEach((step, k) => {
      bounds.push(`${start(j, k)} >= ${Math.max(0, at(job.releaseMs))}`);
      if (k > 0) {
        rows.push(`${start(j, k)} - ${start(j, k - 1)} >= ${length(j, k - 1)}`);
        if (step.maxWaitMs !== null) rows.push(`${start(j, k)} - ${start(j, k - 1)} <= ${length(j, k - 1) + step.maxWaitMs / MINUTE_MS}`);
      }
      if (!step.attended) return;
      const picks = shifts.map((_, w) => `y${j}_${k}_${w}`);
      binaries.push(...picks);
      rows.push(`${picks.join(' + ')} = 1`);
      shifts.forEach(({ from, to }, w) => {
        rows.push(`${start(j, k)} - ${from} y${j}_${k}_${w} >= 0`);
        rows.push(`${start(j, k)} + ${big} y${j}_${k}_${w} <= ${to - length(j, k) + big}`);
      });
    });
    const stands = benches.map((_, b) => `b${j}_${b}`);
    binaries.push(...stands);
    rows.push(`${stands.join(' + ')} = 1`);
  });
  const attended = jobs.flatMap(({ steps }, j) => steps.flatMap((step, k) => (step.attended ? [{ j, k }] : [])));
  attended.forEach((a, i) =>
    attended.slice(i + 1).forEach((b) => {
      if (a.j === b.j || length(a.j, a.k) === 0 || length(b.j, b.k) === 0) return;
      const first = `o${a.j}_${a.k}_${b.j}_${b.k}`;
      binaries.push(first);
      technicians.forEach((_, person) => {
        const own = shifts.flatMap((shift, w) => (shift.person === person ? [w] : []));
        if (own.length === 0) return;
        const both = [...own.map((w) => `y${a.j}_${a.k}_${w}`), ...own.map((w) => `y${b.j}_${b.k}_${w}`)];
        // with the same technician: a before b, or b before a
        rows.push(
          `${start(b.j, b.k)} - ${start(a.j, a.k)} - ${big} ${first} - ${both.map((y) => `${big} ${y}`).join(' - ')} >= ${length(a.j, a.k) - 3 * big}`,
        );
        rows.push(
          `${start(a.j, a.k)} - ${start(b.j, b.k)} + ${big} ${first} - ${both.map((y) => `${big} ${y}`).join(' - ')} >= ${length(b.j, b.k) - 2 * big}`,
        );
      });
    }),
  );
  jobs.forEach((_, i) =>
    jobs.slice(i + 1).forEach((__, offset) => {
      const j = i + 1 + offset;
      const first = `q${i}_${j}`;
      binaries.push(first);
      benches.forEach((___, b) => {
        rows.push(
          `${start(j, 0)} - ${start(i, last(i))} - ${big} ${first} - ${big} b${i}_${b} - ${big} b${j}_${b} >= ${length(i, last(i)) - 3 * big}`,
        );
        rows.push(
          `${start(i, 0)} - ${start(j, last(j))} + ${big} ${first} - ${big} b${i}_${b} - ${big} b${j}_${b} >= ${length(j, last(j)) - 2 * big}`,
        );
      });
    }),
  );
  const text = `Minimize\n obj: ${objective}\nSubject To\n${rows.map((row, index) => ` c${index}: ${row}`).join('\n')}\nBounds\n${bounds.map((row) => ` ${row}`).join('\n')}\nBinary\n ${binaries.join(' ')}\nEnd`.replace(/- -/g, '+ ').replace(/\+ -/g, '- '); // prettier-ignore
  const solved = highs.solve(text);
  return solved.Status === 'Optimal' ? solved.ObjectiveValue : null;
}
