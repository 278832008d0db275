import { say } from '../../../core/base/words/say.js';
import { changeBetween, isWetChange } from '../../../core/machine/loop-change/loopChange.js';
import { isOutline } from '../../../core/machine/loop-file/outline.js';
import type { LoopFile } from '../../../core/machine/loop-file/loopFile.js';
import { liquidOf } from '../../../core/machine/liquids/fluids.js';
import { twinFor } from '../../../core/physics/live-book/atMark.js';
import type { LoopContents, Standing } from '../../../core/physics/live-book/loopContents.js';
import { passedOn } from '../../../core/physics/live-book/passedOn.js';
import { and, eq } from 'drizzle-orm';
import type { Scope } from '../../base/database/client.js';
import { DomainError } from '../../base/http/errors.js';
import { loop } from '../../base/database/tables/loops.js';
import { isOfLoop, isReal, loopContents, run } from '../../base/database/tables/runs.js';
import { productOf } from '../../workshop/coolants/products.js';

/**
 * Another drawing of what is inside was saved by hand. What stands in the loop passes to it by part and tube, where only the drawing was
 * put right; where parts or tubes came in or out, nobody led that and nobody knows what is inside now.
 * @throws DomainError while a run stands on the loop: that goes by the loop that it began with
 */
export async function carryContents(scope: Scope, loopId: string, before: LoopFile, file: LoopFile): Promise<void> {
  const [open] = await scope
    .select({ id: run.id })
    .from(run)
    .where(and(eq(run.loopId, loopId), eq(run.state, 'active'), isReal));
  const [kept] = await scope
    .select({ contents: loopContents.contents, ofLoop: isOfLoop })
    .from(loopContents)
    .innerJoin(run, eq(run.id, loopContents.runId))
    .where(eq(loopContents.loopId, loopId))
    .for('update', { of: loopContents });
  if (!open && !kept) return;
  // what was only stated is drawn for the first time: nothing came in or out
  const isWet = !isOutline(before) && isWetChange(changeBetween(before, file));
  if (open && isWet)
    throw new DomainError(
      'conflict',
      say(
        'A run goes on in this loop as it is inside: save the new drawing as wanted; a build goes on with it, of a filled loop a job makes it so.',
      ),
    );
  if (open || !kept) return;
  const { contents } = kept;
  // what stayed in a unit stays in it, wherever that is drawn
  const carried = !kept.ofLoop
    ? { ...contents, standing: null }
    : isWet
      ? { ...contents, insideMl: contents.insideMl === 0 ? 0 : null, standing: null, way: null }
      : { ...contents, standing: await standingIn(scope, loopId, contents, before, file) };
  await scope.update(loopContents).set({ contents: carried }).where(eq(loopContents.loopId, loopId));
}

/** What stands where, in a drawing that was put right: part by part and tube by tube as it stood. */
async function standingIn(
  scope: Scope,
  loopId: string,
  contents: LoopContents,
  before: LoopFile,
  file: LoopFile,
): Promise<Standing | null> {
  const [own] = await scope.select({ coolant: loop.coolantProductId }).from(loop).where(eq(loop.id, loopId));
  const liquid = liquidOf((await productOf(scope, own?.coolant ?? null)) ?? undefined);
  const { standing } = passedOn(twinFor(before, liquid), twinFor(file, liquid), contents, new Map());
  return standing && { ...standing, isRound: contents.standing?.isRound ?? false };
}
