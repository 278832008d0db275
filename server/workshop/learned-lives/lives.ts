import { desc, eq, inArray, isNull } from 'drizzle-orm';
import { LIFE_GROUPS, type LifeGroup } from '../../../core/workshop/learned-lives/lifeGroups.js';
import type { EarlyLot, LivesAnswer, LotHolder, NamedGroup } from '../../../core/workshop/learned-lives/answers.js';
import type { LifeRiskEdit, LotTold } from '../../../core/workshop/learned-lives/schema.js';
import { coolantLot, coolantProduct } from '../../base/database/tables/coolants.js';
import { earlyLot, learnedLife } from '../../base/database/tables/learned-lives.js';
import { workshop } from '../../base/database/tables/people.js';
import type { Scope } from '../../base/database/client.js';
import { idFrom, type Ask } from '../../base/http/context.js';
import { notFound } from '../../base/http/errors.js';
import { writtenFor } from '../../base/http/readers.js';
import { redate } from '../due-dates/redate.js';
import { holdersOfCoolant, holdersOfPart, lotWords, type Holder } from '../lots/mates.js';
import { write } from '../messages/messages.js';
import { changeWorkshop } from '../people/workshop.js';
import { refreshLives } from './refresh.js';

/** groups of one way that a screen shows: those that failed most, then those with most fills */
const MOST_SHOWN = 40;

export async function readLives({ scope, account }: Pick<Ask, 'scope' | 'account'>): Promise<LivesAnswer> {
  const [own] = await scope
    .select({ risk: workshop.lifeRisk, version: workshop.version })
    .from(workshop)
    .where(eq(workshop.id, account.workshopId));
  if (!own) throw notFound('workshop');
  const rows: { life: LifeGroup; at: Date }[] = [];
  for (const by of LIFE_GROUPS)
    rows.push(
      ...(await scope
        .select({ life: learnedLife.life, at: learnedLife.createdAt })
        .from(learnedLife)
        .where(eq(learnedLife.by, by))
        .orderBy(desc(learnedLife.failed), desc(learnedLife.fills), learnedLife.key)
        .limit(MOST_SHOWN)),
    );
  return {
    ...own,
    at: rows[0]?.at.toISOString() ?? null,
    groups: await named(
      scope,
      rows.map(({ life }) => life),
    ),
    early: await earlyNow(scope),
  };
}

async function named(scope: Scope, lives: readonly LifeGroup[]): Promise<NamedGroup[]> {
  const keys = (by: string): string[] => lives.flatMap((life) => (life.by === by ? [life.key] : []));
  const products = await scope
    .select({ id: coolantProduct.id, name: coolantProduct.name, colour: coolantProduct.colour })
    .from(coolantProduct)
    .where(inArray(coolantProduct.id, keys('product')));
  const lots = await scope
    .select({ id: coolantLot.id, lot: coolantLot.lot, product: coolantProduct.name, colour: coolantProduct.colour })
    .from(coolantLot)
    .innerJoin(coolantProduct, eq(coolantProduct.id, coolantLot.productId))
    .where(inArray(coolantLot.id, keys('lot')));
  const known = new Map([
    ...products.map(({ id, ...own }) => [id, own] as const),
    ...lots.map(({ id, lot, product, colour }) => [id, { name: lotWords(product, lot), colour }] as const),
  ]);
  return lives.map((life) => ({ ...life, ...(known.get(life.key) ?? { name: null, colour: null }) }));
}

type EarlyRow = typeof earlyLot.$inferSelect;

const asHolder = ({ loopId: _, ...holder }: Holder): LotHolder => holder;

async function holdersOf(scope: Scope, { lotId, make, lot }: EarlyRow): Promise<{ what: string; holders: Holder[] }> {
  if (lotId === null) return { what: lotWords(make, lot), holders: await holdersOfPart(scope, { make, lot }) };
  const [own] = await scope
    .select({ lot: coolantLot.lot, product: coolantProduct.name })
    .from(coolantLot)
    .innerJoin(coolantProduct, eq(coolantProduct.id, coolantLot.productId))
    .where(eq(coolantLot.id, lotId));
  return { what: lotWords(own?.product ?? '', own?.lot ?? ''), holders: await holdersOfCoolant(scope, lotId) };
}

async function earlyNow(scope: Scope): Promise<EarlyLot[]> {
  const rows = await scope.select().from(earlyLot).where(isNull(earlyLot.overOn)).orderBy(earlyLot.p, earlyLot.createdAt);
  const found: EarlyLot[] = [];
  for (const row of rows) {
    const { id, lotId, seenOn, machines, observed, expected, p, told } = row;
    const { what, holders } = await holdersOf(scope, row);
    found.push({ id, what, isCoolant: lotId !== null, seenOn, machines, observed, expected, p, told, holders: holders.map(asHolder) });
  }
  return found;
}

/** How sure of a fill a workshop wants to be: every date that rests on learned lives moves with it. */
export async function setLifeRisk(ask: Ask, { risk, version }: LifeRiskEdit): Promise<LivesAnswer> {
  await changeWorkshop(ask, version, { lifeRisk: risk });
  return learnAnew(ask);
}

export async function learnAnew(ask: Ask): Promise<LivesAnswer> {
  const { scope, account, today, clock } = ask;
  await refreshLives(scope, { workshopId: account.workshopId, today, at: clock.now() });
  await redate(scope, { everything: true });
  return readLives(ask);
}

async function loadEarly({ scope, request }: Ask): Promise<EarlyRow> {
  const [row] = await scope
    .select()
    .from(earlyLot)
    .where(eq(earlyLot.id, idFrom(request, 'id', 'lot')))
    .for('update');
  if (!row) throw notFound('lot');
  return row;
}

export async function setLotTold(ask: Ask, { systemId, told }: LotTold): Promise<LivesAnswer> {
  const row = await loadEarly(ask);
  const { holders } = await holdersOf(ask.scope, row);
  if (!holders.some((holder) => holder.systemId === systemId)) throw notFound('machine with this lot');
  const next = [...row.told.filter((each) => each !== systemId), ...(told ? [systemId] : [])];
  await ask.scope.update(earlyLot).set({ told: next }).where(eq(earlyLot.id, row.id));
  return readLives(ask);
}

/** Writes to every owner who has an address and was not told yet, and ticks them. @returns how many letters wait to be sent */
export const writeLotLetters = (ask: Ask): Promise<{ lives: LivesAnswer; written: number }> =>
  writtenFor(ask.account.workshopReading, async () => {
    const { scope, account, clock } = ask;
    const row = await loadEarly(ask);
    const { what, holders } = await holdersOf(scope, row);
    const open = holders.filter(({ systemId, email }) => email !== null && !row.told.includes(systemId));
    const writing = { workshopId: account.workshopId, personId: account.personId, at: clock.now() };
    for (const { systemId } of open)
      await write(scope, writing, { systemId, template: 'lot', about: `${row.id} ${systemId}`, when: '', text: what });
    await scope
      .update(earlyLot)
      .set({ told: [...row.told, ...open.map(({ systemId }) => systemId)] })
      .where(eq(earlyLot.id, row.id));
    return { lives: await readLives(ask), written: open.length };
  });
