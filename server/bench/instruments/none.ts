import type { Instruments } from '../../base/http/context.js';

/** Where no instruments stand: the demo's past, tests without them. */
export const NO_INSTRUMENTS: Instruments = { broker: { url: null, others: [], embedded: true }, simulate: () => undefined };
