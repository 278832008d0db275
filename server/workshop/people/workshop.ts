import { say } from '../../../core/base/words/say.js';
import { randomUUID } from 'node:crypto';
import { and, asc, eq, sql } from 'drizzle-orm';
import type { DoorSettingsEdit } from '../../../core/workshop/people/doorSettings.js';
import type { ContactEdit } from '../../../core/workshop/people/contact.js';
import type { HeatLimitsEdit } from '../../../core/physics/condition/limits.js';
import { refreshAllConditions } from '../../machine/condition/condition.js';
import type { ReadingEdit } from '../../../core/workshop/people/readingSchema.js';
import type { SetupInput, WorkshopEdit } from '../../../core/workshop/people/schema.js';
import { DEFAULT_SCHOOLS } from '../../../core/physics/leak-testing/schools.js';
import { enterWorkshop, type Database, type Scope } from '../../base/database/client.js';
import { idFrom, type Ask } from '../../base/http/context.js';
import { DomainError, notFound, stale } from '../../base/http/errors.js';
import { DEFAULT_POLICY, ownPolicy, setPolicy } from '../due-dates/policies.js';
import { redate } from '../due-dates/redate.js';
import { hashPassword } from './password.js';
import { listPeople } from './people.js';
import { demandStrength } from './strength.js';
import { bench, person, workshop, isRealBench } from '../../base/database/tables/people.js';

/** Any number: two first visits at once must not make two workshops. */
const SETUP_LOCK = 418_002;

export async function hasWorkshop(database: Database): Promise<boolean> {
  const [row] = await database.select({ id: workshop.id }).from(workshop).limit(1);
  return row !== undefined;
}

export interface NewWorkshop {
  readonly workshopId: string;
  readonly personId: string;
}

/** The first visit makes the workshop, its lead and its first bench. Later visits are refused. */
export async function setUpWorkshop(database: Database, input: SetupInput): Promise<NewWorkshop> {
  demandStrength(input.password, [input.workshopName, input.personName, input.email]);
  const passwordHash = await hashPassword(input.password);
  return database.transaction(async (transaction) => {
    await transaction.execute(sql`select pg_advisory_xact_lock(${SETUP_LOCK})`);
    const [existing] = await transaction.select({ id: workshop.id }).from(workshop).limit(1);
    if (existing) throw new DomainError('refused', say('This server already has its workshop; ask its lead for an account.'));
    return createWorkshop(transaction, { ...input, email: input.email.toLowerCase(), passwordHash });
  });
}

export async function createWorkshop(
  scope: Scope,
  input: Omit<SetupInput, 'password'> & { passwordHash: string; firstPassword?: boolean },
): Promise<NewWorkshop> {
  const workshopId = randomUUID();
  await enterWorkshop(scope, workshopId);
  await scope.insert(workshop).values({ id: workshopId, name: input.workshopName, timeZone: input.timeZone, schools: DEFAULT_SCHOOLS });
  await setPolicy(scope, workshopId, {}, DEFAULT_POLICY);
  const [lead] = await scope
    .insert(person)
    .values({
      workshopId,
      name: input.personName,
      email: input.email,
      role: 'lead',
      passwordHash: input.passwordHash,
      firstPassword: input.firstPassword ?? false,
    })
    .returning({ id: person.id });
  await scope.insert(bench).values({ workshopId, name: 'Bench 1', position: 1 });
  return { workshopId, personId: (lead as { id: string }).id };
}

const benchesOf = (scope: Scope) =>
  scope.select({ id: bench.id, name: bench.name }).from(bench).where(isRealBench).orderBy(asc(bench.position), asc(bench.name));

export async function readWorkshop({ scope, account }: Ask) {
  const [own] = await scope
    .select({
      id: workshop.id,
      name: workshop.name,
      timeZone: workshop.timeZone,
      schools: workshop.schools,
      hotFromMonth: workshop.hotFromMonth,
      hotUntilMonth: workshop.hotUntilMonth,
      drain: workshop.drain,
      rates: workshop.rates,
      contact: workshop.contact,
      reading: workshop.reading,
      door: workshop.door,
      heatLimits: workshop.heatLimits,
      version: workshop.version,
    })
    .from(workshop)
    .where(eq(workshop.id, account.workshopId));
  if (!own) throw new DomainError('signed-out', say('This workshop is gone.'));
  const people = await listPeople(scope);
  const policy = (await ownPolicy(scope, {})) ?? DEFAULT_POLICY;
  return { workshop: { ...own, policy }, people, benches: await benchesOf(scope) };
}

/** Changes the workshop's row where nobody else did meanwhile. @param yours what was sent, for whoever has to choose */
export async function changeWorkshop(ask: Ask, version: number, values: Partial<typeof workshop.$inferInsert>, yours: object = values) {
  const changed = await ask.scope
    .update(workshop)
    .set({ ...values, version: version + 1 })
    .where(and(eq(workshop.id, ask.account.workshopId), eq(workshop.version, version)))
    .returning({ id: workshop.id });
  if (changed.length === 0) throw stale('workshop', yours, (await readWorkshop(ask)).workshop);
  return readWorkshop(ask);
}

export const setReading = (ask: Ask, { version, ...reading }: ReadingEdit) => changeWorkshop(ask, version, { reading });
/** What owners may do on their page. */
export const setDoor = (ask: Ask, { version, ...door }: DoorSettingsEdit) => changeWorkshop(ask, version, { door });
export const setContact = (ask: Ask, { version, ...contact }: ContactEdit) => changeWorkshop(ask, version, { contact });

/** What is too hot: every machine's readings are held against it anew. */
export async function setHeatLimits(ask: Ask, { version, ...heatLimits }: HeatLimitsEdit) {
  const shop = await changeWorkshop(ask, version, { heatLimits });
  await refreshAllConditions(ask.scope);
  await redate(ask.scope, { everything: true });
  return shop;
}

export async function editWorkshop(ask: Ask, input: WorkshopEdit) {
  const { version, policy, ...values } = input;
  await changeWorkshop(ask, version, values, input);
  await setPolicy(ask.scope, ask.account.workshopId, {}, policy);
  await redate(ask.scope, { everything: true });
  return readWorkshop(ask);
}

export async function addBench({ scope, account }: Ask, name: string) {
  const [{ last } = { last: 0 }] = await scope.select({ last: sql<number>`coalesce(max(${bench.position}), 0)::int` }).from(bench);
  const [made] = await scope
    .insert(bench)
    .values({ workshopId: account.workshopId, name, position: last + 1 })
    .returning({ id: bench.id, name: bench.name });
  return made as NonNullable<typeof made>;
}

export async function renameBench({ scope, request }: Ask, name: string) {
  const [after] = await scope
    .update(bench)
    .set({ name })
    .where(and(eq(bench.id, idFrom(request, 'id', 'bench')), isRealBench))
    .returning({ id: bench.id, name: bench.name });
  if (!after) throw notFound('bench');
  return after;
}
