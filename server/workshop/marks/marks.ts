import { and, eq } from 'drizzle-orm';
import { say } from '../../../core/base/words/say.js';
import { demandPast, refuse } from '../../../core/base/checking/input.js';
import type { ConfirmedInput, KeptSettingInput, LevelInput, MarkInput } from '../../../core/workshop/marks/schema.js';
import { confirmedCause, levelReading, machineMark } from '../../base/database/tables/logs.js';
import { system } from '../../base/database/tables/machines.js';
import { loop } from '../../base/database/tables/loops.js';
import { idFrom, type Ask } from '../../base/http/context.js';
import { notFound } from '../../base/http/errors.js';
import { conditionPage, hasPart, refreshCondition } from '../../machine/condition/condition.js';
import { redate } from '../due-dates/redate.js';
import { demandInUse } from '../logs/logs.js';

/** Refuses a day to come, a machine that is retired, a part that none of its loops has. */
async function demandSane({ scope, request, today }: Ask, { part, on }: Pick<MarkInput, 'part' | 'on'>): Promise<string> {
  const systemId = idFrom(request, 'id', 'system');
  demandPast('on', on, today);
  await demandInUse(scope, systemId);
  if (part !== null && !(await hasPart(scope, systemId, part)))
    refuse('part', say('"{itemId}" is not a part of this loop', { itemId: part }));
  return systemId;
}

/** Something was done to a part: its readings begin anew. */
export async function addMark(ask: Ask, { kind, part, on }: MarkInput) {
  const { scope, account, clock } = ask;
  const systemId = await demandSane(ask, { part, on });
  const [made] = await scope
    .insert(machineMark)
    .values({ workshopId: account.workshopId, systemId, kind, part, doneOn: on, personId: account.personId, createdAt: clock.now() })
    .returning({ id: machineMark.id });
  await refreshCondition(scope, systemId);
  return { id: (made as { id: string }).id, moved: await redate(scope, { systemId }) };
}

/** A wrong one is struck out; undo brings it back. */
export async function strikeMark({ scope, request, clock }: Ask, struck: boolean) {
  const [row] = await scope
    .update(machineMark)
    .set({ struckAt: struck ? clock.now() : null })
    .where(eq(machineMark.id, idFrom(request, 'id', 'mark')))
    .returning({ systemId: machineMark.systemId });
  if (!row) throw notFound('mark');
  await refreshCondition(scope, row.systemId);
  return { moved: await redate(scope, { systemId: row.systemId }) };
}

/** This setting is kept: pump and fans as they are left. */
export async function keepSetting(ask: Ask, setting: KeptSettingInput) {
  const { scope, account, request, today } = ask;
  const systemId = idFrom(request, 'id', 'system');
  await demandInUse(scope, systemId);
  await scope
    .update(system)
    .set({ keptSetting: { ...setting, on: today, by: account.personName } })
    .where(eq(system.id, systemId));
  return conditionPage(ask);
}

/** The level between two fills. */
export async function addLevel({ scope, account, request, today, clock }: Ask, { loopId, on, mm }: LevelInput) {
  const systemId = idFrom(request, 'id', 'system');
  demandPast('on', on, today);
  await demandInUse(scope, systemId);
  const [own] = await scope
    .select({ id: loop.id })
    .from(loop)
    .where(and(eq(loop.id, loopId), eq(loop.systemId, systemId)));
  if (!own) throw notFound('loop');
  const [made] = await scope
    .insert(levelReading)
    .values({ workshopId: account.workshopId, loopId, readOn: on, levelMm: mm, personId: account.personId, createdAt: clock.now() })
    .returning({ id: levelReading.id });
  return made as { id: string };
}

export async function strikeLevel({ scope, request, clock }: Ask, struck: boolean) {
  const [row] = await scope
    .update(levelReading)
    .set({ struckAt: struck ? clock.now() : null })
    .where(eq(levelReading.id, idFrom(request, 'id', 'level')))
    .returning({ id: levelReading.id });
  if (!row) throw notFound('level');
  return row;
}

/** Somebody looked, and found what it was. */
export async function confirmCause(ask: Ask, { cause, part, on }: ConfirmedInput) {
  const { scope, account, clock } = ask;
  const systemId = await demandSane(ask, { part, on });
  await scope
    .insert(confirmedCause)
    .values({ workshopId: account.workshopId, systemId, cause, part, foundOn: on, personId: account.personId, createdAt: clock.now() });
  return conditionPage(ask);
}

export async function strikeCause({ scope, request, clock }: Ask, struck: boolean) {
  const [row] = await scope
    .update(confirmedCause)
    .set({ struckAt: struck ? clock.now() : null })
    .where(eq(confirmedCause.id, idFrom(request, 'id', 'cause')))
    .returning({ id: confirmedCause.id });
  if (!row) throw notFound('cause');
  return row;
}
