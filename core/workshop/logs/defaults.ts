import { SANE_COOLANT_C } from '../usage/defaults.js';

/** What a log is read by (workshop practice, unless a source is named). */

/** min between two lines above which the machine was off (loggers write every few seconds to minutes) */
export const OFF_AFTER_MINUTES = 15;
/** what a sensor can mean; a figure outside is one that fell off, its time still counts */
export const SANE = {
  coolantC: SANE_COOLANT_C,
  roomC: { least: -10, most: 60 },
  partC: { least: -10, most: 125 },
  powerW: { least: 0, most: 1500 },
  flowLph: { least: 0, most: 3000 },
  rpm: { least: 0, most: 20_000 },
} as const;

/** A stretch whose last minutes may stand for a load test. */
export const STEADY = {
  /** min of unchanged load before its end is read: twice the time constant of a usual loop */
  leadMinutes: 20,
  /** min whose mean is the reading */
  windowMinutes: 10,
  /** min between two looks at a stretch that goes on */
  lookMinutes: 5,
  /** share by which power may move from minute to minute and still be the same load */
  powerShare: 0.08,
  /** W, the same for loads so small that a share of them is noise */
  powerW: 8,
  /** share of full speed, pump and fans */
  speedShare: 0.05,
  /** K between the halves of the window, above the room: more is still warming */
  driftK: 0.5,
  /** W of all parts that are measured; less is a machine that waits */
  leastLoadW: 60,
  /** min in a row that may lie off before the load is another one */
  strayMinutes: 1,
} as const;

/** A part that holds its temperature by giving power away. */
export const THROTTLE = {
  /** min looked at together */
  windowMinutes: 16,
  /** K that the part moves meanwhile */
  pinnedK: 1,
  /** °C; cooler parts hold back for other reasons */
  leastC: 78,
  /** share of its power that is gone */
  fallShare: 0.08,
  /** W of the part at the beginning */
  leastW: 40,
} as const;

/** lines of a file that are looked at before it is read */
export const LOOK_LINES = 400;
/** lines above the heading, such as a program's name and the machine's */
export const PREAMBLE_LINES = 60;
/** readings of one log that are kept at most: one a day, ten years */
export const MOST_DAYS = 3660;
/** bytes; more is no log of one machine */
export const MOST_LOG_BYTES = 400_000_000;
/** lines whose numbers are told where something could not be read */
export const TOLD_LINES = 5;
