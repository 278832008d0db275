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

/**
 * What stands at each node where only each part's share is known: a vessel up to its level, a tube from its `from` end
 * on, as a filling front goes. Missing: empty.
 */
export function contentsOfShares(network: GeometricNetwork, shares: ReadonlyMap<string, number>): Contents {
  const { partIds, part, volumeMl, size } = network;
  const whole = new Float64Array(partIds.length);
  for (let node = 0; node < size; node += 1)
    whole[part[node] as number] = (whole[part[node] as number] as number) + (volumeMl[node] as number);
  const left = partIds.map((id, at) => (whole[at] as number) * Math.min(1, Math.max(0, shares.get(id) ?? 0)));
  // nodes of a tube are numbered from its `from` end
  return Float64Array.from(volumeMl, (ml, node) => {
    const at = part[node] as number;
    const here = Math.min(ml, left[at] as number);
    left[at] = (left[at] as number) - here;
    return here;
  });
}
