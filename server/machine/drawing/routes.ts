import type { CaseTemplate } from '../../../core/machine/drawing/answers.js';
import { and, asc, eq } from 'drizzle-orm';
import {
  caseTemplateEditSchema,
  caseTemplateSchema,
  type CaseTemplateEdit,
  type CaseTemplateInput,
} from '../../../core/machine/drawing/caseSchema.js';
import { bodyAs, idFrom, type Ask } from '../../base/http/context.js';
import { notFound, stale } from '../../base/http/errors.js';
import type { Routes } from '../../base/http/routes.js';
import { caseTemplate } from '../../base/database/tables/drawing.js';

export function drawingRoutes(routes: Routes): void {
  routes.get<{ templates: CaseTemplate[] }>('/case-templates', async ({ scope }) => ({
    templates: await scope.select().from(caseTemplate).orderBy(asc(caseTemplate.label)),
  }));
  routes.post<CaseTemplate>('/case-templates', (ask) => addTemplate(ask, bodyAs<CaseTemplateInput>(ask.request, caseTemplateSchema)));
  routes.put<CaseTemplate>('/case-templates/:id', (ask) =>
    editTemplate(ask, bodyAs<CaseTemplateEdit>(ask.request, caseTemplateEditSchema)),
  );
  routes.delete('/case-templates/:id', removeTemplate);
}

async function addTemplate({ scope, account }: Ask, input: CaseTemplateInput) {
  const [made] = await scope
    .insert(caseTemplate)
    .values({ workshopId: account.workshopId, ...input })
    .returning();
  return made as NonNullable<typeof made>;
}

async function editTemplate({ scope, request }: Ask, input: CaseTemplateEdit) {
  const id = idFrom(request, 'id', 'case');
  const { version, ...values } = input;
  const [after] = await scope
    .update(caseTemplate)
    .set({ ...values, version: version + 1 })
    .where(and(eq(caseTemplate.id, id), eq(caseTemplate.version, version)))
    .returning();
  if (after) return after;
  const [now] = await scope.select().from(caseTemplate).where(eq(caseTemplate.id, id));
  if (!now) throw notFound('case');
  throw stale('case', input, now);
}

/** Loops that were drawn in it carry the outline themselves: nothing of theirs changes. */
async function removeTemplate({ scope, request }: Ask) {
  const id = idFrom(request, 'id', 'case');
  const gone = await scope.delete(caseTemplate).where(eq(caseTemplate.id, id)).returning();
  if (gone.length === 0) throw notFound('case');
  return { removed: id };
}
