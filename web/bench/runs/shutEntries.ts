import type { RunEventBody } from '@core/bench/runs/entries/all.js';

/** The entries that say of each port and joint that it is shut. */
export const shutEntries = ({
  ports,
  joints,
}: {
  readonly ports: readonly string[];
  readonly joints: readonly string[];
}): RunEventBody[] => [
  ...ports.map((port) => ({ type: 'port', port, open: false }) as const),
  ...joints.map((joint) => ({ type: 'joint', joint, open: false }) as const),
];
