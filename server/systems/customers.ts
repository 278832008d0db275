import { and, asc, eq } from 'drizzle-orm';
import type { CustomerInput } from '../../core/systems/schema.js';
import { idFrom, type Ask } from '../http/context.js';
import { notFound, stale } from '../http/errors.js';
import { customer } from './tables.js';

export async function listCustomers({ scope }: Ask) {
  return { customers: await scope.select().from(customer).orderBy(asc(customer.name)) };
}

export async function addCustomer({ scope, account }: Ask, input: CustomerInput) {
  const [made] = await scope
    .insert(customer)
    .values({ workshopId: account.workshopId, ...input })
    .returning();
  return made as NonNullable<typeof made>;
}

export async function editCustomer({ scope, request }: Ask, input: CustomerInput & { version: number }) {
  const id = idFrom(request, 'id', 'customer');
  const { version, ...values } = input;
  const [after] = await scope
    .update(customer)
    .set({ ...values, version: version + 1 })
    .where(and(eq(customer.id, id), eq(customer.version, version)))
    .returning();
  if (after) return after;
  const [now] = await scope.select().from(customer).where(eq(customer.id, id));
  if (!now) throw notFound('customer');
  throw stale('customer', input, now);
}
