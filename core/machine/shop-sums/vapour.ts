import { reservoirMarks } from '../loop-file/marks.js';
import { tubeLengthMm, tubesByHand, type LoopFile } from '../loop-file/loopFile.js';
import { findTubeMaterial, TUBE_MATERIAL_NAMES, type TubeMaterialName, type TubePiece } from '../materials/tubes.js';
import { wallLoss, type WallLoss } from './wallLoss.js';

/** Tubes that hands joined, by their walls; null: one is of a wall that no table knows. */
export function tubePieces(loop: LoopFile): TubePiece[] | null {
  const tubes = tubesByHand(loop);
  if (tubes.some(({ material }) => findTubeMaterial(material) === null)) return null;
  return tubes.map((tube) => ({
    material: tube.material as TubeMaterialName,
    boreMm: tube.bore_mm,
    outerMm: tube.outer_mm,
    lengthMm: tubeLengthMm(loop, tube),
  }));
}

/** What a loop loses through its walls, and until when its reservoir covers that. */
export interface Vapour extends WallLoss {
  /** months until the low mark, at the likely loss and at its bounds; null: nothing goes through, or there is no reservoir */
  readonly months: { readonly likely: number; readonly soonest: number; readonly latest: number } | null;
  /** mL down to the low mark; null: no reservoir */
  readonly roomMl: number | null;
  /** the same tubes of other walls, the tightest first */
  readonly others: readonly { readonly material: TubeMaterialName; readonly mlPerMonth: number }[];
}

/**
 * @param coolantC mean temperature of the coolant
 * @param reservoirMl what stands in the reservoir now; null: it stands at its mark
 * @returns null: no tubes, or walls that no table knows
 */
export function vapourOf(loop: LoopFile, coolantC: number, reservoirMl: number | null = null): Vapour | null {
  const pieces = tubePieces(loop);
  if (!pieces || pieces.length === 0) return null;
  const loss = wallLoss(pieces, coolantC);
  const reservoir = loop.components.find(({ kind }) => kind === 'reservoir');
  const marks = reservoir ? reservoirMarks(reservoir) : null;
  const roomMl = marks && Math.max(0, (reservoirMl ?? marks.fillMarkMl) - marks.lowMarkMl);
  const [lowMl, highMl] = loss.range;
  return {
    ...loss,
    roomMl,
    months:
      roomMl === null || loss.mlPerMonth <= 0
        ? null
        : { likely: roomMl / loss.mlPerMonth, soonest: roomMl / highMl, latest: roomMl / lowMl },
    others: TUBE_MATERIAL_NAMES.map((material) => ({
      material,
      mlPerMonth: wallLoss(
        pieces.map((piece) => ({ ...piece, material })),
        coolantC,
      ).mlPerMonth,
    })).sort((one, other) => one.mlPerMonth - other.mlPerMonth),
  };
}
