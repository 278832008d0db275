import { tubeName, shortName } from '../../machine/catalogue/names.js';
import { flowOrder } from '../../machine/loop-file/chain.js';
import {
  partName,
  tubeLengthMm,
  tubePolyline,
  type LoopComponent,
  type LoopFile,
  type LoopTube,
} from '../../machine/loop-file/loopFile.js';

/**
 * The loop unrolled along its flow path. `x` runs the way the coolant goes, in drawing units; `y` is the true height
 * in mm in the upright case. A vessel's drawn area is proportional to its volume.
 */
export interface ProfilePart {
  readonly shape: 'vessel' | 'part';
  readonly id: string;
  readonly kind: string;
  readonly name: string;
  /** for a label in the drawing: what somebody named it, else its id in words */
  readonly shortName: string;
  readonly x0: number;
  readonly x1: number;
  readonly bottomMm: number;
  readonly topMm: number;
  readonly volumeMl: number;
  /** ports that can be opened, with their heights */
  readonly handles: readonly { readonly port: string; readonly closure: string; readonly yMm: number }[];
}

export interface ProfileRun {
  readonly shape: 'run';
  readonly id: string;
  readonly name: string;
  readonly boreMm: number;
  readonly points: readonly { readonly x: number; readonly yMm: number }[];
}

export type ProfileItem = ProfilePart | ProfileRun;

export interface LoopProfile {
  readonly items: readonly ProfileItem[];
  readonly width: number;
  readonly lowMm: number;
  readonly highMm: number;
  /** names of parts that are not on the unrolled path */
  readonly notShown: readonly string[];
}

/** Drawing units: a vessel is `unitsPerMl · V/h` wide, a run advances by `unitsPerMm` of its length. */
const SCALE = { unitsPerMlPerMm: 22, unitsPerMm: 0.3, leastWidth: 26, leastRun: 10, partHalfMm: 14 } as const;

function layPart(component: LoopComponent, x: number): ProfilePart {
  const flowHeights = (component.flow ?? Object.keys(component.ports)).map((port) => component.ports[port]?.[1] ?? 0);
  const middle = flowHeights.reduce((sum, y) => sum + y, 0) / Math.max(1, flowHeights.length);
  const isVessel = (component.kind === 'reservoir' || component.kind === 'radiator') && component.box !== undefined;
  const bottomMm = isVessel ? (component.box?.min[1] ?? 0) : middle - SCALE.partHalfMm;
  const topMm = isVessel ? (component.box?.max[1] ?? 0) : middle + SCALE.partHalfMm;
  const width = isVessel
    ? Math.max(SCALE.leastWidth, (SCALE.unitsPerMlPerMm * component.volume_ml) / Math.max(1, topMm - bottomMm))
    : SCALE.leastWidth;
  const handles = Object.entries(component.closures ?? {}).map(([port, closure]) => ({
    port,
    closure,
    yMm: component.ports[port]?.[1] ?? 0,
  }));
  return {
    shape: isVessel ? 'vessel' : 'part',
    id: component.id,
    kind: component.kind,
    name: partName(component),
    shortName: shortName(component),
    x0: x,
    x1: x + width,
    bottomMm,
    topMm,
    volumeMl: component.volume_ml,
    handles,
  };
}

function layRun(loop: LoopFile, tube: LoopTube, x: number): ProfileRun {
  const line = tubePolyline(loop, tube);
  const along = line.map((point, index) =>
    index === 0 ? 0 : Math.hypot(...point.map((value, axis) => value - ((line[index - 1] as typeof point)[axis] as number))),
  );
  const total = along.reduce((sum, step) => sum + step, 0);
  const advance = Math.max(SCALE.leastRun, SCALE.unitsPerMm * tubeLengthMm(loop, tube));
  let walked = 0;
  const points = line.map(([, yMm], index) => {
    walked += along[index] as number;
    return { x: x + (total > 0 ? (walked / total) * advance : (index / (line.length - 1)) * advance), yMm };
  });
  return { shape: 'run', id: tube.id, name: tubeName(loop, tube), boreMm: tube.bore_mm, points };
}

/** Lays out what `flowOrder` walks. The last run leads back to the first part and is drawn to the right edge. */
export function unrollLoop(loop: LoopFile): LoopProfile {
  const { links, offPath } = flowOrder(loop);
  const items: ProfileItem[] = [];
  let x = 0;
  for (const { component, tube } of links) {
    const part = layPart(component, x);
    items.push(part);
    x = part.x1;
    if (!tube) continue;
    const run = layRun(loop, tube, x);
    items.push(run);
    x = run.points.at(-1)?.x ?? x;
  }
  const heights = items.flatMap((item) => (item.shape === 'run' ? item.points.map(({ yMm }) => yMm) : [item.bottomMm, item.topMm]));
  return {
    items,
    width: x,
    lowMm: Math.min(0, ...heights),
    highMm: Math.max(100, ...heights),
    notShown: offPath.components.map(partName),
  };
}
