import { sql } from 'drizzle-orm';
import { check, foreignKey, index, pgTable, text, uuid } from 'drizzle-orm/pg-core';
import type { FileKind, FileType } from '../../../../core/workshop/files/kinds.js';
import { bytes, instant, owned, tenantWalls } from '../columns.js';
import { coolantProduct } from './coolants.js';
import { system } from './machines.js';
import { ownPart } from './ownParts.js';
import { person } from './people.js';

/** Papers of a machine, a coolant or a part: sheets, invoices. One of the three it belongs to is set. */
export const keptFile = pgTable(
  'kept_file',
  {
    /** made on the device */
    ...owned,
    systemId: uuid('system_id'),
    coolantProductId: uuid('coolant_product_id'),
    ownPartId: uuid('own_part_id'),
    name: text('name').notNull(),
    kind: text('kind').$type<FileKind>().notNull(),
    note: text('note').notNull().default(''),
    mediaType: text('media_type').$type<FileType>().notNull(),
    content: bytes('content').notNull(),
    personId: uuid('person_id').notNull(),
    /** put away: listed no more, and brought back by undo */
    goneAt: instant('gone_at'),
  },
  (t) => [
    foreignKey({ name: 'kept_file_system_fk', columns: [t.workshopId, t.systemId], foreignColumns: [system.workshopId, system.id] }),
    foreignKey({ name: 'kept_file_coolant_fk', columns: [t.workshopId, t.coolantProductId], foreignColumns: [coolantProduct.workshopId, coolantProduct.id] }), // prettier-ignore
    foreignKey({ name: 'kept_file_own_part_fk', columns: [t.workshopId, t.ownPartId], foreignColumns: [ownPart.workshopId, ownPart.id] }),
    foreignKey({ name: 'kept_file_person_fk', columns: [t.workshopId, t.personId], foreignColumns: [person.workshopId, person.id] }),
    check('kept_file_of_one', sql`num_nonnulls(system_id, coolant_product_id, own_part_id) = 1`),
    check('kept_file_kind_known', sql`kind in ('sheet', 'safety-sheet', 'invoice', 'drawing', 'other')`),
    check(
      'kept_file_type_known',
      sql`media_type in ('application/pdf', 'image/jpeg', 'image/png', 'image/webp', 'text/plain', 'text/csv')`,
    ),
    index('kept_file_by_system').on(t.workshopId, t.systemId),
    index('kept_file_by_coolant').on(t.workshopId, t.coolantProductId),
    index('kept_file_by_own_part').on(t.workshopId, t.ownPartId),
    ...tenantWalls('kept_file', t),
  ],
);
