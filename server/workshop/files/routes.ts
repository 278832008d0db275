import { say } from '../../../core/base/words/say.js';
import { and, desc, eq, isNull, sql, type SQL } from 'drizzle-orm';
import type { Router } from 'express';
import type { FileOwner, KeptFile } from '../../../core/workshop/files/kinds.js';
import { fileSchema, type FileInput } from '../../../core/workshop/files/schema.js';
import type { Scope } from '../../base/database/client.js';
import { coolantProduct } from '../../base/database/tables/coolants.js';
import { keptFile } from '../../base/database/tables/files.js';
import { system } from '../../base/database/tables/machines.js';
import { ownPart } from '../../base/database/tables/ownParts.js';
import { person } from '../../base/database/tables/people.js';
import { bodyAs, idFrom, runScoped, type App, type Ask } from '../../base/http/context.js';
import { DomainError, notFound } from '../../base/http/errors.js';
import type { Routes } from '../../base/http/routes.js';
import { contentOf } from './content.js';

/** What a paper may belong to: its table, its column, and its name in a refusal. */
const OWNERS = {
  systems: { table: system, column: keptFile.systemId, field: 'systemId', word: 'system' },
  coolants: { table: coolantProduct, column: keptFile.coolantProductId, field: 'coolantProductId', word: 'coolant' },
  'own-parts': { table: ownPart, column: keptFile.ownPartId, field: 'ownPartId', word: 'part' },
} as const;

/** Papers of machines, coolants and parts. */
export function fileRoutes(routes: Routes, router: Router, app: App): void {
  for (const owner of Object.keys(OWNERS) as FileOwner[]) {
    routes.get<{ files: KeptFile[] }>(`/${owner}/:id/files`, async (ask) => ({ files: await filesOf(ask, owner) }));
    routes.post<{ files: KeptFile[] }>(`/${owner}/:id/files`, (ask) => keepFile(ask, owner, bodyAs<FileInput>(ask.request, fileSchema)));
  }
  routes.delete('/files/:id', (ask) => putAway(ask, true));
  routes.post('/files/:id/back', (ask) => putAway(ask, false));
  // the paper itself: handed over as a file, never shown as a page of this application
  router.get('/files/:id', async (request, response) => {
    const row = await runScoped(app, request, async ({ scope }) => {
      const [found] = await scope
        .select({ name: keptFile.name, type: keptFile.mediaType, content: keptFile.content })
        .from(keptFile)
        .where(eq(keptFile.id, idFrom(request, 'id', 'file')));
      if (!found) throw notFound('file');
      return found;
    });
    response.attachment(row.name);
    response.set('content-security-policy', "default-src 'none'; sandbox").set('x-content-type-options', 'nosniff');
    response.type(row.type).send(row.content);
  });
}

async function demandOwner(scope: Scope, owner: FileOwner, id: string): Promise<void> {
  const { table, word } = OWNERS[owner];
  const [own] = await scope.select({ id: table.id }).from(table).where(eq(table.id, id));
  if (!own) throw notFound(word);
}

async function filesOf({ scope, request }: Ask, owner: FileOwner): Promise<KeptFile[]> {
  const { column, word } = OWNERS[owner];
  const id = idFrom(request, 'id', word);
  await demandOwner(scope, owner, id);
  return listed(scope, eq(column, id));
}

async function listed(scope: Scope, which: SQL): Promise<KeptFile[]> {
  const rows = await scope
    .select({
      id: keptFile.id,
      name: keptFile.name,
      kind: keptFile.kind,
      note: keptFile.note,
      type: keptFile.mediaType,
      bytes: sql<number>`octet_length(${keptFile.content})`.mapWith(Number),
      by: person.name,
      at: keptFile.createdAt,
    })
    .from(keptFile)
    .innerJoin(person, eq(person.id, keptFile.personId))
    .where(and(which, isNull(keptFile.goneAt)))
    .orderBy(desc(keptFile.createdAt));
  return rows.map((row) => ({ ...row, at: row.at.toISOString() }));
}

/** Keeps a paper. Its id is made on the device: sent twice, it is kept once. */
async function keepFile(ask: Ask, owner: FileOwner, input: FileInput): Promise<{ files: KeptFile[] }> {
  const { scope, account, clock, request, photoQuotaBytes } = ask;
  const { word, field, column } = OWNERS[owner];
  const ownerId = idFrom(request, 'id', word);
  await demandOwner(scope, owner, ownerId);
  const { type, bytes } = contentOf(input.content);
  const [{ heldBytes } = { heldBytes: 0 }] = await scope
    .select({ heldBytes: sql<number>`coalesce(sum(octet_length(${keptFile.content})), 0)`.mapWith(Number) })
    .from(keptFile);
  if (heldBytes + bytes.length > photoQuotaBytes)
    throw new DomainError(
      'refused',
      say('The files of this workshop fill their {e6} MB. Nothing was kept.', { e6: Math.round(photoQuotaBytes / 1e6) }),
    );
  await scope
    .insert(keptFile)
    .values({
      id: input.id,
      workshopId: account.workshopId,
      [field]: ownerId,
      name: input.name,
      kind: input.kind,
      note: input.note,
      mediaType: type,
      content: bytes,
      personId: account.personId,
      createdAt: clock.now(),
    })
    .onConflictDoNothing();
  return { files: await listed(scope, eq(column, ownerId)) };
}

async function putAway({ scope, clock, request }: Ask, away: boolean) {
  const id = idFrom(request, 'id', 'file');
  const changed = await scope
    .update(keptFile)
    .set({ goneAt: away ? clock.now() : null })
    .where(eq(keptFile.id, id))
    .returning({ id: keptFile.id });
  if (changed.length === 0) throw notFound('file');
  return { id };
}
