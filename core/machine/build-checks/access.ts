import type { Circuit } from '../loop-file/circuits.js';
import type { LoopFinding } from './finding.js';

/** Share of a circuit's height that counts as "near" its lowest or highest port. */
const NEAR_SHARE = 0.2;

/** A port that opens near the low end, and one near the high end, of every circuit. */
export function accessFindings({ components, tubes }: Circuit): LoopFinding[] {
  if (tubes.length === 0) return [];
  const heights = components.flatMap(({ ports }) => Object.values(ports).map(([, y]) => y));
  const openable = components.flatMap((component) =>
    Object.keys(component.closures ?? {}).map((port) => (component.ports[port] as readonly number[])[1] as number),
  );
  const low = Math.min(...heights);
  const high = Math.max(...heights);
  const reach = NEAR_SHARE * (high - low) + 1;
  const findings: LoopFinding[] = [];
  if (!openable.some((y) => y <= low + reach)) {
    findings.push({
      code: 'no-drain',
      weight: 'look',
      part: null,
      text: 'No port that opens lies near the lowest point.',
      todo: 'Put a tee with a valve into the lowest tube, or expect to turn the machine at every drain.',
    });
  }
  if (!openable.some((y) => y >= high - reach)) {
    findings.push({
      code: 'no-air-inlet',
      weight: 'look',
      part: null,
      text: 'No port that opens lies near the highest point.',
      todo: 'Keep a plug within reach at the top: liquid leaves only as fast as air comes in.',
    });
  }
  return findings;
}
