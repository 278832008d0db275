import { tubeName, shortName } from '../../machine/catalogue/names.js';
import { shareBelow, type TurnedBox } from '../geometry/levelCut.js';
import { buildNetwork, nodeDistanceMm, vesselsWithoutBox } from '../geometry/network.js';
import { turnNetwork, type TurnedNetwork } from '../geometry/turned.js';
import { STANDING } from '../../machine/loop-file/orientation.js';
import { partName, type LoopComponent, type LoopFile, type LoopTube } from '../../machine/loop-file/loopFile.js';
import { placeInOrder } from './order.js';

/** A port drawn at its true height. */
export interface DrawnPort {
  /** "component.port" */
  readonly name: string;
  readonly label: string;
  readonly x: number;
  readonly mm: number;
  readonly closure: string | null;
}

/** One half-width of a vessel at a height, in drawing units: its area between two heights is its volume there. */
export interface VesselSlice {
  readonly mm: number;
  readonly half: number;
}

export interface DrawnVessel {
  readonly shape: 'vessel';
  readonly part: number;
  readonly id: string;
  readonly name: string;
  readonly kind: string;
  readonly x0: number;
  readonly x1: number;
  readonly bottomMm: number;
  readonly topMm: number;
  readonly slices: readonly VesselSlice[];
  readonly volumeMl: number;
  readonly ports: readonly DrawnPort[];
}

export interface DrawnPart {
  readonly shape: 'part';
  readonly part: number;
  readonly id: string;
  readonly name: string;
  readonly kind: string;
  readonly x0: number;
  readonly x1: number;
  /** height of its flow ports' mean */
  readonly mm: number;
  /** node of the geometric network */
  readonly node: number;
  readonly volumeMl: number;
  readonly ports: readonly DrawnPort[];
}

export interface DrawnTube {
  readonly shape: 'tube';
  readonly part: number;
  readonly id: string;
  readonly name: string;
  readonly boreMm: number;
  /** nodes of the geometric network from its `from` end; ends and bends hold no liquid */
  readonly points: readonly { readonly node: number; readonly x: number; readonly mm: number; readonly holds: boolean }[];
}

export type DrawnItem = DrawnVessel | DrawnPart | DrawnTube;

/** A connection between two drawn things that do not stand side by side. */
export interface Bridge {
  readonly from: { readonly x: number; readonly mm: number };
  readonly to: { readonly x: number; readonly mm: number };
  /** name of what it leads to */
  readonly towards: string;
}

/**
 * A loop unrolled along its flow path. `x` runs the way the coolant goes, in drawing units; heights are true, in mm of
 * the turned frame. Branches follow one another; where they meet again a bridge leads across.
 */
export interface UnrolledLoop {
  readonly items: readonly DrawnItem[];
  readonly bridges: readonly Bridge[];
  readonly width: number;
  readonly lowMm: number;
  readonly highMm: number;
}

/** Drawing units. A vessel is as wide as `unitsPerMlPerMm` times the millilitres in each mm of its height. */
const SCALE = { unitsPerMlPerMm: 26, unitsPerMm: 0.3, partWidth: 30, leastRun: 14, apart: 8, slices: 24, leastHalf: 3 } as const;

function vesselSlices(box: TurnedBox, volumeMl: number): VesselSlice[] {
  const height = Math.max(1, box.topMm - box.bottomMm);
  const step = height / SCALE.slices;
  return Array.from({ length: SCALE.slices + 1 }, (_, index) => {
    const mm = box.bottomMm + index * step;
    const [below, above] = [Math.max(box.bottomMm, mm - step / 2), Math.min(box.topMm, mm + step / 2)];
    const mlPerMm = (volumeMl * (shareBelow(box, above) - shareBelow(box, below))) / Math.max(1e-9, above - below);
    return { mm, half: Math.max(SCALE.leastHalf, (SCALE.unitsPerMlPerMm * mlPerMm) / 2) };
  });
}

class Layout {
  readonly items: DrawnItem[] = [];
  readonly bridges: Bridge[] = [];
  readonly portAt = new Map<string, { x: number; mm: number }>();
  x = 0;

  constructor(
    private readonly turned: TurnedNetwork,
    private readonly loop: LoopFile,
  ) {}

  private heightOf(port: string): number {
    return this.turned.heightMm[this.turned.network.ports.get(port) as number] as number;
  }

  private drawPorts(component: LoopComponent, x0: number, x1: number): DrawnPort[] {
    const middle = Object.keys(component.ports).filter((port) => !component.flow?.includes(port));
    return Object.keys(component.ports).map((port) => {
      const name = `${component.id}.${port}`;
      const end = component.flow?.indexOf(port) ?? -1;
      const x = end === 0 ? x0 : end === 1 ? x1 : x0 + ((x1 - x0) * (middle.indexOf(port) + 1)) / (middle.length + 1);
      const mm = this.heightOf(name);
      this.portAt.set(name, { x, mm });
      return { name, label: `${partName(component)}, ${port}`, x, mm, closure: component.closures?.[port] ?? null };
    });
  }

