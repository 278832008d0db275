import type { Procedure } from '../runs/procedure.js';
import type { Leak } from '../runs/state.js';
import { placeOf, sistersOf } from './causes.js';

/** Other places of the same loop that have what leaked: screws out of the same bag, ends cut in the same go. */

export interface Sister {
  readonly id: string;
  readonly name: string;
}

/** Empty where the cause is the place's own, or the loop has no other such place. */
export function sistersOfLeak(
  { twin, facts }: Pick<Procedure, 'twin' | 'facts'>,
  { where, mended }: Pick<Leak, 'where' | 'mended'>,
): readonly Sister[] {
  const kind = mended ? sistersOf(mended.cause) : null;
  if (kind === null || !facts) return [];
  if (kind === 'joint') return facts.joints.filter(({ id }) => id !== where);
  const kinds = new Map((twin?.loop.components ?? []).map((part) => [part.id, placeOf(part.kind)]));
  return facts.parts.filter(({ id }) => id !== where && kinds.get(id) === kind);
}

/** Leaks whose sisters nobody has looked at since they were mended. */
export const unseenSisters = (procedure: Pick<Procedure, 'twin' | 'facts'>, leaks: readonly Leak[]): Leak[] =>
  leaks.filter((leak) => leak.mended !== null && leak.sistersSeen === null && sistersOfLeak(procedure, leak).length > 0);
