import { say } from '../../../core/base/words/say.js';
import { createHash } from 'node:crypto';
import { and, eq, gt, ne, sql } from 'drizzle-orm';
import type { SignedInRow } from '../../../core/workshop/people/answers.js';
import { person, session } from '../../base/database/tables/people.js';
import type { Database } from '../../base/database/client.js';
import type { Ask, SignedIn } from '../../base/http/context.js';
import { DomainError, notFound } from '../../base/http/errors.js';
import { SESSION } from './session.js';

/** Where people are signed in. Sessions stand outside the workshop's rows: each question names the workshop itself. */

const signedInAs = sql<SignedIn>`${session.sess} -> 'signedIn'`;
const workshopOf = sql`${session.sess} -> 'signedIn' ->> 'workshopId'`;
const personOf = sql`${session.sess} -> 'signedIn' ->> 'personId'`;

/** A name for a session that is no key to it. */
const nameOf = (sid: string): string => createHash('sha256').update(sid).digest('hex').slice(0, 32);

const rows = ({ database, account }: Ask, personId: string | null) =>
  database
    .select({ sid: session.sid, signedIn: signedInAs, expire: session.expire })
    .from(session)
    .where(and(eq(workshopOf, account.workshopId), gt(session.expire, new Date()), ...(personId === null ? [] : [eq(personOf, personId)])));

/** A lead sees everybody's, others their own. */
export async function listSignedIn(ask: Ask): Promise<{ sessions: SignedInRow[] }> {
  const { scope, account, request } = ask;
  const found = await rows(ask, account.role === 'lead' ? null : account.personId);
  const people = await scope.select({ id: person.id, name: person.name }).from(person);
  const names = new Map(people.map(({ id, name }) => [id, name]));
  const sessions = found.map(({ sid, signedIn, expire }): SignedInRow => ({
    id: nameOf(sid),
    personId: signedIn.personId,
    person: names.get(signedIn.personId) ?? '',
    device: signedIn.device ?? null,
    since: signedIn.sinceMs === undefined ? null : new Date(signedIn.sinceMs).toISOString(),
    // the cookie's time is set anew at each use
    lastUsed: new Date(expire.getTime() - SESSION.idleMs).toISOString(),
    own: sid === request.sessionID,
  }));
  return { sessions: sessions.sort((a, b) => a.person.localeCompare(b.person) || b.lastUsed.localeCompare(a.lastUsed)) };
}

/** Ends one: the tablet that was left on a train. */
export async function endSignedIn(ask: Ask): Promise<{ sessions: SignedInRow[] }> {
  const { account, request, database } = ask;
  const wanted = request.params.id;
  const found = (await rows(ask, account.role === 'lead' ? null : account.personId)).find(({ sid }) => nameOf(sid) === wanted);
  if (!found) throw notFound('sign-in');
  if (found.sid === request.sessionID) throw new DomainError('refused', say('This is where you are: sign out instead.'));
  await database.delete(session).where(eq(session.sid, found.sid));
  return listSignedIn(ask);
}

/** Every other device of who asks. */
export async function endOthers(ask: Ask): Promise<{ sessions: SignedInRow[] }> {
  const { database, account, request } = ask;
  await endSessionsOf(database, account.workshopId, account.personId, request.sessionID);
  return listSignedIn(ask);
}

/** Everywhere that somebody is signed in, but here. Open streams end within a beat of the push. */
export const endSessionsOf = (database: Database, workshopId: string, personId: string, butSid = ''): Promise<unknown> =>
  database.delete(session).where(and(eq(workshopOf, workshopId), eq(personOf, personId), ne(session.sid, butSid)));
