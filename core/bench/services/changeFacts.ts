import { say } from '../../base/words/say.js';
import type { LoopFile } from '../../machine/loop-file/loopFile.js';
import { STANDING } from '../../machine/loop-file/orientation.js';
import { findingKey, findingsAtBench } from '../../machine/build-checks/beforeBuilding.js';
import { changeBetween, isWetChange, openedFor } from '../../machine/loop-change/loopChange.js';
import type { Contents } from '../../physics/contents/contents.js';
import { comesOutMl, planUndo } from '../../physics/draining/takeOut.js';
import type { GeometricNetwork } from '../../physics/geometry/network.js';
import { turnNetwork } from '../../physics/geometry/turned.js';
import { WORTH_DRAWING_ML } from '../runs/contents.js';
import type { ChangeFacts, TakeOutFacts } from '../runs/facts.js';

/**
 * Share of what is inside from which a change is not drawn down to: the whole drain comes to nearly the same, gives all of it back clean,
 * and leaves nothing above an open joint (judged).
 */
export const WHOLE_FROM_SHARE = 0.6;

export interface LeastDrain {
  readonly drain: ChangeFacts['drain'];
  /** how it is drawn down to; null: it is drained whole, or not at all */
  readonly takeOut: TakeOutFacts | null;
}

/** What a job that changes a loop knows of it. @returns null where nothing that coolant meets changes */
export function changeOf(inside: LoopFile, wanted: LoopFile): Omit<ChangeFacts, 'drain'> | null {
  const change = changeBetween(inside, wanted);
  return isWetChange(change) ? { ...change, wanted, found: findingsAtBench(inside).map(findingKey) } : null;
}

/**
 * The least that has to be let out before the joints of a change are undone.
 * @param network null: no heights, so that only a whole drain is safe
 * @param contents what is inside now
 */
export function leastDrain(
  loop: LoopFile,
  network: GeometricNetwork | null,
  change: Pick<ChangeFacts, 'undone' | 'ports' | 'out'>,
  contents: Contents | null,
): LeastDrain {
  const joints = openedFor(change);
  const parts = change.out.map(({ id }) => id);
  if (joints.length === 0) return { drain: 'none', takeOut: null };
  if (!network || !contents) return { drain: 'whole', takeOut: null };
  const { elsewhereMl, ...plan } = planUndo(turnNetwork(network, STANDING.upright), loop, { joints, parts }, contents);
  const comesMl = comesOutMl(plan);
  if (comesMl > WHOLE_FROM_SHARE * (comesMl + elsewhereMl)) return { drain: 'whole', takeOut: null };
  const named = {
    ...plan,
    part: parts[0] ?? '',
    parts,
    name: change.out.length === 1 ? (change.out[0]?.name ?? '') : say('what changes'),
  };
  return { drain: comesMl < WORTH_DRAWING_ML ? 'none' : 'down-to', takeOut: named };
}
