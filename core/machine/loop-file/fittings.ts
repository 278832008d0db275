import { tubesByHand, type LoopComponent, type LoopFile } from './loopFile.js';

/** How many of each kind of fitting the loop needs. */
export interface FittingCount {
  readonly kind: string;
  readonly count: number;
}

/** Where a tube lists no end fittings: one at each end. */
const DEFAULT_ENDS = ['compression', 'compression'] as const;

function add(counts: Map<string, number>, kind: string, count = 1): void {
  counts.set(kind, (counts.get(kind) ?? 0) + count);
}

/** Ports that carry no tube: each wants the closure it names, or a plug. */
export function unusedPorts(loop: LoopFile, component: LoopComponent): string[] {
  const used = new Set(
    loop.tubes
      .flatMap(({ from, to }) => [from, to])
      .filter(([id]) => id === component.id)
      .map(([, port]) => port),
  );
  return Object.keys(component.ports).filter((port) => !used.has(port));
}

/**
 * Fittings by kind: those listed on each tube (two compression ends where none are listed), plus one closure for
 * every port without a tube: what the file says closes it, else a plug.
 */
export function countFittings(loop: LoopFile): FittingCount[] {
  const counts = new Map<string, number>();
  for (const tube of tubesByHand(loop)) {
    for (const kind of tube.fittings?.length ? tube.fittings : DEFAULT_ENDS) add(counts, kind);
  }
  for (const component of loop.components) {
    for (const port of unusedPorts(loop, component)) add(counts, component.closures?.[port] ?? 'plug');
  }
  return [...counts].map(([kind, count]) => ({ kind, count })).sort((a, b) => b.count - a.count || a.kind.localeCompare(b.kind));
}
