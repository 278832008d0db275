import { and, asc, count, eq, inArray, lte, notInArray, or, sql, type SQL } from 'drizzle-orm';
import type { AnyPgColumn } from 'drizzle-orm/pg-core';
import { addDays } from '../../../core/base/units/calendar.js';
import { placeText, type LinePlace, type LinesQuery } from '../../../core/workshop/machine-list/linesQuery.js';
import { nameKey } from '../../../core/workshop/machine-list/nameKey.js';
import { HORIZON_DAYS } from '../../../core/workshop/machine-list/pages.js';
import { nextOf } from '../../../core/workshop/machine-list/standing.js';
import type { SystemsAnswer } from '../../../core/workshop/machines/answers.js';
import { ATTENTION_ORDER, type Attention } from '../../../core/workshop/due-dates/attention.js';
import { foundRefs, wordsIn } from '../../base/database/foundRefs.js';
import { coolantProduct } from '../../base/database/tables/coolants.js';
import { machineLine, NEVER } from '../../base/database/tables/lines.js';
import { owner, system } from '../../base/database/tables/machines.js';
import { freshenLines, openDuesOf, type OfDay } from './freshLines.js';

const rankOf = (attention: Attention): number => ATTENTION_ORDER.indexOf(attention);
const sortedName = ({ nameKey: key }: { readonly nameKey: AnyPgColumn }): SQL => sql`${key} collate "C"`;
/** machines that are found by words: more are no answer, and a list of them is cut off there */
const MOST_FOUND = 100_000;

/** How many machines of each kind of attention there are; kinds without any are not among them. */
export type LineCounts = Partial<Record<Attention, number>>;

/**
 * A page of the list of machines: what needs attention first, within it the earliest date, then the name. Found, filtered
 * and counted in the database, by lines that are true on the day.
 */
export async function linesPage(day: OfDay, query: LinesQuery): Promise<SystemsAnswer> {
  await freshenLines(day);
  return pageOfLines(day, query, query.after === undefined && !query.closest ? await countLines(day) : null);
}

/** The same where the lines are known to be true. @param counts of all machines; null beyond a first page */
export async function pageOfLines(day: OfDay, query: LinesQuery, counts: LineCounts | null): Promise<SystemsAnswer> {
  const { scope, today } = day;
  const wanted = and(
    query.attention && eq(machineLine.rank, rankOf(query.attention)),
    query.coming ? isComing(today) : undefined,
    query.q === '' ? undefined : isFoundBy(query.q),
  );
  // the page first, by the lines alone: only what is shown is looked up beside them
  const isCounted = counts !== null && (query.q !== '' || query.coming);
  const page = scope
    .select({ ...PLACE, found: (isCounted ? sql<number>`count(*) over ()::int` : sql<number>`0`).as('found') })
    .from(machineLine)
    .where(and(wanted, query.after && isAfter(query.after)))
    .orderBy(...orderOf(machineLine, query))
    .limit(query.limit + 1)
    .as('page'); // prettier-ignore
  const rows = await scope
    .select({
      id: page.id,
      rank: page.rank,
      nextDueOn: page.nextDueOn,
      nameKey: page.nameKey,
      found: page.found,
      filledOn: page.filledOn,
      ...SHOWN,
    })
    .from(page)
    .innerJoin(system, eq(system.id, page.id))
    .innerJoin(owner, eq(owner.id, system.ownerId))
    .leftJoin(coolantProduct, eq(coolantProduct.id, page.coolantId))
    .orderBy(...orderOf(page, query));
  const shown = rows.slice(0, query.limit);
  const last = rows.length > query.limit ? shown.at(-1) : undefined;
  return {
    today,
    systems: await linesOf(day, shown),
    after: last ? placeText([last.rank, last.nextDueOn, last.nameKey, last.id]) : null,
    counts,
    found: counts && (isCounted ? (rows[0]?.found ?? 0) : sumOf(counts, query.attention)),
  };
}

