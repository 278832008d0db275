import { say } from '../../../core/base/words/say.js';
import { and, desc, eq, ne } from 'drizzle-orm';
import type { PumpBeside } from '../../../core/bench/runs/facts.js';
import { shortName } from '../../../core/machine/catalogue/names.js';
import { circuitCount, circuitFiles, type OwnCircuit } from '../../../core/machine/loop-file/circuits.js';
import type { LoopFile } from '../../../core/machine/loop-file/loopFile.js';
import type { LoopPart } from '../../../core/machine/loop-file/schema.js';
import { loopVolume } from '../../../core/machine/loop-file/volume.js';
import { partedContents } from '../../../core/physics/live-book/partedContents.js';
import type { Scope } from '../../base/database/client.js';
import { dueItem } from '../../base/database/tables/due-dates.js';
import { loop, loopRevision } from '../../base/database/tables/loops.js';
import { fill, loopContents, run } from '../../base/database/tables/runs.js';
import { idFrom, type Ask } from '../../base/http/context.js';
import { DomainError, notFound, stale } from '../../base/http/errors.js';
import { fillLoop } from '../../workshop/due-dates/fillLoop.js';
import { insideOf } from './inside.js';
import { insertRevision, loadLoop, newestRevision } from './revisions.js';

/** @throws DomainError where the file holds several circuits: what is poured, tested or drained could not be told apart */
export function demandOneCircuit(file: LoopFile): void {
  const count = circuitCount(file);
  if (count > 1)
    throw new DomainError(
      'refused',
      say(
        'This drawing holds {count} circuits. Each is filled, tested, drained and dated for itself: open the loop and make {count} loops of it.',
        { count },
      ),
    );
}

/** The pumps of a machine's other loops, with whether their own loop holds coolant. */
export async function pumpsBeside(scope: Scope, loopId: string): Promise<PumpBeside[]> {
  const own = scope.select({ systemId: loop.systemId }).from(loop).where(eq(loop.id, loopId));
  const others = await scope
    .select({ id: loop.id, name: loop.name })
    .from(loop)
    .where(and(eq(loop.systemId, own), ne(loop.id, loopId)))
    .orderBy(loop.createdAt);
  const found: PumpBeside[] = [];
  for (const { id, name } of others) {
    const { file } = await newestRevision(scope, id);
    const { volume } = await insideOf(scope, id, file);
    // drained or not known: it stays pulled
    const isFilled = volume !== null && volume.volumeMl > loopVolume(file).volumeMl / 2;
    for (const pump of file.components.filter(({ kind }) => kind === 'pump'))
      found.push({ id: `${id}:${pump.id}`, name: shortName(pump), loop: name, isFilled });
  }
  return found;
}

/** Makes a loop of each circuit that one drawing holds. The first keeps the history; a filled one's dates go with both. */
export async function partLoop(ask: Ask, input: LoopPart) {
  const { scope, account, clock, request } = ask;
  const loopId = idFrom(request, 'id', 'loop');
  const [now] = await scope.select().from(loop).where(eq(loop.id, loopId)).for('update');
  if (!now) throw notFound('loop');
  if (now.version !== input.version) throw stale('loop', input, await loadLoop(scope, loopId));
  const newest = await newestRevision(scope, loopId);
  const circuits = circuitFiles(newest.file);
  const [first, ...others] = circuits;
  if (!first || others.length === 0) throw new DomainError('refused', say('This drawing holds one circuit; there is nothing to part.'));
  const [active] = await scope
    .select({ id: run.id })
    .from(run)
    .where(and(eq(run.loopId, loopId), eq(run.state, 'active')));
  if (active) throw new DomainError('conflict', say('This loop stands on a bench; end that run first.'), { runId: active.id });

  const { workshopId, personId } = account;
  const at = clock.now();
  const revise = (id: string, number: number, file: LoopFile) =>
    insertRevision(scope, { workshopId, loopId: id, number, kind: newest.kind, reason: '', personId, file, at });
  await revise(loopId, newest.number + 1, first.file);
  await scope
    .update(loop)
    .set({ name: first.name, version: now.version + 1 })
    .where(eq(loop.id, loopId));
  const made: { id: string; revisionId: string }[] = [];
  for (const { name, file } of others) {
    const [row] = await scope
      .insert(loop)
      .values({ workshopId, systemId: now.systemId, name, coolantProductId: now.coolantProductId, createdAt: at })
      .returning({ id: loop.id });
    const { id } = row as { id: string };
    made.push({ id, revisionId: (await revise(id, 1, file)).id });
  }
  await partHistory(ask, now, circuits, made);
  return loadLoop(scope, loopId);
}

/** The last fill and what is inside, of each. */
async function partHistory(
  { scope, account, clock }: Ask,
  { id: loopId, systemId }: typeof loop.$inferSelect,
  circuits: readonly OwnCircuit[],
  made: readonly { id: string; revisionId: string }[],
): Promise<void> {
  const { workshopId, personId } = account;
  const files = circuits.map(({ file }) => file);
  const volumes = files.map((file) => loopVolume(file).volumeMl);
  const wholeMl = volumes.reduce((sum, ml) => sum + ml, 0);
  const [filled] = await scope
    .select({ fill })
    .from(fill)
    .innerJoin(loopRevision, eq(loopRevision.id, fill.revisionId))
    .where(eq(loopRevision.loopId, loopId))
    .orderBy(desc(fill.filledOn), desc(fill.createdAt))
    .limit(1);
  const settles = await scope
    .select({ id: dueItem.id })
    .from(dueItem)
    .where(and(eq(dueItem.loopId, loopId), eq(dueItem.state, 'open'), eq(dueItem.kind, 'settling-check')));
  if (filled)
    for (const [index, { id, revisionId }] of made.entries()) {
      const { productId, lotId, filledOn, jobId, runId, pouredMl, intervalShare, intervalReason } = filled.fill;
      await fillLoop(scope, {
        ...{ workshopId, systemId, loopId: id, revisionId, productId, filledOn, personId, jobId, intervalShare, intervalReason },
        ...(runId === null ? {} : { runId }),
        lotId,
        pouredMl: pouredMl === null ? null : pouredMl * ((volumes[index + 1] ?? 0) / wholeMl),
        at: clock.now(),
      });
      // looked at with the other circuit already
      if (settles.length === 0)
        await scope
          .update(dueItem)
          .set({ state: 'closed', outcome: { why: 'settled', levelChangeMm: null, note: '' }, closedAt: clock.now(), closedBy: personId })
          .where(and(eq(dueItem.loopId, id), eq(dueItem.kind, 'settling-check')));
    }
  const [book] = await scope.select().from(loopContents).where(eq(loopContents.loopId, loopId));
  if (!book) return;
  const [own, ...others] = partedContents(files, book.contents);
  if (own) await scope.update(loopContents).set({ contents: own }).where(eq(loopContents.id, book.id));
  for (const [index, contents] of others.entries()) {
    const id = made[index]?.id;
    if (id !== undefined) await scope.insert(loopContents).values({ workshopId, loopId: id, runId: book.runId, seq: book.seq, contents });
  }
}
