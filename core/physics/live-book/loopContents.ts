import { MEASURED } from '../measuring/errors.js';
import type { LiquidTwin } from './liquidTwin.js';

/** Where what is inside stands: likely, from what was poured, pumped, read and drained. */
export interface Standing {
  /** mL in the reservoir, with its standard deviation */
  reservoirMl: number;
  reservoirSdMl: number;
  /** mL on the way, cell by cell of the front's path */
  wettedMl: number[];
  /** liquid was seen to come back: the way is full, whatever its parts hold by their sheets */
  isRound: boolean;
}

/** What is inside one loop, as far as it can be told. Plain data: it is stored, copied and sent. */
export interface LoopContents {
  /** version of what the figures were carried with */
  readonly engine: number;
  /** mL inside, by what went in and came out, below nothing where more came out than was in; null: nobody knows */
  insideMl: number | null;
  insideSdMl: number;
  /** null: heights, curves or the contents are not known, so that only volumes are told */
  standing: Standing | null;
  /** the level was read, or poured up to the mark, and nothing moved since */
  isLevelRead: boolean;
  /** the running pump, carried up to this instant (ms); null: it stands */
  pump: { carriedMs: number; slowed: number; movedMl: number } | null;
  /** mL by which the reservoir may have lost since anybody looked, vapour and top-ups of the owner: part of both errors until a level is read */
  staleSdMl: number;
  /** mL that would have run over by the twin's reckoning, and nobody entered */
  overMl: number;
  /** what the way of this very loop held when it was first filled and bled; null: not learned yet */
  way: { readonly ml: number; readonly sdMl: number } | null;
}

export const BOOK_ENGINE = 1;

/** What the twin's own figures are off by when liquid moves unseen (estimates). */
export const BOOK = {
  /** share of what a pump moves: its head by 15 %, losses and volumes on the way */
  pumpedSdShare: 0.2,
  /** share of what fills by itself or falls back: volumes of the parts */
  settledSdShare: 0.2,
  /** share of the way that keeps or gives gas once liquid goes round */
  gasSdShare: 0.03,
  /** s in which 1/e of the bubbles is left while liquid goes round */
  gasTauS: 420,
  /** share of the way by which two fillings of one loop differ once they are bled: gas */
  refilledSdShare: 0.04,
  /** share of the contents that may be gone since the last run */
  staleSdShare: 0.03,
  /** days after which that share is reached; before, it grows with them */
  staleDays: 30,
  /** mL to the mark within which a level counts as there, and standard deviation of one that is said not to be */
  atMarkMl: 10,
  belowMarkSdMl: 40,
  /** mL and share by which the reservoir's rest after a drain is off */
  drainedSdMl: 8,
  drainedSdShare: 0.15,
  /** mL and share that may go unseen while a part is taken out or something leaks */
  lostSdShare: MEASURED.judgedSdShare,
} as const;

/** Nothing is inside, and that is known. */
export const dryContents = (twin: LiquidTwin | null): LoopContents => ({
  engine: BOOK_ENGINE,
  insideMl: 0,
  insideSdMl: 0,
  standing: twin && { reservoirMl: 0, reservoirSdMl: 0, wettedMl: Array.from(twin.empty().wettedMl), isRound: false },
  isLevelRead: false,
  pump: null,
  staleSdMl: 0,
  overMl: 0,
  way: null,
});

/** A loop that stands at its mark, filled some day; null where nobody knows what is inside. */
export const filledContents = (
  twin: LiquidTwin | null,
  inside: { readonly volumeMl: number; readonly sdMl: number } | null,
): LoopContents => ({
  ...dryContents(null),
  insideMl: inside?.volumeMl ?? null,
  insideSdMl: inside?.sdMl ?? 0,
  standing:
    twin && inside
      ? {
          reservoirMl: twin.drive.fillMarkMl,
          reservoirSdMl: MEASURED.markSdMl,
          wettedMl: Array.from(twin.atMark().wettedMl),
          isRound: true,
        }
      : null,
});

/**
 * What an earlier run left inside, some time later: the pump stands, and nobody has looked at the level since.
 * @param days how long; missing: nobody said, as between two services
 */
export function laterContents(left: LoopContents, days: number = BOOK.staleDays): LoopContents {
  const contents = structuredClone(left);
  const stale = BOOK.staleSdShare * Math.min(1, days / BOOK.staleDays) * (contents.insideMl ?? 0);
  const { standing } = contents;
  return {
    ...contents,
    pump: null,
    isLevelRead: false,
    staleSdMl: Math.hypot(contents.staleSdMl, stale),
    insideSdMl: Math.hypot(contents.insideSdMl, stale),
    standing: standing && { ...standing, reservoirSdMl: Math.hypot(standing.reservoirSdMl, stale) },
  };
}
