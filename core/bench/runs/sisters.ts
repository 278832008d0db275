import type { LotOnBag } from '../../workshop/lots/schema.js';
import { placesOf, type Procedure } from './procedure.js';
import { tookOut } from './recorded.js';
import type { Leak, Made, RunState, Swapped, Used } from './state.js';
import { comesFromBag, placeOf, sistersOf } from '../leak-finding/causes.js';

/**
 * Other places of the same loop that have what leaked or was replaced: by a bag on record (screws, rings, parts of one lot), and where
 * no bag says so by their kind: ends cut in the same go, blocks pressed by the same hand.
 */

export interface Sister {
  readonly id: string;
  readonly name: string;
  /** what both came out of; missing: they are of one kind */
  readonly bag?: LotOnBag;
}

/** A leak that was mended, or a part that was replaced, whose sisters nobody has looked at since. */
export interface SistersAsked {
  /** the entry that asks */
  readonly eventId: string;
  readonly where: string;
  readonly sisters: readonly Sister[];
}

/** What came out of which bag, at one place. */
export interface Bagged extends LotOnBag {
  readonly item: string;
}

type Known = Pick<Procedure, 'twin' | 'facts' | 'fitted' | 'service' | 'earlier'>;
type Held = { readonly service: { readonly swaps: readonly (Swapped & Made)[]; readonly used: readonly (Used & Made)[] } };

/**
 * Bags on record place by place: from before the run, and what it fitted itself.
 * @param before bags as they were when this entry was made: what a part had that it took out
 */
export function baggedAt({ fitted = [] }: Pick<Procedure, 'fitted'>, { service: { swaps, used } }: Held, before?: string): Bagged[] {
  const end = before === undefined ? swaps.length : swaps.findIndex(({ eventId }) => eventId === before);
  const until = swaps.slice(0, end < 0 ? swaps.length : end);
  const gone = (item: string, at: string): boolean => until.some((swap) => swap.item === item && tookOut(swap) && swap.at > at);
  const here: (Bagged & { readonly at: string })[] = [
    ...fitted.map((each) => ({ ...each, at: '' })),
    ...until.flatMap(({ item, bag, at }) => (bag ? [{ item, ...bag, at }] : [])),
    ...used.flatMap(({ item, bag, at }) => (item && bag ? [{ item, ...bag, at }] : [])),
  ];
  return here.filter(({ item, at }) => !gone(item, at)).map(({ at: _, ...each }) => each);
}

/** Places that got something out of a bag that this place had as well. */
function ofTheSameBag(procedure: Known, state: Held, where: string, before?: string): Sister[] {
  const then = baggedAt(procedure, state, before);
  const own = then.filter(({ item }) => item === where);
  const now = baggedAt(procedure, state);
  const names = new Map(placesOf(procedure).map(({ id, name }) => [id, name]));
  return own.flatMap(({ make, lot }) =>
    now
      .filter((each) => each.item !== where && each.make === make && each.lot === lot && names.has(each.item))
      .map(({ item }) => ({ id: item, name: names.get(item) as string, bag: { make, lot } })),
  );
}

/** Empty where the cause is the place's own, or the loop has no other such place. */
export function sistersOfLeak(procedure: Known, { where, mended }: Pick<Leak, 'where' | 'mended'>, state?: Held): readonly Sister[] {
  if (!mended) return [];
  const byBag = state && comesFromBag(mended.cause) ? ofTheSameBag(procedure, state, where) : [];
  const known = new Set(byBag.map(({ id }) => id));
  return [...byBag, ...ofTheSameKind(procedure, where, mended.cause).filter(({ id }) => !known.has(id))];
}

function ofTheSameKind({ twin, facts }: Known, where: string, cause: string): readonly Sister[] {
  const kind = sistersOf(cause);
  if (kind === null || !facts) return [];
  if (kind === 'joint') return facts.joints.filter(({ id }) => id !== where);
  const kinds = new Map((twin?.loop.components ?? []).map((part) => [part.id, placeOf(part.kind)]));
  return facts.parts.filter(({ id }) => id !== where && kinds.get(id) === kind);
}

/**
 * Parts that had what one felt wrong with as well, as long as nobody said that they did: screws out of the same bag, and where no bag is on
 * record everything of its kind that is screwed like it. Each is tested alone like the first.
 */
export function sistersOfDoubt(procedure: Known, part: string, state: Held & Pick<RunState, 'doubts'>): readonly Sister[] {
  const doubted = new Set(state.doubts.map((each) => each.part));
  const byBag = ofTheSameBag(procedure, state, part);
  const byKind = ofTheSameKind(procedure, part, 'screw-through-tube');
  const isRadiator = procedure.twin?.loop.components.find(({ id }) => id === part)?.kind === 'radiator';
  const all = byBag.length > 0 ? byBag : isRadiator ? byKind : [];
  return all.filter(({ id }) => !doubted.has(id));
}

/** Leaks and exchanged parts whose sisters nobody has looked at. */
export const sistersAsked = (procedure: Known, state: Pick<RunState, 'leaks' | 'service'>): SistersAsked[] =>
  [
    ...state.leaks
      .filter(({ mended, sistersSeen }) => mended !== null && sistersSeen === null)
      .map((leak) => ({ eventId: leak.eventId, where: leak.where, sisters: sistersOfLeak(procedure, leak, state) })),
    ...state.service.swaps
      .filter((swap) => (swap.action === 'replaced' || swap.action === 'bypassed') && !swap.sistersSeen)
      .map(({ eventId, item }) => ({ eventId, where: item, sisters: ofTheSameBag(procedure, state, item, eventId) })),
  ].filter(({ sisters }) => sisters.length > 0);
