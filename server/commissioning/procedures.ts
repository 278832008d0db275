import { desc, eq } from 'drizzle-orm';
import { STANDARD_TEMPLATE } from '../../core/commissioning/standardTemplate.js';
import type { TemplateCreate } from '../../core/commissioning/templateSchema.js';
import { person } from '../accounts/tables.js';
import type { Scope } from '../database/client.js';
import { needLead, type Ask } from '../http/context.js';
import { stale } from '../http/errors.js';
import { procedureVersion } from './tables.js';

/** The workshop's procedure in all its versions, newest first, and the standard one it began with. */
export async function listProcedures({ scope }: Ask) {
  const versions = await scope
    .select({
      number: procedureVersion.number,
      template: procedureVersion.template,
      note: procedureVersion.note,
      by: person.name,
      at: procedureVersion.createdAt,
    })
    .from(procedureVersion)
    .innerJoin(person, eq(person.id, procedureVersion.personId))
    .orderBy(desc(procedureVersion.number));
  return { standard: STANDARD_TEMPLATE, versions };
}

/** What the next run is made from: the newest version, or null for the standard procedure. */
export async function newestProcedure(scope: Scope) {
  const [newest] = await scope.select().from(procedureVersion).orderBy(desc(procedureVersion.number)).limit(1);
  return newest ?? null;
}

/** Adds a version. Runs that have begun keep theirs. */
export async function addProcedure(ask: Ask, { template, note, from }: TemplateCreate) {
  needLead(ask);
  const { scope, account, clock } = ask;
  const newest = await newestProcedure(scope);
  if ((newest?.number ?? 0) !== from) throw stale('procedure', { template, note }, newest);
  await scope.insert(procedureVersion).values({
    workshopId: account.workshopId,
    number: from + 1,
    template,
    note,
    personId: account.personId,
    createdAt: clock.now(),
  });
  return listProcedures(ask);
}
