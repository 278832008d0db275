import { and, eq, isNull } from 'drizzle-orm';
import type { PolicyScope, ServicePolicy } from '../../core/due-dates/due.js';
import type { Scope } from '../database/client.js';
import { policy } from './tables.js';

/** Whose policy: nobody's in particular is the workshop's own. */
export interface PolicyHolder {
  readonly customerId?: string;
  readonly systemId?: string;
}

/** What a workshop does that has not said anything: the usual promise to owners. */
export const DEFAULT_POLICY: ServicePolicy = 'twelve-months';

const heldBy = ({ customerId, systemId }: PolicyHolder) =>
  and(
    customerId === undefined ? isNull(policy.customerId) : eq(policy.customerId, customerId),
    systemId === undefined ? isNull(policy.systemId) : eq(policy.systemId, systemId),
  );

/** The policy that stands for exactly this holder, or null where it follows the wider one. */
export async function ownPolicy(scope: Scope, holder: PolicyHolder): Promise<ServicePolicy | null> {
  const [row] = await scope.select({ service: policy.service }).from(policy).where(heldBy(holder));
  return (row?.service as ServicePolicy | undefined) ?? null;
}

/** Sets the holder's own policy; null makes it follow the wider one again. */
export async function setPolicy(scope: Scope, workshopId: string, holder: PolicyHolder, service: ServicePolicy | null): Promise<void> {
  await scope.delete(policy).where(and(eq(policy.workshopId, workshopId), heldBy(holder)));
  if (service !== null) await scope.insert(policy).values({ workshopId, ...holder, service });
}

/** The policy that counts for a system: its own, else its owner's, else the workshop's. */
export async function policyFor(
  scope: Scope,
  systemId: string,
  customerId: string,
): Promise<{ policy: ServicePolicy; policyScope: PolicyScope }> {
  const forSystem = await ownPolicy(scope, { systemId });
  if (forSystem) return { policy: forSystem, policyScope: 'system' };
  const forCustomer = await ownPolicy(scope, { customerId });
  if (forCustomer) return { policy: forCustomer, policyScope: 'customer' };
  return { policy: (await ownPolicy(scope, {})) ?? DEFAULT_POLICY, policyScope: 'workshop' };
}
