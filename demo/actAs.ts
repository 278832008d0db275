import type { Request } from 'express';
import { pino } from 'pino';
import { dayIn } from '../core/base/units/calendar.js';
import type { Database, Scope } from '../server/base/database/client.js';
import type { Account, Ask } from '../server/base/http/context.js';
import { PHOTO } from '../server/workshop/photos/reencode.js';
import { NO_INSTRUMENTS } from '../server/bench/instruments/none.js';

/** Acts as a person of the demo at an instant of its past. */
export const actAs = ({ scope }: { readonly scope: Scope }, account: Account, at: Date, id = ''): Ask => ({
  database: scope as unknown as Database,
  clock: { now: () => at },
  log: pino({ level: 'silent' }),
  version: 'demo',
  instruments: NO_INSTRUMENTS,
  photoQuotaBytes: PHOTO.quotaBytes,
  sendLetter: async () => undefined,
  ownOrigin: 'http://localhost:4180',
  drawPaper: async () => new Uint8Array(),
  servers: () => ({ here: '', servers: [] }),
  scope,
  account,
  request: { params: { id } } as unknown as Request,
  today: dayIn(account.timeZone, at),
});
