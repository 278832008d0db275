import type { UsagePage } from '../../../core/workshop/usage/answers.js';
import { asReading, type OwnersWord } from '../due-dates/usageFigures.js';
import { and, asc, eq, isNull } from 'drizzle-orm';
import { demandPast } from '../../../core/base/checking/input.js';
import { usageOf } from '../../../core/workshop/usage/usage.js';
import type { UsageReadingInput } from '../../../core/workshop/usage/schema.js';
import type { Scope } from '../../base/database/client.js';
import { demandInUse, strikeReadingsOf } from '../logs/logs.js';
import { redate } from '../due-dates/redate.js';
import { idFrom, type Ask } from '../../base/http/context.js';
import { notFound } from '../../base/http/errors.js';
import { usageReading } from '../../base/database/tables/usage.js';

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

/** A reading joins a machine; its dates follow. */
export const addReading = (ask: Ask, input: UsageReadingInput) => keepReading(ask, idFrom(ask.request, 'id', 'system'), input);

/** What a meter showed, told by somebody else than this request is about. */
export const readMeter = (ask: Ask, systemId: string, meter: Pick<UsageReadingInput, 'hours' | 'on' | 'note'>) =>
  keepReading(ask, systemId, { source: 'meter', fromOn: null, meanCoolantC: null, ...meter });

async function keepReading({ scope, account, today, clock }: Ask, systemId: string, input: UsageReadingInput) {
  await demandInUse(scope, systemId);
  demandPast('on', input.on, today);
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
    .returning({ systemId: usageReading.systemId, source: usageReading.source, struckAt: usageReading.struckAt });
  if (!row) throw notFound('reading');
  if (row.source === 'log') await strikeReadingsOf(scope, id, row.systemId, row.struckAt);
  return { moved: await redate(scope, { systemId: row.systemId }) };
}
