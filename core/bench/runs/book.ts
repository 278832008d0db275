import { bleedModel } from '../../physics/air/airLeft.js';
import { twinFor } from '../../physics/live-book/atMark.js';
import { wettedOf, type LiquidTwin, type Wetted } from '../../physics/live-book/liquidTwin.js';
import { contentsAt, LiveBook } from '../../physics/live-book/liveBook.js';
import { dryContents, filledContents, laterContents, type LoopContents } from '../../physics/live-book/loopContents.js';
import { LEAK_SCHOOLS } from '../../physics/leak-testing/schools.js';
import type { Procedure } from './procedure.js';

/** The book of a run: what is inside its loop, carried by its entries. */

const twins = new WeakMap<object, LiquidTwin | null>();

/** The loop's twin for what moves inside; null where heights, curves or the one reservoir are missing. */
export function twinOf({ twin }: Pick<Procedure, 'twin'>): LiquidTwin | null {
  if (!twin) return null;
  const known = twins.get(twin);
  if (known !== undefined) return known;
  const made = twinFor(twin.loop, twin.liquid);
  twins.set(twin, made);
  return made;
}

const stretches = new WeakMap<object, number>();

/** mm by which the level rises at a stop because soft tube gives back what the pump's pressure stretched; 0 where nobody can tell. */
export function stretchMm({ twin, facts }: Pick<Procedure, 'twin' | 'facts'>): number {
  const mlPerMm = facts?.reservoir?.mlPerMm;
  if (!twin || mlPerMm === undefined) return 0;
  const known = stretches.get(twin);
  if (known !== undefined) return known;
  const mm = (bleedModel(twin.loop, twin.liquid, 1)?.stretchMl ?? 0) / mlPerMm;
  stretches.set(twin, mm);
  return mm;
}

/** What is inside before the first entry. */
export function startContents(procedure: Procedure): LoopContents {
  if (procedure.start) return laterContents(procedure.start);
  const twin = twinOf(procedure);
  const { service, schools, volume } = procedure;
  // filled some day, and nobody has looked since
  if (service) return laterContents(filledContents(twin, service.inside));
  // only opened joints are tested: the rest of the loop is still full
  return LEAK_SCHOOLS[schools.leak].openedOnly ? filledContents(twin, volume) : dryContents(twin);
}

/** Nobody has looked at the level since the last run: read before anything is opened, it says what was lost. */
export const wantsLevelFirst = ({ contents: { staleSdMl, standing } }: { readonly contents: LoopContents }): boolean =>
  staleSdMl > 0 && standing?.isRound === true;

export const bookOf = (procedure: Procedure, contents: LoopContents): LiveBook =>
  new LiveBook(twinOf(procedure), contents, procedure.volume.sdMl);

/** What stands where at an instant. */
export interface Now {
  readonly twin: LiquidTwin;
  readonly contents: LoopContents;
  readonly at: Wetted;
  /** mL, standard deviation of what stands in the reservoir */
  readonly sdMl: number;
  readonly isRound: boolean;
}

/**
 * null where only volumes are known.
 * @param measuredMl mL in the reservoir by its sensor at this moment; null without one
 */
export function standingNow(
  procedure: Procedure,
  state: { readonly contents: LoopContents },
  nowMs: number,
  measuredMl: number | null = null,
): Now | null {
  const twin = twinOf(procedure);
  const contents = contentsNow(procedure, state.contents, nowMs, measuredMl);
  const { standing } = contents;
  const at = twin && wettedOf(twin, standing);
  return twin && standing && at ? { twin, contents, at, sdMl: standing.reservoirSdMl, isRound: standing.isRound } : null;
}

/** What is inside at an instant, a running pump carried on until then. */
function contentsNow(procedure: Procedure, contents: LoopContents, nowMs: number, measuredMl: number | null): LoopContents {
  if (contents.pump === null && measuredMl === null) return contents;
  const now = contentsAt(twinOf(procedure), contents, procedure.volume.sdMl, nowMs);
  if (measuredMl !== null) {
    const book = bookOf(procedure, now);
    book.level(measuredMl, book.levelSdMl(true));
  }
  return now;
}
