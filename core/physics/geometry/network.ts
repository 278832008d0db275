import { GEOMETRY } from './defaults.js';
import type { Box } from './levelCut.js';
import {
  distanceMm,
  partFinder,
  pathLengthMm,
  tubePolyline,
  type LoopComponent,
  type LoopFile,
  type LoopTube,
  type Point,
} from '../../machine/loop-file/loopFile.js';
import { loopVolume } from '../../machine/loop-file/volume.js';

export interface Vessel {
  readonly node: number;
  readonly part: number;
  readonly box: Box;
  readonly isReservoir: boolean;
}

/** Where a tube can be taken off its port: the tube's last node and the port's node, at the same place. */
export interface Joint {
  readonly tubeNode: number;
  readonly portNode: number;
}

/**
 * The loop as nodes with positions and volumes (contract, "The geometric network").
 * Arrays run over nodes. A vessel is a hub: it has no height of its own, its volume fills its box.
 */
export interface GeometricNetwork {
  readonly size: number;
  /** mm in the case frame; NaN for hubs */
  readonly x: Float64Array;
  readonly y: Float64Array;
  readonly z: Float64Array;
  readonly volumeMl: Float64Array;
  /** index into `partIds` */
  readonly part: Int32Array;
  /** index into `vessels`, −1 for every other node */
  readonly vesselOf: Int32Array;
  /** the tube's part index where the node lies in a wide tube, −1 elsewhere */
  readonly wideTube: Int32Array;
  /** 1 for a component's port */
  readonly isPort: Uint8Array;
  /** neighbours of node i: `links[starts[i]] … links[starts[i + 1] − 1]` */
  readonly starts: Int32Array;
  readonly links: Int32Array;
  readonly vessels: readonly Vessel[];
  /** components in the file's order, then tubes */
  readonly partIds: readonly string[];
  readonly ports: ReadonlyMap<string, number>;
  /** "tube.from" and "tube.to" */
  readonly joints: ReadonlyMap<string, Joint>;
}

/** A reservoir or radiator: its inside is open, gas and liquid pass each other in it. */
export const isVessel = ({ kind }: LoopComponent): boolean => kind === 'reservoir' || kind === 'radiator';

interface Building {
  x: number[];
  y: number[];
  z: number[];
  volumeMl: number[];
  part: number[];
  vesselOf: number[];
  wideTube: number[];
  isPort: number[];
  pairs: number[];
  vessels: Vessel[];
  ports: Map<string, number>;
  joints: Map<string, Joint>;
}

const NOWHERE: Point = [Number.NaN, Number.NaN, Number.NaN];

function addNode(build: Building, at: Point, part: number, volumeMl: number, wideTube = -1): number {
  build.x.push(at[0]);
  build.y.push(at[1]);
  build.z.push(at[2]);
  build.part.push(part);
  build.volumeMl.push(volumeMl);
  build.vesselOf.push(-1);
  build.wideTube.push(wideTube);
  build.isPort.push(0);
  return build.x.length - 1;
}

function meanPoint(points: readonly Point[]): Point {
  return [0, 1, 2].map((axis) => points.reduce((sum, point) => sum + (point[axis] as number), 0) / points.length) as unknown as Point;
}

/** Where a part that is no vessel sits: between its flow ports; a junction between all of them. */
export function partPosition(component: LoopComponent): Point {
  const names = component.flow && component.kind !== 'junction' ? component.flow : Object.keys(component.ports);
  return meanPoint(names.map((port) => component.ports[port] as Point));
}

function addComponent(build: Building, component: LoopComponent, part: number): void {
  const vessel = isVessel(component);
  const centre = addNode(build, vessel ? NOWHERE : partPosition(component), part, component.volume_ml);
  if (vessel) {
    build.vesselOf[centre] = build.vessels.length;
    build.vessels.push({ node: centre, part, box: component.box as Box, isReservoir: component.kind === 'reservoir' });
  }
  for (const [port, at] of Object.entries(component.ports)) {
    const node = addNode(build, at, part, 0);
    build.isPort[node] = 1;
    build.pairs.push(centre, node);
    build.ports.set(`${component.id}.${port}`, node);
  }
}

