import { and, eq, isNull } from 'drizzle-orm';
import Joi from 'joi';
import { readJson } from '../../../core/base/checking/readJson.js';
import type { BenchReport } from '../../../core/bench/simulated-bench/report.js';
import { run } from '../../base/database/tables/runs.js';
import { inWorkshop, type Database } from '../../base/database/client.js';
import { practice } from '../../base/database/tables/practice.js';

const seenSchema = Joi.object({ at: Joi.string().isoDate().required(), text: Joi.string().max(400).required() });
/** From our own simulated bench, which only a bench's simulated secret may send. */
const reportSchema = Joi.object({ truth: Joi.object().required(), happenings: Joi.array().required() }).unknown(true);

export const readSeen = (payload: string): { at: string; text: string } | null => readJson(seenSchema, payload);
export const readReport = (payload: string): BenchReport | null => readJson(reportSchema, payload);

/** What really happened so far belongs to the practice run that stands on the bench; without one it is nobody's. */
export function keepReport(database: Database, workshopId: string, benchId: string, report: BenchReport): Promise<void> {
  return inWorkshop(database, workshopId, async (scope) => {
    const [row] = await scope
      .select({ id: run.id })
      .from(run)
      .where(and(eq(run.benchId, benchId), eq(run.state, 'active'), isNull(run.jobId)));
    if (row) await scope.update(practice).set({ report }).where(eq(practice.runId, row.id));
  });
}
