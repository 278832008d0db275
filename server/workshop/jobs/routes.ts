import type { JobPage, BookableLoop } from '../../../core/workshop/jobs/answers.js';
import type { PourChoice } from '../../../core/workshop/jobs/pourChoice.js';
import Joi from 'joi';
import {
  consentSchema,
  jobEditSchema,
  jobSchema,
  type ConsentInput,
  type JobEdit,
  type JobInput,
} from '../../../core/workshop/jobs/schema.js';
import { bodyAs } from '../../base/http/context.js';
import type { Routes } from '../../base/http/routes.js';
import { arrivalSchema, type ArrivalInput } from '../../../core/workshop/jobs/arrival.js';
import { setArrival } from './arrival.js';
import { agree, bookJob, cancelJob, editJob, readJob } from './jobs.js';
import { readLoopHistory } from './loopHistory.js';
import { readPours } from './pours.js';

const cancelSchema = Joi.object({ reason: Joi.string().trim().min(3).max(1000).required() });

export function jobRoutes(routes: Routes): void {
  routes.get<JobPage>('/jobs/:id', (ask) => readJob(ask));
  routes.get<BookableLoop>('/loops/:id/history', readLoopHistory);
  routes.get<PourChoice>('/loops/:id/pours', readPours);
  routes.post<JobPage>('/systems/:id/jobs', (ask) => bookJob(ask, bodyAs<JobInput>(ask.request, jobSchema)));
  routes.put<JobPage>('/jobs/:id', (ask) => editJob(ask, bodyAs<JobEdit>(ask.request, jobEditSchema)));
  routes.put<JobPage>('/jobs/:id/arrival', (ask) => setArrival(ask, bodyAs<ArrivalInput>(ask.request, arrivalSchema)));
  routes.post<JobPage>('/jobs/:id/consent', (ask) => agree(ask, bodyAs<ConsentInput>(ask.request, consentSchema)));
  routes.post<JobPage>('/jobs/:id/cancel', (ask) => cancelJob(ask, bodyAs<{ reason: string }>(ask.request, cancelSchema).reason));
}
