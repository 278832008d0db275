import { say } from '../../../core/base/words/say.js';
import type { PersonRow, Shop, SignedInRow } from '../../../core/workshop/people/answers.js';
import { eq } from 'drizzle-orm';
import type { Request, Router } from 'express';
import {
  benchSchema,
  linkAskedSchema,
  passwordByLinkSchema,
  passwordChangeSchema,
  passwordGivenSchema,
  personEditSchema,
  personSchema,
  setupSchema,
  signInSchema,
  workshopSchema,
  type LinkAsked,
  type PasswordByLink,
  type PasswordChange,
  type PasswordGiven,
  type PersonEdit,
  type PersonInput,
  type SetupInput,
  type SignInInput,
  type WorkshopEdit,
} from '../../../core/workshop/people/schema.js';
import { heatLimitsSchema, type HeatLimitsEdit } from '../../../core/physics/condition/limits.js';
import { doorSettingsSchema, type DoorSettingsEdit } from '../../../core/workshop/people/doorSettings.js';
import { ownReadingSchema, readingEditSchema, type OwnReading, type ReadingEdit } from '../../../core/workshop/people/readingSchema.js';
import { contactSchema, type ContactEdit } from '../../../core/workshop/people/contact.js';
import { bodyAs, runScoped, type App } from '../../base/http/context.js';
import { DomainError } from '../../base/http/errors.js';
import { Gate } from '../../base/http/gate.js';
import type { Routes } from '../../base/http/routes.js';
import { passwordMatches } from './password.js';
import { linkLimits, type PasswordLinks } from './passwordLink.js';
import { beginSession, endSession, forget } from './session.js';
import { signInLimits, type KnownDevices, type SignInLimit } from './signInLimits.js';
import { person } from '../../base/database/tables/people.js';
import { addPerson, changePassword, editPerson, givePassword, setOwnReading } from './people.js';
import { endOthers, endSignedIn, listSignedIn } from './signedIn.js';
import { demandOwnDoor } from './demoDoor.js';
import {
  addBench,
  editWorkshop,
  renameBench,
  hasWorkshop,
  readWorkshop,
  setContact,
  setHeatLimits,
  setDoor,
  setReading,
  setUpWorkshop,
} from './workshop.js';

/** How sessions begin and end on this server. */
export interface Door {
  readonly limit: SignInLimit;
  readonly devices: KnownDevices;
  readonly links: PasswordLinks;
  readonly overTls: boolean;
  /** open streams of a session end with it */
  readonly onSignOut: (sessionId: string) => void;
}

/** passwords that are looked at once: each takes memory and a thread for a while */
const passwords = new Gate(4, 200);

/** Signing in and out, and the first visit: the only routes that need no session. */
export function openRoutes(router: Router, app: App, { limit, devices, links, overTls, onSignOut }: Door): void {
  const throttle = signInLimits(app.database, limit, devices);

  router.get('/session', async (request, response) => {
    response.json(await describeSession(app, request));
  });

  router.post('/session', throttle, async (request, response) => {
    const { email, password, device } = bodyAs<SignInInput>(request, signInSchema);
    const [found] = await app.database
      .select({
        id: person.id,
        workshopId: person.workshopId,
        active: person.active,
        passwordHash: person.passwordHash,
        isDemo: person.isDemo,
      })
      .from(person)
      .where(eq(person.email, email.trim().toLowerCase()));
    const matches = await passwords.through('', () => passwordMatches(password, found?.active ? found.passwordHash : null));
    if (!matches || !found) throw new DomainError('wrong-credentials', say('That e-mail address and password do not belong together.'));
    if (found.isDemo) await demandOwnDoor(app.database, request, found.workshopId);
    await beginSession(request, { personId: found.id, workshopId: found.workshopId, sinceMs: Date.now(), ...(device ? { device } : {}) });
    devices.remember(response, email.trim().toLowerCase());
    response.status(201).json(await describeSession(app, request));
  });

  router.post('/password-link', linkLimits(app.database), (request, response) => {
    const { email } = bodyAs<LinkAsked>(request, linkAskedSchema);
    // answered before anything is looked up: how long it takes tells nothing either
    void links.send(app, email).catch((error: unknown) => app.log.warn({ name: nameOf(error) }, 'a link for a new password was not sent'));
    response.status(202).json({ asked: true });
  });

  router.post('/new-password', throttle, async (request, response) => {
    const input = bodyAs<PasswordByLink>(request, passwordByLinkSchema);
    await passwords.through('', () => links.change(app, input));
    response.json({ changed: true });
  });

  router.post('/setup', throttle, async (request, response) => {
    const made = await setUpWorkshop(app.database, bodyAs<SetupInput>(request, setupSchema));
    await beginSession(request, { ...made, sinceMs: Date.now() });
    response.status(201).json(await describeSession(app, request));
  });

  router.delete('/session', async (request, response) => {
    onSignOut(request.sessionID);
    await endSession(request);
    forget(response, overTls).json({ signedIn: false });
  });
}

const nameOf = (error: unknown): string => (error instanceof Error ? error.name : 'unknown');

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
  routes.put<Shop>('/workshop', (ask) => editWorkshop(ask, bodyAs<WorkshopEdit>(ask.request, workshopSchema)));
  routes.put<Shop>('/workshop/contact', (ask) => setContact(ask, bodyAs<ContactEdit>(ask.request, contactSchema)));
  routes.put<Shop>('/workshop/heat-limits', (ask) => setHeatLimits(ask, bodyAs<HeatLimitsEdit>(ask.request, heatLimitsSchema)));
  routes.put<Shop>('/workshop/reading', (ask) => setReading(ask, bodyAs<ReadingEdit>(ask.request, readingEditSchema)));
  routes.put<Shop>('/workshop/door', (ask) => setDoor(ask, bodyAs<DoorSettingsEdit>(ask.request, doorSettingsSchema)));
  routes.put<{ reading: OwnReading }>('/own-reading', (ask) => setOwnReading(ask, bodyAs<OwnReading>(ask.request, ownReadingSchema)));
  routes.post<PersonRow>('/people', (ask) => addPerson(ask, bodyAs<PersonInput>(ask.request, personSchema)));
  routes.put<PersonRow>('/people/:id', (ask) => editPerson(ask, bodyAs<PersonEdit>(ask.request, personEditSchema)));
  routes.put<PersonRow>('/people/:id/password', (ask) => givePassword(ask, bodyAs<PasswordGiven>(ask.request, passwordGivenSchema)));
  routes.put<{ changed: true }>('/own-password', (ask) => changePassword(ask, bodyAs<PasswordChange>(ask.request, passwordChangeSchema)));
  routes.get<{ sessions: SignedInRow[] }>('/signed-in', listSignedIn);
  routes.delete<{ sessions: SignedInRow[] }>('/signed-in', endOthers);
  routes.delete<{ sessions: SignedInRow[] }>('/signed-in/:id', endSignedIn);
  routes.put<Shop['benches'][number]>('/benches/:id', (ask) => renameBench(ask, bodyAs<{ name: string }>(ask.request, benchSchema).name));
  routes.post<Shop['benches'][number]>('/benches', (ask) => addBench(ask, bodyAs<{ name: string }>(ask.request, benchSchema).name));
}
