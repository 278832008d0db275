import type { LoopComponent, LoopFile, LoopTube, PortRef } from './loopFile.js';

/** A component and the tube that leaves it towards the next one, in flow order. */
export interface ChainLink {
  readonly component: LoopComponent;
  /** null where the loop is still open after this component */
  readonly tube: LoopTube | null;
}

/** A tube as entered, before it is laid from port to port. */
export type TubeCut = Pick<LoopTube, 'bore_mm' | 'outer_mm' | 'material' | 'fittings'> & { length_mm?: number };

/** The components in the order the liquid meets them, beginning at the reservoir (or at the first component). */
export interface FlowOrder {
  readonly links: readonly ChainLink[];
  /** components and tubes that the walk did not reach: parallel branches, open ends, a second circuit */
  readonly offPath: { readonly components: readonly LoopComponent[]; readonly tubes: readonly LoopTube[] };
}

/** The port the liquid leaves by; without `flow`, any port but the one it came in by. */
function tubeLeaving(loop: LoopFile, component: LoopComponent, enteredBy: string | null): LoopTube | undefined {
  const leaves = (tube: LoopTube): boolean =>
    tube.from[0] === component.id && (component.flow ? tube.from[1] === component.flow[1] : tube.from[1] !== enteredBy);
  return loop.tubes.find(leaves);
}

/** Walks the loop once round from the reservoir. Where the liquid could go two ways the first tube of the file is taken. */
export function flowOrder(loop: LoopFile): FlowOrder {
  const start = loop.components.find(({ kind }) => kind === 'reservoir') ?? loop.components[0];
  const links: ChainLink[] = [];
  const walked = new Set<string>();
  let component = start;
  let enteredBy: string | null = null;
  while (component && !walked.has(component.id)) {
    const tube: LoopTube | null = tubeLeaving(loop, component, enteredBy) ?? null;
    links.push({ component, tube });
    walked.add(component.id);
    const next: PortRef | undefined = tube?.to;
    enteredBy = next?.[1] ?? null;
    component = next && loop.components.find(({ id }) => id === next[0]);
  }
  const usedTubes = new Set(links.map(({ tube }) => tube?.id));
  return {
    links,
    offPath: {
      components: loop.components.filter(({ id }) => !walked.has(id)),
      tubes: loop.tubes.filter(({ id }) => !usedTubes.has(id)),
    },
  };
}

/** True when every part lies on the one closed path, so that order alone describes the loop. */
export function isSeriesLoop(loop: LoopFile): boolean {
  const { links, offPath } = flowOrder(loop);
  const last = links.at(-1);
  const closes = last?.tube?.to[0] === links[0]?.component.id;
  return links.length > 0 && closes && offPath.components.length === 0 && offPath.tubes.length === 0;
}

/** A series loop as a list to reorder: what stands where, and how each tube after it is cut. */
export interface ChainEntry {
  readonly component: LoopComponent;
  readonly cut: TubeCut & { readonly id?: string; readonly path?: LoopTube['path'] };
}

const inPort = (component: LoopComponent): string => component.flow?.[0] ?? (Object.keys(component.ports)[0] as string);
const outPort = (component: LoopComponent): string =>
  component.flow?.[1] ?? Object.keys(component.ports)[1] ?? (Object.keys(component.ports)[0] as string);

/**
 * Lays the tubes between consecutive entries and back from the last to the first.
 * A bend path is kept only where both ends of the tube are what they were; otherwise the tube is taken as straight
 * and its entered length decides the volume.
 */
export function closeChain(base: LoopFile, entries: readonly ChainEntry[]): LoopFile {
  const taken = new Set(entries.map(({ component }) => component.id));
  const tubes =
    entries.length < 2
      ? []
      : entries.map(({ component, cut }, index): LoopTube => {
          const next = (entries[(index + 1) % entries.length] as ChainEntry).component;
          const from: PortRef = [component.id, outPort(component)];
          const to: PortRef = [next.id, inPort(next)];
          const { id: wantedId, path, ...rest } = cut;
          const before = base.tubes.find(({ id }) => id === wantedId);
          const sameRun = before && String(before.from) === String(from) && String(before.to) === String(to);
          return {
            ...(before ?? {}),
            ...rest,
            id: freshId(taken, wantedId ?? 'tube'),
            from,
            to,
            path: sameRun ? (path ?? before.path) : [],
          };
        });
  return { ...base, components: entries.map(({ component }) => component), tubes };
}

/** Every id of a loop: a new one must be none of them. */
export const idsOf = ({
  components,
  tubes,
}: {
  readonly components: readonly LoopComponent[];
  readonly tubes: readonly LoopTube[];
}): Set<string> => new Set([...components, ...tubes].map(({ id }) => id));

/** Returns `wanted`, or `wanted-2`, `wanted-3` … and marks it as taken. */
export function freshId(taken: Set<string>, wanted: string): string {
  let id = wanted;
  for (let n = 2; taken.has(id); n += 1) id = `${wanted}-${n}`;
  taken.add(id);
  return id;
}

/** The entries of a series loop, ready for `closeChain`. */
export function chainEntries(loop: LoopFile, fallback: TubeCut): ChainEntry[] {
  return flowOrder(loop).links.map(({ component, tube }) => ({ component, cut: tube ? { ...tube } : { ...fallback } }));
}
