import { sql } from 'drizzle-orm';
import { date, foreignKey, index, pgPolicy, pgTable, primaryKey, smallint, text, uuid } from 'drizzle-orm/pg-core';
import { appRole, instant, owned, ownWorkshop, tenantWalls } from '../columns.js';
import { system } from './machines.js';

/** stands in a column of days for "never": later than every day */
export const NEVER = 'infinity';

/**
 * What lists sort and find a machine by, worked out from everything else and nothing by itself: one row a machine, with
 * the machine's own id. Triggers mark what went stale; whoever reads a list freshens that first.
 */
export const machineLine = pgTable(
  'machine_line',
  {
    ...owned,
    /** place of its attention in the order of every list */
    rank: smallint('rank').notNull(),
    /** the date it is told by; `NEVER`: it has none */
    nextDueOn: date('next_due_on').notNull().default(NEVER),
    /** its name, as names are sorted */
    nameKey: text('name_key').notNull(),
    /** everything that it is found by */
    words: text('words').notNull(),
    /** what it was filled with last, and when; one that never was: what its loop is planned for */
    coolantId: uuid('coolant_id'),
    filledOn: date('filled_on'),
    /** the day for which this was worked out, and the last one on which it holds */
    saidOn: date('said_on').notNull(),
    holdsUntil: date('holds_until').notNull().default(NEVER),
  },
  (t) => [
    foreignKey({
      name: 'machine_line_system_fk',
      columns: [t.workshopId, t.id],
      foreignColumns: [system.workshopId, system.id],
    }).onDelete('cascade'),
    index('machine_line_order').on(t.workshopId, t.rank, t.nextDueOn, sql`name_key collate "C"`, t.id),
    index('machine_line_by_day').on(t.workshopId, t.nextDueOn),
    index('machine_line_holds').on(t.workshopId, t.holdsUntil),
    index('machine_line_said').on(t.workshopId, t.saidOn),
    ...tenantWalls('machine_line', t),
  ],
);

/** Machines whose line is no longer true. Only ever added to by writers: nobody waits for anybody. */
export const staleLine = pgTable(
  'stale_line',
  {
    workshopId: uuid('workshop_id').notNull(),
    systemId: uuid('system_id').notNull(),
  },
  (t) => [
    index('stale_line_by_workshop').on(t.workshopId),
    pgPolicy('stale_line_own_workshop', {
      for: 'all',
      to: appRole,
      using: sql`workshop_id = ${ownWorkshop}`,
      withCheck: sql`workshop_id = ${ownWorkshop}`,
    }),
  ],
);

/**
 * Texts as they are searched: without accents and capitals, with an index of their trigrams. Triggers keep it. No request
 * reads it: a policy would keep the index from being used, so it is asked through `found_refs`, which knows its workshop.
 */
export const searchText = pgTable(
  'search_text',
  {
    workshopId: uuid('workshop_id').notNull(),
    /** what it is a text of; with `ref` its row */
    kind: text('kind').notNull(),
    ref: uuid('ref').notNull(),
    at: instant('at').notNull(),
    text: text('text').notNull(),
  },
  (t) => [
    primaryKey({ name: 'search_text_once', columns: [t.workshopId, t.kind, t.ref] }),
    pgPolicy('search_text_own_workshop', {
      for: 'all',
      to: appRole,
      using: sql`workshop_id = ${ownWorkshop}`,
      withCheck: sql`workshop_id = ${ownWorkshop}`,
    }),
  ],
);
