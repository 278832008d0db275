import { say } from '../../../core/base/words/say.js';
import { and, desc, eq, isNull } from 'drizzle-orm';
import type { LimitChangeRow, Moved, SheetLife } from '../../../core/workshop/coolants/answers.js';
import type { CoolantLimitInput, LimitTold } from '../../../core/workshop/coolants/schema.js';
import { longDay } from '../../../core/base/units/dates.js';
import { coolantProduct, limitChange } from '../../base/database/tables/coolants.js';
import { person } from '../../base/database/tables/people.js';
import type { Scope } from '../../base/database/client.js';
import { writtenFor } from '../../base/http/readers.js';
import { idFrom, type Ask } from '../../base/http/context.js';
import { DomainError, notFound, stale } from '../../base/http/errors.js';
import { redate } from '../due-dates/redate.js';
import { write } from '../messages/messages.js';

const lifeOf = ({ sheetLifeMonths, sheetLifeHours }: SheetLife): SheetLife => ({ sheetLifeMonths, sheetLifeHours });

async function setLife(scope: Scope, productId: string, input: SheetLife & { readonly version: number }): Promise<Moved[]> {
  const changed = await scope
    .update(coolantProduct)
    .set({ ...lifeOf(input), version: input.version + 1 })
    .where(and(eq(coolantProduct.id, productId), eq(coolantProduct.version, input.version)))
    .returning({ id: coolantProduct.id });
  if (changed.length > 0) return redate(scope, { productId });
  throw stale('coolant', input, await loadProduct(scope, productId));
}

async function loadProduct(scope: Scope, productId: string): Promise<typeof coolantProduct.$inferSelect> {
  const [row] = await scope.select().from(coolantProduct).where(eq(coolantProduct.id, productId));
  if (!row) throw notFound('coolant');
  return row;
}

/** Carries what a trial found out of the transaction that is rolled back. */
class Tried extends Error {
  constructor(readonly moved: Moved[]) {
    super('a trial writes nothing');
  }
}

/** Whose dates would move; nothing is written. */
export async function tryLimit(ask: Ask, input: CoolantLimitInput): Promise<{ moved: Moved[] }> {
  const productId = idFrom(ask.request, 'id', 'coolant');
  try {
    return await ask.scope.transaction(async (inner) => {
      throw new Tried(await setLife(inner as Scope, productId, input));
    });
  } catch (error) {
    if (error instanceof Tried) return { moved: error.moved };
    throw error;
  }
}

/** A changed limit dates every machine anew that holds the product, and keeps whose dates moved, to tell their owners. */
export async function changeLimit(ask: Ask, input: CoolantLimitInput): Promise<{ moved: Moved[] }> {
  const { scope, account, clock } = ask;
  const productId = idFrom(ask.request, 'id', 'coolant');
  const before = await loadProduct(scope, productId);
  const moved = await setLife(scope, productId, input);
  await scope.insert(limitChange).values({
    workshopId: account.workshopId,
    productId,
    personId: account.personId,
    productVersion: input.version,
    before: lifeOf(before),
    after: lifeOf(input),
    moved,
    createdAt: clock.now(),
  });
  return { moved };
}

/** What was changed on a coolant's limit, the newest first. */
export async function limitChanges({ scope, request }: Ask): Promise<{ changes: LimitChangeRow[] }> {
  return { changes: await changesOf(scope, idFrom(request, 'id', 'coolant')) };
}

async function changesOf(scope: Scope, productId: string): Promise<LimitChangeRow[]> {
  const rows = await scope
    .select({ change: limitChange, by: person.name, coolant: coolantProduct.name })
    .from(limitChange)
    .innerJoin(person, eq(person.id, limitChange.personId))
    .innerJoin(coolantProduct, eq(coolantProduct.id, limitChange.productId))
    .where(eq(limitChange.productId, productId))
    .orderBy(desc(limitChange.productVersion));
  const newest = rows.find(({ change }) => change.undoneAt === null)?.change.id;
  return rows.map(({ change, by, coolant }) => ({
    id: change.id,
    at: change.createdAt.toISOString(),
    by,
    coolant,
    before: change.before,
    after: change.after,
    moved: change.moved,
    told: change.told,
    undoneAt: change.undoneAt?.toISOString() ?? null,
    canUndo: change.id === newest,
  }));
}

async function loadChange({ scope, request }: Ask): Promise<typeof limitChange.$inferSelect> {
  const [row] = await scope
    .select()
    .from(limitChange)
    .where(eq(limitChange.id, idFrom(request, 'id', 'change')))
    .for('update');
  if (!row) throw notFound('change');
  return row;
}

/** The limit is what it was, and dates go back with it; a date that was moved by hand since stays where it was put. */
export async function undoLimit(ask: Ask): Promise<{ changes: LimitChangeRow[]; moved: Moved[] }> {
  const { scope, clock } = ask;
  const change = await loadChange(ask);
  const [newest] = await scope
    .select({ id: limitChange.id })
    .from(limitChange)
    .where(and(eq(limitChange.productId, change.productId), isNull(limitChange.undoneAt)))
    .orderBy(desc(limitChange.productVersion))
    .limit(1);
  if (change.undoneAt !== null || newest?.id !== change.id)
    throw new DomainError('refused', say('Only the newest change of a limit is taken back; change it to what it should be.'));
  const now = await loadProduct(scope, change.productId);
  const moved = await setLife(scope, change.productId, { ...change.before, version: now.version });
  await scope.update(limitChange).set({ undoneAt: clock.now() }).where(eq(limitChange.id, change.id));
  return { changes: await changesOf(scope, change.productId), moved };
}

export async function setTold(ask: Ask, { item, told }: LimitTold): Promise<{ changes: LimitChangeRow[] }> {
  const change = await loadChange(ask);
  if (!change.moved.some(({ id }) => id === item)) throw notFound('date of this change');
  const next = [...change.told.filter((each) => each !== item), ...(told ? [item] : [])];
  await ask.scope.update(limitChange).set({ told: next }).where(eq(limitChange.id, change.id));
  return { changes: await changesOf(ask.scope, change.productId) };
}

/** Writes to every owner who likes e-mail and was not told yet, and ticks them. @returns how many letters wait to be sent */
export const writeLimitLetters = (ask: Ask): Promise<{ changes: LimitChangeRow[]; written: number }> =>
  writtenFor(ask.account.workshopReading, () => writeToAll(ask));

async function writeToAll(ask: Ask): Promise<{ changes: LimitChangeRow[]; written: number }> {
  const { scope, account, clock } = ask;
  const change = await loadChange(ask);
  const [product] = await scope.select({ name: coolantProduct.name }).from(coolantProduct).where(eq(coolantProduct.id, change.productId));
  const told = [...change.told];
  for (const each of change.moved.filter(({ id, channel, email }) => channel !== 'phone' && email !== null && !told.includes(id))) {
    await write(
      scope,
      { workshopId: account.workshopId, personId: account.personId, at: clock.now() },
      {
        systemId: each.systemId,
        template: 'limit',
        about: `${change.id} ${each.id}`,
        when: () => say('on {longDay}', { longDay: longDay(each.dueOn) }),
        text: product?.name ?? '',
      },
    );
    told.push(each.id);
  }
  await scope.update(limitChange).set({ told }).where(eq(limitChange.id, change.id));
  return { changes: await changesOf(scope, change.productId), written: told.length - change.told.length };
}
