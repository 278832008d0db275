/** Straight lines between points, the end segments going on. `x` rises strictly. */
export interface BrokenLine {
  readonly x: Float64Array;
  readonly y: Float64Array;
}

export const brokenLine = (points: readonly (readonly [number, number])[], xScale = 1): BrokenLine => ({
  x: Float64Array.from(points, ([x]) => x * xScale),
  y: Float64Array.from(points, ([, y]) => y),
});

/** Index of the segment that decides at `x`, 0 … points − 2. Tables are short: a walk beats a search. */
export function segmentAt({ x: xs }: BrokenLine, x: number): number {
  let segment = 0;
  while (segment < xs.length - 2 && x > (xs[segment + 1] as number)) segment += 1;
  return segment;
}

export const slopeOf = ({ x, y }: BrokenLine, segment: number): number =>
  ((y[segment + 1] as number) - (y[segment] as number)) / ((x[segment + 1] as number) - (x[segment] as number));

export function valueAt(line: BrokenLine, x: number): number {
  const segment = segmentAt(line, x);
  return (line.y[segment] as number) + slopeOf(line, segment) * (x - (line.x[segment] as number));
}
