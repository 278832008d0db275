import { eq } from 'drizzle-orm';
import type { ImportAnswer } from '../../../core/workshop/importing/answers.js';
import { importSchema, readImport, type ImportTable, type KnownOwner } from '../../../core/workshop/importing/rows.js';
import { bodyAs, type Ask } from '../../base/http/context.js';
import type { Routes } from '../../base/http/routes.js';
import { owner, system } from '../../base/database/tables/machines.js';

export function importRoutes(routes: Routes): void {
  routes.post<ImportAnswer>('/imports', (ask) => importSystems(ask, bodyAs<ImportTable & { dryRun: boolean }>(ask.request, importSchema)));
}

/** rows of one insert */
const CHUNK = 500;

async function knownOwners({ scope }: Ask): Promise<KnownOwner[]> {
  const owners = await scope
    .select({ id: owner.id, name: owner.name, phone: owner.phone, email: owner.email })
    .from(owner)
    .where(eq(owner.forCourse, false));
  const systems = await scope.select({ ownerId: system.ownerId, name: system.name }).from(system).where(eq(system.forCourse, false));
  const names = new Map<string, string[]>();
  for (const { ownerId, name } of systems) names.set(ownerId, [...(names.get(ownerId) ?? []), name]);
  return owners.map((owner) => ({ ...owner, systems: names.get(owner.id) ?? [] }));
}

/** Reads a table, and unless it is a trial, writes all of it that can be taken in one transaction. */
async function importSystems(ask: Ask, table: ImportTable & { dryRun: boolean }) {
  const { scope, account } = ask;
  const { owners, refused } = readImport(table, await knownOwners(ask));
  const counts = {
    owners: owners.filter(({ knownId }) => knownId === null).length,
    systems: owners.reduce((sum, each) => sum + each.systems.length, 0),
    refused,
  };
  if (table.dryRun) return counts;
  const made = owners.filter(({ knownId }) => knownId === null);
  const ids = new Map<(typeof owners)[number], string>();
  for (const owner of owners) if (owner.knownId !== null) ids.set(owner, owner.knownId);
  for (let from = 0; from < made.length; from += CHUNK) {
    const some = made.slice(from, from + CHUNK);
    const rows = await scope
      .insert(owner)
      .values(some.map(({ input: { policy: _, ...values } }) => ({ workshopId: account.workshopId, ...values })))
      .returning({ id: owner.id });
    some.forEach((owner, index) => ids.set(owner, (rows[index] as { id: string }).id));
  }
  const machines = owners.flatMap((owner) =>
    owner.systems.map(({ policy: _, ...values }) => ({ workshopId: account.workshopId, ownerId: ids.get(owner) as string, ...values })),
  );
  for (let from = 0; from < machines.length; from += CHUNK) await scope.insert(system).values(machines.slice(from, from + CHUNK));
  return counts;
}
