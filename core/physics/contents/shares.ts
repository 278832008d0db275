import type { GeometricNetwork } from '../geometry/network.js';
import type { Contents } from './contents.js';

/** Share of each part and tube that still holds liquid, by id. */
export type Shares = Readonly<Record<string, number>>;

export function sharesOf({ partIds, part, volumeMl }: GeometricNetwork, left: Contents): Shares {
  const holds = new Float64Array(partIds.length);
  const has = new Float64Array(partIds.length);
  left.forEach((ml, node) => {
    const at = part[node] as number;
    holds[at] = (holds[at] as number) + (volumeMl[node] as number);
    has[at] = (has[at] as number) + ml;
  });
  return Object.fromEntries(
    partIds.map((id, at) => [id, (holds[at] as number) > 0 ? Math.min(1, (has[at] as number) / (holds[at] as number)) : 0]),
  );
}
