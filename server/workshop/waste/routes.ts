import { say } from '../../../core/base/words/say.js';
import type { WasteAnswer, WasteContainerAnswer } from '../../../core/workshop/store/answers.js';
import { and, asc, desc, eq, sql } from 'drizzle-orm';
import { demandPast, refuse } from '../../../core/base/checking/input.js';
import {
  handOverSchema,
  wasteContainerSchema,
  wasteEntrySchema,
  type HandOverInput,
  type WasteContainerInput,
  type WasteEntryInput,
} from '../../../core/workshop/store/schema.js';
import { person } from '../../base/database/tables/people.js';
import { bodyAs, idFrom, type Ask } from '../../base/http/context.js';
import { DomainError, notFound, stale } from '../../base/http/errors.js';
import type { Routes } from '../../base/http/routes.js';
import { job, system } from '../../base/database/tables/machines.js';
import { wasteContainer, wasteEntry } from '../../base/database/tables/waste.js';

export function wasteRoutes(routes: Routes): void {
  routes.get<WasteAnswer>('/waste', listWaste);
  routes.get<WasteContainerAnswer>('/waste/:id', readWaste);
  routes.post('/waste', (ask) => addContainer(ask, bodyAs<WasteContainerInput>(ask.request, wasteContainerSchema)));
  routes.post('/waste/:id/entries', (ask) => addEntry(ask, bodyAs<WasteEntryInput>(ask.request, wasteEntrySchema)));
  routes.put('/waste/:id/hand-over', (ask) => handOver(ask, bodyAs<HandOverInput>(ask.request, handOverSchema)));
}

const levels = ({ scope }: Pick<Ask, 'scope'>) =>
  scope
    .select({ container: wasteContainer, levelMl: sql<number>`coalesce(sum(${wasteEntry.volumeMl}), 0)`.mapWith(Number) })
    .from(wasteContainer)
    .leftJoin(wasteEntry, eq(wasteEntry.containerId, wasteContainer.id))
    .groupBy(wasteContainer.id);

async function listWaste(ask: Ask) {
  const rows = await levels(ask).orderBy(desc(wasteContainer.state), asc(wasteContainer.label));
  return { today: ask.today, containers: rows.map(({ container, levelMl }) => ({ ...container, levelMl })) };
}

async function loadContainer(ask: Ask) {
  const id = idFrom(ask.request, 'id', 'waste container');
  const [row] = await levels(ask).where(eq(wasteContainer.id, id));
  if (!row) throw notFound('waste container');
  return { ...row.container, levelMl: row.levelMl };
}

/** One container with everything that went in, and from which job. */
export async function readWaste(ask: Ask) {
  const container = await loadContainer(ask);
  const entries = await ask.scope
    .select({
      id: wasteEntry.id,
      at: wasteEntry.createdAt,
      volumeMl: wasteEntry.volumeMl,
      note: wasteEntry.note,
      by: person.name,
      systemName: system.name,
      systemId: system.id,
    })
    .from(wasteEntry)
    .innerJoin(person, eq(person.id, wasteEntry.personId))
    .leftJoin(job, eq(job.id, wasteEntry.jobId))
    .leftJoin(system, eq(system.id, job.systemId))
    .where(eq(wasteEntry.containerId, container.id))
    .orderBy(desc(wasteEntry.createdAt));
  return { container, entries };
}

/** Nobody else pours into it or hands it over meanwhile: what fits is what fits. */
const holdOpen = (scope: Ask['scope'], id: string) =>
  scope.select({ id: wasteContainer.id }).from(wasteContainer).where(eq(wasteContainer.id, id)).for('update');

async function addContainer({ scope, account, clock }: Ask, input: WasteContainerInput) {
  const [made] = await scope
    .insert(wasteContainer)
    .values({ ...input, workshopId: account.workshopId, createdAt: clock.now() })
    .returning();
  return { ...(made as typeof wasteContainer.$inferSelect), levelMl: 0 };
}

async function addEntry(ask: Ask, input: WasteEntryInput) {
  await holdOpen(ask.scope, idFrom(ask.request, 'id', 'waste container'));
  const container = await loadContainer(ask);
  if (container.state !== 'open')
    throw new DomainError(
      'refused',
      say('{label} was handed over on {handedOn}; take another one.', { label: container.label, handedOn: container.handedOn }),
    );
  const room = container.capacityMl - container.levelMl;
  if (input.volumeMl > room)
    refuse('volumeMl', say('does not fit: {room} mL are free in {label}', { room: Math.max(0, Math.round(room)), label: container.label }));
  await ask.scope.insert(wasteEntry).values({
    workshopId: ask.account.workshopId,
    containerId: container.id,
    jobId: null,
    ...input,
    personId: ask.account.personId,
    createdAt: ask.clock.now(),
  });
  return loadContainer(ask);
}

/** Writes down what the collection point took and the number of its paper. No legal statement: local rules come first. */
async function handOver(ask: Ask, input: HandOverInput) {
  const container = await loadContainer(ask);
  if (container.state !== 'open')
    throw new DomainError(
      'refused',
      say('{label} was handed over on {handedOn}, paper {documentNumber}.', {
        label: container.label,
        handedOn: container.handedOn,
        documentNumber: container.documentNumber,
      }),
    );
  if (container.levelMl <= 0)
    throw new DomainError('refused', say('Nothing is in {label}; there is nothing to hand over.', { label: container.label }));
  demandPast('on', input.on, ask.today);
  const changed = await ask.scope
    .update(wasteContainer)
    .set({
      state: 'handed-over',
      handedOn: input.on,
      handedTo: input.to,
      carrier: input.carrier,
      wasteCode: input.wasteCode,
      documentNumber: input.documentNumber,
      version: input.version + 1,
    })
    .where(and(eq(wasteContainer.id, container.id), eq(wasteContainer.version, input.version)))
    .returning({ id: wasteContainer.id });
  if (changed.length === 0) throw stale('waste container', input, container);
  return loadContainer(ask);
}
