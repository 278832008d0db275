import { isVessel } from '@core/physics/geometry/network.js';
import { shortName } from '@core/machine/catalogue/names.js';
import type { LoopComponent, LoopFile, LoopTube, Point, PortRef } from '@core/machine/loop-file/loopFile.js';
import type { CaseOutline } from '@core/machine/drawing/cases.js';
import { placeLabels, type Named, type Rect, type Spot, type Way } from './labels.js';

/** The case's front view on screen: one pixel is one millimetre, x to the right, height upwards (so y is turned round). */
export interface ScenePort {
  readonly port: string;
  /** px from the node's left and top edge */
  readonly left: number;
  readonly top: number;
  readonly closure: string | null;
  readonly used: boolean;
}

export interface PartData {
  readonly name: string;
  /** px from the node's left and top edge: where its name stands */
  readonly label: Rect;
  readonly kind: string;
  readonly vessel: boolean;
  readonly ports: readonly ScenePort[];
}

export interface TubeData {
  readonly bends: readonly { readonly x: number; readonly y: number }[];
  readonly boreMm: number;
}

/** px around the ports of a part that is no vessel */
const PAD = 16;

export interface Extent {
  readonly left: number;
  readonly top: number;
  readonly width: number;
  readonly height: number;
}

/** Where a part stands on screen: a vessel as its box, another part round its ports. */
export function extentOf(component: LoopComponent): Extent {
  const points = isVessel(component) && component.box ? [component.box.min, component.box.max] : Object.values(component.ports);
  const pad = isVessel(component) && component.box ? 0 : PAD;
  const xs = points.map(([x]) => x);
  const ys = points.map(([, y]) => y);
  const left = Math.min(...xs) - pad;
  const top = -Math.max(...ys) - pad;
  return { left, top, width: Math.max(...xs) - Math.min(...xs) + 2 * pad, height: Math.max(...ys) - Math.min(...ys) + 2 * pad };
}

/** px between the middles of two ports on screen, so that each can be touched */
const APART_PX = 15;

/**
 * Where the ports of a part are shown: those that lie behind one another stand side by side along the part's longer edge, the one nearer to
 * the viewer first. Their true places stay as they are.
 */
export function portsOnScreen(component: LoopComponent): Record<string, Spot> {
  const { width, height } = extentOf(component);
  const shown: Record<string, Spot> = {};
  const open = Object.entries(component.ports).sort(([, a], [, b]) => b[2] - a[2]);
  while (open.length > 0) {
    const [[, first]] = open as [[string, Point]];
    const close = open.filter(([, at]) => Math.hypot(at[0] - first[0], at[1] - first[1]) < APART_PX);
    close.forEach(([port, [x, y]], index) => {
      const by = close.length === 1 ? 0 : (index - (close.length - 1) / 2) * APART_PX;
      const [midX, midY] = [first[0], first[1]];
      shown[port] = close.length === 1 ? { x, y: -y } : width > height ? { x: midX + by, y: -midY } : { x: midX, y: -midY + by };
    });
    for (const each of close) open.splice(open.indexOf(each), 1);
  }
  return shown;
}

function partNode(loop: LoopFile, component: LoopComponent, selected: boolean, label: Rect): object {
  const { left, top, width, height } = extentOf(component);
  const shown = portsOnScreen(component);
  const used = new Set(
    loop.tubes
      .flatMap(({ from, to }) => [from, to])
      .filter(([id]) => id === component.id)
      .map(([, port]) => port),
  );
  const data: PartData = {
    name: shortName(component),
    kind: component.kind,
    vessel: isVessel(component),
    label: { ...label, left: label.left - left, top: label.top - top },
    ports: Object.keys(component.ports).map((port) => ({
      port,
      left: (shown[port] as Spot).x - left,
      top: (shown[port] as Spot).y - top,
      closure: component.closures?.[port] ?? null,
      used: used.has(port),
    })),
  };
  return {
    id: component.id,
    type: 'part',
    position: { x: left, y: top },
    style: { width: `${width}px`, height: `${height}px` },
    data,
    class: selected ? 'chosen' : '',
    zIndex: isVessel(component) ? 1 : 2,
    focusable: false,
  };
}

export function sceneNodes(loop: LoopFile, outline: CaseOutline, selected: string | null): object[] {
  const room = {
    id: '#case',
    type: 'room',
    position: { x: 0, y: -outline.heightMm },
    style: { width: `${outline.depthMm}px`, height: `${outline.heightMm}px` },
    data: outline,
    draggable: false,
    selectable: false,
    connectable: false,
    focusable: false,
    zIndex: -1,
  };
  const labels = labelsOf(loop);
  return [room, ...loop.components.map((part) => partNode(loop, part, part.id === selected, labels.get(part.id) as Rect))];
}

/** Names on no tube: with every tube as it is drawn. */
function labelsOf(loop: LoopFile): ReadonlyMap<string, Rect> {
  const ports = new Map(loop.components.map((part) => [part.id, portsOnScreen(part)]));
  const end = ([id, port]: PortRef): Spot => ports.get(id)?.[port] ?? { x: 0, y: 0 };
  const ways = loop.tubes.map((tube): Way => ({
    line: [end(tube.from), ...bendsOnScreen(tube), end(tube.to)],
    widthPx: tube.bore_mm + 4,
  }));
  const parts = loop.components.map((part): Named => ({ ...extentOf(part), id: part.id, name: shortName(part), vessel: isVessel(part) }));
  return placeLabels(parts, ways);
}

export const bendsOnScreen = (tube: LoopTube): { x: number; y: number }[] => (tube.path ?? []).map(([x, y]) => ({ x, y: -y }));

export function sceneEdges(loop: LoopFile, selected: string | null): object[] {
  return loop.tubes.map((tube) => ({
    id: tube.id,
    type: 'tube',
    source: tube.from[0],
    sourceHandle: tube.from[1],
    target: tube.to[0],
    targetHandle: tube.to[1],
    data: { bends: bendsOnScreen(tube), boreMm: tube.bore_mm } satisfies TubeData,
    class: tube.id === selected ? 'chosen' : '',
    zIndex: tube.id === selected ? 6 : 3,
    focusable: false,
  }));
}

/** Index of the segment of a polyline that a point lies nearest to. */
export function nearestSegment(line: readonly { x: number; y: number }[], at: { x: number; y: number }): number {
  let best = 0;
  let least = Number.POSITIVE_INFINITY;
  for (let index = 0; index < line.length - 1; index += 1) {
    const [a, b] = [line[index] as { x: number; y: number }, line[index + 1] as { x: number; y: number }];
    const length2 = (b.x - a.x) ** 2 + (b.y - a.y) ** 2;
    const along = length2 === 0 ? 0 : Math.max(0, Math.min(1, ((at.x - a.x) * (b.x - a.x) + (at.y - a.y) * (b.y - a.y)) / length2));
    const away = Math.hypot(a.x + along * (b.x - a.x) - at.x, a.y + along * (b.y - a.y) - at.y);
    if (away < least) [best, least] = [index, away];
  }
  return best;
}

/** Depth for a new bend: between its neighbours'. */
export const depthBetween = (a: Point, b: Point): number => Math.round((a[2] + b[2]) / 2);
