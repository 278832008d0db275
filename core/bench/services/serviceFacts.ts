import { shortName } from '../../machine/catalogue/names.js';
import type { Mix, MixVerdict } from '../../machine/liquids/mixing.js';
import { FLUSH } from '../../machine/liquids/rinsing.js';
import type { Contents } from '../../physics/contents/contents.js';
import type { LoopComponent, LoopFile } from '../../machine/loop-file/loopFile.js';
import { STANDING } from '../../machine/loop-file/orientation.js';
import type { Volume } from '../../machine/loop-file/volume.js';
import { keptAfterDrains } from '../../physics/contents/kept.js';
import { sharesOf } from '../../physics/contents/shares.js';
import { WATER, type Liquid } from '../../machine/liquids/fluids.js';
import type { LoopContents } from '../../physics/live-book/loopContents.js';
import { adviseDraining, type DrainStage } from '../../physics/draining/advice.js';
import { remembering } from '../../base/numerics/remember.js';
import { UPRIGHT_ONLY, type DrainPolicy } from '../../physics/draining/defaults.js';
import { contentsAtMark, contentsNow, twinFor } from '../../physics/live-book/atMark.js';
import { adviseBlowing } from '../../physics/draining/blowThrough.js';
import { nameOpening } from '../../physics/draining/openingNames.js';
import { openablePorts } from '../../physics/draining/openings.js';
import { mustRinse } from './rinseBetween.js';
import { changeOf, leastDrain } from './changeFacts.js';
import { planTakeOut } from '../../physics/draining/takeOut.js';
import { fillVolume } from '../../physics/filling/fillPlan.js';
import { buildNetwork, vesselsWithoutBox, type GeometricNetwork } from '../../physics/geometry/network.js';
import { turnNetwork } from '../../physics/geometry/turned.js';
import { besideAs, type BesideWork } from '../../workshop/jobs/beside.js';
import { JOB_KINDS, type JobKind } from '../../workshop/job-kinds/kinds.js';
import { hasRigidTube, inspectItems } from '../inspection/items.js';
import type { DrainStand, ServiceFacts, TakeOutFacts } from '../runs/facts.js';

export interface ServiceFactsInput {
  readonly loop: LoopFile;
  readonly kind: JobKind;
  readonly jobId: string;
  /** the loop was filled and its fill is on record */
  readonly filled: boolean;
  /** component to be changed, where the job is about one */
  readonly part: string | null;
  /** stands the machine may be brought into; a heavy one may not be turned */
  readonly policy?: DrainPolicy;
  /** what an earlier run left inside; missing: a filled loop stands at its mark */
  readonly contents?: LoopContents;
  /** what its own drains left inside so far, by the book */
  readonly leftBefore?: readonly Volume[];
  readonly liquid?: Liquid;
  /** the loop that is wanted, where the job changes it */
  readonly wanted?: LoopFile;
  /** the change that its run is in the middle of, or has made: it stays as it was begun */
  readonly change?: ServiceFacts['change'];
  /** how another coolant that will be poured goes with what is inside */
  readonly follows?: MixVerdict;
  /** small works that go along with it */
  readonly beside?: readonly BesideWork[];
  readonly old: ServiceFacts['old'];
  readonly mixes: readonly Mix[];
}

/** Facts of a service, computed once when its run begins. What geometry is missing for stays empty or null. */
export function serviceFacts(input: ServiceFactsInput): ServiceFacts {
  const { loop, kind, jobId } = input;
  // what the kind does by itself is no work beside it
  const beside = besideAs(kind, input.beside ?? []);
  const network = networkOf(loop);
  return {
    kind,
    jobId,
    inside: insideOf(input),
    ...drainFacts(input, network),
    ...outFacts(input, network),
    ...(input.follows ? { follows: input.follows } : {}),
    ...(beside.length > 0 ? { beside } : {}),
    items: inspectItems(loop),
    rigid: hasRigidTube(loop),
    old: input.old,
    mixes: input.mixes,
    targetOldFraction: FLUSH.targetOldFraction,
    openings: Object.fromEntries(
      [...openablePorts(loop), ...loop.tubes.flatMap(({ id }) => [`${id}.from`, `${id}.to`])].map((each) => [
        each,
        nameOpening(loop, each),
      ]),
    ),
  };
}

