import { readObject } from '../../../../core/base/checking/stored.js';
import type { HeatSetup } from '../../../../core/physics/heat/setup.js';
import type { KeptRings } from '../../../../core/machine/seals/rings.js';
import type { FanStacks } from '../../../../core/machine/shop-sums/fanScrews.js';
import type { CameFilled } from '../../../../core/machine/loop-file/cameFilled.js';
import { readStoredLoop } from '../../../../core/machine/loop-file/loopFile.js';
import type { RevisionKind } from '../../../../core/machine/loop-file/revisionKinds.js';
import { ne, sql } from 'drizzle-orm';
import { check, doublePrecision, foreignKey, index, integer, pgTable, text, unique, uuid } from 'drizzle-orm/pg-core';
import { person } from './people.js';
import { coolantProduct } from './coolants.js';
import { owned, stored, tenantWalls } from '../columns.js';
import { system } from './machines.js';

export const loop = pgTable(
  'loop',
  {
    ...owned,
    systemId: uuid('system_id').notNull(),
    name: text('name').notNull(),
    coolantProductId: uuid('coolant_product_id'),
    /** filled by somebody else before it came here; null: it was not */
    cameFilled: stored('came_filled', readObject<CameFilled>('what a loop came filled with')),
    /** what was said of its air and load; null: nothing yet */
    heatSetup: stored('heat_setup', readObject<HeatSetup>('what is said of a loop’s air and load')),
    /** rings that were renewed one by one, and since when the oldest serves; null: all are as old as the last strip or first fill */
    rings: stored('rings', readObject<KeptRings>('how old the rings of a loop are')),
    /** what the screws of its fans pass, radiator by radiator; null: nobody measured */
    fanStacks: stored('fan_stacks', readObject<FanStacks>('what was measured of a loop’s fan screws')),
    /** counts saves; a save made from an older one is refused */
    version: integer('version').notNull().default(1),
  },
  (t) => [
    foreignKey({ name: 'loop_system_fk', columns: [t.workshopId, t.systemId], foreignColumns: [system.workshopId, system.id] }),
    foreignKey({
      name: 'loop_coolant_fk',
      columns: [t.workshopId, t.coolantProductId],
      foreignColumns: [coolantProduct.workshopId, coolantProduct.id],
    }),
    index('loop_by_system').on(t.workshopId, t.systemId),
    index('loop_by_coolant').on(t.workshopId, t.coolantProductId),
    ...tenantWalls('loop', t),
  ],
);

/** A loop as it was planned, built or changed. Never edited: a change makes the next number. */
export const loopRevision = pgTable(
  'loop_revision',
  {
    ...owned,
    loopId: uuid('loop_id').notNull(),
    number: integer('number').notNull(),
    kind: text('kind').$type<RevisionKind>().notNull(),
    reason: text('reason').notNull().default(''),
    personId: uuid('person_id').notNull(),
    /** the whole loop file, unknown fields included */
    file: stored('file', readStoredLoop).notNull(),
    volumeMl: doublePrecision('volume_ml').notNull(),
    volumeSdMl: doublePrecision('volume_sd_ml').notNull(),
  },
  (t) => [
    foreignKey({ name: 'loop_revision_loop_fk', columns: [t.workshopId, t.loopId], foreignColumns: [loop.workshopId, loop.id] }),
    foreignKey({ name: 'loop_revision_person_fk', columns: [t.workshopId, t.personId], foreignColumns: [person.workshopId, person.id] }),
    unique('loop_revision_number_once').on(t.loopId, t.number),
    check('loop_revision_kind_known', sql`kind in ('planned', 'as-built', 'change', 'wanted', 'stated')`),
    check('loop_revision_number_positive', sql`number > 0`),
    check('loop_revision_volume_sane', sql`volume_ml >= 0 and volume_sd_ml >= 0`),
    ...tenantWalls('loop_revision', t),
  ],
);

/** Revisions that say what is inside: a wanted one becomes that only by the run that makes it so. */
export const isInside = ne(loopRevision.kind, 'wanted');

/** Parts of a revision as rows, to find every system that holds one. The file stays the truth. */
export const component = pgTable(
  'component',
  {
    ...owned,
    revisionId: uuid('revision_id').notNull(),
    ref: text('ref').notNull(),
    kind: text('kind').notNull(),
    label: text('label').notNull(),
    catalogueKey: text('catalogue_key'),
    position: integer('position').notNull(),
    volumeMl: doublePrecision('volume_ml').notNull(),
    volumeSdMl: doublePrecision('volume_sd_ml').notNull(),
  },
  (t) => [
    foreignKey({
      name: 'component_revision_fk',
      columns: [t.workshopId, t.revisionId],
      foreignColumns: [loopRevision.workshopId, loopRevision.id],
    }),
    unique('component_ref_once').on(t.revisionId, t.ref),
    check('component_volume_sane', sql`volume_ml >= 0 and volume_sd_ml >= 0`),
    index('component_by_catalogue').on(t.workshopId, t.catalogueKey),
    ...tenantWalls('component', t),
  ],
);

export const tube = pgTable(
  'tube',
  {
    ...owned,
    revisionId: uuid('revision_id').notNull(),
    ref: text('ref').notNull(),
    material: text('material').notNull(),
    boreMm: doublePrecision('bore_mm').notNull(),
    outerMm: doublePrecision('outer_mm').notNull(),
    lengthMm: doublePrecision('length_mm').notNull(),
  },
  (t) => [
    foreignKey({
      name: 'tube_revision_fk',
      columns: [t.workshopId, t.revisionId],
      foreignColumns: [loopRevision.workshopId, loopRevision.id],
    }),
    unique('tube_ref_once').on(t.revisionId, t.ref),
    check('tube_size_sane', sql`bore_mm > 0 and outer_mm > bore_mm and length_mm >= 0`),
    ...tenantWalls('tube', t),
  ],
);
