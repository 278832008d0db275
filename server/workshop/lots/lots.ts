import { say } from '../../../core/base/words/say.js';
import { newestRevision } from '../../machine/loops/revisions.js';
import type { Bagged } from '../../../core/bench/runs/sisters.js';
import { tookOut, type ServiceState } from '../../../core/bench/runs/state.js';
import { and, asc, eq, isNull, sql } from 'drizzle-orm';
import { demandPast, readInput, refuse } from '../../../core/base/checking/input.js';
import { matesSchema, type FittedPartInput, type MatesQuery } from '../../../core/workshop/lots/schema.js';
import { inspectItems } from '../../../core/bench/inspection/items.js';
import type { Scope } from '../../base/database/client.js';
import { idFrom, type Ask } from '../../base/http/context.js';
import { DomainError, notFound } from '../../base/http/errors.js';
import { loadJob } from '../jobs/jobs.js';
import { loop } from '../../base/database/tables/loops.js';
import { storeItem } from '../../base/database/tables/store.js';
import { suspectedIn } from './mates.js';
import { fittedPart } from '../../base/database/tables/lots.js';

/** Parts of known lots that are in a machine now. */
export const lotsOf = (scope: Scope, systemId: string) =>
  scope
    .select({
      id: fittedPart.id,
      loopId: fittedPart.loopId,
      itemId: fittedPart.itemId,
      make: fittedPart.make,
      lot: fittedPart.lot,
      fittedOn: fittedPart.fittedOn,
    })
    .from(fittedPart)
    .where(and(eq(fittedPart.systemId, systemId), isNull(fittedPart.goneOn)))
    .orderBy(asc(fittedPart.make), asc(fittedPart.lot));

/** What stood on the bags of what is in a loop now, where the place is known. */
export async function fittedIn(scope: Scope, loopId: string): Promise<Bagged[]> {
  const rows = await scope
    .select({ item: fittedPart.itemId, make: fittedPart.make, lot: fittedPart.lot })
    .from(fittedPart)
    .where(and(eq(fittedPart.loopId, loopId), isNull(fittedPart.goneOn)))
    .orderBy(asc(fittedPart.make), asc(fittedPart.lot));
  return rows.flatMap(({ item, ...bag }) => (item === null ? [] : [{ item, ...bag }]));
}

/** Writes down what stood on a part's bag. */
export async function addFitted({ scope, account, request, today, clock }: Ask, input: FittedPartInput) {
  const systemId = idFrom(request, 'id', 'system');
  const [own] = await scope
    .select({ id: loop.id })
    .from(loop)
    .where(and(eq(loop.id, input.loopId), eq(loop.systemId, systemId)));
  if (!own) throw notFound('loop');
  demandPast('fittedOn', input.fittedOn, today);
  if (input.itemId !== null) {
    const { file } = await newestRevision(scope, input.loopId);
    if (!inspectItems(file).some(({ id }) => id === input.itemId))
      refuse('itemId', say('"{itemId}" is not a part of this loop', { itemId: input.itemId }));
  }
  await scope.insert(fittedPart).values({ ...input, workshopId: account.workshopId, systemId, createdAt: clock.now() });
  return { lots: await lotsOf(scope, systemId) };
}

/** It is not in the machine any more, or never was. */
export async function takeFitted({ scope, request, today }: Ask) {
  const [row] = await scope
    .select({ systemId: fittedPart.systemId, fittedOn: fittedPart.fittedOn, goneOn: fittedPart.goneOn })
    .from(fittedPart)
    .where(eq(fittedPart.id, idFrom(request, 'id', 'part')));
  if (!row) throw notFound('part');
  if (row.goneOn !== null) throw new DomainError('refused', say('This part is out already.'));
  const changed = await scope
    .update(fittedPart)
    .set({ goneOn: today > row.fittedOn ? today : row.fittedOn })
    .where(and(eq(fittedPart.id, idFrom(request, 'id', 'part')), isNull(fittedPart.goneOn)))
    .returning({ id: fittedPart.id });
  if (changed.length === 0) throw new DomainError('refused', say('This part is out already.'));
  return { lots: await lotsOf(scope, row.systemId) };
}

/** Who else holds it, asked while the suspicion is being written down. */
export async function askMates({ scope, request }: Ask) {
  const jobId = idFrom(request, 'id', 'job');
  const { suspect, item } = readInput<MatesQuery>(matesSchema, request.query);
  const { job } = await loadJob(scope, jobId);
  return suspectedIn(scope, { jobId, systemId: job.systemId, suspect, item: item ?? null });
}

interface Closed {
  readonly workshopId: string;
  readonly systemId: string;
  readonly loopId: string;
  readonly jobId: string;
  readonly on: string;
  readonly at: Date;
}

/** Kinds of the shelf that stay in a machine. */
const STAYS: readonly string[] = ['seal', 'tube', 'plug', 'fitting', 'part'];

/** What a service fitted, by the bags it came out of; what it took out is gone. */
export async function keepFitted(scope: Scope, { swaps, used }: ServiceState, { on, at, ...own }: Closed): Promise<void> {
  for (const { item } of swaps.filter(tookOut))
    await scope
      .update(fittedPart)
      .set({ goneOn: sql`greatest(${fittedPart.fittedOn}, ${on}::date)` })
      .where(and(eq(fittedPart.systemId, own.systemId), eq(fittedPart.itemId, item), isNull(fittedPart.goneOn)));
  const shelf = used.length > 0 ? await scope.select().from(storeItem) : [];
  const rows = [
    ...swaps.flatMap(({ item, bag }) => (bag ? [{ ...own, ...bag, itemId: item, fittedOn: on, createdAt: at }] : [])),
    ...used.flatMap(({ itemId, item: place }) => {
      const item = shelf.find(({ id }) => id === itemId);
      return item && item.lot !== '' && STAYS.includes(item.kind)
        ? [{ ...own, make: item.name, lot: item.lot, itemId: place ?? null, fittedOn: on, createdAt: at }]
        : [];
    }),
  ];
  if (rows.length > 0) await scope.insert(fittedPart).values(rows);
}

/** A loop is over: nothing of it is in the machine any more. */
export async function endFitted(scope: Scope, loopId: string, on: string): Promise<void> {
  await scope
    .update(fittedPart)
    .set({ goneOn: sql`greatest(${fittedPart.fittedOn}, ${on}::date)` })
    .where(and(eq(fittedPart.loopId, loopId), isNull(fittedPart.goneOn)));
}