const networkOf = (loop: LoopFile): GeometricNetwork | null => (vesselsWithoutBox(loop).length === 0 ? buildNetwork(loop) : null);

/** What comes out of the loop: the part that the job is about, or what two drawings say. */
export function outFacts(
  {
    loop,
    part,
    wanted,
    change: begun,
    contents,
    liquid = WATER,
    follows,
    beside = [],
    kind = 'loop-change',
  }: Pick<ServiceFactsInput, 'loop' | 'part' | 'wanted' | 'change' | 'contents' | 'liquid' | 'follows' | 'beside'> & {
    readonly kind?: JobKind;
  },
  network = networkOf(loop),
): Pick<ServiceFacts, 'takeOut' | 'change'> {
  const inside = (known: GeometricNetwork): Contents => contentsNow(loop, liquid, known, contents?.standing);
  if (begun) return { takeOut: null, change: begun };
  const change = wanted ? changeOf(loop, wanted) : null;
  if (change) {
    // nothing of what must not meet the new one stays; nor of what is taken apart, or laid down outside its case: heights are others there
    const { drain, takeOut } =
      mustRinse(follows) || beside.includes('board') || JOB_KINDS[kind].opens === 'whole'
        ? ({ drain: 'whole', takeOut: null } as const)
        : leastDrain(loop, network, change, network && inside(network));
    return { takeOut, change: { ...change, drain } };
  }
  const component = loop.components.find(({ id }) => id === part);
  return { takeOut: network && component ? takeOutFacts(loop, network, component, inside(network)) : null };
}

/**
 * How a loop is drained. A job that is booked, begun and changed at the bench asks the same each time, and the search takes a hundred
 * times as long as the question is.
 */
const advised = remembering(
  ({ loop, policy, from }: { readonly loop: LoopFile; readonly policy: DrainPolicy | undefined; readonly from: readonly number[] }) =>
    adviseDraining(loop, buildNetwork(loop), policy, Float64Array.from(from)),
  24,
);

/** Stand by stand how the loop is drained, by the workshop's policy, and how a rinse is let out. */
function drainFacts(
  { loop, liquid = WATER, contents, policy, leftBefore = [] }: ServiceFactsInput,
  network: GeometricNetwork | null,
): Pick<ServiceFacts, 'stands' | 'rinseStand' | 'leftMl' | 'kept' | 'blow'> {
  if (!network) return { stands: [], rinseStand: null, ...keptFacts(null, leftBefore) };
  const atMark = contentsAtMark(loop, network, twinFor(loop, liquid));
  const plan = advised({ loop, policy, from: [...contentsNow(loop, liquid, network, contents?.standing)] });
  // a rinse fills the loop to its mark, and leaves it without a turn
  const [rinsed] = advised({ loop, policy: UPRIGHT_ONLY, from: [...atMark] }).stages;
  const last = plan.stages.at(-1);
  const standOf = (stage: DrainStage): DrainStand => ({ ...stage, left: sharesOf(network, stage.left) });
  return {
    stands: plan.stages.map(standOf),
    rinseStand: rinsed ? standOf(rinsed) : null,
    blow: last ? adviseBlowing(loop, network, last.left) : null,
    ...keptFacts(plan.stages.length > 0 ? plan.leftMl : null, leftBefore),
  };
}

/** What stays inside after the drain: by the twin, moved to what this loop's own drains left. */
function keptFacts(predictedMl: number | null, left: readonly Volume[]): Pick<ServiceFacts, 'leftMl' | 'kept'> {
  const kept = keptAfterDrains(predictedMl, left);
  return { leftMl: kept?.volumeMl ?? null, ...(kept && kept.drains > 0 ? { kept } : {}) };
}

/** What stood inside when the service begins: by the book, or at the mark where a fill is on record. */
function insideOf({ contents, filled, loop }: ServiceFactsInput): ServiceFacts['inside'] {
  if (contents) return contents.insideMl === null ? null : { volumeMl: Math.max(0, contents.insideMl), sdMl: contents.insideSdMl };
  return filled ? fillVolume(loop) : null;
}

function takeOutFacts(loop: LoopFile, network: GeometricNetwork, part: LoopComponent, inside: Contents): TakeOutFacts {
  const { elsewhereMl: _, ...plan } = planTakeOut(turnNetwork(network, STANDING.upright), loop, part.id, inside);
  return { ...plan, part: part.id, name: shortName(part) };
}
