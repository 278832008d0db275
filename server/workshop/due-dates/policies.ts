import { and, eq, isNull, or } from 'drizzle-orm';
import type { PolicyScope, ServicePolicy } from '../../../core/workshop/due-dates/due.js';
import type { Scope } from '../../base/database/client.js';
import { policy } from '../../base/database/tables/due-dates.js';

/** Whose policy: nobody's in particular is the workshop's own. */
export interface PolicyHolder {
  readonly ownerId?: string;
  readonly systemId?: string;
}

/** What a workshop does that has not said anything: the usual promise to owners. */
export const DEFAULT_POLICY: ServicePolicy = 'twelve-months';

const heldBy = ({ ownerId, systemId }: PolicyHolder) =>
  and(
    ownerId === undefined ? isNull(policy.ownerId) : eq(policy.ownerId, ownerId),
    systemId === undefined ? isNull(policy.systemId) : eq(policy.systemId, systemId),
  );

/** The policy that stands for exactly this holder, or null where it follows the wider one. */
export async function ownPolicy(scope: Scope, holder: PolicyHolder): Promise<ServicePolicy | null> {
  const [row] = await scope.select({ service: policy.service }).from(policy).where(heldBy(holder));
  return (row?.service as ServicePolicy | undefined) ?? null;
}

/** A machine's own policy and its owner's own. */
export async function ownPolicies(
  scope: Scope,
  { systemId, ownerId }: { readonly systemId: string; readonly ownerId: string },
): Promise<Record<'system' | 'owner', ServicePolicy | null>> {
  const rows = await scope
    .select({ service: policy.service, systemId: policy.systemId })
    .from(policy)
    .where(or(heldBy({ systemId }), heldBy({ ownerId })));
  return {
    system: rows.find((row) => row.systemId !== null)?.service ?? null,
    owner: rows.find((row) => row.systemId === null)?.service ?? null,
  };
}

/** Sets the holder's own policy; null makes it follow the wider one again. */
export async function setPolicy(scope: Scope, workshopId: string, holder: PolicyHolder, service: ServicePolicy | null): Promise<void> {
  await scope.delete(policy).where(and(eq(policy.workshopId, workshopId), heldBy(holder)));
  if (service !== null) await scope.insert(policy).values({ workshopId, ...holder, service });
}

/** The policy that counts for a system: its own, else its owner's, else the workshop's. All rows are read once. */
export async function policyResolver(
  scope: Scope,
): Promise<(systemId: string, ownerId: string) => { policy: ServicePolicy; policyScope: PolicyScope }> {
  const rows = await scope.select().from(policy);
  const find = (kind: 'systemId' | 'ownerId', id: string): ServicePolicy | undefined =>
    rows.find((row) => row[kind] === id)?.service as ServicePolicy | undefined;
  const own = (rows.find((row) => row.systemId === null && row.ownerId === null)?.service as ServicePolicy | undefined) ?? DEFAULT_POLICY;
  return (systemId, ownerId) => {
    const forSystem = find('systemId', systemId);
    if (forSystem) return { policy: forSystem, policyScope: 'system' };
    const forOwner = find('ownerId', ownerId);
    return forOwner ? { policy: forOwner, policyScope: 'owner' } : { policy: own, policyScope: 'workshop' };
  };
}
