import { say } from '../../../core/base/words/say.js';
import { and, asc, eq, ne, sql } from 'drizzle-orm';
import type { PersonRow } from '../../../core/workshop/people/answers.js';
import type { OwnReading } from '../../../core/workshop/people/readingSchema.js';
import type { PasswordChange, PasswordGiven, PersonEdit, PersonInput } from '../../../core/workshop/people/schema.js';
import { refuse } from '../../../core/base/checking/input.js';
import { person } from '../../base/database/tables/people.js';
import type { Database, Scope } from '../../base/database/client.js';
import { idFrom, type Ask } from '../../base/http/context.js';
import { DomainError, notFound, stale } from '../../base/http/errors.js';
import { hashPassword, passwordMatches } from './password.js';
import { endSessionsOf } from './signedIn.js';
import { demandStrength } from './strength.js';

const ROW = {
  id: person.id,
  name: person.name,
  email: person.email,
  role: person.role,
  active: person.active,
  version: person.version,
} as const;

export const listPeople = (scope: Scope): Promise<PersonRow[]> => scope.select(ROW).from(person).orderBy(asc(person.name));

/** What an attacker tries first at this door. */
const about = ({ account }: Ask, own: { readonly name: string; readonly email: string }): string[] => [
  account.workshopName,
  own.name,
  own.email,
];

export async function addPerson(ask: Ask, input: PersonInput): Promise<PersonRow> {
  demandStrength(input.password, about(ask, input));
  const [made] = await ask.scope
    .insert(person)
    .values({
      workshopId: ask.account.workshopId,
      name: input.name,
      email: input.email.toLowerCase(),
      role: input.role,
      passwordHash: await hashPassword(input.password),
      firstPassword: true,
    })
    .returning(ROW);
  return made as NonNullable<typeof made>;
}

async function personOf({ scope, request }: Ask) {
  const [found] = await scope
    .select()
    .from(person)
    .where(eq(person.id, idFrom(request, 'id', 'person')))
    .for('update');
  if (!found) throw notFound('person');
  return found;
}

/** Whoever is left must be able to let somebody in again. */
async function demandAnotherLead(scope: Scope, personId: string): Promise<void> {
  // two leads that make technicians of each other at once take turns
  await scope.execute(sql`select 1 from workshop for update`);
  const [other] = await scope
    .select({ id: person.id })
    .from(person)
    .where(and(eq(person.role, 'lead'), eq(person.active, true), ne(person.id, personId)))
    .limit(1);
  if (!other)
    throw new DomainError('refused', say('This is the only lead: make somebody else a lead first, or nobody could let people in.'));
}

/** Renames, gives another role, lets in or no longer. Who is no longer let in is signed out everywhere at once. */
export async function editPerson(ask: Ask, input: PersonEdit): Promise<PersonRow> {
  const { version, ...values } = input;
  const found = await personOf(ask);
  const { name, role, active } = found;
  if (found.version !== version) throw stale('person', input, { name, role, active, version: found.version });
  const leads = found.role === 'lead' && found.active;
  if (leads && (input.role !== 'lead' || !input.active)) await demandAnotherLead(ask.scope, found.id);
  const [changed] = await ask.scope
    .update(person)
    .set({ ...values, version: version + 1 })
    .where(eq(person.id, found.id))
    .returning(ROW);
  if (!input.active) await endSessionsOf(ask.database, ask.account.workshopId, found.id);
  return changed as NonNullable<typeof changed>;
}

/** How somebody reads numbers, dates and words, over what the workshop reads. */
export async function setOwnReading({ scope, account }: Ask, reading: OwnReading): Promise<{ reading: OwnReading }> {
  await scope.update(person).set({ reading }).where(eq(person.id, account.personId));
  return { reading };
}

interface NewPassword {
  readonly database: Database;
  readonly workshopId: string;
  readonly personId: string;
  readonly password: string;
  /** somebody else chose it: it is to be changed */
  readonly isFirst: boolean;
  /** the session that stays; missing: none */
  readonly butSid?: string;
}

/** Gives somebody a password, and signs every other device of theirs out. */
export async function setPassword(scope: Scope, given: NewPassword): Promise<void> {
  const { database, workshopId, personId, password, isFirst, butSid } = given;
  await scope
    .update(person)
    .set({ passwordHash: await hashPassword(password), firstPassword: isFirst })
    .where(eq(person.id, personId));
  await endSessionsOf(database, workshopId, personId, butSid);
}

/** The lead gives a new first password: whoever was signed in with the old one is no longer. */
export async function givePassword(ask: Ask, { password }: PasswordGiven): Promise<PersonRow> {
  const found = await personOf(ask);
  demandStrength(password, about(ask, found));
  const { scope, database, account, request } = ask;
  const isFirst = found.id !== account.personId;
  await setPassword(scope, { database, workshopId: account.workshopId, personId: found.id, password, isFirst, butSid: request.sessionID });
  const { id, name, email, role, active, version } = found;
  return { id, name, email, role, active, version };
}

/** One's own. Every other device is signed out: one of them may be why it is changed. */
export async function changePassword(ask: Ask, { current, password }: PasswordChange): Promise<{ changed: true }> {
  const { scope, database, account, request } = ask;
  const [own] = await scope.select().from(person).where(eq(person.id, account.personId)).for('update');
  if (!own || !(await passwordMatches(current, own.passwordHash))) refuse('current', say('is not your password'));
  if (current === password) refuse('password', say('is the one you have: take another'));
  demandStrength(password, about(ask, own as NonNullable<typeof own>));
  const { workshopId, personId } = account;
  await setPassword(scope, { database, workshopId, personId, password, isFirst: false, butSid: request.sessionID });
  return { changed: true };
}
