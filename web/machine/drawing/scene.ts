import { isVessel } from '@core/physics/geometry/network.js';
import { shortName } from '@core/machine/catalogue/names.js';
import type { LoopComponent, LoopFile, LoopTube, Point } from '@core/machine/loop-file/loopFile.js';
import type { CaseOutline } from '@core/machine/drawing/cases.js';

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

function partNode(loop: LoopFile, component: LoopComponent, selected: boolean): object {
  const { left, top, width, height } = extentOf(component);
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
    ports: Object.entries(component.ports).map(([port, [x, y]]) => ({
      port,
      left: x - left,
      top: -y - top,
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
  return [room, ...loop.components.map((component) => partNode(loop, component, component.id === selected))];
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
