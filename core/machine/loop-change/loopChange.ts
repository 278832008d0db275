import { groupBy } from '../../base/numerics/groupBy.js';
import { shortName, tubeName } from '../catalogue/names.js';
import { EXCHANGE, reachesAs } from '../exchange/exchange.js';
import { pieceMm, standsMm } from '../fit/bodies.js';
import { fitOf, type FitVerdict } from '../fit/verdict.js';
import { countFittings, unusedPorts, type FittingCount } from '../loop-file/fittings.js';
import {
  distanceMm,
  findComponent,
  partName,
  tubePolyline,
  tubesByHand,
  type Closure,
  type LoopComponent,
  type LoopFile,
  type LoopTube,
  type Point,
} from '../loop-file/loopFile.js';
import { findTubeMaterial } from '../materials/tubes.js';

/** From the loop that is inside a machine to the one that is wanted: what hands take out, put in, cut, undo and make. */

export interface ChangedPart {
  readonly id: string;
  readonly name: string;
  /** what it is fetched by: its make, where that is not its name */
  readonly label: string;
  readonly kind: string;
  /** where it is mounted, as the drawing names it; null: nobody said */
  readonly place: string | null;
  /** of a part that comes in: whether it goes where it is drawn; missing: nothing of it is asked */
  readonly fit?: FitVerdict;
}

/**
 * What becomes of a tube: `kept` as it is, `reseated` at an end that moves to another port or part, `cut` shorter (its own, or a piece of
 * one that comes out), `new` from stock, `out`.
 */
export type TubeFate = 'kept' | 'reseated' | 'cut' | 'new' | 'out';

export interface TubeChange {
  readonly id: string;
  readonly name: string;
  readonly fate: TubeFate;
  /** mm of the piece as it is wanted; null where it comes out or stays as it is */
  readonly lengthMm: number | null;
  /** the tube that it is cut from, where that is another one */
  readonly cutFrom: string | null;
  readonly material: string;
  readonly boreMm: number;
  readonly outerMm: number;
}

/** A port: what closed it comes out for a tube, or goes in where a tube was, or where a part comes in that has none there. */
export interface PortChange {
  readonly place: string;
  readonly name: string;
  readonly does: 'opens' | 'closes';
  readonly closure: Closure;
}

export interface LoopChange {
  readonly out: readonly ChangedPart[];
  readonly in: readonly ChangedPart[];
  /** the same part, mounted elsewhere or turned */
  readonly moved: readonly ChangedPart[];
  /** every tube that hands touch, those that stay as they are left out */
  readonly tubes: readonly TubeChange[];
  readonly ports: readonly PortChange[];
  /** how many more of each are needed; below zero: so many come out */
  readonly fittings: readonly FittingCount[];
  /** joints of the loop inside that are undone, "tube.from" or "tube.to" */
  readonly undone: readonly string[];
  /** tubes of the wanted loop with a joint that is made anew, and tested */
  readonly made: readonly string[];
}

/** mm by which a part may be drawn elsewhere and counts as not moved: drawings are no more exact */
const MOVED_MM = 5;

const partOf = (component: LoopComponent): ChangedPart => ({
  id: component.id,
  name: shortName(component),
  label: partName(component),
  kind: component.kind,
  place: component.place ?? null,
});

/** The very same part: kind, catalogue and ports. What a volume was learned to be is no other part. */
function isSamePart(one: LoopComponent, other: LoopComponent): boolean {
  const ports = ({ ports: own }: LoopComponent): string => Object.keys(own).sort().join(' ');
  return one.kind === other.kind && (one.catalogue ?? null) === (other.catalogue ?? null) && ports(one) === ports(other);
}

const isElsewhere = (one: LoopComponent, other: LoopComponent): boolean =>
  (one.place ?? null) !== (other.place ?? null) ||
  Object.entries(one.ports).some(([port, at]) => distanceMm(at, other.ports[port] as Point) > MOVED_MM);

const isSameStock = (one: LoopTube, other: LoopTube): boolean =>
  one.material === other.material && one.bore_mm === other.bore_mm && one.outer_mm === other.outer_mm;

const isSoft = ({ material }: LoopTube): boolean => findTubeMaterial(material)?.soft ?? true;

interface Met {
  readonly tube: LoopTube;
  readonly fate: TubeFate;
  readonly lengthMm: number | null;
  readonly cutFrom: string | null;
  /** ends that are undone in the loop inside, and made in the wanted one */
  readonly undone: readonly ('from' | 'to')[];
  readonly made: readonly ('from' | 'to')[];
}

const BOTH = ['from', 'to'] as const;

