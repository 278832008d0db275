import { foreignKey, pgTable, text, uuid } from 'drizzle-orm/pg-core';
import { readObject } from '../../../../core/base/checking/stored.js';
import type { ImportCounts } from '../../../../core/workshop/importing/answers.js';
import type { ImportTableKind } from '../../../../core/workshop/importing/fields.js';
import { instant, owned, stored, tenantWalls } from '../columns.js';
import { person } from './people.js';

/** A table that was brought in: what it made carries its id, so that all of it can be undone. */
export const importBatch = pgTable(
  'import_batch',
  {
    ...owned,
    kind: text('kind').$type<ImportTableKind>().notNull(),
    fileName: text('file_name').notNull().default(''),
    counts: stored('counts', readObject<ImportCounts>('what an import made')).notNull(),
    personId: uuid('person_id').notNull(),
    undoneAt: instant('undone_at'),
  },
  (t) => [
    foreignKey({ name: 'import_batch_person_fk', columns: [t.workshopId, t.personId], foreignColumns: [person.workshopId, person.id] }),
    ...tenantWalls('import_batch', t),
  ],
);
