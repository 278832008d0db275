import { sql } from 'drizzle-orm';
import { check, foreignKey, index, pgTable, text, uuid } from 'drizzle-orm/pg-core';
import { person } from './people.js';
import { bytes, owned, tenantWalls } from '../columns.js';
import { job, system } from './machines.js';

/** A picture of a machine, made small on the device that took it. A trigger refuses every update and delete. */
export const photo = pgTable(
  'photo',
  {
    /** made on the device */
    ...owned,
    systemId: uuid('system_id').notNull(),
    jobId: uuid('job_id'),
    caption: text('caption').notNull().default(''),
    mediaType: text('media_type').notNull(),
    image: bytes('image').notNull(),
    personId: uuid('person_id').notNull(),
  },
  (t) => [
    foreignKey({ name: 'photo_system_fk', columns: [t.workshopId, t.systemId], foreignColumns: [system.workshopId, system.id] }),
    foreignKey({ name: 'photo_job_fk', columns: [t.workshopId, t.jobId], foreignColumns: [job.workshopId, job.id] }),
    foreignKey({ name: 'photo_person_fk', columns: [t.workshopId, t.personId], foreignColumns: [person.workshopId, person.id] }),
    check('photo_type_known', sql`media_type in ('image/jpeg', 'image/png', 'image/webp')`),
    index('photo_by_system').on(t.workshopId, t.systemId),
    ...tenantWalls('photo', t),
  ],
);
