import {
  componentsOf,
  firstOf,
  flowList,
  isBranches,
  lastOf,
  layList,
  type Branches,
  type FlowItem,
  type FlowList,
} from '../loop-file/branches.js';
import { flowOrder, freshId, idsOf } from '../loop-file/chain.js';
import type { LoopComponent, LoopFile, LoopTube } from '../loop-file/loopFile.js';
import { makeComponent, SPLITTERS, tubeKindOf, TUBE_KINDS, type CataloguePart, type TubeKind } from './parts.js';
import type { Place } from './places.js';
import { channel, isOnePiece, makeUnit, ofOnePiece, type CatalogueUnit } from './units.js';
import { suggestCut } from './starters.js';

/**
 * Edits of a loop as a list in flow order, with branches side by side. A tube between two parts that stay neighbours is kept as it is;
 * every other tube is laid anew with an estimated length. A loop that no such list describes yet (open ends, a single part) is taken
 * as a list of its parts.
 */
function relay(loop: LoopFile, list: FlowList): LoopFile {
  const components = componentsOf(list);
  if (list.length < 2) return { ...loop, components, tubes: [] };
  const before = new Map(loop.tubes.map((tube) => [tube.from[0], tube]));
  const usual = usualKind(loop);
  const taken = idsOf({ components, tubes: loop.tubes });
  return layList(loop, list, (from, fromPort, to, toPort) => {
    if (isOnePiece(from, to)) return channel(freshId(taken, `${from.id}--${to.id}`), [from.id, fromPort], [to.id, toPort]);
    const last = before.get(from.id);
    const cut = suggestCut(from, to, last ? (tubeKindOf(last) ?? usual) : usual, [fromPort, toPort]);
    return { ...cut, id: freshId(taken, cut.id ?? 'tube'), from: [from.id, fromPort], to: [to.id, toPort], path: [] };
  });
}

/** The kind most tubes are of, so that a new tube matches its neighbours. */
export function usualKind(loop: LoopFile): TubeKind {
  const counts = new Map<TubeKind, number>();
  for (const tube of loop.tubes) {
    const kind = tubeKindOf(tube);
    if (kind) counts.set(kind, (counts.get(kind) ?? 0) + 1);
  }
  return [...counts].sort((a, b) => b[1] - a[1])[0]?.[0] ?? (TUBE_KINDS[0] as TubeKind);
}

const listOf = (loop: LoopFile): FlowList => flowList(loop) ?? flowOrder(loop).links.map(({ component }) => component);
const isAt = (item: FlowItem, id: string): boolean => firstOf(item).id === id || lastOf(item).id === id;

/** Changes the one list, of the loop or of a branch, that holds a part; others stay as they are. */
function inItsList(list: FlowList, id: string, change: (list: FlowList, at: number) => FlowList): FlowList {
  const at = list.findIndex((item) => isAt(item, id));
  if (at >= 0) return change(list, at);
  return list.map((item) =>
    isBranches(item) ? { ...item, branches: item.branches.map((branch) => inItsList(branch, id, change)) } : item,
  );
}

/** A branch that holds nothing is none; a group with one branch left is that branch in line. */
const tidied = (list: FlowList): FlowList =>
  list.flatMap((item): FlowList => {
    if (!isBranches(item)) return [item];
    const branches = item.branches.map(tidied).filter((branch) => branch.length > 0);
    return branches.length > 1 ? [{ ...item, branches }] : (branches[0] ?? []);
  });

/** Puts a new part behind the part `afterId`, in its branch, or at the end. */
export function addPart(loop: LoopFile, part: CataloguePart, place: Place, afterId: string | null): LoopFile {
  return addParts(loop, [makeComponent(part, place, freshId(idsOf(loop), `${part.kind}-${place}`))], afterId);
}

/** Puts new components behind a part, one behind the other. Before: their ids are fresh. */
export function addParts(loop: LoopFile, components: readonly LoopComponent[], afterId: string | null): LoopFile {
  const list = listOf(loop);
  const isThere = afterId !== null && componentsOf(list).some(({ id }) => id === afterId);
  return relay(loop, isThere ? inItsList(list, afterId, (own, at) => own.toSpliced(at + 1, 0, ...components)) : [...list, ...components]);
}

/** Adds a unit of pump and reservoir behind a part, or at the end. */
export function addUnit(loop: LoopFile, unit: CatalogueUnit, place: Place, afterId: string | null): LoopFile {
  return addParts(loop, makeUnit(unit, place, idsOf(loop)), afterId);
}

/** A splitter that goes leaves its branches in line. */
const withoutItem = (own: FlowList, at: number): FlowList => {
  const item = own[at];
  return own.toSpliced(at, 1, ...(item && isBranches(item) ? item.branches.flat() : []));
};

/** Takes a part out, and what is one piece with it. */
export function removePart(loop: LoopFile, id: string): LoopFile {
  const out = ofOnePiece(loop, id);
  const without = (list: FlowList): FlowList => out.reduce<FlowList>((rest, each) => inItsList(rest, each, withoutItem), list);
  return relay(loop, tidied(without(listOf(loop))));
}

