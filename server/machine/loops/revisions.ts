import { say } from '../../../core/base/words/say.js';
import { drainPolicyOf } from './drainPolicy.js';
import { insideOf } from './inside.js';
import { and, desc, eq, gt, sql } from 'drizzle-orm';
import { fanGroupsOf } from '../../../core/machine/electrical/sheet.js';
import { partName, tubeLengthMm, type LoopFile } from '../../../core/machine/loop-file/loopFile.js';
import { readLoopFile } from '../../../core/machine/loop-file/loopFileSchema.js';
import type { LoopCreate, RevisionCreate } from '../../../core/machine/loop-file/schema.js';
import type { RevisionKind } from '../../../core/machine/loop-file/revisionKinds.js';
import { componentSdMl, loopVolume } from '../../../core/machine/loop-file/volume.js';
import { refuse } from '../../../core/base/checking/input.js';
import { person } from '../../base/database/tables/people.js';
import { baseline, isReal, run } from '../../base/database/tables/runs.js';
import { coolantProduct } from '../../base/database/tables/coolants.js';
import type { Scope } from '../../base/database/client.js';
import { carryContents } from './carried.js';
import { idFrom, type Ask } from '../../base/http/context.js';
import { notFound, stale } from '../../base/http/errors.js';
import { system } from '../../base/database/tables/machines.js';
import { component, isInside, loop, loopRevision, tube } from '../../base/database/tables/loops.js';

export interface NewRevision {
  readonly workshopId: string;
  readonly loopId: string;
  readonly number: number;
  readonly kind: RevisionKind;
  readonly reason: string;
  readonly personId: string;
  readonly file: LoopFile;
  readonly at: Date;
}

/** Writes the revision that follows the newest one of its loop. */
export async function addRevision(scope: Scope, input: Omit<NewRevision, 'number'>): Promise<typeof loopRevision.$inferSelect> {
  const [{ last } = { last: 0 }] = await scope
    .select({ last: sql<number>`coalesce(max(${loopRevision.number}), 0)::int` })
    .from(loopRevision)
    .where(eq(loopRevision.loopId, input.loopId));
  return insertRevision(scope, { ...input, number: last + 1 });
}

/** Writes a revision with its parts and tubes as rows. The file is kept whole beside them. */
export async function insertRevision(scope: Scope, input: NewRevision): Promise<typeof loopRevision.$inferSelect> {
  const { workshopId, file } = input;
  const volume = loopVolume(file);
  const [made] = await scope
    .insert(loopRevision)
    .values({
      workshopId,
      loopId: input.loopId,
      number: input.number,
      kind: input.kind,
      reason: input.reason,
      personId: input.personId,
      file,
      volumeMl: volume.volumeMl,
      volumeSdMl: volume.sdMl,
      createdAt: input.at,
    })
    .returning();
  const revision = made as NonNullable<typeof made>;
  const own = { workshopId, revisionId: revision.id };
  if (file.components.length > 0) {
    await scope.insert(component).values(
      file.components.map((part, position) => ({
        ...own,
        ref: part.id,
        kind: part.kind,
        label: partName(part),
        catalogueKey: part.catalogue ?? null,
        position,
        volumeMl: part.volume_ml,
        volumeSdMl: componentSdMl(part),
      })),
    );
  }
  if (file.tubes.length > 0) {
    await scope.insert(tube).values(
      file.tubes.map((each) => ({
        ...own,
        ref: each.id,
        material: each.material,
        boreMm: each.bore_mm,
        outerMm: each.outer_mm,
        lengthMm: tubeLengthMm(file, each),
      })),
    );
  }
  return revision;
}

async function demandCoolant(scope: Scope, productId: string | null): Promise<void> {
  if (productId === null) return;
  const [product] = await scope.select({ id: coolantProduct.id }).from(coolantProduct).where(eq(coolantProduct.id, productId));
  if (!product) throw notFound('coolant');
}

/** A loop with no parts cannot be planned, filled or exported to any use. */
function demandParts(file: LoopFile): void {
  if (file.components.length === 0) refuse('file.components', say('a loop needs at least one part'));
}

export async function createLoop(ask: Ask, input: LoopCreate) {
  const { scope, account, clock } = ask;
  const file = readLoopFile(input.file, 'file');
  demandParts(file);
  const [owner] = await scope.select({ id: system.id }).from(system).where(eq(system.id, input.systemId));
  if (!owner) throw notFound('system');
  await demandCoolant(scope, input.coolantProductId);
  const [made] = await scope
    .insert(loop)
    .values({ workshopId: account.workshopId, systemId: input.systemId, name: input.name, coolantProductId: input.coolantProductId })
    .returning({ id: loop.id });
  const loopId = (made as { id: string }).id;
  await insertRevision(scope, {
    workshopId: account.workshopId,
    loopId,
    number: 1,
    kind: 'planned',
    reason: '',
    personId: account.personId,
    file,
    at: clock.now(),
  });
  return loadLoop(scope, loopId);
}

