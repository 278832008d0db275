import {
  distanceMm,
  LOOP_FORMAT,
  LOOP_VERSION,
  portPosition,
  type LoopComponent,
  type LoopFile,
  type LoopTube,
  type PortRef,
} from '../loop-file/loopFile.js';
import {
  placeBlock,
  placeDrain,
  placeInline,
  placePump,
  placeRadiator,
  placeReservoir,
  placeSplitter,
  type Geometry,
  type Place,
} from './places.js';

/**
 * Generic parts with general engineering estimates, not any maker's data.
 * Volumes carry a standard deviation of about 20 % unless stated; the workshop's own fills will narrow them.
 */
export interface CataloguePart {
  readonly key: string;
  readonly group: 'reservoirs' | 'pumps' | 'radiators' | 'blocks' | 'inline';
  readonly label: string;
  readonly kind: LoopComponent['kind'];
  readonly volumeMl: number;
  readonly places: readonly Place[];
  readonly place: (place: Place) => Geometry;
  /** missing: it leads either way */
  readonly flow?: readonly [string, string];
  readonly fixed: Partial<LoopComponent>;
}

/** kPa at 1 US gal/min (227 L/h = 3.785 L/min), nearly quadratic: Δp = b·Q². General estimates. */
const quadratic = (kpaAtReference: number): Partial<LoopComponent> => ({
  resistance: { linear_kpa_per_lpm: 0, quadratic_kpa_per_lpm2: Number((kpaAtReference / 3.785 ** 2).toFixed(3)) },
});

/** `fans`: the length of its face that they cover, mm: by threes of 120 or twos of 140 */
function radiator(fans: string, lengthMm: number, thicknessMm: number, volumeMl: number, places: Place[]): CataloguePart {
  const widthMm = Number(fans) % 140 === 0 ? 140 : 120;
  return {
    key: `radiator-${fans}-${thicknessMm}`,
    group: 'radiators',
    kind: 'radiator',
    label: `${fans} × ${thicknessMm} radiator, copper`,
    volumeMl,
    places,
    place: (place) => placeRadiator(place, lengthMm, thicknessMm, widthMm),
    flow: ['a', 'b'],
    fixed: { ...quadratic((4 * lengthMm) / 397), materials: ['copper', 'brass'], closures: { vent: 'plug' } },
  };
}

/** Fill mark at 88 % of the inside, low mark at 30 %: above the outlet by the height of a vortex at full pump speed. */
const FILL_SHARE = 0.88;
const LOW_SHARE = 0.3;

function reservoir(volumeMl: number, heightMm: number, widthMm: number): CataloguePart {
  return {
    key: `reservoir-${volumeMl}`,
    group: 'reservoirs',
    kind: 'reservoir',
    label: `${volumeMl} mL reservoir, acrylic`,
    volumeMl,
    places: ['tray', 'front', 'floor'],
    place: (place) => placeReservoir(place, heightMm, widthMm),
    flow: ['return', 'out'],
    fixed: {
      // the inside of a plain cylinder is known better than that of a radiator
      volume_sd_ml: Math.round(volumeMl * 0.06),
      max_fill_ml: Math.round(volumeMl * FILL_SHARE),
      low_mark_ml: Math.round(volumeMl * LOW_SHARE),
      materials: ['acrylic', 'brass'],
      closures: { fill: 'cap' },
    },
  };
}

function block(key: string, label: string, volumeMl: number, kpa: number, places: Place[], pitchMm = 30): CataloguePart {
  return {
    key,
    group: 'blocks',
    kind: 'block',
    label,
    volumeMl,
    places,
    place: (place) => placeBlock(place, pitchMm),
    flow: ['in', 'out'],
    fixed: { ...quadratic(kpa), materials: ['copper', 'nickel'] },
  };
}

function pump(key: string, label: string, volumeMl: number, curve: LoopComponent['curve']): CataloguePart {
  return {
    key,
    group: 'pumps',
    kind: 'pump',
    label,
    volumeMl,
    places: ['tray', 'floor', 'front'],
    place: placePump,
    flow: ['in', 'out'],
    fixed: { ...(curve ? { curve } : {}), speed: 1, materials: ['acetal', 'stainless'] },
  };
}

