import { findCataloguePart } from '../catalogue/parts.js';
import type { Place } from '../catalogue/places.js';
import { ofOnePiece } from '../catalogue/units.js';
import { caseOf } from '../drawing/cases.js';
import { edgesMm } from '../loop-file/boxes.js';
import { distanceMm, type FitSheet, type LoopComponent, type LoopFile, type LoopTube, type NamedModel, type Point } from '../loop-file/loopFile.js'; // prettier-ignore
import { collarMm, type TubeEnd } from './bodies.js';

/**
 * Whether a part goes where it shall, before anybody orders it: from what its sheet says, from what was measured in the case, and from what
 * was read off the card or board itself. What nobody measured is "not known", never "fits".
 */
export const FIT = {
  /** mm; a usual fan and the screw heads before it, where nobody said how deep the stack is (workshop practice) */
  fanStackMm: 27,
  /** mm by which two drawn things may stand in one another: drawings are no more exact */
  drawnMm: 3,
  /** mm between two collars for a hand to turn one of them */
  fingerMm: 1,
  /** thread of a port of which nobody says another (ISO 228-1) */
  usualThread: 'G 1/4',
} as const;

export type FitReason =
  | { readonly code: 'longer' | 'wider' | 'deeper' | 'card-longer' | 'card-higher'; readonly needMm: number; readonly haveMm: number }
  | { readonly code: 'slots' | 'power-leads'; readonly need: number; readonly have: number }
  | { readonly code: 'other-model' | 'other-revision'; readonly model: string }
  | { readonly code: 'overlaps' | 'meets-fans'; readonly part: string }
  | { readonly code: 'beyond-panel'; readonly mm: number }
  | { readonly code: 'collars-touch'; readonly ports: readonly [string, string]; readonly apartMm: number; readonly needMm: number }
  | { readonly code: 'other-thread'; readonly port: string; readonly thread: string }
  | { readonly code: 'size-not-known' | 'room-not-measured' | 'not-read' | 'revision-not-read' | 'no-list' | 'card-room-not-measured' };

export type FitState = 'fits' | 'does-not' | 'not-known';
export interface FitVerdict {
  readonly state: FitState;
  readonly reasons: readonly FitReason[];
}

/**
 * What a reason weighs: against it; to be looked at, since it rests on a general size that the part in hand may not have; not measured or
 * read yet; only to be known.
 */
export type FitWeight = 'against' | 'look' | 'open' | 'note';
const weighs: Readonly<Record<FitReason['code'], FitWeight>> = {
  longer: 'against',
  wider: 'against',
  deeper: 'against',
  'card-longer': 'against',
  'card-higher': 'against',
  slots: 'against',
  'power-leads': 'against',
  'other-model': 'against',
  'other-revision': 'against',
  overlaps: 'against',
  'beyond-panel': 'against',
  'meets-fans': 'look',
  'collars-touch': 'look',
  'size-not-known': 'open',
  'room-not-measured': 'open',
  'not-read': 'open',
  'revision-not-read': 'open',
  'no-list': 'open',
  'card-room-not-measured': 'open',
  'other-thread': 'note',
};
export const weightOf = ({ code }: FitReason): FitWeight => weighs[code];

export function verdictOf(reasons: readonly FitReason[]): FitVerdict {
  const weights = new Set(reasons.map(weightOf));
  const state = weights.has('against') ? 'does-not' : weights.has('look') || weights.has('open') ? 'not-known' : 'fits';
  return { state, reasons };
}

/** A radiator of these edges with its fans against the room that was measured at a place. */
export function againstRoom(
  edges: readonly [long: number, middle: number, short: number] | null,
  place: string | undefined,
  loop: Pick<LoopFile, 'case'>,
): FitReason[] {
  const { room, depthMm, heightMm } = caseOf(loop);
  if (!edges) return [{ code: 'size-not-known' }];
  const [long, middle, short] = edges;
  const has = place !== undefined && Object.hasOwn(room?.radiators ?? {}, place) ? room?.radiators?.[place] : undefined;
  if (!has) {
    // what is longer than the case itself needs no measuring; where no case was named, or no place, nobody can tell
    const wayMm = place === 'roof' || place === 'floor' ? depthMm : heightMm;
    return place !== undefined && loop.case !== undefined && long > wayMm
      ? [{ code: 'longer', needMm: long, haveMm: wayMm }]
      : [{ code: 'room-not-measured' }];
  }
  const more = (code: 'longer' | 'wider' | 'deeper', needMm: number, haveMm: number): FitReason[] =>
    needMm > haveMm ? [{ code, needMm, haveMm }] : [];
  return [
    ...more('longer', long, has.length_mm),
    ...more('wider', middle, has.width_mm),
    ...more('deeper', short + FIT.fanStackMm, has.depth_mm),
  ];
}

