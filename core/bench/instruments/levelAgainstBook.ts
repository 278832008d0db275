import { AGREES_WITHIN_SD } from '../../physics/measuring/errors.js';
import { bookOf, standingNow } from '../runs/book.js';
import type { RunEvent } from '../runs/log.js';
import type { Procedure } from '../runs/procedure.js';
import type { RunState } from '../runs/state.js';
import { AUTO } from './defaults.js';
import { levelMlOf } from './level.js';

/** entries that move liquid by hand: what the sensor tells behind them is theirs, not a pour that is not entered yet */
const BY_HAND = new Set(['pour', 'rinse', 'outflow']);

/**
 * What a level that stands still says against the book, once behind an entry that moved liquid by hand.
 * @param last newest entry of the log
 * @param levelMm of the sensor
 * @returns mL in the reservoir by its sensor; null where the book agrees within both errors, or nobody can tell
 */
export function levelAgainstBook(
  procedure: Procedure,
  state: RunState,
  last: Pick<RunEvent, 'at' | 'body'> | undefined,
  levelMm: number,
  nowMs: number,
): number | null {
  const reservoir = procedure.facts?.reservoir;
  if (!reservoir || !last || !BY_HAND.has(last.body.type) || state.pump?.on === true) return null;
  if (nowMs - Date.parse(last.at) < AUTO.compareAfterS * 1000) return null;
  const ml = levelMlOf(reservoir, levelMm);
  const book = standingNow(procedure, state, nowMs);
  if (ml === null || !book) return null;
  const sdMl = Math.hypot(bookOf(procedure, book.contents).levelSdMl(true), book.sdMl);
  return Math.abs(ml - book.at.reservoirMl) > AGREES_WITHIN_SD * sdMl ? ml : null;
}