/** What becomes of one tube that both loops have. */
function metAgain(inside: LoopFile, wanted: LoopFile, old: LoopTube, tube: LoopTube, exchanged: ReadonlySet<string>): Met {
  const hasMm = pieceMm(inside, old);
  const line = tubePolyline(wanted, tube);
  // an end that meets another port, or another part at it
  const ends = BOTH.filter((end) => old[end].join('.') !== tube[end].join('.') || exchanged.has(tube[end][0]));
  const wayMm = pieceMm(wanted, tube);
  // a length that somebody wrote down is meant, however straight the drawing goes
  const straightMm = Math.max(distanceMm(line[0] as Point, line.at(-1) as Point) - standsMm(tube), tube.length_mm ?? 0);
  const { verdict, cutMm } = reachesAs({ hasMm, wayMm, straightMm, soft: isSoft(tube) });
  if (!isSameStock(old, tube) || verdict === 'new-piece' || verdict === 'too-short')
    return { tube, fate: 'new', lengthMm: cutFromStockMm(wayMm), cutFrom: null, undone: BOTH, made: BOTH };
  // only what is undone anyway can be cut at that end
  const touched = verdict === 'shorten' && ends.length === 0 ? (['to'] as const) : ends;
  const fate = verdict === 'shorten' ? 'cut' : ends.length > 0 ? 'reseated' : 'kept';
  return { tube, fate, lengthMm: cutMm === null ? null : Math.round(hasMm - cutMm), cutFrom: null, undone: touched, made: touched };
}

const cutFromStockMm = (lengthMm: number): number => Math.ceil(lengthMm + EXCHANGE.allowanceMm);

/** New pieces are cut from tubes that come out, where one is long enough: the longest piece first, from the shortest that does. */
function cutFromOut(inside: LoopFile, gone: readonly LoopTube[], fresh: readonly Met[]): Met[] {
  const spare = gone.filter(isSoft).map((tube) => ({ tube, lengthMm: pieceMm(inside, tube) }));
  return [...fresh]
    .sort((one, other) => (other.lengthMm ?? 0) - (one.lengthMm ?? 0))
    .map((met) => {
      const from = spare
        .filter(({ tube, lengthMm }) => isSameStock(tube, met.tube) && lengthMm >= (met.lengthMm ?? 0))
        .sort((one, other) => one.lengthMm - other.lengthMm)[0];
      if (!from) return met;
      spare.splice(spare.indexOf(from), 1);
      return { ...met, fate: 'cut', cutFrom: from.tube.id };
    });
}

const portChange = (part: LoopComponent, port: string, does: PortChange['does'], closures: LoopComponent['closures']): PortChange => ({
  place: `${part.id}.${port}`,
  name: `${shortName(part)} · ${port}`,
  does,
  closure: closures?.[port] ?? 'plug',
});

/** What a part that comes in wants in its ports without a tube: it comes out of its box open, or with caps for the way. */
const closuresOf = (wanted: LoopFile, part: LoopComponent): PortChange[] =>
  unusedPorts(wanted, part).map((port) => portChange(part, port, 'closes', part.closures));

function portChanges(inside: LoopFile, wanted: LoopFile, stays: readonly string[]): PortChange[] {
  return stays.flatMap((id) => {
    const [old, now] = [findComponent(inside, id), findComponent(wanted, id)] as [LoopComponent, LoopComponent];
    const [wasOpen, isOpen] = [new Set(unusedPorts(inside, old)), new Set(unusedPorts(wanted, now))];
    return Object.keys(now.ports).flatMap((port) => {
      if (wasOpen.has(port) === isOpen.has(port)) return [];
      return wasOpen.has(port) ? [portChange(now, port, 'opens', old.closures)] : [portChange(now, port, 'closes', now.closures)];
    });
  });
}

function fittingChanges(inside: LoopFile, wanted: LoopFile): FittingCount[] {
  const counts = [...countFittings(wanted), ...countFittings(inside).map(({ kind, count }) => ({ kind, count: -count }))];
  return [...groupBy(counts, ({ kind }) => kind)]
    .map(([kind, own]) => ({ kind, count: own.reduce((sum, { count }) => sum + count, 0) }))
    .filter(({ count }) => count !== 0)
    .sort((one, other) => other.count - one.count || one.kind.localeCompare(other.kind));
}

