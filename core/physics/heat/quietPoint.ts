import { prepareFlow, solveAtSpeed } from '../flow/flow.js';
import type { LoopFile } from '../../machine/loop-file/loopFile.js';
import { airOf, solveHeat, type AirPath, type HeatConditions } from './steady.js';

export interface QuietPoint {
  readonly pumpSpeed: number;
  readonly fanSpeed: number;
}

export interface QuietSearch {
  /** for every pump speed tried, the slowest fans that keep every limit; null where full fans do not */
  readonly curve: readonly { readonly pumpSpeed: number; readonly fanSpeed: number | null }[];
  /** the quietest pair, or null when the loop cannot carry the heat even at full speed */
  readonly best: QuietPoint | null;
}

export const QUIET = {
  /** pump speeds tried: below a fifth most pumps stand */
  pumpSpeeds: [0.2, 0.3, 0.4, 0.5, 0.6, 0.7, 0.8, 0.9, 1],
  leastFanSpeed: 0.2,
  /** share of full speed to which fan speed is found */
  fanStep: 0.005,
} as const;

/** Loudness grows with about the fifth power of speed for fans and pumps alike: the louder of the two is heard. */
const loudness = ({ pumpSpeed, fanSpeed }: QuietPoint): number => Math.max(pumpSpeed, fanSpeed) + 0.2 * Math.min(pumpSpeed, fanSpeed);

/**
 * The lowest fan and pump speeds that keep every part under its limit.
 * @param limitsC by component id
 * @param air of radiators that do not breathe as usual for their place
 */
export function findQuietPoint(
  loop: LoopFile,
  conditions: Omit<HeatConditions, 'air'>,
  limitsC: Readonly<Record<string, number>>,
  air: Readonly<Record<string, AirPath>> = {},
): QuietSearch {
  const prepared = prepareFlow(loop, conditions.fluid);
  const curve = QUIET.pumpSpeeds.map((pumpSpeed) => {
    const flow = solveAtSpeed(prepared, pumpSpeed);
    const holds = (fanSpeed: number): boolean => {
      const { end, parts } = solveHeat(loop, flow, { ...conditions, air: airOf(loop, fanSpeed, air) });
      return (
        end === 'solved' &&
        Object.entries(limitsC).every(([id, limit]) => (parts.find((part) => part.id === id)?.partC ?? Infinity) <= limit)
      );
    };
    if (!holds(1)) return { pumpSpeed, fanSpeed: null };
    let low: number = QUIET.leastFanSpeed;
    let high = 1;
    if (holds(low)) return { pumpSpeed, fanSpeed: low };
    while (high - low > QUIET.fanStep) {
      const middle = (low + high) / 2;
      if (holds(middle)) high = middle;
      else low = middle;
    }
    return { pumpSpeed, fanSpeed: high };
  });
  const points = curve.flatMap(({ pumpSpeed, fanSpeed }) => (fanSpeed === null ? [] : [{ pumpSpeed, fanSpeed }]));
  const best = points.reduce<QuietPoint | null>((so, each) => (so === null || loudness(each) < loudness(so) ? each : so), null);
  return { curve, best };
}
