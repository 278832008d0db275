import { readFileSync } from 'node:fs';

/** The one door to time. Tests move it. */
export interface Clock {
  now(): Date;
}

export const systemClock: Clock = { now: () => new Date() };

/** A clock set ahead by the milliseconds that a file holds, read at every call: how browser tests pass a day. */
const clockAheadBy = (file: string): Clock => ({
  now: () => new Date(Date.now() + Number(readFileSync(file, 'utf8'))),
});

/** The clock of this process: the machine's own, unless a file sets it ahead. */
export const processClock = (): Clock =>
  process.env.LAVACRUM_CLOCK_AHEAD_FILE ? clockAheadBy(process.env.LAVACRUM_CLOCK_AHEAD_FILE) : systemClock;
