import { findCircuits } from '../loop-file/circuits.js';
import type { LoopFile } from '../loop-file/loopFile.js';
import { accessFindings } from './access.js';
import type { LoopFinding } from './finding.js';
import { fitFindings } from './fitting.js';
import { flowFindings } from './flowPath.js';
import { materialFindings } from './materials.js';
import { tubingFindings } from './tubing.js';

const ORDER = { stop: 0, look: 1, note: 2 } as const;

/** Everything to look at before the loop is built, the worst first. */
export function loopFindings(loop: LoopFile): LoopFinding[] {
  if (loop.components.length === 0) return [];
  const findings = [
    ...flowFindings(loop),
    ...findCircuits(loop).flatMap((circuit) => accessFindings(circuit)),
    ...tubingFindings(loop),
    ...fitFindings(loop),
    ...materialFindings(loop),
  ];
  return findings.sort((a, b) => ORDER[a.weight] - ORDER[b.weight]);
}
