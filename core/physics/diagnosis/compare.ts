import { say } from '../../base/words/say.js';
import type { BaselineReading } from './reading.js';
import { normaliseBaseline } from './baseline.js';

/** Conditions that may differ and still be the same conditions (workshop practice). */
export const COMPARABLE = {
  /** share of the load's power */
  powerShare: 0.08,
  /** percentage points of pump and fan settings */
  settingPoints: 5,
  /** K within which two readings of the same sensor agree: sensors step by one, rooms drift */
  noiseK: 1.5,
} as const;

export interface BaselineComparison {
  /** differences that make it "not comparable"; empty: like with like */
  readonly differences: readonly string[];
  /** K above the room, after − before; null where not comparable */
  readonly changeK: number | null;
  readonly changeKPerW: number | null;
  readonly text: string;
}

type Condition = readonly [name: string, differs: (a: BaselineReading, b: BaselineReading) => boolean];
const apart = (a: number, b: number, by: number): boolean => Math.abs(a - b) > by;
const CONDITIONS: readonly Condition[] = [
  ['the workload', (a, b) => a.workload.trim().toLowerCase() !== b.workload.trim().toLowerCase()],
  ['the sensor', (a, b) => a.sensor !== b.sensor],
  ['the statistic', (a, b) => a.statistic !== b.statistic],
  ['the panels', (a, b) => a.panels !== b.panels],
  ['the pump’s setting', (a, b) => apart(a.pumpPercent, b.pumpPercent, COMPARABLE.settingPoints)],
  ['the fans’ setting', (a, b) => apart(a.fanPercent, b.fanPercent, COMPARABLE.settingPoints)],
  [
    'the load’s power',
    (a, b) =>
      (a.powerW === null) !== (b.powerW === null) ||
      (a.powerW !== null && b.powerW !== null && apart(a.powerW, b.powerW, COMPARABLE.powerShare * a.powerW)),
  ],
];

/** Two baselines under like conditions, as temperature above the room: a hotter room is not a dirty loop. */
export function compareBaselines(before: BaselineReading, after: BaselineReading): BaselineComparison {
  const differences = CONDITIONS.filter(([, differs]) => differs(before, after)).map(([name]) => name);
  if (differences.length > 0)
    return {
      differences,
      changeK: null,
      changeKPerW: null,
      text: say('not comparable: {join} differed', { join: differences.join(', ') }),
    };
  const [a, b] = [normaliseBaseline(before), normaliseBaseline(after)];
  const changeK = b.aboveRoomK - a.aboveRoomK;
  const changeKPerW = a.kelvinPerWatt === null || b.kelvinPerWatt === null ? null : b.kelvinPerWatt - a.kelvinPerWatt;
  const size = `${Math.abs(changeK).toFixed(1)} K`;
  const text =
    Math.abs(changeK) <= COMPARABLE.noiseK
      ? say('as before, within {noiseK} K', { noiseK: COMPARABLE.noiseK })
      : changeK < 0
        ? say('{size} cooler than before', { size })
        : say('{size} hotter than before', { size });
  return { differences, changeK, changeKPerW, text };
}

/** The pair of one setting, the last of each; null where a setting was measured only once. */
export function pairOf(
  befores: readonly BaselineReading[],
  afters: readonly BaselineReading[],
): { before: BaselineReading; after: BaselineReading } | null {
  for (const after of [...afters].reverse()) {
    const before = [...befores].reverse().find(({ setting }) => setting === after.setting);
    if (before) return { before, after };
  }
  return null;
}