  addComponent(component: LoopComponent, part: number): void {
    const { network, boxes } = this.turned;
    const x0 = this.x;
    const node = network.ports.get(`${component.id}.${Object.keys(component.ports)[0] as string}`) as number;
    // every port's first neighbour is its part's own node
    const centre = network.links[network.starts[node] as number] as number;
    const vessel = network.vesselOf[centre] as number;
    const named = { part, id: component.id, name: shortName(component), kind: component.kind, volumeMl: component.volume_ml };
    if (vessel >= 0) {
      const box = boxes[vessel] as TurnedBox;
      const slices = vesselSlices(box, component.volume_ml);
      const width = 2 * Math.max(...slices.map(({ half }) => half));
      const x1 = x0 + width;
      const ports = this.drawPorts(component, x0, x1);
      this.items.push({ shape: 'vessel', ...named, x0, x1, bottomMm: box.bottomMm, topMm: box.topMm, slices, ports });
      this.x = x1;
      return;
    }
    const x1 = x0 + SCALE.partWidth;
    const ports = this.drawPorts(component, x0, x1);
    this.items.push({ shape: 'part', ...named, x0, x1, mm: this.turned.heightMm[centre] as number, node: centre, ports });
    this.x = x1;
  }

  addTube(tube: LoopTube, part: number): void {
    const { network, heightMm } = this.turned;
    const [first, last] = (['from', 'to'] as const).map((end) => network.joints.get(`${tube.id}.${end}`)?.tubeNode as number) as [
      number,
      number,
    ];
    const start = this.x;
    const along: number[] = [0];
    for (let node = first + 1; node <= last; node += 1) {
      along.push((along.at(-1) as number) + nodeDistanceMm(network, node - 1, node));
    }
    const whole = along.at(-1) as number;
    const advance = Math.max(SCALE.leastRun, SCALE.unitsPerMm * whole);
    const points = along.map((mm, index) => ({
      node: first + index,
      x: start + (whole > 0 ? (mm / whole) * advance : (index / Math.max(1, last - first)) * advance),
      mm: heightMm[first + index] as number,
      holds: (network.volumeMl[first + index] as number) > 0,
    }));
    this.bridge(this.portAt.get(`${tube.from[0]}.${tube.from[1]}`), points[0], '');
    this.items.push({ shape: 'tube', part, id: tube.id, name: tubeName(this.loop, tube), boreMm: tube.bore_mm, points });
    this.x = start + advance;
  }

  /** A thin line between two points that should touch; none where they nearly do. */
  bridge(from: { x: number; mm: number } | undefined, to: { x: number; mm: number } | undefined, towards: string): void {
    if (from && to && Math.abs(from.x - to.x) > SCALE.apart) this.bridges.push({ from, to, towards });
  }
}

/** Lays out the loop as it stands. Before: `turned` was built from `loop`. */
export function unrollTurned(turned: TurnedNetwork, loop: LoopFile): UnrolledLoop {
  const layout = new Layout(turned, loop);
  for (const step of placeInOrder(loop)) {
    if (step.kind === 'component') layout.addComponent(loop.components[step.index] as LoopComponent, step.index);
    else layout.addTube(loop.tubes[step.index] as LoopTube, loop.components.length + step.index);
  }
  for (const item of layout.items) {
    if (item.shape !== 'tube') continue;
    const tube = loop.tubes[item.part - loop.components.length] as LoopTube;
    const target = loop.components.find(({ id }) => id === tube.to[0]);
    layout.bridge(item.points.at(-1), layout.portAt.get(`${tube.to[0]}.${tube.to[1]}`), target ? shortName(target) : '');
  }
  const heights = layout.items.flatMap((item) =>
    item.shape === 'tube' ? item.points.map(({ mm }) => mm) : item.shape === 'vessel' ? [item.bottomMm, item.topMm] : [item.mm],
  );
  return {
    items: layout.items,
    bridges: layout.bridges,
    width: Math.max(1, layout.x),
    lowMm: heights.length > 0 ? heights.reduce((low, mm) => Math.min(low, mm)) : 0,
    highMm: heights.length > 0 ? heights.reduce((high, mm) => Math.max(high, mm)) : 100,
  };
}

/**
 * A loop as it stands on its feet, whatever is known of it: a vessel whose outer measures are missing is laid out as a
 * plain part at the height of its ports, and holds no level.
 */
export function unrollUpright(loop: LoopFile): { readonly turned: TurnedNetwork; readonly unrolled: UnrolledLoop } {
  const bare = new Set(vesselsWithoutBox(loop));
  const drawn = { ...loop, components: loop.components.map((part) => (bare.has(part) ? { ...part, kind: 'unmeasured' } : part)) };
  const turned = turnNetwork(buildNetwork(drawn), STANDING.upright);
  return { turned, unrolled: unrollTurned(turned, loop) };
}
