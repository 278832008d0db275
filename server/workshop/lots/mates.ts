import type { Mate as MateAnswer, MatesAnswer } from '../../../core/workshop/lots/answers.js';
import type { LotOnBag } from '../../../core/workshop/lots/schema.js';
import type { Suspect } from '../../../core/workshop/lots/suspects.js';
import { and, desc, eq, isNull, ne, sql } from 'drizzle-orm';
import { fill } from '../../base/database/tables/runs.js';
import { coolantLot, coolantProduct } from '../../base/database/tables/coolants.js';
import type { Scope } from '../../base/database/client.js';
import { serviceJob } from '../../base/database/tables/jobs.js';
import { loop, loopRevision } from '../../base/database/tables/loops.js';
import { owner, system } from '../../base/database/tables/machines.js';
import { fittedPart } from '../../base/database/tables/lots.js';

/** What a lot is called: its product or make, and what stands on the bottle or bag. */
export const lotWords = (of: string, lot: string): string => `${of}, ${lot}`;

/** Another machine that holds what is suspected, and in which loop. */
export interface Mate extends MateAnswer {
  readonly loopId: string;
}

export interface Suspicion {
  readonly jobId: string;
  readonly systemId: string;
  readonly suspect: Suspect;
  readonly item: string | null;
}

export interface Suspected extends MatesAnswer {
  readonly mates: readonly Mate[];
}

/** Machines that hold the suspected lot now, by name. */
export async function suspectedIn(scope: Scope, { jobId, systemId, suspect, item }: Suspicion): Promise<Suspected> {
  if (suspect === 'coolant-lot') return coolantMates(scope, jobId, systemId);
  return suspect === 'part' && item !== null ? partMates(scope, jobId, systemId, item) : { what: null, mates: [] };
}

/** A machine that holds something now, with how its owner is reached. */
export type Holder = Mate & { readonly email: string | null; readonly channel: string };

const HELD = {
  systemId: system.id,
  systemName: system.name,
  ownerName: owner.name,
  phone: owner.phone,
  email: owner.email,
  channel: owner.channel,
};

const asMate = ({ systemId, systemName, ownerName, phone, loopId, since }: Holder): Mate => ({ systemId, systemName, ownerName, phone, loopId, since }); // prettier-ignore

/** Machines in use whose last fill is of a lot, by name. */
export async function holdersOfCoolant(scope: Scope, lotId: string): Promise<Holder[]> {
  const newest = scope
    .$with('newest')
    .as(
      scope
        .selectDistinctOn([loopRevision.loopId], { loopId: loopRevision.loopId, lotId: fill.lotId, filledOn: fill.filledOn })
        .from(fill)
        .innerJoin(loopRevision, eq(loopRevision.id, fill.revisionId))
        .orderBy(loopRevision.loopId, desc(fill.filledOn), desc(fill.createdAt)),
    );
  return scope
    .with(newest)
    .select({ ...HELD, loopId: loop.id, since: newest.filledOn })
    .from(newest)
    .innerJoin(loop, eq(loop.id, newest.loopId))
    .innerJoin(system, eq(system.id, loop.systemId))
    .innerJoin(owner, eq(owner.id, system.ownerId))
    .where(and(eq(newest.lotId, lotId), ne(system.state, 'retired')))
    .orderBy(system.name);
}

/** Machines in use that hold a part of a make and lot, by name. */
export const holdersOfPart = (scope: Scope, { make, lot }: LotOnBag): Promise<Holder[]> =>
  scope
    .selectDistinctOn([system.name, system.id], { ...HELD, loopId: fittedPart.loopId, since: fittedPart.fittedOn })
    .from(fittedPart)
    .innerJoin(system, eq(system.id, fittedPart.systemId))
    .innerJoin(owner, eq(owner.id, system.ownerId))
    .where(
      and(
        sql`lower(${fittedPart.make}) = lower(${make})`,
        sql`lower(${fittedPart.lot}) = lower(${lot})`,
        isNull(fittedPart.goneOn),
        ne(system.state, 'retired'),
      ),
    )
    .orderBy(system.name, system.id, fittedPart.fittedOn);

async function coolantMates(scope: Scope, jobId: string, systemId: string): Promise<Suspected> {
  const own = await lotBefore(scope, jobId, systemId);
  return own ? { what: own.what, mates: await others(holdersOfCoolant(scope, own.lotId), systemId) } : { what: null, mates: [] };
}

const others = async (holders: Promise<Holder[]>, systemId: string): Promise<Mate[]> =>
  (await holders).filter((holder) => holder.systemId !== systemId).map(asMate);

/** The lot that was in the loop when the job began: the last fill that is not this job's own. */
async function lotBefore(scope: Scope, jobId: string, systemId: string): Promise<{ lotId: string; what: string } | null> {
  const [row] = await scope
    .select({ lotId: fill.lotId, lot: coolantLot.lot, product: coolantProduct.name })
    .from(fill)
    .innerJoin(loopRevision, eq(loopRevision.id, fill.revisionId))
    .innerJoin(loop, eq(loop.id, loopRevision.loopId))
    .innerJoin(serviceJob, and(eq(serviceJob.jobId, jobId), eq(serviceJob.loopId, loop.id)))
    .innerJoin(coolantProduct, eq(coolantProduct.id, fill.productId))
    .leftJoin(coolantLot, eq(coolantLot.id, fill.lotId))
    .where(and(eq(loop.systemId, systemId), ne(fill.jobId, jobId)))
    .orderBy(desc(fill.filledOn), desc(fill.createdAt))
    .limit(1);
  return row && row.lotId !== null ? { lotId: row.lotId, what: lotWords(row.product, row.lot ?? '') } : null;
}

async function partMates(scope: Scope, jobId: string, systemId: string, item: string): Promise<Suspected> {
  const [own] = await scope
    .select({ make: fittedPart.make, lot: fittedPart.lot })
    .from(fittedPart)
    .where(
      and(
        eq(fittedPart.systemId, systemId),
        eq(fittedPart.itemId, item),
        // what this very job fitted is the new one
        sql`${fittedPart.jobId} is distinct from ${jobId}::uuid`,
      ),
    )
    .orderBy(desc(fittedPart.fittedOn), desc(fittedPart.createdAt))
    .limit(1);
  if (!own) return { what: null, mates: [] };
  return { what: lotWords(own.make, own.lot), mates: await others(holdersOfPart(scope, own), systemId) };
}
