import { buildProcedure, type ProcedureInput } from '../../../core/bench/procedures/buildProcedure.js';
import { inWorkshopsWay } from '../../workshop/people/inWorkshopsWay.js';
import type { RunCreate } from '../../../core/bench/commissioning/schema.js';
import type { Procedure } from '../../../core/bench/runs/procedure.js';
import { liquidOf } from '../../../core/machine/liquids/fluids.js';
import type { BuildKind } from '../../../core/workshop/job-kinds/kinds.js';
import type { LoopFile } from '../../../core/machine/loop-file/loopFile.js';
import type { LoopContents } from '../../../core/physics/live-book/loopContents.js';
import type { Scope } from '../../base/database/client.js';
import { demandDrawn } from '../../machine/loops/drawn.js';
import { fanStacksOf } from '../../machine/loops/said.js';
import { connectorsFor } from '../../machine/electrical/connectors.js';
import { pumpsBeside } from '../../machine/loops/circuits.js';
import { orderFor, productOf } from '../../workshop/coolants/products.js';
import { fittedIn } from '../../workshop/lots/lots.js';
import { learnedFor } from '../runs/kitLearned.js';
import { newestProcedure } from '../runs/procedures.js';

interface CommissioningOf extends Pick<RunCreate, 'loopId' | 'schools' | 'openedJoints' | 'lostMl'> {
  /** missing: a new machine, without a cooler that comes off */
  readonly kind?: BuildKind;
  readonly file: LoopFile;
  readonly coolantProductId: string | null;
  /** pumps whose unit was found tight on its own before */
  readonly testedAlone: readonly string[];
  /** what an earlier run left inside */
  readonly start: LoopContents | null;
}

/** The commissioning of a loop as it is built, with the workshop's own words. */
export async function commissioningProcedure(scope: Scope, of: CommissioningOf): Promise<Procedure> {
  demandDrawn(of.file);
  const product = await productOf(scope, of.coolantProductId);
  const ours = await newestProcedure(scope, 'commissioning');
  const input: ProcedureInput = {
    loop: of.file,
    schools: of.schools,
    order: orderFor(of.file, product),
    coolantName: product?.name ?? null,
    liquid: liquidOf(product),
    pumpsBeside: await pumpsBeside(scope, of.loopId),
    connectors: await connectorsFor(scope, of.loopId),
    kitLearned: (await learnedFor(scope, 'commissioning')).map(({ name }) => name),
    fitted: await fittedIn(scope, of.loopId),
    fanStacks: await fanStacksOf(scope, of.loopId),
    fromCooler: of.kind === 'into-loop',
    testedAlone: of.testedAlone,
    ...(of.start ? { start: of.start } : {}),
    ...(of.lostMl === null ? {} : { opened: { joints: of.openedJoints, lostMl: of.lostMl } }),
    ...(ours ? { template: ours.template, templateNumber: ours.number } : {}),
  };
  // several people read it at one bench, and in years to come
  return inWorkshopsWay(scope, () => buildProcedure(input));
}
