import { shortName } from '../catalogue/names.js';
import type { Mix } from '../coolants/mixing.js';
import { adviseDraining } from '../draining/advice.js';
import { nameOpening } from '../draining/openingNames.js';
import { planTakeOut } from '../draining/takeOut.js';
import { fillVolume } from '../filling/fillPlan.js';
import { FLUSH } from '../flushing/defaults.js';
import { buildNetwork, vesselsWithoutBox } from '../geometry/network.js';
import { STANDING, STANDING_NAMES, STANDING_WORDS, type StandingName } from '../geometry/orientation.js';
import { turnNetwork } from '../geometry/turned.js';
import { hasRigidTube, inspectItems, type InspectItem } from '../inspection/items.js';
import type { LoopFile } from '../loops/loopFile.js';
import { loopVolume, type Volume } from '../loops/volume.js';
import { sharesOf, type Shares } from './contents.js';
import type { JobKind } from './kinds.js';

/** One stand of the advised drain, in the words of the bench. */
export interface DrainStand {
  readonly standing: StandingName;
  readonly words: string;
  readonly drain: string;
  readonly airs: readonly string[];
  readonly capFirst: readonly string[];
  readonly drainedMl: number;
  readonly heldMl: number;
  readonly leftMl: number;
  /** share of each part and run that still holds liquid after it */
  readonly left: Shares;
}

/** Taking one part out of a loop that is still full. */
export interface TakeOutFacts {
  readonly part: string;
  readonly name: string;
  /** mL to draw first, so that nothing runs when its joints are undone */
  readonly drawFirstMl: number;
  readonly joints: readonly { readonly name: string; readonly volumeMl: number }[];
  readonly airs: readonly string[];
  readonly insideMl: number;
}

/** What a service must know of its loop. Stored with the run, like the loop's other facts. */
export interface ServiceFacts {
  readonly kind: JobKind;
  readonly jobId: string;
  /** what stood inside when it came in; null where nobody recorded a fill */
  readonly inside: Volume | null;
  readonly stands: readonly DrainStand[];
  /** mL the twin keeps inside after the last stand; null where its geometry is not known */
  readonly leftMl: number | null;
  readonly takeOut: TakeOutFacts | null;
  readonly items: readonly InspectItem[];
  readonly rigid: boolean;
  readonly old: { readonly productId: string; readonly name: string } | null;
  /** every coolant of the shelf against what is inside */
  readonly mixes: readonly Mix[];
  readonly targetOldFraction: number;
}

export interface ServiceFactsInput {
  readonly loop: LoopFile;
  readonly kind: JobKind;
  readonly jobId: string;
  /** the loop was filled and its fill is on record */
  readonly filled: boolean;
  /** component to be changed, where the job is about one */
  readonly part: string | null;
  /** stands the machine may be brought into; a heavy one may not be turned */
  readonly mayTurn?: readonly StandingName[];
  readonly old: ServiceFacts['old'];
  readonly mixes: readonly Mix[];
}

/** Facts of a service, computed once when its run begins. What geometry is missing for stays empty or null. */
export function serviceFacts(input: ServiceFactsInput): ServiceFacts {
  const { loop, kind, jobId, part } = input;
  const boxed = vesselsWithoutBox(loop).length === 0;
  const network = boxed ? buildNetwork(loop) : null;
  const turns = input.mayTurn ?? STANDING_NAMES.filter((name) => name !== 'upright' && name !== 'upside-down');
  const plan = network && adviseDraining(loop, network, turns);
  const name = (opening: string): string => nameOpening(loop, opening);
  // the twin begins with every vessel full; a loop at its mark has a cushion of gas, which the first stand does not give
  const cushionMl = loopVolume(loop).volumeMl - fillVolume(loop).volumeMl;
  const component = loop.components.find(({ id }) => id === part);
  return {
    kind,
    jobId,
    inside: input.filled ? fillVolume(loop) : null,
    stands: (plan?.stages ?? []).map((stage, index) => ({
      standing: stage.standing,
      words: STANDING_WORDS[stage.standing],
      drain: name(stage.drain),
      airs: stage.airs.map(name),
      capFirst: stage.capFirst.map(name),
      drainedMl: Math.max(0, stage.drainedMl - (index === 0 ? cushionMl : 0)),
      heldMl: stage.heldMl,
      leftMl: stage.leftMl,
      left: network ? sharesOf(network, stage.left) : {},
    })),
    leftMl: plan && plan.stages.length > 0 ? plan.leftMl : null,
    takeOut: network && component ? takeOutFacts(loop, network, component.id, shortName(component), cushionMl) : null,
    items: inspectItems(loop),
    rigid: hasRigidTube(loop),
    old: input.old,
    mixes: input.mixes,
    targetOldFraction: FLUSH.targetOldFraction,
  };
}

function takeOutFacts(
  loop: LoopFile,
  network: ReturnType<typeof buildNetwork>,
  part: string,
  name: string,
  cushionMl: number,
): TakeOutFacts {
  const { joints, airs, insideMl } = planTakeOut(turnNetwork(network, STANDING.upright), loop, part);
  return {
    part,
    name,
    drawFirstMl: Math.max(0, joints.reduce((sum, { volumeMl }) => sum + volumeMl, 0) - cushionMl),
    joints: joints.map(({ joint, volumeMl }) => ({ name: nameOpening(loop, joint), volumeMl })),
    airs: airs.map((port) => nameOpening(loop, port)),
    insideMl,
  };
}

/** mL; less is drops, not a volume to draw */
const WORTH_DRAWING_ML = 5;

/** What should come, one after the other: stand by stand, or down to the part and then out of it. */
export function expectedDrains({ kind, takeOut, stands }: ServiceFacts): number[] {
  const volumes = kind === 'partial-drain' && takeOut ? [takeOut.drawFirstMl, takeOut.insideMl] : stands.map(({ drainedMl }) => drainedMl);
  return volumes.filter((ml) => ml >= WORTH_DRAWING_ML);
}
