import { WATER } from '../../machine/liquids/fluids.js';
import type { LoopFile } from '../../machine/loop-file/loopFile.js';
import type { Volume } from '../../machine/loop-file/volume.js';
import { sharesOf, type Shares } from '../contents/shares.js';
import { fillVolume } from '../filling/fillPlan.js';
import { twinFor } from './atMark.js';
import { wettedOf } from './liquidTwin.js';
import type { LoopContents } from './loopContents.js';

/** What is inside a loop as far as anybody knows, for every page that shows or plans with it. */
export interface InsideNow {
  /** the book of its runs; a fill on record without one; nothing ever went in; nothing but what stayed in a unit tested on its own; or nobody can tell */
  readonly by: 'book' | 'fill' | 'never-filled' | 'units' | 'nobody';
  /** null where nobody can tell */
  readonly volume: Volume | null;
  /** share of each part that holds liquid; null: full as it stands at its mark, or not known where */
  readonly shares: Shares | null;
  /** where a fill goes on from, in the cells of the loop's twin; null: dry, or nobody can tell */
  readonly standing: { readonly reservoirMl: number; readonly wettedMl: readonly number[] } | null;
}

/** mL of what stands inside; nothing where nobody knows. */
export const standingMl = (standing: InsideNow['standing'] | undefined): number =>
  standing ? standing.wettedMl.reduce((sum, ml) => sum + ml, standing.reservoirMl) : 0;

/** mL; less is wet, not filled */
export const DRY_ML = 1;

/** share of a whole fill; a loop with less that nobody can place is drawn as drained, with more as standing at its mark */
const DRAINED_SHARE = 0.5;

/**
 * @param contents what the last run left, null where none is on record
 * @param filled some fill of this loop is on record
 * @param onlyUnits `contents` are what stayed in units that were tested before the build
 */
export function insideNow(loop: LoopFile, contents: LoopContents | null, filled: boolean, onlyUnits = false): InsideNow {
  const inside = whatIsInside(loop, contents, filled);
  return onlyUnits && !filled && inside.by === 'book' ? { ...inside, by: 'units' } : inside;
}

/** The loop as such was filled some day: what is done to it is a service, and what is drawn anew is wanted. */
export const wasFilled = ({ by }: InsideNow): boolean => by !== 'never-filled' && by !== 'units';

function whatIsInside(loop: LoopFile, contents: LoopContents | null, filled: boolean): InsideNow {
  if (!contents) return filled ? atMark(loop) : { by: 'never-filled', volume: { volumeMl: 0, sdMl: 0 }, shares: {}, standing: null };
  const { insideMl, insideSdMl } = contents;
  if (insideMl === null) return { by: 'nobody', volume: null, shares: null, standing: null };
  const volume = { volumeMl: Math.max(0, insideMl), sdMl: insideSdMl };
  if (insideMl <= DRY_ML) return { by: 'book', volume, shares: {}, standing: null };
  const twin = contents.standing && twinFor(loop, WATER);
  // a book of a loop of another shape says how much, not where
  const at = twin && wettedOf(twin, contents.standing);
  const isDrained = !at && insideMl < DRAINED_SHARE * fillVolume(loop).volumeMl;
  return {
    by: 'book',
    volume,
    shares: isDrained ? {} : twin && at && sharesOf(twin.drive.network, twin.contents(at)),
    standing: at && { reservoirMl: at.reservoirMl, wettedMl: Array.from(at.wettedMl) },
  };
}

/** Filled some day and never looked at since: it stands at its mark as far as anybody knows. */
function atMark(loop: LoopFile): InsideNow {
  const twin = twinFor(loop, WATER);
  const at = twin?.atMark();
  return {
    by: 'fill',
    volume: twin && at ? { volumeMl: twin.insideMl(at), sdMl: fillVolume(loop).sdMl } : fillVolume(loop),
    shares: null,
    standing: at ? { reservoirMl: at.reservoirMl, wettedMl: Array.from(at.wettedMl) } : null,
  };
}