/** Something that sits in a line beside the board. */
function inline(key: string, label: string, kind: string, volumeMl: number, kpa: number, materials: string[]): CataloguePart {
  return {
    key,
    group: 'inline',
    kind,
    label,
    volumeMl,
    places: ['tray'],
    place: placeInline,
    flow: ['in', 'out'],
    fixed: { ...quadratic(kpa), materials },
  };
}

/** Where one tube becomes two or three, or they become one again: no direction of its own. */
function splitter(branches: 2 | 3): CataloguePart {
  return {
    key: `splitter-${branches}`,
    group: 'inline',
    kind: 'junction',
    label: `splitter, one to ${branches === 2 ? 'two' : 'three'}`,
    volumeMl: branches === 2 ? 6 : 9,
    places: ['tray'],
    place: () => placeSplitter(branches),
    fixed: { materials: ['brass', 'nickel'] },
  };
}
export const SPLITTERS = { 2: splitter(2), 3: splitter(3) } as const;

export const CATALOGUE: readonly CataloguePart[] = [
  reservoir(120, 90, 45),
  reservoir(200, 140, 48),
  reservoir(260, 170, 50),
  reservoir(400, 230, 54),
  pump('pump-large', 'centrifugal pump, large', 25, [
    [0, 40],
    [500, 33],
    [1000, 19],
    [1500, 0],
  ]),
  pump('pump-compact', 'centrifugal pump, compact', 25, [
    [0, 50],
    [400, 37],
    [700, 22],
    [1000, 0],
  ]),
  pump('pump-top', 'pump body under a reservoir', 30, [
    [0, 40],
    [500, 33],
    [1000, 19],
    [1500, 0],
  ]),
  radiator('120', 157, 30, 60, ['rear', 'floor', 'front', 'roof']),
  radiator('240', 277, 30, 120, ['roof', 'front', 'floor', 'window-side', 'blind-side']),
  radiator('360', 397, 30, 180, ['roof', 'front', 'floor', 'window-side', 'blind-side']),
  radiator('360', 397, 45, 290, ['roof', 'front', 'floor', 'window-side', 'blind-side']),
  radiator('360', 397, 60, 420, ['roof', 'front', 'floor', 'window-side', 'blind-side']),
  radiator('480', 517, 60, 560, ['roof', 'front', 'floor']),
  // for fans of 140 mm: wider, with more in their channels
  radiator('140', 177, 30, 75, ['rear', 'floor', 'front', 'roof']),
  radiator('280', 317, 30, 150, ['roof', 'front', 'floor', 'window-side', 'blind-side']),
  radiator('280', 317, 45, 240, ['roof', 'front', 'floor', 'window-side', 'blind-side']),
  radiator('420', 457, 30, 220, ['roof', 'front', 'floor', 'window-side', 'blind-side']),
  radiator('420', 457, 45, 350, ['roof', 'front', 'floor', 'window-side', 'blind-side']),
  block('block-processor', 'processor block', 20, 15, ['board']),
  block('block-graphics', 'graphics card block', 60, 8, ['card']),
  block('block-memory', 'memory block', 15, 6, ['board', 'tray']),
  block('block-storage', 'storage block', 10, 4, ['tray', 'floor']),
  block('block-regulator', 'voltage regulator block', 15, 6, ['board']),
  {
    key: 'tee-drain',
    group: 'inline',
    kind: 'junction',
    label: 'tee with drain valve',
    volumeMl: 6,
    places: ['floor'],
    place: placeDrain,
    flow: ['in', 'out'],
    fixed: { materials: ['brass', 'nickel'], closures: { drain: 'valve' } },
  },
  inline('filter', 'filter with a mesh', 'filter', 12, 4, ['acetal', 'stainless']),
  // opened, both halves close by themselves: a few drops, and no drain
  inline('quick-coupling', 'quick coupling, pair', 'coupling', 6, 5, ['brass', 'nickel', 'epdm']),
  inline('terminal', 'terminal between two ports', 'terminal', 10, 1, ['acetal', 'brass']),
  inline('flow-meter', 'flow meter', 'meter', 8, 3, ['acetal', 'stainless']),
];

