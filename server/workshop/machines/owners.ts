import { and, asc, eq, inArray, sql } from 'drizzle-orm';
import type { OwnerInput } from '../../../core/workshop/machines/schema.js';
import { ownPolicy, setPolicy } from '../due-dates/policies.js';
import { redate } from '../due-dates/redate.js';
import { policy } from '../../base/database/tables/due-dates.js';
import { idFrom, type Ask } from '../../base/http/context.js';
import { notFound, stale } from '../../base/http/errors.js';
import { foundRefs, wordsIn } from '../../base/database/foundRefs.js';
import { told } from './told.js';
import { owner } from '../../base/database/tables/machines.js';

/** owners that are found before they are sorted */
const MOST_FOUND = 1000;
/** owners that are shown to choose from: more words find the others */
const SHOWN = 20;

/** Owners whose name, number or address holds every word, those first whose name begins so. */
export async function listOwners({ scope }: Ask, q: string) {
  const words = wordsIn(q);
  const rows = await scope
    .select({ owner, policy: policy.service })
    .from(owner)
    .leftJoin(policy, eq(policy.ownerId, owner.id))
    .where(and(eq(owner.forCourse, false), words.length > 0 ? inArray(owner.id, foundRefs('owner', words, MOST_FOUND)) : undefined))
    .orderBy(sql`not starts_with(fold_text(${owner.name}), fold_text(${q}))`, asc(owner.name))
    .limit(SHOWN);
  return { owners: rows.map((row) => ({ ...told(row.owner), policy: row.policy })) };
}

export async function addOwner({ scope, account }: Ask, input: OwnerInput) {
  const { policy: service, ...values } = input;
  const [made] = await scope
    .insert(owner)
    .values({ workshopId: account.workshopId, ...values })
    .returning();
  const row = made as NonNullable<typeof made>;
  await setPolicy(scope, account.workshopId, { ownerId: row.id }, service);
  return { ...told(row), policy: service };
}

export async function editOwner({ scope, request, account }: Ask, input: OwnerInput & { version: number }) {
  const id = idFrom(request, 'id', 'owner');
  const { version, policy: service, ...values } = input;
  const [after] = await scope
    .update(owner)
    .set({ ...values, version: version + 1 })
    .where(and(eq(owner.id, id), eq(owner.version, version)))
    .returning();
  if (!after) {
    const [now] = await scope.select().from(owner).where(eq(owner.id, id));
    if (!now) throw notFound('owner');
    throw stale('owner', input, { ...told(now), policy: await ownPolicy(scope, { ownerId: id }) });
  }
  await setPolicy(scope, account.workshopId, { ownerId: id }, service);
  await redate(scope, { ownerId: id });
  return { ...told(after), policy: service };
}
