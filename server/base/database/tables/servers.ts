import { bigserial, integer, pgSchema, text } from 'drizzle-orm/pg-core';
import { instant } from '../columns.js';

/** What belongs to the servers on a database, and to no workshop. No request sees it; no backup takes its rows along. */
export const serverSchema = pgSchema('server');

/** Keys that sign what browsers keep. The newest whose time has come signs, all verify. */
export const serverSecret = serverSchema.table('secret', {
  id: bigserial('id', { mode: 'number' }).primaryKey(),
  value: text('value').notNull(),
  /** later than it was made, so that every server knows a key before one of them signs with it */
  signsFrom: instant('signs_from').notNull(),
});

/** Servers on this database, by name. */
export const serverMember = serverSchema.table('member', {
  name: text('name').primaryKey(),
  version: text('version').notNull().default(''),
  /** where devices of a bench reach its own broker; null: it has none, or does not say */
  broker: text('broker'),
  /** when the one that speaks with the instruments last said so; null for the others */
  voiceAt: instant('voice_at'),
  startedAt: instant('started_at').notNull().defaultNow(),
  seenAt: instant('seen_at').notNull().defaultNow(),
});

/** Work that one of the servers does for all, and how it went last. */
export const serverDuty = serverSchema.table('duty', {
  name: text('name').primaryKey(),
  by: text('by').notNull(),
  doneAt: instant('done_at'),
  failedAt: instant('failed_at'),
});

/** What was tried too often, counted over all servers. Keys are hashes: nothing here names anybody. */
export const serverAttempt = serverSchema.table('attempt', {
  key: text('key').primaryKey(),
  hits: integer('hits').notNull(),
  until: instant('until').notNull(),
});
