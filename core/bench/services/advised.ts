import { adviseDraining, type DrainPlan } from '../../physics/draining/advice.js';
import type { DrainPolicy } from '../../physics/draining/defaults.js';
import type { Contents } from '../../physics/contents/contents.js';
import type { GeometricNetwork } from '../../physics/geometry/network.js';
import type { LoopFile } from '../../machine/loop-file/loopFile.js';

/** plans that are remembered: a machine at the bench is asked about again and again, the others are not */
const REMEMBERED = 24;
/** oldest first; the same question has the same answer, so nothing here ever grows stale */
const plans = new Map<string, DrainPlan>();

/**
 * As `adviseDraining`. A job that is booked, begun and changed at the bench asks for the same loop, policy and contents each time, and
 * the search takes a hundred times as long as the question is: the last answers are kept.
 */
export function advisedDraining(loop: LoopFile, network: GeometricNetwork, policy: DrainPolicy | undefined, from: Contents): DrainPlan {
  const key = JSON.stringify([loop, policy, [...from]]);
  const known = plans.get(key);
  const plan = known ?? adviseDraining(loop, network, policy, from);
  plans.delete(key);
  plans.set(key, plan);
  if (plans.size > REMEMBERED) plans.delete(plans.keys().next().value as string);
  return plan;
}