/** Moves a part up (−1) or down (+1) in its list; at the ends nothing happens. */
export function movePart(loop: LoopFile, id: string, by: -1 | 1): LoopFile {
  const together = new Set(ofOnePiece(loop, id));
  let moved = false;
  const list = inItsList(listOf(loop), id, (own) => {
    const isPart = (item: FlowItem): boolean => !isBranches(item) && together.has(item.id);
    const block = own.filter((item) => isAt(item, id) || isPart(item));
    const from = own.indexOf(block[0] as FlowItem);
    // over a whole unit, never into it
    const over = own[by < 0 ? from - 1 : from + block.length];
    if (over === undefined) return own;
    const steps = isBranches(over) ? 1 : ofOnePiece(loop, over.id).length;
    moved = true;
    const rest = own.filter((item) => !block.includes(item));
    return rest.toSpliced(from + by * steps, 0, ...block);
  });
  return moved ? relay(loop, list) : loop;
}

/** most branches that a splitter has ports for */
const MOST_BRANCHES = 3;

/** Whether a part can be laid beside what stands before it: a part of its own list, or branches that have room for one more. */
export function canStandBeside(loop: LoopFile, id: string): boolean {
  let can = false;
  inItsList(listOf(loop), id, (own, at) => {
    const before = own[at - 1];
    const part = own[at];
    can = part !== undefined && !isBranches(part) && before !== undefined && mayBranch(part) && (isBranches(before) ? before.branches.length < MOST_BRANCHES : mayBranch(before)); // prettier-ignore
    return own;
  });
  return can;
}

/** A pump or reservoir in a branch is no splitting of the flow; no list describes what it does. */
const mayBranch = ({ kind }: LoopComponent): boolean => kind !== 'reservoir' && kind !== 'pump';

/** Lays a part beside what stands before it: the flow splits before both and meets behind them. Before: `canStandBeside`. */
export function putBeside(loop: LoopFile, id: string): LoopFile {
  const taken = idsOf(loop);
  const list = inItsList(listOf(loop), id, (own, at) => {
    const before = own[at - 1];
    const part = own[at] as FlowItem;
    if (before === undefined) return own;
    const group = isBranches(before)
      ? { ...before, ...withPorts(before, before.branches.length + 1), branches: [...before.branches, [part]] }
      : {
          split: makeComponent(SPLITTERS[2], 'tray', freshId(taken, 'split')),
          meet: makeComponent(SPLITTERS[2], 'tray', freshId(taken, 'meet')),
          branches: [[before], [part]],
        };
    return own.toSpliced(at - 1, 2, group);
  });
  return relay(loop, list);
}

/** A splitter that has too few ports for its branches becomes the next larger one, and keeps its name. */
function withPorts({ split, meet }: Branches, branches: number): Pick<Branches, 'split' | 'meet'> {
  const larger = (part: LoopComponent): LoopComponent =>
    Object.keys(part.ports).length > branches ? part : { ...makeComponent(SPLITTERS[3], 'tray', part.id), ports: { ...SPLITTERS[3].place('tray').ports, ...part.ports } }; // prettier-ignore
  return { split: larger(split), meet: larger(meet) };
}

/** Takes a part out of its branch, in line behind where the branches meet. Nothing happens to one that stands in line. */
export function putInLine(loop: LoopFile, id: string): LoopFile {
  const part = loop.components.find((each) => each.id === id);
  const list = listOf(loop);
  const group = list.find(
    (item): item is Branches => isBranches(item) && item.branches.flatMap(componentsOf).some((each) => each.id === id),
  );
  if (!part || !group) return loop;
  const out = inItsList(list, id, (own, at) => own.toSpliced(at, 1));
  return relay(loop, tidied(inItsList(out, group.meet.id, (own, at) => own.toSpliced(at + 1, 0, part))));
}

/** Whether a part stands in a branch. */
export const isInBranch = (loop: LoopFile, id: string): boolean =>
  listOf(loop).some((item) => isBranches(item) && item.branches.flatMap(componentsOf).some((each) => each.id === id));

/** A volume that is entered by hand goes before what fills had told. */
export function changePart(loop: LoopFile, id: string, change: Partial<LoopComponent>): LoopFile {
  const forgets = change.volume_ml !== undefined ? { learned: undefined } : {};
  return {
    ...loop,
    components: loop.components.map((component) => (component.id === id ? { ...component, ...change, ...forgets } : component)),
  };
}

export function changeRun(
  loop: LoopFile,
  id: string,
  change: Partial<Pick<LoopTube, 'length_mm' | 'fittings'>> & { kind?: TubeKind },
): LoopFile {
  const { kind, ...rest } = change;
  const size = kind ? { bore_mm: kind.boreMm, outer_mm: kind.outerMm, material: kind.material } : {};
  return { ...loop, tubes: loop.tubes.map((tube) => (tube.id === id ? { ...tube, ...rest, ...size } : tube)) };
}

/** Adds or takes an elbow on a tube; the two end fittings stay. */
export function setElbows(loop: LoopFile, id: string, kind: '45' | '90', count: number): LoopFile {
  const tube = loop.tubes.find((each) => each.id === id);
  if (!tube) return loop;
  const others = (tube.fittings ?? []).filter((fitting) => fitting !== kind);
  return changeRun(loop, id, { fittings: [...others, ...Array<string>(Math.max(0, count)).fill(kind)] });
}
