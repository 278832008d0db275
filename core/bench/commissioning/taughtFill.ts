import { LEARNING } from '../../physics/learning/defaults.js';
import type { TaughtFill } from '../../physics/learning/ownLoop.js';
import { MEASURED } from '../../physics/measuring/errors.js';
import { startContents } from '../runs/book.js';
import type { Procedure } from '../runs/procedure.js';
import { broughtMl, type RunState } from '../runs/state.js';

/**
 * What a commissioning teaches of its loop's volumes: mL that stand in it at the fill mark, by its book. null where it
 * teaches nothing: the loop was not dry at first, or nobody knows where the level stands at the end.
 */
export function taughtFill(procedure: Procedure, state: RunState): TaughtFill | null {
  const start = startContents(procedure);
  if (procedure.service || start.insideMl !== 0 || start.insideSdMl > 0 || broughtMl(state) > 0) return null;
  const { insideMl, insideSdMl, way, isLevelRead } = state.contents;
  const markMl = procedure.facts?.reservoir?.fillMarkMl;
  if (insideMl === null || insideMl <= 0) return null;
  // without heights the last level that somebody read says that the mark was reached
  const isRead = isLevelRead || state.levels.length > 0 || state.bleedCycles.length > 0;
  const taught =
    way && markMl !== undefined
      ? { volumeMl: way.ml + markMl, sdMl: way.sdMl }
      : isRead
        ? { volumeMl: insideMl, sdMl: Math.hypot(insideSdMl, MEASURED.markSdMl) }
        : null;
  return taught && taught.sdMl <= LEARNING.taughtWithinSdMl ? taught : null;
}
