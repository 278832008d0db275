import { asc, eq, isNull } from 'drizzle-orm';
import { asLayout, layoutSchema, type Layout, type LayoutInput } from '../../../core/machine/layouts/schema.js';
import { readLoopFile } from '../../../core/machine/loop-file/loopFileSchema.js';
import { loopLayout } from '../../base/database/tables/layouts.js';
import { bodyAs, idFrom, type Ask } from '../../base/http/context.js';
import { notFound } from '../../base/http/errors.js';
import type { Routes } from '../../base/http/routes.js';

/** The workshop's own layouts. A loop that was begun with one is its own from then on. */
export function layoutRoutes(routes: Routes): void {
  routes.get<{ layouts: Layout[] }>('/layouts', async ({ scope }) => ({
    layouts: (await scope.select().from(loopLayout).where(isNull(loopLayout.goneAt)).orderBy(asc(loopLayout.name))).map(told),
  }));
  routes.post<Layout>('/layouts', (ask) => addLayout(ask, bodyAs<LayoutInput>(ask.request, layoutSchema)));
  routes.delete('/layouts/:id', (ask) => offer(ask, false));
  routes.post('/layouts/:id/back', (ask) => offer(ask, true));
}

const told = ({ id, name, note, file }: typeof loopLayout.$inferSelect): Layout => ({ id, name, note, file });

async function addLayout({ scope, account }: Ask, { name, note, file }: LayoutInput): Promise<Layout> {
  const [made] = await scope
    .insert(loopLayout)
    .values({ workshopId: account.workshopId, name, note, file: asLayout(readLoopFile(file, 'file')) })
    .returning();
  return told(made as NonNullable<typeof made>);
}

async function offer({ scope, request, clock }: Ask, offered: boolean): Promise<Layout> {
  const [row] = await scope
    .update(loopLayout)
    .set({ goneAt: offered ? null : clock.now() })
    .where(eq(loopLayout.id, idFrom(request, 'id', 'layout')))
    .returning();
  if (!row) throw notFound('layout');
  return told(row);
}
