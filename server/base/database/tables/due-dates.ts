import { readList } from '../../../../core/base/checking/stored.js';
import type { DueKind } from '../../../../core/workshop/due-dates/attention.js';
import { sql } from 'drizzle-orm';
import { boolean, check, date, foreignKey, index, integer, pgTable, text, unique, uuid } from 'drizzle-orm/pg-core';
import type { DueClock, ServicePolicy } from '../../../../core/workshop/due-dates/due.js';
import { person, workshop } from './people.js';
import { fill } from './runs.js';
import { readOutcome, readReason } from '../../../../core/workshop/due-dates/facts.js';
import { instant, owned, stored, tenantWalls } from '../columns.js';
import { loop } from './loops.js';
import { owner, system } from './machines.js';

export const dueItem = pgTable(
  'due_item',
  {
    ...owned,
    systemId: uuid('system_id').notNull(),
    loopId: uuid('loop_id').notNull(),
    /** the fill whose clocks these are */
    fillId: uuid('fill_id'),
    kind: text('kind').$type<DueKind>().notNull(),
    windowFrom: date('window_from'),
    /** day from which a cleaning counts; null for what counts from a fill */
    sinceOn: date('since_on'),
    dueOn: date('due_on').notNull(),
    reason: stored('reason', readReason).notNull(),
    estimated: boolean('estimated').notNull().default(false),
    clocks: stored('clocks', readList<DueClock>('the clocks of a date')).notNull(),
    state: text('state').$type<'open' | 'closed'>().notNull().default('open'),
    /** null while it is open */
    outcome: stored('outcome', readOutcome),
    closedAt: instant('closed_at'),
    closedBy: uuid('closed_by'),
    /** how often the owner put it off; it stays open and counts up */
    postponed: integer('postponed').notNull().default(0),
    version: integer('version').notNull().default(1),
  },
  (t) => [
    foreignKey({ name: 'due_item_system_fk', columns: [t.workshopId, t.systemId], foreignColumns: [system.workshopId, system.id] }),
    foreignKey({ name: 'due_item_loop_fk', columns: [t.workshopId, t.loopId], foreignColumns: [loop.workshopId, loop.id] }),
    foreignKey({ name: 'due_item_fill_fk', columns: [t.workshopId, t.fillId], foreignColumns: [fill.workshopId, fill.id] }),
    foreignKey({ name: 'due_item_person_fk', columns: [t.workshopId, t.closedBy], foreignColumns: [person.workshopId, person.id] }),
    check('due_kind_known', sql`kind in ('coolant-service', 'settling-check', 'follow-up', 'dust-clean', 'paste-renewal', 'stirring')`),
    check('due_state_known', sql`state in ('open', 'closed')`),
    check('due_closed_has_instant', sql`(state = 'closed') = (closed_at is not null)`),
    check('due_reason_given', sql`reason ? 'why'`),
    index('due_open').on(t.workshopId, t.state, t.dueOn),
    index('due_by_system').on(t.workshopId, t.systemId),
    index('due_by_loop').on(t.workshopId, t.loopId),
    index('due_by_fill')
      .on(t.workshopId, t.fillId)
      .where(sql`fill_id is not null`),
    ...tenantWalls('due_item', t),
  ],
);

/** When coolant comes out: for the whole workshop (no scope), for one owner, or for one system. The narrowest counts. */
export const policy = pgTable(
  'policy',
  {
    ...owned,
    ownerId: uuid('owner_id'),
    systemId: uuid('system_id'),
    service: text('service').$type<ServicePolicy>().notNull(),
  },
  (t) => [
    foreignKey({ name: 'policy_workshop_fk', columns: [t.workshopId], foreignColumns: [workshop.id] }),
    foreignKey({ name: 'policy_owner_fk', columns: [t.workshopId, t.ownerId], foreignColumns: [owner.workshopId, owner.id] }),
    foreignKey({ name: 'policy_system_fk', columns: [t.workshopId, t.systemId], foreignColumns: [system.workshopId, system.id] }),
    unique('policy_scope_once').on(t.workshopId, t.ownerId, t.systemId).nullsNotDistinct(),
    check('policy_one_scope', sql`owner_id is null or system_id is null`),
    check('policy_service_known', sql`service in ('six-months', 'twelve-months', 'product-life')`),
    ...tenantWalls('policy', t),
  ],
);

/** An owner put a service off: when, why, and that the risk was told. */
export const postponement = pgTable(
  'postponement',
  {
    ...owned,
    dueItemId: uuid('due_item_id').notNull(),
    from: date('from_day').notNull(),
    until: date('until_day').notNull(),
    reason: text('reason').notNull(),
    personId: uuid('person_id').notNull(),
  },
  (t) => [
    foreignKey({ name: 'postponement_due_fk', columns: [t.workshopId, t.dueItemId], foreignColumns: [dueItem.workshopId, dueItem.id] }),
    foreignKey({ name: 'postponement_person_fk', columns: [t.workshopId, t.personId], foreignColumns: [person.workshopId, person.id] }),
    check('postponement_reason_given', sql`length(trim(reason)) > 0`),
    index('postponement_by_due').on(t.workshopId, t.dueItemId),
    ...tenantWalls('postponement', t),
  ],
);
