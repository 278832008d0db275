import type { Sign } from '@core/workshop/jobs/scope.js';

/** Drawn in a field of 40 × 32: lines, and what is filled. */
export interface Glyph {
  readonly lines: string;
  readonly filled?: string;
}

const VESSEL = 'M8 4v24h24V4';
const dots = (...at: readonly (readonly [number, number])[]): string =>
  at.map(([x, y]) => `M${x - 1.6} ${y}a1.6 1.6 0 1 0 3.2 0a1.6 1.6 0 1 0-3.2 0`).join('');

export const signGlyphs: Readonly<Record<Sign, Glyph>> = {
  'colour-differs': { lines: 'M8 4v20a4 4 0 0 0 8 0V4M24 4v20a4 4 0 0 0 8 0V4M24 13h8', filled: 'M8 13h8v11a4 4 0 0 1-8 0z' },
  cloud: { lines: `${VESSEL}M15 22a3.4 3.4 0 0 1 0-7a5.4 5.4 0 0 1 10 0a3.4 3.4 0 0 1 0 7z` },
  flakes: { lines: `${VESSEL}M13 12l4 2M23 10l2 4M14 21l4-2M25 18l3 3M20 24l3 1` },
  foam: {
    lines: `${VESSEL}M8 18h24M11 13a3 3 0 1 0 6 0a3 3 0 1 0-6 0M17 11a3 3 0 1 0 6 0a3 3 0 1 0-6 0M23 13a3 3 0 1 0 6 0a3 3 0 1 0-6 0`,
  },
  smell: { lines: 'M10 19v9h20v-9M10 22h20M14 15q4-3 0-6t0-5M20 15q4-3 0-6t0-5M26 15q4-3 0-6t0-5' },
  'settles-back': { lines: `${VESSEL}M8 10h24M20 22v-8M16 17l4-4l4 4`, filled: 'M9 25q11-2 22 0v2H9z' },
  bits: { lines: `${VESSEL}M8 10h24`, filled: dots([14, 16], [22, 14], [18, 21], [27, 19], [13, 24]) },
  layer: { lines: `${VESSEL}M8 10h24`, filled: 'M9 23q6-2 11 0t11 0v4H9z' },
  deposit: { lines: 'M8 5h24v22H8zM13 9v10M18 9v10M23 9v10M28 9v10', filled: 'M11 19q5-3 9 0t9-1v6H11z' },
  'tube-milky': { lines: 'M3 19c11 0 8-12 17-12s6 8 17 8M3 27c14 0 12-12 18-12s4 8 16 8', filled: dots([11, 21], [20, 11], [29, 17.5]) },
  'instant-hot': { lines: 'M11 7a3 3 0 0 1 6 0v12a5 5 0 1 1-6 0zM28 4l-4 10h6l-4 11', filled: 'M13 10h2v11a2.6 2.6 0 1 1-2 0z' },
  'slow-creep': { lines: 'M6 4v24h29M9 24l8-3 8-5 8-9' },
  dust: { lines: 'M9 4v24M16 4v24M23 4v24M30 4v24', filled: dots([12.5, 10], [12.5, 22], [19.5, 16], [26.5, 8], [26.5, 24]) },
  'paste-old': { lines: 'M10 8h20v16H10zM5 12h5M5 20h5M30 12h5M30 20h5M15 8l3 5-3 4 4 7M26 8l-2 6 3 4' },
  'level-falling': { lines: `${VESSEL}M8 21h24M20 5v11M16 12l4 4.5 4-4.5` },
  bubble: { lines: 'M8 5h24v22H8zM13 27v-6M18 27v-6M23 27v-6M28 27v-6M15 13a5 5 0 1 0 10 0a5 5 0 1 0-10 0' },
  leak: { lines: 'M10 29h20', filled: 'M20 3c5 7 7 10 7 14a7 7 0 0 1-14 0c0-4 2-7 7-14z' },
  noise: { lines: 'M7 16a7 7 0 1 0 14 0a7 7 0 1 0-14 0M14 16l4-4M25 10q4 6 0 12M30 6q7 10 0 20' },
};
