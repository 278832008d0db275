import type { LoopComponent, LoopFile, LoopTube, PortRef } from './loopFile.js';

/**
 * A loop as a list in flow order whose places may be branches side by side: between a splitter and the junction where they meet again,
 * each a list of its own. What no such list describes (bridges, open ends, two circuits) is told as null.
 */

export interface Branches {
  readonly split: LoopComponent;
  readonly meet: LoopComponent;
  readonly branches: readonly FlowList[];
}
export type FlowItem = LoopComponent | Branches;
export type FlowList = readonly FlowItem[];

export const isBranches = (item: FlowItem): item is Branches => 'branches' in item;
/** the part that liquid enters an item by, and leaves it by */
export const firstOf = (item: FlowItem): LoopComponent => (isBranches(item) ? item.split : item);
export const lastOf = (item: FlowItem): LoopComponent => (isBranches(item) ? item.meet : item);

/** Every component of a list, in flow order; of branches one after the other. */
export const componentsOf = (list: FlowList): LoopComponent[] =>
  list.flatMap((item) => (isBranches(item) ? [item.split, ...item.branches.flatMap(componentsOf), item.meet] : [item]));

interface Ways {
  readonly out: ReadonlyMap<string, readonly string[]>;
  readonly into: ReadonlyMap<string, number>;
  readonly parts: ReadonlyMap<string, LoopComponent>;
}

function waysOf({ components, tubes }: LoopFile): Ways {
  const out = new Map<string, string[]>();
  const into = new Map<string, number>();
  for (const { from, to } of tubes) {
    out.set(from[0], [...(out.get(from[0]) ?? []), to[0]]);
    into.set(to[0], (into.get(to[0]) ?? 0) + 1);
  }
  return { out, into, parts: new Map(components.map((part) => [part.id, part])) };
}

/** null where the loop is no closed list with branches. */
export function flowList(loop: LoopFile): FlowList | null {
  const start = loop.components.find(({ kind }) => kind === 'reservoir') ?? loop.components[0];
  if (!start || loop.components.length < 2) return null;
  const ways = waysOf(loop);
  const [next, ...more] = ways.out.get(start.id) ?? [];
  if (next === undefined || more.length > 0 || ways.into.get(start.id) !== 1) return null;
  const rest = walk(ways, next, start.id, new Set([start.id]));
  if (!rest || rest.end !== start.id) return null;
  const list = [start, ...rest.items];
  // a tube that was not walked leads to or from something that was not, or doubles one that was
  const walked = componentsOf(list);
  return walked.length === loop.components.length && countTubes(list) === loop.tubes.length ? list : null;
}

const countTubes = (list: FlowList): number =>
  list.reduce(
    (sum, item) => sum + 1 + (isBranches(item) ? item.branches.reduce((inner, branch) => inner + countTubes(branch) + 1, 0) : 0),
    0,
  );

/** Follows the flow to where it began, or to a junction where other branches join. */
function walk(ways: Ways, from: string, start: string, seen: Set<string>): { items: FlowItem[]; end: string } | null {
  const items: FlowItem[] = [];
  let at = from;
  while (at !== start && (ways.into.get(at) ?? 0) === 1) {
    const part = ways.parts.get(at);
    const [next, ...others] = ways.out.get(at) ?? [];
    if (!part || next === undefined || seen.has(at)) return null;
    seen.add(at);
    if (others.length === 0) {
      items.push(part);
      at = next;
      continue;
    }
    const group = walkBranches(ways, part, [next, ...others], start, seen);
    const [after, ...twice] = group ? (ways.out.get(group.meet.id) ?? []) : [];
    if (!group || after === undefined || twice.length > 0) return null;
    items.push(group);
    at = after;
  }
  return { items, end: at };
}

function walkBranches(ways: Ways, split: LoopComponent, starts: readonly string[], start: string, seen: Set<string>): Branches | null {
  const walked = starts.map((next) => walk(ways, next, start, seen));
  const ends = new Set(walked.map((branch) => branch?.end));
  const [end] = ends;
  const meet = end === undefined ? undefined : ways.parts.get(end);
  if (ends.size !== 1 || !meet || meet.id === start || seen.has(meet.id) || ways.into.get(meet.id) !== starts.length) return null;
  seen.add(meet.id);
  return { split, meet, branches: walked.map((branch) => branch?.items ?? []) };
}

/** A tube as entered, for two parts that no tube joins yet. */
export type NewTube = (from: LoopComponent, fromPort: string, to: LoopComponent, toPort: string) => LoopTube;

/** A tube to be laid; at a splitter, whether at the one port before it splits or at one of its branches. */
interface Join {
  readonly from: LoopComponent;
  readonly to: LoopComponent;
  readonly fromBranch: boolean;
  readonly toBranch: boolean;
}

/**
 * Lays a list: tubes between parts that stay neighbours are kept as they are, every other is made anew.
 * Before: the list has two items at least; a splitter has a port for each of its branches.
 */
export function layList(base: LoopFile, list: FlowList, newTube: NewTube): LoopFile {
  const joins = list.flatMap((item, index) => [
    ...joinsInside(item),
    { from: lastOf(item), to: firstOf(list[(index + 1) % list.length] as FlowItem), fromBranch: false, toBranch: false },
  ]);
  const left = new Set(base.tubes);
  const kept = joins.map(({ from, to }) => {
    const tube = [...left].find((each) => each.from[0] === from.id && each.to[0] === to.id);
    if (tube) left.delete(tube);
    return tube ?? null;
  });
  const taken = new Set(kept.flatMap((tube) => (tube ? [String(tube.from), String(tube.to)] : [])));
  const tubes = joins.map(({ from, to, fromBranch, toBranch }, index) => {
    const known = kept[index];
    if (known) return known;
    const ends = [freePort(from, 1, fromBranch, taken), freePort(to, 0, toBranch, taken)] as const;
    return newTube(from, ends[0], to, ends[1]);
  });
  return { ...base, components: componentsOf(list), tubes };
}

/** Tubes inside a group: to each branch, along it, and to where they meet. */
function joinsInside(item: FlowItem): Join[] {
  if (!isBranches(item)) return [];
  return item.branches.flatMap((branch) => {
    const ends = branch.map((each) => [firstOf(each), lastOf(each)] as const);
    const stations = [[item.split, item.split] as const, ...ends, [item.meet, item.meet] as const];
    const along = stations.slice(1).map(([to], index): Join => ({
      from: (stations[index] as (typeof stations)[number])[1],
      to,
      fromBranch: index === 0,
      toBranch: index === stations.length - 2,
    }));
    return [...along, ...branch.flatMap(joinsInside)];
  });
}

/** The port by which liquid leaves or enters: by the part's own direction, or one that carries no tube; a splitter's first is its trunk. */
function freePort(part: LoopComponent, way: 0 | 1, isBranch: boolean, taken: Set<string>): string {
  const key = (port: string): string => String([part.id, port] satisfies PortRef);
  const ports = Object.keys(part.ports);
  const inOrder = isBranch ? [...ports.slice(1), ports[0] as string] : ports;
  const port =
    part.flow?.[way] ?? inOrder.find((each) => !taken.has(key(each)) && part.closures?.[each] === undefined) ?? (ports[0] as string);
  taken.add(key(port));
  return port;
}
