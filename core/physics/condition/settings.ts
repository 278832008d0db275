import { middleOf } from '../../base/statistics/median.js';
import { ALIKE, isMoved, sameProfile } from '../diagnosis/compareReadings.js';
import { READING_ERRORS, reachedOf, type LoadReading } from '../diagnosis/loadReading.js';
import type { ReadPart } from '../diagnosis/sensors.js';
import type { HeatLimits } from './limits.js';
import { TREND, type ConditionMark, type DatedReading } from './series.js';

/** A part at one setting, as it would stand on a hot day at the power it usually draws. */
export interface HotDayPart {
  readonly part: string;
  readonly onHotDayC: number;
  readonly sdC: number;
  readonly limitC: number;
  /** `close`: within the error of its limit */
  readonly verdict: 'holds' | 'close' | 'over';
}

/** Pump and fans at one setting, and what every part does at it. */
export interface Setting {
  readonly pumpSpeed: number | null;
  readonly fanSpeed: number | null;
  /** what it is called; null: nobody named it */
  readonly profile: string | null;
  /** of its newest reading */
  readonly on: string;
  readonly noiseDba: number | null;
  readonly score: number | null;
  readonly parts: readonly HotDayPart[];
  readonly holds: boolean;
}

/** readings of a setting that make one figure */
const NEWEST = 3;

const isNear = (a: number | null, b: number | null): boolean => (a === null || b === null ? a === b : !isMoved(a, b));

/**
 * Settings that a machine was read at since its last fill, the quietest first, each against every part's limit on the workshop's hot day.
 * Fans are what is heard; between two alike it is what was measured, then the pump.
 */
export function settingsOf(
  parts: readonly ReadPart[],
  readings: readonly DatedReading[],
  marks: readonly ConditionMark[],
  limits: HeatLimits,
): Setting[] {
  const filledOn = marks.filter(({ kind }) => kind === 'filled').map(({ on }) => on).sort().at(-1) ?? ''; // prettier-ignore
  const valid = readings
    .filter(
      ({ on, source, reading }) =>
        !reading.oldCooler && (on > filledOn || (on === filledOn && source === 'after')) && reachedOf(reading) >= TREND.leastReached,
    )
    .sort((a, b) => b.on.localeCompare(a.on));
  const groups: DatedReading[][] = [];
  for (const each of valid) {
    const { pumpSpeed = null, fanSpeed = null } = each.reading;
    const own = groups.find(
      ([first]) =>
        first &&
        isNear(first.reading.pumpSpeed ?? null, pumpSpeed) &&
        isNear(first.reading.fanSpeed ?? null, fanSpeed) &&
        sameProfile(first.reading, each.reading),
    );
    if (own) own.push(each);
    else groups.push([each]);
  }
  // the heaviest load that a part was read at anywhere: an idle reading promises nothing of a busy day
  const heaviest = new Map(
    parts.map(({ part }) => [part, Math.max(0, ...groups.map((group) => newestOf(group, part, (reading) => reading.powersW[part]) ?? 0))]),
  );
  const read = parts.filter(({ part }) => (heaviest.get(part) ?? 0) > 0);
  return groups.map((group) => settingOf(read, group, heaviest, limits)).sort(quieterFirst);
}

function quieterFirst(a: Setting, b: Setting): number {
  if (!isNear(a.fanSpeed, b.fanSpeed)) return (a.fanSpeed ?? 1) - (b.fanSpeed ?? 1);
  if (a.noiseDba !== null && b.noiseDba !== null && a.noiseDba !== b.noiseDba) return a.noiseDba - b.noiseDba;
  return (a.pumpSpeed ?? 1) - (b.pumpSpeed ?? 1);
}

/** The middle of a part's newest readings that have its watts; null: none has. */
function newestOf(group: readonly DatedReading[], part: string, of: (reading: LoadReading) => number | undefined): number | null {
  const values = group
    .filter(({ reading }) => reading.partsC[part] !== undefined && (reading.powersW[part] ?? 0) > 0)
    .slice(0, NEWEST)
    .flatMap(({ reading }) => of(reading) ?? []);
  return values.length === 0 ? null : middleOf(values);
}

/** @param parts that were read at any setting: one that does not know them all holds nothing for certain */
function settingOf(
  parts: readonly ReadPart[],
  group: readonly DatedReading[],
  heaviest: ReadonlyMap<string, number>,
  limits: HeatLimits,
): Setting {
  const newest = group[0] as DatedReading;
  const shown = parts.flatMap(({ part, kind }): HotDayPart[] => {
    const theta = newestOf(group, part, ({ partsC, powersW, roomC }) => ((partsC[part] as number) - roomC) / (powersW[part] as number));
    const readW = newestOf(group, part, ({ powersW }) => powersW[part]);
    if (theta === null || readW === null) return [];
    const powerW = heaviest.get(part) ?? readW;
    const { partK, roomK, powerShare } = READING_ERRORS;
    const sdC = powerW * Math.hypot(Math.hypot(partK, roomK) / readW, powerShare * theta);
    const [onHotDayC, limitC] = [limits.hotRoomC + theta * powerW, limits.partC[kind ?? 'other']];
    const reach = ALIKE.verdictSd * sdC;
    return [
      { part, onHotDayC, sdC, limitC, verdict: onHotDayC + reach <= limitC ? 'holds' : onHotDayC - reach > limitC ? 'over' : 'close' },
    ];
  });
  const { pumpSpeed = null, fanSpeed = null, noiseDba = null, score = null } = newest.reading;
  return {
    pumpSpeed,
    fanSpeed,
    profile: group.find(({ reading }) => reading.profile !== undefined)?.reading.profile ?? null,
    on: newest.on,
    noiseDba,
    score,
    parts: shown,
    holds: shown.length === parts.length && shown.every(({ verdict }) => verdict === 'holds'),
  };
}

/** The quietest at which every part holds on a hot day; null: none does. */
export const quietestThatHolds = (settings: readonly Setting[]): Setting | null => settings.find(({ holds }) => holds) ?? null;
