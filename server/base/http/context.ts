import { say } from '../../../core/base/words/say.js';
import type { ServersAnswer } from '../../../core/base/health/servers.js';
import type { Contact } from '../../../core/workshop/people/contact.js';
import type { Broker } from '../../../core/bench/instruments/answers.js';
import type { BenchOrder } from '../../../core/bench/simulated-bench/order.js';
import { and, eq } from 'drizzle-orm';
import type { Request } from 'express';
import 'express-session';
import type { Logger } from 'pino';
import type { Reading } from '../../../core/base/units/reading.js';
import { writtenFor } from './readers.js';
import type { Device, Role } from '../../../core/workshop/people/roles.js';
import { readInput } from '../../../core/base/checking/input.js';
import { id } from '../../../core/base/checking/fields.js';
import { dayIn } from '../../../core/base/units/calendar.js';
import type Joi from 'joi';
import { person, workshop } from '../database/tables/people.js';
import { inWorkshop, type Database, type Scope } from '../database/client.js';
import type { DrawPaper } from '../pdf/paperPdf.js';
import type { Clock } from './clock.js';
import { DomainError, notFound } from './errors.js';

/** What every route needs. */
export interface App {
  readonly database: Database;
  readonly clock: Clock;
  readonly log: Logger;
  readonly version: string;
  readonly instruments: Instruments;
  /** bytes that the photographs of one workshop may fill */
  readonly photoQuotaBytes: number;
  /** where this server is reached on its own machine, for links of workshops without a public address */
  readonly ownOrigin: string;
  /** this server and the others on its database */
  readonly servers: () => ServersAnswer;
  /** Draws a paper as a PDF, away from requests. */
  readonly drawPaper: DrawPaper;
  /** Hands a letter to the mail server, or its stand-in, at once. */
  readonly sendLetter: SendLetter;
}

export interface OneLetter {
  readonly workshopId: string;
  /** name of the workshop that writes */
  readonly from: string;
  readonly to: string;
  readonly subject: string;
  readonly body: string;
}
export type SendLetter = (letter: OneLetter) => Promise<void>;

/** The way to a bench's instruments, as far as requests need it. */
export interface Instruments {
  readonly broker: Broker;
  /** starts a simulated bench once it can be reached */
  simulate(order: Omit<BenchOrder, 'urls'>): void;
}

declare module 'express-session' {
  interface SessionData {
    /** who signed in; name, role and rights are read afresh at every request */
    signedIn?: SignedIn;
    csrf?: string;
  }
}

export interface SignedIn {
  readonly personId: string;
  readonly workshopId: string;
  /** ms; when somebody signed in; missing in sessions of older programs */
  sinceMs?: number;
  /** missing where it did not say */
  device?: Device;
}

export interface Account {
  readonly personId: string;
  readonly workshopId: string;
  readonly personName: string;
  readonly role: Role;
  readonly workshopName: string;
  readonly timeZone: string;
  readonly contact: Contact;
  /** letters carry a link to the owner’s page */
  readonly doorOpen: boolean;
  /** the workshop's way of reading, with the person's own over it */
  readonly reading: Reading;
  readonly ownReading: Partial<Reading>;
  readonly workshopReading: Reading;
  readonly firstPassword: boolean;
}

/** A request of somebody signed in, with a transaction that sees one workshop. */
export interface Ask extends App {
  readonly scope: Scope;
  readonly account: Account;
  readonly request: Request;
  /** today in the workshop's time zone */
  readonly today: string;
}

const signedOut = (): DomainError =>
  new DomainError('signed-out', say('You are signed out. Sign in; what you typed is still on this device.'));

/** The account behind a session, or `signed-out` where it was closed meanwhile. */
async function loadAccount(scope: Scope, { personId }: SignedIn): Promise<Account> {
  const [row] = await scope
    .select({
      personId: person.id,
      personName: person.name,
      role: person.role,
      workshopId: workshop.id,
      workshopName: workshop.name,
      timeZone: workshop.timeZone,
      contact: workshop.contact,
      door: workshop.door,
      workshopReading: workshop.reading,
      ownReading: person.reading,
      firstPassword: person.firstPassword,
    })
    .from(person)
    .innerJoin(workshop, eq(workshop.id, person.workshopId))
    .where(and(eq(person.id, personId), eq(person.active, true)));
  if (!row) throw signedOut();
  const { door, ...account } = row;
  return { ...account, doorOpen: door.open, reading: { ...row.workshopReading, ...row.ownReading } };
}

export const todayOf = (account: Account, clock: Clock): string => dayIn(account.timeZone, clock.now());

/** An id from the address. Anything that is not an id is not found, like an id of another workshop. */
export function idFrom(request: Request, parameter: string, what: string): string {
  const value = request.params[parameter];
  if (typeof value !== 'string' || id().validate(value).error) throw notFound(what);
  return value.toLowerCase();
}

/** The checked body; before this call it is unknown, after it typed. */
export function bodyAs<T>(request: Request, schema: Joi.Schema): T {
  return readInput<T>(schema, request.body as unknown);
}

export async function runScoped<T>(app: App, request: Request, work: (ask: Ask) => Promise<T>): Promise<T> {
  const signedIn = request.session.signedIn;
  if (!signedIn) throw signedOut();
  return inWorkshop(app.database, signedIn.workshopId, async (scope) => {
    const account = await loadAccount(scope, signedIn);
    return writtenFor(account.reading, () => work({ ...app, scope, account, request, today: todayOf(account, app.clock) }));
  });
}
