import { DRAIN_HABITS, policyOf, type DrainPolicy } from '../../../core/physics/draining/defaults.js';
import type { Scope } from '../../base/database/client.js';
import { workshop } from '../../base/database/tables/people.js';

/** The workshop's own policy of stands and openings: the one that bench and loop page advise by. */
export async function drainPolicyOf(scope: Scope): Promise<DrainPolicy> {
  const [own] = await scope.select({ drain: workshop.drain }).from(workshop);
  return policyOf(own?.drain ?? DRAIN_HABITS);
}
