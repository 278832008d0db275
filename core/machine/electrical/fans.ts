import { edgesMm } from '../loop-file/boxes.js';
import type { LoopComponent } from '../loop-file/loopFile.js';

/** mm; edges of the fans that radiators are made for */
export const FAN_EDGES_MM = [80, 92, 120, 140, 180, 200] as const;

/** mm by which a radiator's frame is shorter than the fans that it is made for */
const FRAME_SLACK_MM = 5;

/** The fans that a radiator's face is made for: the widest row that its short edge takes. Without a box three of 120 mm, as most have. */
export function usualFans(radiator: Pick<LoopComponent, 'box'>): { count: number; sizeMm: number } {
  const edges = edgesMm(radiator);
  if (!edges) return { count: 3, sizeMm: 120 };
  const [long, short] = edges;
  const sizeMm = FAN_EDGES_MM.findLast((edge) => edge <= short + FRAME_SLACK_MM) ?? FAN_EDGES_MM[0];
  return { count: Math.max(1, Math.floor((long + FRAME_SLACK_MM) / sizeMm)), sizeMm };
}

/**
 * Share of a radiator's face that fans stand in front of, 0 to 1: what is left bare passes next to nothing, and what stands beside the face
 * blows past it.
 */
export function faceCovered(
  radiator: Pick<LoopComponent, 'box'>,
  fans: readonly { readonly count: number; readonly sizeMm: number }[],
): number {
  const usual = usualFans(radiator);
  const places = usual.count * usual.sizeMm ** 2;
  return Math.min(1, fans.reduce((sum, { count, sizeMm }) => sum + count * sizeMm ** 2, 0) / places);
}