const PLACE = {
  id: machineLine.id,
  rank: machineLine.rank,
  nextDueOn: machineLine.nextDueOn,
  nameKey: machineLine.nameKey,
  filledOn: machineLine.filledOn,
  coolantId: machineLine.coolantId,
};
const SHOWN = {
  name: system.name,
  tag: system.tag,
  caseText: system.caseText,
  state: system.state,
  ownerName: owner.name,
  ownerPhone: owner.phone,
  coolantName: coolantProduct.name,
  colour: coolantProduct.colour,
};

/** digits from which on a word may be a number that is written with spaces elsewhere */
const PHONE_DIGITS = 5;

/** Every word occurs in what a machine is found by; a long number may be its owner's, however that is spaced. */
function isFoundBy(text: string): SQL | undefined {
  const words = wordsIn(text);
  const numbers = words.filter((word) => /^\+?\d+$/u.test(word) && word.length >= PHONE_DIGITS);
  const others = words.filter((word) => !numbers.includes(word));
  return and(
    others.length > 0 ? inArray(machineLine.id, foundRefs('machine', others, MOST_FOUND)) : undefined,
    ...numbers.map((number) =>
      or(inArray(machineLine.id, foundRefs('machine', [number], MOST_FOUND)), inArray(machineLine.id, sql`(select s.id from system s where s.owner_id in ${foundRefs('phone', [number.replace('+', '')], MOST_FOUND)})`)),
    ),
  ); // prettier-ignore
}

type Placed = Readonly<Record<'id' | 'rank' | 'nextDueOn' | 'nameKey', AnyPgColumn>>;

/** The order of every list; for words that are looked up, what is called so first, then what is called so among other words. */
function orderOf(line: Placed, { closest, q }: LinesQuery): SQL[] {
  const key = nameKey(q);
  const near = closest ? [sql`${line.nameKey} <> ${key}`, sql`position(${key} in ${line.nameKey}) = 0`] : [];
  return [...near, asc(line.rank), asc(line.nextDueOn), sortedName(line), asc(line.id)];
}

const isAfter = ([rank, dueOn, nameKey, id]: LinePlace): SQL =>
  sql`(${machineLine.rank}, ${machineLine.nextDueOn}, ${sortedName(machineLine)}, ${machineLine.id}) > (${rank}::smallint, ${dueOn}::date, ${nameKey}, ${id}::uuid)`;

const isComing = (today: string): SQL | undefined =>
  and(notInArray(machineLine.rank, [rankOf('overdue'), rankOf('retired')]), lte(machineLine.nextDueOn, addDays(today, HORIZON_DAYS)));

const sumOf = (counts: LineCounts, attention: Attention | undefined): number =>
  attention ? (counts[attention] ?? 0) : Object.values(counts).reduce((sum, each) => sum + each, 0);

export async function countLines({ scope }: OfDay): Promise<LineCounts> {
  const rows = await scope.select({ rank: machineLine.rank, n: count() }).from(machineLine).groupBy(machineLine.rank).orderBy(machineLine.rank); // prettier-ignore
  return Object.fromEntries(rows.map(({ rank, n }) => [ATTENTION_ORDER[rank] as Attention, n]));
}

interface LineRow {
  readonly id: string;
  readonly rank: number;
  readonly nextDueOn: string;
  readonly nameKey: string;
  readonly found: number;
  readonly coolantName: string | null;
  readonly colour: string | null;
}

/** What the list shows of some machines, in their order. */
async function linesOf<Row extends LineRow>({ scope }: OfDay, rows: readonly Row[]) {
  if (rows.length === 0) return [];
  const dues = await openDuesOf(scope, rows.map(({ id }) => id)); // prettier-ignore
  return rows.map(({ rank, nextDueOn, nameKey: _, found: __, coolantName, colour, ...row }) => {
    const own = dues.get(row.id) ?? [];
    const attention = ATTENTION_ORDER[rank] as Attention;
    const next = nextOf(attention, own);
    return {
      ...row,
      attention,
      nextDueOn: nextDueOn === NEVER ? null : nextDueOn,
      nextKind: next?.kind ?? null,
      nextReason: next?.reason ?? null,
      dues: own.map(({ kind, dueOn, postponed }) => ({ kind, dueOn, postponed })),
      coolant: coolantName !== null && colour !== null ? { name: coolantName, colour } : null,
    };
  });
}