/** Nodes along one tube: cell centres at most `cellMm` apart, and volume-less nodes at its bends and ends. */
function addTube(build: Building, line: readonly Point[], tube: LoopTube, part: number, volumeMl: number, cellMm: number): void {
  const pathMm = pathLengthMm(line);
  const wide = tube.bore_mm >= GEOMETRY.wideBoreMm ? part : -1;
  const first = addNode(build, line[0] as Point, part, 0, wide);
  let last = first;
  const append = (at: Point, ml: number): void => {
    const node = addNode(build, at, part, ml, wide);
    build.pairs.push(last, node);
    last = node;
  };
  line.slice(1).forEach((end, index) => {
    const start = line[index] as Point;
    const segmentMm = distanceMm(start, end);
    const cells = Math.max(segmentMm > 0 || pathMm === 0 ? 1 : 0, Math.ceil(segmentMm / cellMm - 1e-9));
    const shareOfPath = pathMm > 0 ? segmentMm / pathMm : 1 / (line.length - 1);
    for (let cell = 0; cell < cells; cell += 1) {
      const along = (cell + 0.5) / cells;
      const at = [0, 1, 2].map((axis) => (start[axis] as number) + along * ((end[axis] as number) - (start[axis] as number)));
      append(at as unknown as Point, (volumeMl * shareOfPath) / cells);
    }
    append(end, 0);
  });
  const join = (end: 'from' | 'to', tubeNode: number): void => {
    const [id, port] = tube[end];
    const portNode = build.ports.get(`${id}.${port}`) as number;
    build.pairs.push(tubeNode, portNode);
    build.joints.set(`${tube.id}.${end}`, { tubeNode, portNode });
  };
  join('from', first);
  join('to', last);
}

function neighbourLists(size: number, pairs: readonly number[]): { starts: Int32Array; links: Int32Array } {
  const starts = new Int32Array(size + 1);
  for (const node of pairs) starts[node + 1] = (starts[node + 1] as number) + 1;
  for (let node = 0; node < size; node += 1) starts[node + 1] = (starts[node + 1] as number) + (starts[node] as number);
  const next = starts.slice(0, size);
  const links = new Int32Array(pairs.length);
  for (let pair = 0; pair < pairs.length; pair += 2) {
    const [a, b] = [pairs[pair] as number, pairs[pair + 1] as number];
    links[next[a] as number] = b;
    next[a] = (next[a] as number) + 1;
    links[next[b] as number] = a;
    next[b] = (next[b] as number) + 1;
  }
  return { starts, links };
}

/**
 * Before: a checked loop whose vessels have boxes (`vesselsWithoutBox` is empty). After: independent of orientation.
 * @param cellMm the contract's 10 mm, unless something is only searched roughly
 */
export function buildNetwork(loop: LoopFile, cellMm: number = GEOMETRY.cellMm): GeometricNetwork {
  const build: Building = {
    x: [],
    y: [],
    z: [],
    volumeMl: [],
    part: [],
    vesselOf: [],
    wideTube: [],
    isPort: [],
    pairs: [],
    vessels: [],
    ports: new Map(),
    joints: new Map(),
  };
  const { parts } = loopVolume(loop);
  const find = partFinder(loop);
  loop.components.forEach((component, index) => addComponent(build, component, index));
  loop.tubes.forEach((tube, index) => {
    const part = loop.components.length + index;
    addTube(build, tubePolyline(loop, tube, find), tube, part, (parts[part] as { volumeMl: number }).volumeMl, cellMm);
  });
  const size = build.x.length;
  return {
    size,
    x: Float64Array.from(build.x),
    y: Float64Array.from(build.y),
    z: Float64Array.from(build.z),
    volumeMl: Float64Array.from(build.volumeMl),
    part: Int32Array.from(build.part),
    vesselOf: Int32Array.from(build.vesselOf),
    wideTube: Int32Array.from(build.wideTube),
    isPort: Uint8Array.from(build.isPort),
    ...neighbourLists(size, build.pairs),
    vessels: build.vessels,
    partIds: parts.map(({ id }) => id),
    ports: build.ports,
    joints: build.joints,
  };
}

/** mm between two nodes that have a place. */
export const nodeDistanceMm = ({ x, y, z }: GeometricNetwork, a: number, b: number): number =>
  Math.hypot((x[a] as number) - (x[b] as number), (y[a] as number) - (y[b] as number), (z[a] as number) - (z[b] as number));

/** Reservoirs and radiators whose inside is not described: heights in them cannot be told. */
export const vesselsWithoutBox = (loop: LoopFile): LoopComponent[] => loop.components.filter((part) => isVessel(part) && !part.box);
