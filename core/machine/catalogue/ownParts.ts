import { changedSheet } from '../loop-file/fitSheet.js';
import type { Closure, LoopComponent, Point } from '../loop-file/loopFile.js';
import { findCataloguePart, type CataloguePart } from './parts.js';
import type { Place } from './places.js';

/** What a part's own sheet says, as a component of a loop file carries it. */
export const SHEET_FACTS = [
  'resistance',
  'curve',
  'speed',
  'speed_fixed',
  'materials',
  'pressure_rating_kpa',
  'max_fill_ml',
  'low_mark_ml',
  'may_stand',
  'port_fits',
  'fit',
] as const;
export type SheetFacts = Partial<Pick<LoopComponent, (typeof SHEET_FACTS)[number]>>;

/** Where its ports and its box lie, where it was drawn true; it counts for the place it was drawn in. */
export interface OwnGeometry {
  readonly place: Place;
  readonly ports: Readonly<Record<string, Point>>;
  readonly box?: { readonly min: Point; readonly max: Point };
  readonly flow?: readonly [string, string];
  readonly closures?: Readonly<Record<string, Closure>>;
}

/** A part that this workshop keeps beside the general ones: like one of those, with its own name, volume and sheet. */
export interface OwnPartInput {
  readonly label: string;
  /** key of the general part whose shape and places it has */
  readonly like: string;
  readonly volumeMl: number;
  readonly volumeSdMl: number | null;
  readonly facts: SheetFacts;
  readonly geometry: OwnGeometry | null;
}
export interface OwnPart extends OwnPartInput {
  readonly id: string;
  readonly version: number;
}

const OWN = 'own:';
export const ownKey = (id: string): string => `${OWN}${id}`;
export const isOwnKey = (key: string): boolean => key.startsWith(OWN);

/** It, as it is picked: null where this version knows no part like it. */
export function pickable({ id, label, like, volumeMl, volumeSdMl, facts, geometry }: OwnPart): CataloguePart | null {
  const base = findCataloguePart(like);
  if (!base) return null;
  const drawn = (place: Place) => (geometry?.place === place ? geometry : null);
  return {
    ...base,
    key: ownKey(id),
    label,
    volumeMl,
    ...(geometry?.flow ? { flow: geometry.flow } : {}),
    fixed: {
      ...base.fixed,
      ...facts,
      ...(volumeSdMl === null ? {} : { volume_sd_ml: volumeSdMl }),
      ...(geometry?.closures ? { closures: geometry.closures } : {}),
    },
    place: (place) => {
      const own = drawn(place);
      return own ? { ports: { ...own.ports }, ...(own.box ? { box: own.box } : {}) } : base.place(place);
    },
    places: [...new Set([...(geometry ? [geometry.place] : []), ...base.places])],
  };
}

/**
 * A part of a drawing, to be kept: with its volume, what its sheet says, and its shape as it is drawn.
 * @param like the general part it was made from; null where it came from elsewhere and none is like it
 */
export function keptFrom(part: LoopComponent, like: string | null): OwnPartInput | null {
  const base = like === null ? undefined : findCataloguePart(like);
  if (!base) return null;
  const place = base.places.find((each) => each === part.place) ?? base.places[0];
  return {
    label: part.label ?? base.label,
    like: base.key,
    volumeMl: part.volume_ml,
    volumeSdMl: part.volume_sd_ml ?? null,
    facts: factsOf(part),
    geometry: place ? { place, ports: { ...part.ports }, ...(part.box ? { box: part.box } : {}), ...(part.flow ? { flow: part.flow } : {}), ...(part.closures ? { closures: part.closures } : {}) } : null, // prettier-ignore
  };
}

export function factsOf(part: LoopComponent): SheetFacts {
  const { fit, ...facts } = Object.fromEntries(SHEET_FACTS.flatMap((key) => (part[key] === undefined ? [] : [[key, part[key]]]))) as SheetFacts; // prettier-ignore
  // what it sits on is this machine's, not the part's
  const sheet = changedSheet(fit, { sits_on: undefined });
  return sheet ? { ...facts, fit: sheet } : facts;
}

/** The general part that a component was made from: its own, or the one that its own part is like. */
export function likeOf({ catalogue }: LoopComponent, own: readonly OwnPart[]): string | null {
  if (catalogue === undefined) return null;
  const kept = own.find(({ id }) => ownKey(id) === catalogue);
  return kept?.like ?? (findCataloguePart(catalogue) ? catalogue : null);
}
