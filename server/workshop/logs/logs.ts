import { and, eq, inArray, isNotNull, isNull } from 'drizzle-orm';
import { say } from '../../../core/base/words/say.js';
import { demandPast } from '../../../core/base/checking/input.js';
import type { KeptLog } from '../../../core/workshop/logs/answers.js';
import { demandWhole, type HandReadingInput, type LogInput } from '../../../core/workshop/logs/schema.js';
import type { Scope } from '../../base/database/client.js';
import { loadReading, logColumns } from '../../base/database/tables/logs.js';
import { system } from '../../base/database/tables/machines.js';
import { usageReading } from '../../base/database/tables/usage.js';
import { idFrom, type Ask } from '../../base/http/context.js';
import { DomainError, notFound } from '../../base/http/errors.js';
import { refreshCondition } from '../../machine/condition/condition.js';
import { redate } from '../due-dates/redate.js';

/** Refuses what comes of a machine that is not there or retired. Locked until the end: two logs of one machine come in one after the other. */
export async function demandInUse(scope: Scope, systemId: string): Promise<void> {
  const [own] = await scope.select({ state: system.state }).from(system).where(eq(system.id, systemId)).for('update');
  if (!own) throw notFound('system');
  if (own.state === 'retired') throw new DomainError('refused', say('This machine is retired; nothing falls due on it.'));
}

/** What a log comes to joins its machine: hours and warmth, a reading a day, and how its columns were read. Its dates follow. */
export async function keepLog(ask: Ask, input: LogInput): Promise<KeptLog> {
  const { scope, account, request, today, clock } = ask;
  const systemId = idFrom(request, 'id', 'system');
  demandWhole(input);
  demandPast('on', input.on, today);
  await demandInUse(scope, systemId);
  const { name, fromOn, on, hours, meanCoolantC, meterHours, columns, days } = input;
  const own = { workshopId: account.workshopId, systemId, personId: account.personId, createdAt: clock.now() };
  const [log] = await scope
    .insert(usageReading)
    .values({ ...own, source: 'log', fromOn, readOn: on, hours, meanCoolantC, note: name })
    .returning({ id: usageReading.id });
  const { id } = log as { id: string };
  if (meterHours !== null) await scope.insert(usageReading).values({ ...own, source: 'meter', readOn: on, hours: meterHours, note: name });
  const known = await knownDays(scope, systemId, days.map((each) => each.on)); // prettier-ignore
  const fresh = days.filter((each) => !known.has(each.on));
  if (fresh.length > 0)
    await scope.insert(loadReading).values(fresh.map(({ on: readOn, at, reading }) => ({ ...own, logId: id, readOn, takenAt: new Date(at), reading }))); // prettier-ignore
  await scope
    .insert(logColumns)
    .values({ workshopId: account.workshopId, systemId, columns, name, createdAt: clock.now() })
    .onConflictDoUpdate({ target: [logColumns.workshopId, logColumns.systemId], set: { columns, name } });
  await refreshCondition(scope, systemId);
  return { id, taken: fresh.length, known: days.length - fresh.length, moved: await redate(scope, { systemId }) };
}

/** Days of which a reading from a log stands. */
async function knownDays(scope: Scope, systemId: string, days: readonly string[]): Promise<ReadonlySet<string>> {
  if (days.length === 0) return new Set();
  const rows = await scope
    .select({ on: loadReading.readOn })
    .from(loadReading)
    .where(and(eq(loadReading.systemId, systemId), isNotNull(loadReading.logId), isNull(loadReading.struckAt), inArray(loadReading.readOn, [...days]))); // prettier-ignore
  return new Set(rows.map(({ on }) => on));
}

/** Somebody read a machine under load in between. */
export async function addLoadReading({ scope, account, request, today, clock }: Ask, { on, reading }: HandReadingInput) {
  const systemId = idFrom(request, 'id', 'system');
  demandPast('on', on, today);
  await demandInUse(scope, systemId);
  const [made] = await scope
    .insert(loadReading)
    .values({
      workshopId: account.workshopId,
      systemId,
      personId: account.personId,
      readOn: on,
      takenAt: clock.now(),
      createdAt: clock.now(),
      reading,
    })
    .returning({ id: loadReading.id });
  await refreshCondition(scope, systemId);
  return { id: (made as { id: string }).id, moved: await redate(scope, { systemId }) };
}

/** A wrong reading is struck out; undo brings it back. */
export async function strikeLoadReading({ scope, request, clock }: Ask, struck: boolean) {
  const [row] = await scope
    .update(loadReading)
    .set({ struckAt: struck ? clock.now() : null })
    .where(eq(loadReading.id, idFrom(request, 'id', 'reading')))
    .returning({ systemId: loadReading.systemId });
  if (!row) throw notFound('reading');
  await refreshCondition(scope, row.systemId);
  return { moved: await redate(scope, { systemId: row.systemId }) };
}

/** A log that was struck out takes its readings with it. Of days that another log holds by now, that one stays. */
export async function strikeReadingsOf(scope: Scope, logId: string, systemId: string, at: Date | null): Promise<void> {
  const own = await scope.select({ id: loadReading.id, on: loadReading.readOn }).from(loadReading).where(eq(loadReading.logId, logId));
  const known = at === null ? await knownDays(scope, systemId, own.map(({ on }) => on)) : new Set<string>(); // prettier-ignore
  const ids = own.filter(({ on }) => !known.has(on)).map(({ id }) => id);
  if (ids.length === 0) return;
  await scope.update(loadReading).set({ struckAt: at }).where(inArray(loadReading.id, ids));
  await refreshCondition(scope, systemId);
}