/** Told alike whatever its letters' size and spaces: "Rev. B" and "rev b" are one. */
const plain = (word: string): string =>
  word
    .toLowerCase()
    .replaceAll(/[\s.,_-]+/g, ' ')
    .trim();

/** What a block's list says of the card or board that is there. */
function onList(listed: readonly NamedModel[] | undefined, there: NamedModel | undefined): FitReason[] {
  if (!listed || listed.length === 0) return [{ code: 'no-list' }];
  if (!there) return [{ code: 'not-read' }];
  const own = listed.filter(({ model }) => plain(model) === plain(there.model));
  if (own.length === 0) return [{ code: 'other-model', model: there.model }];
  if (own.some(({ revision }) => revision === undefined)) return [];
  if (there.revision === undefined) return [{ code: 'revision-not-read' }];
  const wanted = plain(there.revision);
  return own.some(({ revision }) => plain(revision ?? '') === wanted)
    ? []
    : [{ code: 'other-revision', model: `${there.model} ${there.revision}` }];
}

/** A card with its block on, against slots, length, height and leads of the case. */
function cardInCase(fit: FitSheet, loop: Pick<LoopFile, 'case'>): FitReason[] {
  const { card, power_leads: leads } = caseOf(loop).room ?? {};
  const asks = fit.slots !== undefined || fit.length_mm !== undefined || fit.height_mm !== undefined;
  const mm = (code: 'card-longer' | 'card-higher', needMm: number | undefined, haveMm: number): FitReason[] =>
    needMm !== undefined && needMm > haveMm ? [{ code, needMm, haveMm }] : [];
  return [
    ...(asks && !card ? [{ code: 'card-room-not-measured' } as const] : []),
    ...(card && fit.slots !== undefined && fit.slots > card.slots ? [{ code: 'slots', need: fit.slots, have: card.slots } as const] : []),
    ...(card ? [...mm('card-longer', fit.length_mm, card.length_mm), ...mm('card-higher', fit.height_mm, card.height_mm)] : []),
    ...(fit.power_leads !== undefined && leads !== undefined && fit.power_leads > leads
      ? [{ code: 'power-leads', need: fit.power_leads, have: leads } as const]
      : []),
  ];
}

interface Box {
  readonly min: Point;
  readonly max: Point;
}
const AXES = [0, 1, 2] as const;
const meet = (one: Box, other: Box): boolean =>
  AXES.every((axis) => one.min[axis] < other.max[axis] - FIT.drawnMm && other.min[axis] < one.max[axis] - FIT.drawnMm);

/** Towards the inside of the case, by where a radiator is mounted: axis and sign. Elsewhere nobody knows on which side its fans stand. */
const INWARDS: Readonly<Partial<Record<Place, readonly [axis: 0 | 1 | 2, sign: 1 | -1]>>> = {
  roof: [1, -1],
  floor: [1, 1],
  front: [0, -1],
  rear: [0, 1],
  'window-side': [2, -1],
  'blind-side': [2, 1],
};

/** Where the fans of a radiator stand, as far as its place tells. */
function fansOf({ kind, box, place }: LoopComponent): Box | null {
  const way = kind === 'radiator' && box ? INWARDS[place as Place] : undefined;
  if (!way || !box) return null;
  const [axis, sign] = way;
  const [min, max] = [[...box.min], [...box.max]] as [[number, number, number], [number, number, number]];
  if (sign > 0) [min[axis], max[axis]] = [box.max[axis], box.max[axis] + FIT.fanStackMm];
  else [min[axis], max[axis]] = [box.min[axis] - FIT.fanStackMm, box.min[axis]];
  return { min, max };
}

const corner = (part: LoopComponent): Point => part.box?.min ?? (Object.values(part.ports)[0] as Point);

/** Where a part stands was drawn by somebody, not only laid into its usual place: only that can stand in another's way. */
function isDrawn(part: LoopComponent): boolean {
  const usual = findCataloguePart(part.catalogue ?? '');
  if (!usual || !usual.places.some((place) => place === part.place)) return true;
  const { ports, box } = usual.place(part.place as Place);
  return distanceMm(corner({ ...part, ports, ...(box ? { box } : {}) }), corner(part)) > FIT.drawnMm;
}

