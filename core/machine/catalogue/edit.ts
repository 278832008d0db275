import { closeChain, flowOrder, freshId, type ChainEntry } from '../loop-file/chain.js';
import type { LoopComponent, LoopFile, LoopTube } from '../loop-file/loopFile.js';
import { makeComponent, tubeKindOf, TUBE_KINDS, type CataloguePart, type TubeKind } from './parts.js';
import type { Place } from './places.js';
import { suggestCut } from './starters.js';

/**
 * Edits of a series loop as a list in flow order. A tube between two parts that stay neighbours is kept as it is;
 * every other tube is laid anew with an estimated length.
 */
function relay(loop: LoopFile, components: readonly LoopComponent[], removed: ReadonlySet<string> = new Set()): LoopFile {
  const runFrom = new Map(flowOrder(loop).links.map(({ component, tube }) => [component.id, tube]));
  const usual = usualKind(loop);
  const entries = components.map((component, index): ChainEntry => {
    const next = components[(index + 1) % components.length] as LoopComponent;
    const before = runFrom.get(component.id) ?? null;
    const kept = before && before.to[0] === next.id && !removed.has(component.id);
    return { component, cut: kept ? { ...before } : suggestCut(component, next, before ? (tubeKindOf(before) ?? usual) : usual) };
  });
  return closeChain(loop, entries);
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

const inOrder = (loop: LoopFile): LoopComponent[] => flowOrder(loop).links.map(({ component }) => component);

/** Puts a new part behind the part `afterId`, or at the end. */
export function addPart(loop: LoopFile, part: CataloguePart, place: Place, afterId: string | null): LoopFile {
  const components = inOrder(loop);
  const taken = new Set([...loop.components, ...loop.tubes].map(({ id }) => id));
  const component = makeComponent(part, place, freshId(taken, `${part.kind}-${place}`));
  const at = components.findIndex(({ id }) => id === afterId);
  return relay(loop, at < 0 ? [...components, component] : components.toSpliced(at + 1, 0, component));
}

export function removePart(loop: LoopFile, id: string): LoopFile {
  return relay(
    loop,
    inOrder(loop).filter((component) => component.id !== id),
  );
}

/** Moves a part up (−1) or down (+1) in flow order; at the ends nothing happens. */
export function movePart(loop: LoopFile, id: string, by: -1 | 1): LoopFile {
  const components = inOrder(loop);
  const from = components.findIndex((component) => component.id === id);
  const to = from + by;
  if (from < 0 || to < 0 || to >= components.length) return loop;
  const moved = components.toSpliced(from, 1);
  return relay(loop, moved.toSpliced(to, 0, components[from] as LoopComponent));
}

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
