import type { Contents } from '../geometry/contents.js';
import type { GeometricNetwork } from '../geometry/network.js';
import type { Procedure } from '../commissioning/procedure.js';
import type { RunState } from '../commissioning/state.js';

/** Share of each part and run that still holds liquid, by id. */
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
 * What the loop of a service looks like inside, as far as it can be told: full as it came, emptier stand by stand as the
 * twin predicts, empty once it was taken apart, full again once it was refilled. null: full.
 */
export function serviceContents({ service }: Procedure, { service: state, pours, steps }: RunState): ReadonlyMap<string, number> | null {
  if (!service) return null;
  const done = (id: string): boolean => steps.some((step) => step.id === id && step.status === 'done');
  if (done('fill') || pours.length > 0) return null;
  if (done('strip')) return new Map();
  const last = state.flows.findLast(({ way }) => way !== 'lost');
  // a rinse fills it as far as the loop takes it
  if (!last || last.way === 'in') return null;
  const stand = service.stands[Math.min(state.drains.length, service.stands.length) - 1];
  return stand ? new Map(Object.entries(stand.left)) : null;
}
