import { readObject } from '../../../../core/base/checking/stored.js';
import { sql } from 'drizzle-orm';
import { check, doublePrecision, foreignKey, integer, pgTable, text, unique } from 'drizzle-orm/pg-core';
import type { CaseOutline } from '../../../../core/machine/drawing/cases.js';
import { workshop } from './people.js';
import { owned, stored, tenantWalls } from '../columns.js';

/** Cases this workshop builds in often: inside sizes and where parts are mounted. */
export const caseTemplate = pgTable(
  'case_template',
  {
    ...owned,
    label: text('label').notNull(),
    depthMm: doublePrecision('depth_mm').notNull(),
    heightMm: doublePrecision('height_mm').notNull(),
    widthMm: doublePrecision('width_mm').notNull(),
    mounts: stored('mounts', readObject<CaseOutline['mounts']>('the mounts of a case')).notNull(),
    /** measured in it */
    room: stored('room', readObject<NonNullable<CaseOutline['room']>>('the room in a case')).notNull().default({}),
    version: integer('version').notNull().default(1),
  },
  (t) => [
    foreignKey({ name: 'case_template_workshop_fk', columns: [t.workshopId], foreignColumns: [workshop.id] }),
    unique('case_template_label_once').on(t.workshopId, t.label),
    check('case_template_sizes_positive', sql`depth_mm > 0 and height_mm > 0 and width_mm > 0`),
    ...tenantWalls('case_template', t),
  ],
);
