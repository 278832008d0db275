import type { CataloguePart } from '../catalogue/parts.js';
import { PLACES, type Place } from '../catalogue/places.js';
import { caseOf } from '../drawing/cases.js';
import { edgesMm } from '../loop-file/boxes.js';
import type { LoopFile } from '../loop-file/loopFile.js';
import { againstRoom, verdictOf, type FitReason, type FitVerdict } from './verdict.js';

export interface RadiatorChoice {
  readonly part: CataloguePart;
  readonly verdict: FitVerdict;
}

const sizeOf = (part: CataloguePart, place: Place): readonly [long: number, middle: number, short: number] | null => {
  const { box } = part.place(place);
  return box ? edgesMm({ box }) : null;
};

/** What speaks about a radiator of the catalogue at a place, before it is drawn. */
export const reasonsAt = (part: CataloguePart, place: Place, loop: Pick<LoopFile, 'case'>): FitReason[] =>
  againstRoom(sizeOf(part, place), place, loop);

/** Radiators that can be mounted at a place, the one with the most face first, of equal faces the thicker, each with its verdict there. */
export function radiatorsAt(loop: Pick<LoopFile, 'case'>, place: Place, choices: readonly CataloguePart[]): RadiatorChoice[] {
  return choices
    .filter(({ kind, places }) => kind === 'radiator' && places.includes(place))
    .map((part) => ({ part, bulk: bulk(sizeOf(part, place)) }))
    .sort((one, other) => other.bulk - one.bulk)
    .map(({ part }) => ({ part, verdict: verdictOf(reasonsAt(part, place, loop)) }));
}

/** By its face first: a thick one of few fans does less than a thin one of many (handbook 1, at usual fan speeds). */
const bulk = (edges: readonly [number, number, number] | null): number => (edges ? edges[0] * edges[1] * 1000 + edges[2] : 0);

/** Places of this case where room for a radiator was measured. */
export const measuredPlaces = (loop: Pick<LoopFile, 'case'>): Place[] =>
  Object.keys(caseOf(loop).room?.radiators ?? {}).filter((place): place is Place => Object.hasOwn(PLACES, place));

/** The largest that fits there; null: none does, or nobody measured. */
export const largestAt = (loop: Pick<LoopFile, 'case'>, place: Place, choices: readonly CataloguePart[]): CataloguePart | null =>
  radiatorsAt(loop, place, choices).find(({ verdict }) => verdict.state === 'fits')?.part ?? null;