/** The work between two drawings of one loop. Parts and tubes are the same where they carry the same id and are of the same make. */
export function changeBetween(inside: LoopFile, wanted: LoopFile): LoopChange {
  const now = new Map(wanted.components.map((part) => [part.id, part]));
  const before = new Map(inside.components.map((part) => [part.id, part]));
  const exchanged = new Set(
    [...before].flatMap(([id, part]) => (now.has(id) && !isSamePart(part, now.get(id) as LoopComponent) ? [id] : [])),
  );
  const stays = [...before.keys()].filter((id) => now.has(id) && !exchanged.has(id));
  const arriving = wanted.components.filter(({ id }) => !before.has(id) || exchanged.has(id));
  const oldTubes = new Map(tubesByHand(inside).map((tube) => [tube.id, tube]));
  const newTubes = tubesByHand(wanted);
  const gone = [...oldTubes.values()].filter(({ id }) => !newTubes.some((tube) => tube.id === id));
  const met = newTubes.map((tube): Met => {
    const old = oldTubes.get(tube.id);
    return old
      ? metAgain(inside, wanted, old, tube, exchanged)
      : { tube, fate: 'new', lengthMm: cutFromStockMm(pieceMm(wanted, tube)), cutFrom: null, undone: [], made: BOTH };
  });
  // what is renewed under its own id comes out as well
  const renewed = met
    .filter(({ tube, fate }) => fate === 'new' && oldTubes.has(tube.id))
    .map(({ tube }) => oldTubes.get(tube.id) as LoopTube);
  const fresh = new Map(
    cutFromOut(inside, [...gone, ...renewed], met.filter(({ fate }) => fate === 'new')).map((each) => [each.tube.id, each]), // prettier-ignore
  );
  const all = met.map((each) => fresh.get(each.tube.id) ?? each);
  const changeOf = (
    loop: LoopFile,
    { tube, fate, lengthMm, cutFrom }: Pick<Met, 'tube' | 'fate' | 'lengthMm' | 'cutFrom'>,
  ): TubeChange => ({
    id: tube.id,
    name: tubeName(loop, tube),
    fate,
    lengthMm,
    cutFrom,
    material: tube.material,
    boreMm: tube.bore_mm,
    outerMm: tube.outer_mm,
  });
  return {
    out: inside.components.filter(({ id }) => !now.has(id) || exchanged.has(id)).map(partOf),
    in: arriving.map((part) => {
      const fit = fitOf(wanted, part);
      return fit ? { ...partOf(part), fit } : partOf(part);
    }),
    moved: stays.filter((id) => isElsewhere(before.get(id) as LoopComponent, now.get(id) as LoopComponent)).map((id) => partOf(now.get(id) as LoopComponent)), // prettier-ignore
    tubes: [
      ...gone.map((tube) => changeOf(inside, { tube, fate: 'out', lengthMm: null, cutFrom: null })),
      ...all.filter(({ fate }) => fate !== 'kept').map((each) => changeOf(wanted, each)),
    ],
    ports: [...portChanges(inside, wanted, stays), ...arriving.flatMap((part) => closuresOf(wanted, part))],
    fittings: fittingChanges(inside, wanted),
    undone: [
      ...gone.flatMap(({ id }) => BOTH.map((end) => `${id}.${end}`)),
      ...all.flatMap(({ tube, undone }) => undone.map((end) => `${tube.id}.${end}`)),
    ],
    made: all.filter(({ made }) => made.length > 0).map(({ tube }) => tube.id),
  };
}

/** Every joint and port of the loop inside that stands open before the first part is lifted. */
export const openedFor = ({ undone, ports }: Pick<LoopChange, 'undone' | 'ports'>): string[] => [
  ...undone,
  ...ports.filter(({ does }) => does === 'opens').map(({ place }) => place),
];

/** Whether anything that coolant meets changes: without that no joint is opened, and the drawing alone is put right. */
export const isWetChange = ({ out, in: into, undone, made, ports }: LoopChange): boolean =>
  out.length + into.length + undone.length + made.length + ports.length > 0;

/** Tubes whose liquid does not pass to the piece of the same name: those that come out, and those that are renewed under their id. */
export const tubesLeaving = ({ tubes, undone }: LoopChange): string[] =>
  tubes.filter(({ id, fate, cutFrom }) => fate === 'out' || ((fate === 'new' || cutFrom !== null) && undone.includes(`${id}.from`))).map(({ id }) => id); // prettier-ignore

/** Tube to have from stock, by what it is of: pieces in mm, the longest first. */
export interface TubeToHave {
  readonly material: string;
  readonly boreMm: number;
  readonly outerMm: number;
  readonly piecesMm: readonly number[];
}

export function tubeToHave({ tubes }: Pick<LoopChange, 'tubes'>): TubeToHave[] {
  const pieces = tubes.filter(({ fate }) => fate === 'new');
  return [...groupBy(pieces, ({ material, boreMm, outerMm }) => `${material} ${boreMm} ${outerMm}`).values()].map((own) => {
    const [{ material, boreMm, outerMm }] = own as [TubeChange];
    return { material, boreMm, outerMm, piecesMm: own.map(({ lengthMm }) => lengthMm ?? 0).sort((one, other) => other - one) };
  });
}