export async function reviseLoop(ask: Ask, input: RevisionCreate) {
  const { scope, account, clock, request } = ask;
  const loopId = idFrom(request, 'id', 'loop');
  const file = readLoopFile(input.file, 'file');
  demandParts(file);
  const [now] = await scope.select().from(loop).where(eq(loop.id, loopId)).for('update');
  if (!now) throw notFound('loop');
  if (now.version !== input.version) throw stale('loop', input, await loadLoop(scope, loopId));
  await demandCoolant(scope, input.coolantProductId);
  if (input.kind !== 'wanted') await carryContents(scope, loopId, (await newestRevision(scope, loopId)).file, file);
  await addRevision(scope, {
    workshopId: account.workshopId,
    loopId,
    kind: input.kind,
    reason: input.reason,
    personId: account.personId,
    file,
    at: clock.now(),
  });
  await scope
    .update(loop)
    .set({ name: input.name, coolantProductId: input.coolantProductId, version: now.version + 1 })
    .where(eq(loop.id, loopId));
  return loadLoop(scope, loopId);
}

/** Baselines that travel with a loop: what was measured last says how its blocks do now. */
const NEWEST_BASELINES = 12;

/** A loop as it is inside, and the list of all its revisions. */
export async function loadLoop(scope: Scope, loopId: string) {
  const [row] = await scope
    .select({
      id: loop.id,
      name: loop.name,
      systemId: loop.systemId,
      systemName: system.name,
      coolantC: system.coolantC,
      coolantProductId: loop.coolantProductId,
      version: loop.version,
      heatSetup: loop.heatSetup,
      fanStacks: loop.fanStacks,
      electrical: system.electrical,
    })
    .from(loop)
    .innerJoin(system, eq(system.id, loop.systemId))
    .where(eq(loop.id, loopId));
  if (!row) throw notFound('loop');
  const revisions = await scope
    .select({
      id: loopRevision.id,
      number: loopRevision.number,
      kind: loopRevision.kind,
      reason: loopRevision.reason,
      at: loopRevision.createdAt,
      by: person.name,
      volumeMl: loopRevision.volumeMl,
      volumeSdMl: loopRevision.volumeSdMl,
    })
    .from(loopRevision)
    .innerJoin(person, eq(person.id, loopRevision.personId))
    .where(eq(loopRevision.loopId, loopId))
    .orderBy(desc(loopRevision.number));
  const newest = await newestRevision(scope, loopId);
  const [active] = await scope
    .select({ id: run.id, isBuilding: sql<boolean>`not (${run.procedure} ? 'service') and not (${run.procedure} ? 'unit')` })
    .from(run)
    .where(and(eq(run.loopId, loopId), eq(run.state, 'active'), isReal));
  const measured = await scope
    .select({ reading: baseline.reading, at: baseline.takenAt })
    .from(baseline)
    .innerJoin(loopRevision, eq(loopRevision.id, baseline.revisionId))
    .where(and(eq(loopRevision.loopId, loopId), eq(baseline.before, false)))
    .orderBy(desc(baseline.takenAt))
    .limit(NEWEST_BASELINES);
  const inside = await insideOf(scope, loopId, newest.file);
  const drainPolicy = await drainPolicyOf(scope);
  const { electrical, ...own } = row;
  const fans = electrical ? fanGroupsOf(electrical, loopId) : [];
  return {
    ...own,
    fans,
    revisions,
    file: newest.file,
    inside,
    drainPolicy,
    activeRunId: active?.id ?? null,
    isBuilding: active?.isBuilding ?? false,
    baselines: measured,
  };
}

export async function loadRevision(scope: Scope, loopId: string, number: number) {
  const [revision] = await scope
    .select()
    .from(loopRevision)
    .where(and(eq(loopRevision.loopId, loopId), eq(loopRevision.number, number)));
  if (!revision) throw notFound('loop revision');
  return revision;
}

/** The loop as it is inside its machine: the newest revision that is no mere wish. */
export async function newestRevision(scope: Scope, loopId: string): Promise<typeof loopRevision.$inferSelect> {
  const [revision] = await scope
    .select()
    .from(loopRevision)
    .where(and(eq(loopRevision.loopId, loopId), isInside))
    .orderBy(desc(loopRevision.number))
    .limit(1);
  if (!revision) throw notFound('loop revision');
  return revision;
}

/** The newest drawing that was wanted since a build has its loop; null: there is none. */
export async function wantedMeanwhile(scope: Scope, loopId: string, since: number): Promise<{ number: number; reason: string } | null> {
  const [row] = await scope
    .select({ number: loopRevision.number, reason: loopRevision.reason })
    .from(loopRevision)
    .where(and(eq(loopRevision.loopId, loopId), eq(loopRevision.kind, 'wanted'), gt(loopRevision.number, since)))
    .orderBy(desc(loopRevision.number))
    .limit(1);
  return row ?? null;
}
