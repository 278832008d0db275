import { sharesOf, type Shares } from '../../physics/contents/shares.js';
import { fillFront } from '../../physics/filling/fillPlan.js';
import type { LoopFile } from '../../machine/loop-file/loopFile.js';
import { standingNow } from './book.js';
import { serviceContents } from './contents.js';
import type { Procedure } from './procedure.js';
import { isDone, pouredMl, type RunState } from './state.js';

/** Share of each part that holds liquid by the run's book, with the level sensor where there is one. null without heights. */
export function sharesByBook(procedure: Procedure, state: RunState, nowMs: number, measuredMl: number | null): Shares | null {
  const book = standingNow(procedure, state, nowMs, measuredMl);
  return book && sharesOf(book.twin.drive.network, book.twin.contents(book.at));
}

/**
 * What stands in the loop of a run, wherever it is drawn: by the book; without heights the loop stands empty before its
 * fill, while pouring the front is an estimate from volumes, afterwards it is full.
 * @returns share of each part that holds liquid; null: full
 */
export function sharesInside(
  procedure: Procedure,
  file: LoopFile,
  state: RunState,
  nowMs: number,
  measuredMl: number | null = null,
): Shares | null {
  const book = sharesByBook(procedure, state, nowMs, measuredMl);
  if (book) return book;
  if (procedure.service) {
    const known = serviceContents(procedure, state);
    return known && Object.fromEntries(known);
  }
  if (isDone(state, ({ kind }) => kind === 'fill')) return null;
  return Object.fromEntries(fillFront(file, pouredMl(state)).map(({ id, filled }) => [id, filled]));
}
