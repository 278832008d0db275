import type { Shop } from '../../../core/workshop/people/answers.js';
import { eq } from 'drizzle-orm';
import type { Request, Router } from 'express';
import rateLimit from 'express-rate-limit';
import {
  benchSchema,
  personSchema,
  setupSchema,
  signInSchema,
  workshopSchema,
  type PersonInput,
  type SetupInput,
  type SignInInput,
  type WorkshopEdit,
} from '../../../core/workshop/people/schema.js';
import { bodyAs, needLead, runScoped, type App } from '../../base/http/context.js';
import { answerOf, DomainError } from '../../base/http/errors.js';
import type { Routes } from '../../base/http/routes.js';
import { passwordMatches } from './password.js';
import { beginSession, cookieName, endSession } from './session.js';
import { person } from '../../base/database/tables/people.js';
import { addBench, addPerson, editWorkshop, hasWorkshop, readWorkshop, setUpWorkshop } from './workshop.js';

/** Failed sign-ins allowed in the window, by address of the caller. */
export interface SignInLimit {
  readonly tries: number;
  readonly windowMs: number;
}
export const SIGN_IN_LIMIT: SignInLimit = { tries: 10, windowMs: 5 * 60_000 };

/** Signing in and out, and the first visit: the only routes that need no session. */
export function openRoutes(router: Router, app: App, limit: SignInLimit): void {
  const throttle = rateLimit({
    windowMs: limit.windowMs,
    limit: limit.tries,
    standardHeaders: 'draft-8',
    legacyHeaders: false,
    skipSuccessfulRequests: true,
    handler: (_request, response) => {
      const { status, body } = answerOf(new DomainError('too-many', 'Too many failed sign-ins. Wait five minutes, then try again.'));
      response.status(status).json(body);
    },
  });

  router.get('/session', async (request, response) => {
    response.json(await describeSession(app, request));
  });

  router.post('/session', throttle, async (request, response) => {
    const { email, password } = bodyAs<SignInInput>(request, signInSchema);
    const [found] = await app.database.select().from(person).where(eq(person.email, email.trim().toLowerCase()));
    const matches = await passwordMatches(password, found?.active ? found.passwordHash : null);
    if (!matches || !found) throw new DomainError('wrong-credentials', 'That e-mail address and password do not belong together.');
    await beginSession(request, { personId: found.id, workshopId: found.workshopId });
    response.status(201).json(await describeSession(app, request));
  });

  router.post('/setup', throttle, async (request, response) => {
    const made = await setUpWorkshop(app.database, bodyAs<SetupInput>(request, setupSchema));
    await beginSession(request, made);
    response.status(201).json(await describeSession(app, request));
  });

  router.delete('/session', async (request, response) => {
    await endSession(request);
    response.clearCookie(cookieName).json({ signedIn: false });
  });
}

async function describeSession(app: App, request: Request): Promise<object> {
  if (!request.session.signedIn) return { signedIn: false, setupNeeded: !(await hasWorkshop(app.database)) };
  return runScoped(app, request, async ({ account, today }) => ({
    signedIn: true,
    account,
    token: request.session.csrf,
    today,
    now: app.clock.now().toISOString(),
  })).catch(async (error: unknown) => {
    if (!(error instanceof DomainError) || error.code !== 'signed-out') throw error;
    await endSession(request);
    return { signedIn: false, setupNeeded: false };
  });
}

export function accountRoutes(routes: Routes): void {
  routes.get<Shop>('/workshop', readWorkshop);
  routes.put<Shop>('/workshop', async (ask) => {
    needLead(ask);
    return editWorkshop(ask, bodyAs<WorkshopEdit>(ask.request, workshopSchema));
  });
  routes.post<Shop['people'][number]>('/people', async (ask) => {
    needLead(ask);
    return addPerson(ask, bodyAs<PersonInput>(ask.request, personSchema));
  });
  routes.post<Shop['benches'][number]>('/benches', async (ask) => {
    needLead(ask);
    return addBench(ask, bodyAs<{ name: string }>(ask.request, benchSchema).name);
  });
}
