import { isSeal } from '../../machine/seals/places.js';
import type { RunState } from './state.js';

/** Causes that are mended with a new ring: whoever wrote one down put one in. */
const MENDED_BY_RING: readonly string[] = ['base-seal', 'fitting-ring'];

/** Places whose ring or gasket is new after a run: said so, or mended with one. */
export const ringsRenewedIn = ({ leaks, service }: Pick<RunState, 'leaks' | 'service'>): string[] => [
  ...new Set([
    ...service.rings.flatMap(({ places }) => places),
    ...leaks.flatMap(({ where, mended }) => (mended && isSeal(where) && MENDED_BY_RING.includes(mended.cause) ? [where] : [])),
  ]),
];
