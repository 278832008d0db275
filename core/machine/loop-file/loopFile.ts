import { readObject, UnreadableDocument } from '../../base/checking/stored.js';
/**
 * The loop file `lavacrum-loop` version 1: one closed coolant circuit with its geometry.
 * Millimetres, millilitres, kPa, L/h. Case frame: x to the front, y up, z towards the viewer's side panel.
 * Fields that are not named here are kept as they came, so that a file from elsewhere survives a round trip.
 */

export const LOOP_FORMAT = 'lavacrum-loop';
export const LOOP_VERSION = 1;

/** [x, y, z] in mm in the case frame. */
export type Point = readonly [number, number, number];
/** [component id, port name] */
export type PortRef = readonly [string, string];

export type Closure = 'plug' | 'cap' | 'valve';

export interface LoopComponent {
  id: string;
  /** `reservoir` `pump` `radiator` `block` `valve` `meter` `junction` `plugged-port`, or another word from a foreign file */
  kind: string;
  volume_ml: number;
  volume_sd_ml?: number;
  ports: Record<string, Point>;
  box?: { min: Point; max: Point };
  /** [inPort, outPort] in the intended direction; for a reservoir [return, outlet] */
  flow?: readonly [string, string];
  resistance?: { linear_kpa_per_lpm: number; quadratic_kpa_per_lpm2: number } | { points: readonly (readonly [number, number])[] };
  /** pump at full speed: [[L/h, kPa], …] in rising flow */
  curve?: readonly (readonly [number, number])[];
  speed?: number;
  materials?: readonly string[];
  /** ports that can be opened to the outside */
  closures?: Record<string, Closure>;
  max_fill_ml?: number;
  low_mark_ml?: number;
  /** additions of this product, free under the contract */
  label?: string;
  catalogue?: string;
  place?: string;
  /** kPa; from the part's sheet */
  pressure_rating_kpa?: number;
  /** nobody can set this pump's speed */
  speed_fixed?: boolean;
  /** ports that no hand gets at in the built machine, whatever closes them */
  out_of_reach?: readonly string[];
  /** stands of the case in which a pump may run, as `orientation` names them */
  may_stand?: readonly string[];
  /** in one piece with the components that carry the same word */
  unit?: string;
  /** tube each port's fitting takes */
  port_fits?: Record<string, { bore_mm: number; outer_mm: number; soft?: boolean }>;
  /** what its sheet asks of the machine, and what was read off the machine itself */
  fit?: FitSheet;
  learned?: LearnedFrom;
  [unknownField: string]: unknown;
}

/** A card or a board by what stands on it. No revision on a list: every one of that model. */
export interface NamedModel {
  model: string;
  revision?: string;
}

/** What decides before it is bought whether a part goes where it shall. */
export interface FitSheet {
  /** cards, boards or sockets that a block's own list names */
  listed?: readonly NamedModel[];
  /** what it sits on here, as it was read off */
  sits_on?: NamedModel;
  /** of a card with its block on */
  slots?: number;
  length_mm?: number;
  height_mm?: number;
  power_leads?: number;
  /** thread of each port; missing: G 1/4 */
  threads?: Record<string, string>;
  /** holes that its foot wants in a wall: [x, y, diameter] in mm from one corner */
  holes_mm?: readonly Point[];
}

/** What a part was thought to hold before the loop's own fills, and how many of those there were. */
export interface LearnedFrom {
  prior_ml: number;
  prior_sd_ml: number;
  fills: number;
}

export interface LoopTube {
  id: string;
  from: PortRef;
  to: PortRef;
  bore_mm: number;
  outer_mm: number;
  material: string;
  /** inner bends only */
  path?: readonly Point[];
  /** default: the path's length between the two ports */
  length_mm?: number;
  /** a channel within one piece, such as from a reservoir into the pump under it: nothing is cut, joined or looked at */
  inside?: boolean;
  fittings?: readonly string[];
  /** what sits between port and tube at each end, from the port on: key of a body (`fit/bodies`) */
  bodies?: { from?: readonly string[]; to?: readonly string[] };
  [unknownField: string]: unknown;
}

