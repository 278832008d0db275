import { buildProcedure, type ProcedureInput } from '../../../core/bench/procedures/buildProcedure.js';
import { inWorkshopsWay } from '../../workshop/people/inWorkshopsWay.js';
import type { ServiceFacts } from '../../../core/bench/runs/facts.js';
import type { Procedure } from '../../../core/bench/runs/procedure.js';
import { serviceFacts } from '../../../core/bench/services/serviceFacts.js';
import { liquidOf } from '../../../core/machine/liquids/fluids.js';
import type { Dye } from '../../../core/machine/liquids/dye.js';
import { mayMix } from '../../../core/machine/liquids/mixing.js';
import type { LoopFile } from '../../../core/machine/loop-file/loopFile.js';
import type { LoopContents } from '../../../core/physics/live-book/loopContents.js';
import type { BesideWork } from '../../../core/workshop/jobs/beside.js';
import type { JobKind } from '../../../core/workshop/job-kinds/kinds.js';
import { desc, eq } from 'drizzle-orm';
import type { Scope } from '../../base/database/client.js';
import { coolantProduct } from '../../base/database/tables/coolants.js';
import { loopRevision } from '../../base/database/tables/loops.js';
import { fill } from '../../base/database/tables/runs.js';
import { connectorsFor } from '../../machine/electrical/connectors.js';
import { pumpsBeside } from '../../machine/loops/circuits.js';
import { drainPolicyOf } from '../../machine/loops/drainPolicy.js';
import { demandDrawn } from '../../machine/loops/drawn.js';
import { cameFilledOf, contentsOf } from '../../machine/loops/inside.js';
import { leftBefore } from '../../machine/loops/leftBefore.js';
import { miscible, orderFor, productOf } from '../../workshop/coolants/products.js';
import { fittedIn } from '../../workshop/lots/lots.js';
import { leftUnfinished } from '../runs/contents.js';
import { learnedFor } from '../runs/kitLearned.js';
import { newestProcedure } from '../runs/procedures.js';

interface ProcedureFor {
  readonly jobId: string;
  readonly kind: JobKind;
  readonly partId: string | null;
  /** the loop that the job wants */
  readonly wanted?: LoopFile | undefined;
  /** the change that its run is in the middle of */
  readonly change?: ServiceFacts['change'];
  /** small works that go along with it */
  readonly beside?: readonly BesideWork[] | undefined;
  readonly loopId: string;
  readonly file: LoopFile;
  readonly schools: Procedure['schools'];
  readonly openedJoints: readonly string[];
  readonly coolantProductId: string | null;
  /** what will be poured, where that is another; missing or null: the same */
  readonly pourId?: string | null;
  /** what was inside when the run began, where it goes on with other steps */
  readonly start?: LoopContents;
  /** practised: it stands at its mark, whatever this machine’s own book says */
  readonly atMark?: boolean;
}

/** How another coolant goes with what is inside; nothing where the same is poured. */
async function followedBy(
  scope: Scope,
  inside: typeof coolantProduct.$inferSelect | null,
  pourId: string | null | undefined,
): Promise<Pick<ServiceFacts, 'follows'>> {
  const next = pourId && pourId !== inside?.id ? await productOf(scope, pourId) : null;
  return next ? { follows: mayMix(inside && miscible(inside), miscible(next)).verdict } : {};
}

/** Dye of the last fill on record; null: there is none. */
async function dyesOfLastFill(scope: Scope, loopId: string): Promise<readonly Dye[] | null> {
  const [last] = await scope
    .select({ dyes: fill.dyes })
    .from(fill)
    .innerJoin(loopRevision, eq(loopRevision.id, fill.revisionId))
    .where(eq(loopRevision.loopId, loopId))
    .orderBy(desc(fill.filledOn), desc(fill.createdAt))
    .limit(1);
  return last?.dyes ?? null;
}

/** A fill is on record, here or elsewhere, and no run left the loop half empty since. */
const standsFilled = async (scope: Scope, loopId: string, onRecord: boolean): Promise<boolean> =>
  (onRecord || (await cameFilledOf(scope, loopId)) !== null) && !(await leftUnfinished(scope, loopId));

const withDyes = (
  { id, name }: { readonly id: string; readonly name: string },
  dyes: readonly Dye[],
): NonNullable<ServiceFacts['old']> => ({
  productId: id,
  name,
  ...(dyes.length > 0 ? { dyes } : {}),
});

/** The led procedure of a service, with the workshop's own words and what is known of this loop. */
export async function serviceProcedure(scope: Scope, given: ProcedureFor): Promise<Procedure> {
  demandDrawn(given.file);
  const product = await productOf(scope, given.coolantProductId);
  const poured = given.pourId ? await productOf(scope, given.pourId) : product;
  const shelf = await scope.select().from(coolantProduct);
  const dyes = await dyesOfLastFill(scope, given.loopId);
  const left = given.atMark ? [] : await leftBefore(scope, given.loopId);
  const contents = given.start ?? (given.atMark ? null : await contentsOf(scope, given.loopId));
  const service = serviceFacts({
    loop: given.file,
    liquid: liquidOf(product ?? undefined),
    ...(contents ? { contents } : {}),
    leftBefore: left,
    policy: await drainPolicyOf(scope),
    kind: given.kind,
    jobId: given.jobId,
    filled: given.atMark === true || (await standsFilled(scope, given.loopId, dyes !== null)),
    part: given.partId,
    ...(given.wanted ? { wanted: given.wanted } : {}),
    ...(given.change ? { change: given.change } : {}),
    ...(await followedBy(scope, product, given.pourId)),
    ...(given.beside ? { beside: given.beside } : {}),
    old: product && withDyes(product, dyes ?? []),
    mixes: shelf.map((each) => mayMix(product && miscible(product), miscible(each))),
  });
  const ours = await newestProcedure(scope, given.kind);
  const input: ProcedureInput = {
    loop: given.file,
    ...(ours ? { template: ours.template, templateNumber: ours.number } : {}),
    schools: given.schools,
    order: orderFor(given.file, poured),
    coolantName: poured?.name ?? null,
    liquid: liquidOf(product ?? undefined),
    pumpsBeside: await pumpsBeside(scope, given.loopId),
    connectors: await connectorsFor(scope, given.loopId),
    kitLearned: (await learnedFor(scope, given.kind)).map(({ name }) => name),
    ...(contents ? { start: contents } : {}),
    fitted: await fittedIn(scope, given.loopId),
    ...(given.openedJoints.length > 0 ? { opened: { joints: given.openedJoints, lostMl: 0 } } : {}),
    service,
  };
  // several people read it at one bench, and in years to come
  return inWorkshopsWay(scope, () => buildProcedure(input));
}