/** Its ports lie as the general part of the catalogue has them, which is nobody's measure. */
function isUsualShape(part: LoopComponent): boolean {
  const usual = findCataloguePart(part.catalogue ?? '');
  if (!usual || !usual.places.some((place) => place === part.place)) return false;
  const there = usual.place(part.place as Place).ports;
  const names = Object.keys(part.ports);
  const [first] = names;
  if (first === undefined || names.some((name) => !Object.hasOwn(there, name))) return false;
  return names.every((name) =>
    AXES.every((axis) => {
      const own = (part.ports[name] as Point)[axis] - (part.ports[first] as Point)[axis];
      return Math.abs(own - ((there[name] as Point)[axis] - (there[first] as Point)[axis])) <= FIT.drawnMm;
    }),
  );
}

function inTheWay(loop: LoopFile, part: LoopComponent): FitReason[] {
  const { box } = part;
  if (!box) return [];
  const own = new Set(ofOnePiece(loop, part.id));
  const drawn = isDrawn(part);
  const fans = fansOf(part);
  return loop.components
    .filter((other) => other.box && !own.has(other.id) && (drawn || isDrawn(other)))
    .flatMap((other): FitReason[] => {
      const theirs = other.box as Box;
      if (meet(box, theirs)) return [{ code: 'overlaps', part: other.id }];
      const otherFans = fansOf(other);
      const touched = (fans && meet(fans, theirs)) || (otherFans && meet(box, otherFans)) || (fans && otherFans && meet(fans, otherFans));
      return touched ? [{ code: 'meets-fans', part: other.id }] : [];
    });
}

const beyondPanel = ({ panel_z_mm: panel }: LoopFile, { box }: LoopComponent): FitReason[] =>
  panel !== undefined && box && box.max[2] > panel ? [{ code: 'beyond-panel', mm: Math.round(box.max[2] - panel) }] : [];

/** Whether two ports of a part look the same way: a block's do, a vessel's where they lie in one face; those of a tee look apart. */
function lookAlike({ kind, box, ports }: LoopComponent, one: string, other: string): boolean {
  if (kind === 'block') return true;
  const [a, b] = [ports[one] as Point, ports[other] as Point];
  return box !== undefined && AXES.some((axis) => [box.min[axis], box.max[axis]].some((face) => Math.abs(a[axis] - face) <= FIT.drawnMm && Math.abs(b[axis] - face) <= FIT.drawnMm)); // prettier-ignore
}

/** Fittings whose collars meet: ports side by side that lie closer than what is screwed into them is wide. */
function collars(loop: LoopFile, part: LoopComponent): FitReason[] {
  if (isUsualShape(part)) return [];
  const ends = loop.tubes.flatMap((tube: LoopTube) =>
    (['from', 'to'] as const satisfies readonly TubeEnd[]).flatMap((end) =>
      tube[end][0] === part.id && tube.inside !== true ? [{ port: tube[end][1], wide: collarMm(tube, end) }] : [],
    ),
  );
  return ends.flatMap((one, index) =>
    ends.slice(index + 1).flatMap((other): FitReason[] => {
      const apartMm = distanceMm(part.ports[one.port] as Point, part.ports[other.port] as Point);
      const needMm = (one.wide + other.wide) / 2 + FIT.fingerMm;
      return apartMm > 0 && apartMm < needMm && lookAlike(part, one.port, other.port)
        ? [{ code: 'collars-touch', ports: [one.port, other.port], apartMm: Math.round(apartMm), needMm: Math.ceil(needMm) }]
        : [];
    }),
  );
}

const threads = ({ fit }: LoopComponent): FitReason[] =>
  Object.entries(fit?.threads ?? {})
    .filter(([, thread]) => plain(thread).replaceAll(' ', '') !== plain(FIT.usualThread).replaceAll(' ', ''))
    .map(([port, thread]) => ({ code: 'other-thread', port, thread }));

/** Whether a part goes into this drawing. null: nothing of it asks for room or a list, such as a meter in a line. */
export function fitOf(loop: LoopFile, part: LoopComponent): FitVerdict | null {
  const onBoard = part.kind === 'block' && (part.place === 'card' || part.place === 'board');
  const reasons = [
    ...(part.kind === 'radiator' ? againstRoom(edgesMm(part), part.place, loop) : []),
    ...(onBoard ? onList(part.fit?.listed, part.fit?.sits_on) : []),
    ...(part.place === 'card' ? cardInCase(part.fit ?? {}, loop) : []),
    ...inTheWay(loop, part),
    ...beyondPanel(loop, part),
    ...collars(loop, part),
    ...threads(part),
  ];
  return part.kind === 'radiator' || onBoard || reasons.length > 0 ? verdictOf(reasons) : null;
}
