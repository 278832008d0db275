import { and, asc, eq } from 'drizzle-orm';
import type { CustomerInput } from '../../../core/workshop/machines/schema.js';
import { ownPolicy, setPolicy } from '../due-dates/policies.js';
import { redate } from '../due-dates/redate.js';
import { policy } from '../../base/database/tables/due-dates.js';
import { idFrom, type Ask } from '../../base/http/context.js';
import { notFound, stale } from '../../base/http/errors.js';
import { customer } from '../../base/database/tables/machines.js';

export async function listCustomers({ scope }: Ask) {
  const rows = await scope
    .select({ customer, policy: policy.service })
    .from(customer)
    .leftJoin(policy, eq(policy.customerId, customer.id))
    .orderBy(asc(customer.name));
  return { customers: rows.map((row) => ({ ...row.customer, policy: row.policy })) };
}

export async function addCustomer({ scope, account }: Ask, input: CustomerInput) {
  const { policy: service, ...values } = input;
  const [made] = await scope
    .insert(customer)
    .values({ workshopId: account.workshopId, ...values })
    .returning();
  const row = made as NonNullable<typeof made>;
  await setPolicy(scope, account.workshopId, { customerId: row.id }, service);
  return { ...row, policy: service };
}

export async function editCustomer({ scope, request, account }: Ask, input: CustomerInput & { version: number }) {
  const id = idFrom(request, 'id', 'customer');
  const { version, policy: service, ...values } = input;
  const [after] = await scope
    .update(customer)
    .set({ ...values, version: version + 1 })
    .where(and(eq(customer.id, id), eq(customer.version, version)))
    .returning();
  if (!after) {
    const [now] = await scope.select().from(customer).where(eq(customer.id, id));
    if (!now) throw notFound('customer');
    throw stale('customer', input, { ...now, policy: await ownPolicy(scope, { customerId: id }) });
  }
  await setPolicy(scope, account.workshopId, { customerId: id }, service);
  await redate(scope, { customerId: id });
  return { ...after, policy: service };
}
