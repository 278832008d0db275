import type { GeometricNetwork } from '../geometry/network.js';

/** mL at each node; a vessel's liquid lies at its low side. */
export type Contents = Float64Array;

export const fullContents = (network: GeometricNetwork): Contents => Float64Array.from(network.volumeMl);

export const totalMl = (contents: Contents): number => contents.reduce((total, ml) => total + ml, 0);
