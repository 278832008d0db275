import { DRAIN_HABITS, type DrainHabits } from '../../../../core/physics/draining/defaults.js';
import { readList, readObject } from '../../../../core/base/checking/stored.js';
import type { Role } from '../../../../core/workshop/people/roles.js';
import { eq, sql } from 'drizzle-orm';
import {
  boolean,
  check,
  doublePrecision,
  foreignKey,
  integer,
  json,
  jsonb,
  pgPolicy,
  pgTable,
  text,
  unique,
  uniqueIndex,
  uuid,
  varchar,
} from 'drizzle-orm/pg-core';
import type { Skill } from '../../../../core/workshop/planning/capacities.js';
import { DEFAULT_SCHOOLS } from '../../../../core/physics/leak-testing/schools.js';
import type { WorkshopSchools } from '../../../../core/workshop/jobs/usualSchools.js';
import type { FirstStep } from '../../../../core/workshop/first-week/firstWeek.js';
import { LEARNING } from '../../../../core/workshop/learned-lives/fillLives.js';
import { USUAL_LIMITS, type HeatLimits } from '../../../../core/physics/condition/limits.js';
import { USUAL_READING, type Reading } from '../../../../core/base/units/reading.js';
import { DEFAULT_RATES, type Rates } from '../../../../core/workshop/prices/rates.js';
import { DEFAULT_DOOR, type DoorSettings } from '../../../../core/workshop/people/doorSettings.js';
import { NO_CONTACT, type Contact } from '../../../../core/workshop/people/contact.js';
import { appRole, instant, owned, ownWorkshop, serverRole, stored, tenantWalls } from '../columns.js';

export const workshop = pgTable(
  'workshop',
  {
    id: uuid('id').primaryKey().defaultRandom(),
    name: text('name').notNull(),
    timeZone: text('time_zone').notNull(),
    schools: stored('schools', readObject<WorkshopSchools>('the workshop’s schools', DEFAULT_SCHOOLS)).notNull(),
    /** the hot months, before which services are done; both null: no such rule */
    hotFromMonth: integer('hot_from_month'),
    hotUntilMonth: integer('hot_until_month'),
    /** how machines are turned and opened to drain them */
    drain: stored('drain', readObject<DrainHabits>('how the workshop drains', DRAIN_HABITS)).notNull().default(DRAIN_HABITS),
    /** what it asks for its work */
    rates: stored('rates', readObject<Rates>('what the workshop asks', DEFAULT_RATES)).notNull().default(DEFAULT_RATES),
    /** where it is found: on letters, papers and in calendars */
    contact: stored('contact', readObject<Contact>('where the workshop is found', NO_CONTACT)).notNull().default(NO_CONTACT),
    /** how numbers, dates and words are read here, where nobody chose otherwise */
    reading: stored('reading', readObject<Reading>('how the workshop reads', USUAL_READING)).notNull().default(USUAL_READING),
    /** what it takes for too hot */
    heatLimits: stored('heat_limits', readObject<HeatLimits>('what is too hot', USUAL_LIMITS)).notNull().default(USUAL_LIMITS),
    /** share of fills that may have failed by the day of their change */
    lifeRisk: doublePrecision('life_risk').notNull().default(LEARNING.risk),
    /** what owners may do on their page */
    door: stored('door', readObject<DoorSettings>('what owners may do', DEFAULT_DOOR)).notNull().default(DEFAULT_DOOR),
    /** steps of the first week that need nothing here */
    passedSteps: stored('passed_steps', readList<FirstStep>('steps of the first week')).notNull().default([]),
    version: integer('version').notNull().default(1),
    createdAt: instant('created_at').notNull().defaultNow(),
  },
  () => [
    check('workshop_name_given', sql`length(trim(name)) > 0`),
    check('workshop_risk_sane', sql`life_risk >= 0.01 and life_risk <= 0.5`),
    check('workshop_season_whole', sql`(hot_from_month is null) = (hot_until_month is null)`),
    check('workshop_season_months', sql`hot_from_month between 1 and 12 and hot_until_month between 1 and 12`),
    // which workshops there are, and what their clocks say: for the night's work (columns are granted one by one)
    pgPolicy('workshop_server_finds', { for: 'select', to: serverRole, using: sql`true` }),
    pgPolicy('workshop_own', {
      for: 'all',
      to: appRole,
      using: sql`id = ${ownWorkshop}`,
      withCheck: sql`id = ${ownWorkshop}`,
    }),
  ],
);

