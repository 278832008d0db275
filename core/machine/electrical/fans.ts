import type { LoopComponent } from '../loop-file/loopFile.js';

/** mm; edges of the fans that radiators are made for */
export const FAN_EDGES_MM = [80, 92, 120, 140, 180, 200] as const;

/** Long and short edge of a radiator's face in mm: its thinnest edge is the way of its air. null where its box is not known. */
export function faceMm({ box }: Pick<LoopComponent, 'box'>): readonly [long: number, short: number] | null {
  if (!box) return null;
  const edges = [0, 1, 2].map((axis) => (box.max[axis] as number) - (box.min[axis] as number)).sort((a, b) => b - a);
  return [edges[0] as number, edges[1] as number];
}

/** mm by which a radiator's frame is shorter than the fans that it is made for */
const FRAME_SLACK_MM = 5;

/** The fans that a radiator's face is made for: the widest row that its short edge takes. Without a box three of 120 mm, as most have. */
export function usualFans(radiator: Pick<LoopComponent, 'box'>): { count: number; sizeMm: number } {
  const face = faceMm(radiator);
  if (!face) return { count: 3, sizeMm: 120 };
  const [long, short] = face;
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
