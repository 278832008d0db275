import { expose } from 'comlink';
import { arrange, type Arranged, type ArrangeProgress } from '@core/workshop/planning/arrange.js';
import type { PlanProblem } from '@core/workshop/planning/problem.js';

/** ms between two reports to the screen */
const REPORT_MS = 100;

/** The search for a plan, beside the screen. Whoever stops it ends the worker and keeps the last report. */
export class PlanEngine {
  arrange(problem: PlanProblem, forMs: number, onProgress: (progress: ArrangeProgress) => void): Arranged | null {
    const until = performance.now() + forMs;
    let told = 0;
    return arrange(problem, {
      isOver: () => performance.now() > until,
      onProgress: (progress) => {
        if (performance.now() - told < REPORT_MS) return;
        told = performance.now();
        onProgress(progress);
      },
    });
  }
}

expose(new PlanEngine());