/** Room in a case as it was measured; mm. What is missing was not measured. */
export interface RoomInFile {
  /** by place: the longest radiator, its width, and its depth with fans and what the screws stand out */
  radiators?: Record<string, { length_mm: number; width_mm: number; depth_mm: number }>;
  /** for a card with its block on */
  card?: { slots: number; length_mm: number; height_mm: number };
  /** leads of the supply that end in a card's socket */
  power_leads?: number;
}

/** A case as a loop file carries it, so that the file can be drawn without the workshop it came from. */
export interface CaseInFile {
  name: string;
  depth_mm: number;
  height_mm: number;
  width_mm: number;
  /** where parts of a place are mounted */
  mounts?: Record<string, Point>;
  room?: RoomInFile;
}

export interface LoopFile {
  format: typeof LOOP_FORMAT;
  version: typeof LOOP_VERSION;
  name?: string;
  /** the case it is drawn in: key of a general outline, or the outline itself */
  case?: string | CaseInFile;
  /** z of the side panel's inside: nothing may stand beyond it */
  panel_z_mm?: number;
  components: LoopComponent[];
  tubes: LoopTube[];
  [unknownField: string]: unknown;
}

/**
 * A loop file that was checked when it came in, as it is kept. Unknown fields stay: they go out as they came.
 * @throws UnreadableDocument for what a newer program wrote, or no loop at all
 */
export function readStoredLoop(raw: unknown): LoopFile {
  const file = readObject<LoopFile>('a loop file')(raw);
  if (file.format !== LOOP_FORMAT || !Array.isArray(file.components) || !Array.isArray(file.tubes))
    throw new UnreadableDocument('a loop file is stored as something else');
  if (file.version > LOOP_VERSION)
    throw new UnreadableDocument(
      `a loop file of version ${String(file.version)} was made by a newer program; this one reads up to ${LOOP_VERSION}`,
    );
  return file;
}

export const distanceMm = (a: Point, b: Point): number => Math.hypot(a[0] - b[0], a[1] - b[1], a[2] - b[2]);

/** Tubes that hands cut, join and look at. */
export const tubesByHand = ({ tubes }: Pick<LoopFile, 'tubes'>): LoopTube[] => tubes.filter(({ inside }) => inside !== true);

export function findComponent(loop: LoopFile, id: string): LoopComponent | undefined {
  return loop.components.find((component) => component.id === id);
}

/** Finds a component by its id; give one made by `partFinder` where many are looked up. */
export type PartFinder = (id: string) => LoopComponent | undefined;

/** A finder that takes the same time however large the loop. Before: the loop is not changed while it is used. */
export function partFinder(loop: LoopFile): PartFinder {
  const parts = new Map(loop.components.map((component) => [component.id, component]));
  return (id) => parts.get(id);
}

export function portPosition(loop: LoopFile, [id, port]: PortRef, find: PartFinder = (wanted) => findComponent(loop, wanted)): Point {
  const position = find(id)?.ports[port];
  if (!position) throw new Error(`no port ${id}.${port}: the loop was not checked`);
  return position;
}

/** A tube's polyline from end to end, port positions included. */
export function tubePolyline(loop: LoopFile, tube: LoopTube, find?: PartFinder): Point[] {
  return [portPosition(loop, tube.from, find), ...(tube.path ?? []), portPosition(loop, tube.to, find)];
}

/** mm along a polyline. */
export const pathLengthMm = (line: readonly Point[]): number =>
  line.slice(1).reduce((sum, point, index) => sum + distanceMm(line[index] as Point, point), 0);

/** mm along the path unless the file states a measured length. */
export function tubeLengthMm(loop: LoopFile, tube: LoopTube, find?: PartFinder): number {
  return tube.length_mm ?? pathLengthMm(tubePolyline(loop, tube, find));
}

/** What a person calls the part: its label, or its id. */
export const partName = (component: LoopComponent): string => component.label ?? component.id;