export function findCataloguePart(key: string): CataloguePart | undefined {
  return CATALOGUE.find((part) => part.key === key);
}

/** A component as the loop file holds it. `id` must be fresh in its loop. */
export function makeComponent(part: CataloguePart, place: Place, id: string): LoopComponent {
  const geometry = part.place(place);
  return {
    id,
    kind: part.kind,
    label: part.label,
    catalogue: part.key,
    place,
    volume_ml: part.volumeMl,
    ...part.fixed,
    ports: geometry.ports,
    ...(geometry.box ? { box: geometry.box } : {}),
    ...(part.flow ? { flow: part.flow } : {}),
  };
}

/** Tubes by bore and outer diameter. `rigid` decides fittings and durations. */
export interface TubeKind {
  readonly key: string;
  readonly label: string;
  readonly boreMm: number;
  readonly outerMm: number;
  readonly material: string;
  readonly rigid: boolean;
}

export const TUBE_KINDS: readonly TubeKind[] = [
  { key: 'epdm-10-16', label: 'soft rubber, bore 10, outer 16', boreMm: 10, outerMm: 16, material: 'epdm', rigid: false },
  { key: 'epdm-13-19', label: 'soft rubber, bore 13, outer 19', boreMm: 13, outerMm: 19, material: 'epdm', rigid: false },
  { key: 'pvc-10-13', label: 'soft clear PVC, bore 10, outer 13', boreMm: 10, outerMm: 13, material: 'pvc', rigid: false },
  { key: 'pvc-10-16', label: 'soft clear PVC, bore 10, outer 16', boreMm: 10, outerMm: 16, material: 'pvc', rigid: false },
  { key: 'petg-8-12', label: 'rigid PETG, bore 8, outer 12', boreMm: 8, outerMm: 12, material: 'petg', rigid: true },
  { key: 'petg-10-14', label: 'rigid PETG, bore 10, outer 14', boreMm: 10, outerMm: 14, material: 'petg', rigid: true },
  { key: 'acrylic-8-12', label: 'rigid acrylic, bore 8, outer 12', boreMm: 8, outerMm: 12, material: 'acrylic', rigid: true },
  { key: 'acrylic-12-16', label: 'rigid acrylic, bore 12, outer 16', boreMm: 12, outerMm: 16, material: 'acrylic', rigid: true },
  { key: 'glass-9-12', label: 'glass, bore 9, outer 12', boreMm: 9, outerMm: 12, material: 'glass', rigid: true },
  { key: 'glass-12-16', label: 'glass, bore 12, outer 16', boreMm: 12, outerMm: 16, material: 'glass', rigid: true },
  { key: 'metal-12-14', label: 'metal, bore 12, outer 14', boreMm: 12, outerMm: 14, material: 'metal', rigid: true },
];

export function tubeKindOf(tube: Pick<LoopTube, 'bore_mm' | 'outer_mm' | 'material'>): TubeKind | undefined {
  return TUBE_KINDS.find((kind) => kind.boreMm === tube.bore_mm && kind.outerMm === tube.outer_mm && kind.material === tube.material);
}

/** A tube is longer than the straight line between its ports: it bends, and its ends sit in fittings. */
const RUN_SLACK = { factor: 1.25, extraMm: 30, roundMm: 5, leastMm: 10 } as const;

/** Estimated cut length in mm between two ports, rounded to 5 mm. */
export function suggestLengthMm(components: LoopComponent[], from: PortRef, to: PortRef): number {
  const loop: LoopFile = { format: LOOP_FORMAT, version: LOOP_VERSION, name: '', components, tubes: [] };
  const straight = distanceMm(portPosition(loop, from), portPosition(loop, to));
  if (straight < 2 * RUN_SLACK.leastMm) return RUN_SLACK.leastMm;
  return Math.round((straight * RUN_SLACK.factor + RUN_SLACK.extraMm) / RUN_SLACK.roundMm) * RUN_SLACK.roundMm;
}
