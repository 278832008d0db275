import type { CallAnswer, NextVisit, OffersAnswer } from '../../../core/workshop/calls/answers.js';
import { bookingSchema, callSchema, offersSchema, type BookingInput, type CallQuery, type OffersQuery } from '../../../core/workshop/calls/schema.js'; // prettier-ignore
import type { JobPage } from '../../../core/workshop/jobs/answers.js';
import { readInput } from '../../../core/base/checking/input.js';
import { bodyAs } from '../../base/http/context.js';
import type { Routes } from '../../base/http/routes.js';
import { bookCall, offersFor, offersForJob } from './booking.js';
import { readNextVisit } from './nextVisit.js';
import { whoCalls } from './calls.js';

export function callRoutes(routes: Routes): void {
  routes.get<CallAnswer>('/calls', (ask) => whoCalls(ask, readInput<CallQuery>(callSchema, { ...ask.request.query }).who));
  routes.get<OffersAnswer>('/offers', (ask) => offersFor(ask, readInput<OffersQuery>(offersSchema, { ...ask.request.query })));
  routes.get<OffersAnswer>('/jobs/:id/offers', offersForJob);
  routes.get<{ next: NextVisit | null }>('/systems/:id/next', readNextVisit);
  routes.post<JobPage>('/systems/:id/bookings', (ask) => bookCall(ask, bodyAs<BookingInput>(ask.request, bookingSchema)));
}
