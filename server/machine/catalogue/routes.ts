import { and, asc, eq, isNull } from 'drizzle-orm';
import { ownPartEditSchema, ownPartSchema, demandPart, type OwnPartEdit } from '../../../core/machine/catalogue/ownPartSchema.js';
import type { OwnPart, OwnPartInput } from '../../../core/machine/catalogue/ownParts.js';
import { ownPart } from '../../base/database/tables/ownParts.js';
import { bodyAs, idFrom, type Ask } from '../../base/http/context.js';
import { notFound, stale } from '../../base/http/errors.js';
import type { Routes } from '../../base/http/routes.js';

/** Parts that the workshop keeps. Loops that hold one carry all of it themselves: nothing of theirs changes with it. */
export function catalogueRoutes(routes: Routes): void {
  routes.get<{ parts: OwnPart[] }>('/own-parts', async ({ scope }) => ({
    parts: (await scope.select().from(ownPart).where(isNull(ownPart.goneAt)).orderBy(asc(ownPart.label))).map(told),
  }));
  routes.post<OwnPart>('/own-parts', (ask) => addPart(ask, bodyAs<OwnPartInput>(ask.request, ownPartSchema)));
  routes.put<OwnPart>('/own-parts/:id', (ask) => editPart(ask, bodyAs<OwnPartEdit>(ask.request, ownPartEditSchema)));
  routes.delete('/own-parts/:id', (ask) => offer(ask, false));
  routes.post('/own-parts/:id/back', (ask) => offer(ask, true));
}

const told = ({ workshopId: _, createdAt: _at, goneAt: _gone, ...part }: typeof ownPart.$inferSelect): OwnPart => part;

async function addPart({ scope, account }: Ask, input: OwnPartInput): Promise<OwnPart> {
  demandPart(input);
  const [made] = await scope
    .insert(ownPart)
    .values({ workshopId: account.workshopId, ...input })
    .returning();
  return told(made as NonNullable<typeof made>);
}

async function editPart({ scope, request }: Ask, input: OwnPartEdit): Promise<OwnPart> {
  demandPart(input);
  const id = idFrom(request, 'id', 'part');
  const { version, ...values } = input;
  const [after] = await scope
    .update(ownPart)
    .set({ ...values, version: version + 1 })
    .where(and(eq(ownPart.id, id), eq(ownPart.version, version)))
    .returning();
  if (after) return told(after);
  const [now] = await scope.select().from(ownPart).where(eq(ownPart.id, id));
  if (!now) throw notFound('part');
  throw stale('part', input, told(now));
}

async function offer({ scope, request, clock }: Ask, offered: boolean): Promise<OwnPart> {
  const [row] = await scope
    .update(ownPart)
    .set({ goneAt: offered ? null : clock.now() })
    .where(eq(ownPart.id, idFrom(request, 'id', 'part')))
    .returning();
  if (!row) throw notFound('part');
  return told(row);
}
