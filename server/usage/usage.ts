import { and, asc, eq, inArray, isNull } from 'drizzle-orm';
import { refuse } from '../../core/checking/check.js';
import { usageOf, usedFigures, type Usage, type UsageReading } from '../../core/usage/usage.js';
import type { UsageReadingInput } from '../../core/usage/schema.js';
import type { Scope } from '../database/client.js';
import { redate } from '../due-dates/redate.js';
import { idFrom, type Ask } from '../http/context.js';
import { DomainError, notFound } from '../http/errors.js';
import { system } from '../systems/tables.js';
import { usageReading } from './tables.js';

/** What a machine's owner says of its use. */
export interface OwnersWord {
  readonly hoursPerDay: number | null;
  readonly coolantC: number | null;
}

const asReading = ({ id, source, fromOn, readOn, hours, meanCoolantC }: typeof usageReading.$inferSelect): UsageReading => ({
  id,
  source,
  fromOn,
  on: readOn,
  hours,
  meanCoolantC,
});

/** Readings that stand, for the machines asked for. @param systemIds null: every machine of the workshop */
export async function readingsBySystem(scope: Scope, systemIds: readonly string[] | null): Promise<ReadonlyMap<string, UsageReading[]>> {
  const rows =
    systemIds?.length === 0
      ? []
      : await scope
          .select()
          .from(usageReading)
          .where(and(isNull(usageReading.struckAt), systemIds === null ? undefined : inArray(usageReading.systemId, [...systemIds])));
  const groups = new Map<string, UsageReading[]>();
  for (const row of rows) {
    const group = groups.get(row.systemId);
    if (group) group.push(asReading(row));
    else groups.set(row.systemId, [asReading(row)]);
  }
  return groups;
}

/** The figures that a fill's clocks take. */
export const figuresOf = (readings: readonly UsageReading[] | undefined, word: OwnersWord, since: string) =>
  usedFigures(usageOf({ readings: readings ?? [], ownerHoursPerDay: word.hoursPerDay, ownerCoolantC: word.coolantC, since }));

/** Every source of a machine's use beside the others, and what was read. */
export async function usagePage(scope: Scope, systemId: string, word: OwnersWord, since: string | null): Promise<UsagePage> {
  const rows = await scope
    .select()
    .from(usageReading)
    .where(and(eq(usageReading.systemId, systemId), isNull(usageReading.struckAt)))
    .orderBy(asc(usageReading.readOn));
  const readings = rows.map(asReading);
  return {
    usage: usageOf({ readings, ownerHoursPerDay: word.hoursPerDay, ownerCoolantC: word.coolantC, since: since ?? '0001-01-01' }),
    readings: rows.map((row) => ({ ...asReading(row), note: row.note })),
  };
}

export interface UsagePage {
  readonly usage: Usage;
  readonly readings: readonly (UsageReading & { readonly note: string })[];
}

/** A reading joins a machine; its dates follow. */
export async function addReading(ask: Ask, input: UsageReadingInput) {
  const { scope, account, request, today, clock } = ask;
  const systemId = idFrom(request, 'id', 'system');
  const [own] = await scope.select({ state: system.state }).from(system).where(eq(system.id, systemId));
  if (!own) throw notFound('system');
  if (own.state === 'retired') throw new DomainError('refused', 'This machine is retired; nothing falls due on it.');
  if (input.on > today) refuse('on', `cannot lie in the future; today is ${today} (got ${input.on})`);
  const { on, ...values } = input;
  const [made] = await scope
    .insert(usageReading)
    .values({ ...values, readOn: on, workshopId: account.workshopId, systemId, personId: account.personId, createdAt: clock.now() })
    .returning({ id: usageReading.id });
  return { id: (made as { id: string }).id, moved: await redate(scope, { systemId }) };
}

/** A wrong reading is struck out; undo brings it back. */
export async function strikeReading({ scope, request, clock }: Ask, struck: boolean) {
  const id = idFrom(request, 'id', 'reading');
  const [row] = await scope
    .update(usageReading)
    .set({ struckAt: struck ? clock.now() : null })
    .where(eq(usageReading.id, id))
    .returning({ systemId: usageReading.systemId });
  if (!row) throw notFound('reading');
  return { moved: await redate(scope, { systemId: row.systemId }) };
}