export const person = pgTable(
  'person',
  {
    ...owned,
    name: text('name').notNull(),
    /** lower case; one account an address, over all workshops of this server */
    email: text('email').notNull(),
    role: text('role').$type<Role>().notNull(),
    passwordHash: text('password_hash').notNull(),
    active: boolean('active').notNull().default(true),
    /** somebody else chose the password: it is to be changed */
    firstPassword: boolean('first_password').notNull().default(false),
    /** its password is published with the program: it signs in only while nobody else leads, and only on this machine */
    isDemo: boolean('is_demo').notNull().default(false),
    /** what this person can do that not everybody can; null: nobody wrote it down, so everything */
    skills: stored('skills', readList<Skill>('the skills of a person')),
    /** what this person reads another way than the workshop */
    reading: stored('reading', readObject<Partial<Reading>>('how a person reads')).notNull().default({}),
    /** of name, role, skills and hours */
    version: integer('version').notNull().default(1),
  },
  (t) => [
    foreignKey({ name: 'person_workshop_fk', columns: [t.workshopId], foreignColumns: [workshop.id] }),
    uniqueIndex('person_email_once').on(t.email),
    check('person_role_known', sql`role in ('technician', 'lead', 'front-desk')`),
    check('person_email_lower', sql`email = lower(email)`),
    // whose address it is that signs in (columns are granted one by one)
    pgPolicy('person_server_finds', { for: 'select', to: serverRole, using: sql`true` }),
    ...tenantWalls('person', t),
  ],
);

export const bench = pgTable(
  'bench',
  {
    ...owned,
    name: text('name').notNull(),
    position: integer('position').notNull().default(0),
    /** a table where a simulated bench is played: nothing of an owner's ever stands there */
    forPractice: boolean('for_practice').notNull().default(false),
  },
  (t) => [
    foreignKey({ name: 'bench_workshop_fk', columns: [t.workshopId], foreignColumns: [workshop.id] }),
    unique('bench_name_once').on(t.workshopId, t.name),
    check('bench_name_given', sql`length(trim(name)) > 0`),
    ...tenantWalls('bench', t),
  ],
);

/** Benches that machines stand on. */
export const isRealBench = eq(bench.forPractice, false);

/** Sign-in sessions, in the shape the session store expects. Not visible to the application role. */
export const session = pgTable('session', {
  sid: varchar('sid').primaryKey(),
  sess: json('sess').notNull(),
  expire: instant('expire').notNull(),
});

/** Answers to requests that carried an idempotency key, so that a double submit gets the first answer again. */
export const idempotency = pgTable(
  'idempotency',
  {
    workshopId: uuid('workshop_id').notNull(),
    key: uuid('key').notNull(),
    personId: uuid('person_id').notNull(),
    route: text('route').notNull(),
    requestHash: text('request_hash').notNull(),
    status: integer('status').notNull(),
    answer: jsonb('answer').notNull(),
    createdAt: instant('created_at').notNull().defaultNow(),
  },
  (t) => [
    unique('idempotency_once').on(t.workshopId, t.key),
    foreignKey({ name: 'idempotency_workshop_fk', columns: [t.workshopId], foreignColumns: [workshop.id] }),
    pgPolicy('idempotency_own_workshop', {
      for: 'all',
      to: appRole,
      using: sql`workshop_id = ${ownWorkshop}`,
      withCheck: sql`workshop_id = ${ownWorkshop}`,
    }),
  ],
);
