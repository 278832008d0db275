import { sql } from 'drizzle-orm';
import { foreignKey, pgPolicy, pgTable, text, unique, uuid } from 'drizzle-orm/pg-core';
import { person, workshop } from './people.js';
import { owned, serverRole, tenantWalls } from '../columns.js';

/** A calendar address that nobody can guess: of one technician, or of the whole workshop. Only its hash is kept. */
export const calendarFeed = pgTable(
  'calendar_feed',
  {
    ...owned,
    /** null: the workshop's own */
    personId: uuid('person_id'),
    secretHash: text('secret_hash').notNull(),
  },
  (t) => [
    foreignKey({ name: 'calendar_feed_workshop_fk', columns: [t.workshopId], foreignColumns: [workshop.id] }),
    foreignKey({ name: 'calendar_feed_person_fk', columns: [t.workshopId, t.personId], foreignColumns: [person.workshopId, person.id] }),
    unique('calendar_feed_once').on(t.workshopId, t.personId).nullsNotDistinct(),
    unique('calendar_feed_secret_once').on(t.secretHash),
    // whose feed an address is: it arrives without a session (columns are granted one by one)
    pgPolicy('calendar_feed_server_finds', { for: 'select', to: serverRole, using: sql`true` }),
    ...tenantWalls('calendar_feed', t),
  ],
);
