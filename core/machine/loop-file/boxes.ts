import type { LoopComponent } from './loopFile.js';

/** Edges of a part's box in mm, the longest first: a radiator's last is the way of its air. null where its box is not known. */
export function edgesMm({ box }: Pick<LoopComponent, 'box'>): readonly [long: number, middle: number, short: number] | null {
  if (!box) return null;
  const [long, middle, short] = [0, 1, 2].map((axis) => (box.max[axis] as number) - (box.min[axis] as number)).sort((a, b) => b - a);
  return [long as number, middle as number, short as number];
}
