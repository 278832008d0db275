import { DAYS_PER_MONTH, daysBetween } from '../../base/units/calendar.js';
import type { LoopFile } from '../../machine/loop-file/loopFile.js';
import { tubePieces } from '../../machine/shop-sums/vapour.js';
import { wallLoss } from '../../machine/shop-sums/wallLoss.js';

/** The level in the reservoir on a day, machine standing and cold: mm above its mark, negative below. */
export interface LevelPoint {
  readonly on: string;
  readonly mm: number;
  /** `settling`: at the check after a fill; `hand`: read in between */
  readonly source: 'settling' | 'hand';
  readonly id?: string;
}

export const LEVEL = {
  /** mm; how well a level is read against its mark (general estimate) */
  readSdMm: 1,
  /** days in which the last air comes home (handbook: two to seven, and some) */
  settlesDays: 10,
  /** standard deviations from which it counts */
  verdictSd: 2,
} as const;

/** Water that leaves through the walls, as a fall of the level: mm a month, with what published figures differ. */
export interface VapourLine {
  readonly mmPerMonth: number;
  readonly lowMm: number;
  readonly highMm: number;
}

export type LevelVerdict = 'cannot-tell' | 'steady' | 'air-home' | 'vapour' | 'leak' | 'rises';

export interface LevelDrift {
  /** since the last fill, the oldest first; the fill itself is the first, at its mark */
  readonly points: readonly LevelPoint[];
  readonly filledOn: string;
  /** null: no reservoir with a height, or a wall that no table knows */
  readonly vapour: VapourLine | null;
  /** mm a month once the air is home, with one standard deviation; null: nothing was read then */
  readonly mmPerMonth: number | null;
  readonly sdMm: number | null;
  readonly verdict: LevelVerdict;
  /** mm that it fell in the first days beyond what vapour explains; 0: it did not */
  readonly settledMm: number;
}

/** How fast the level of this very loop falls by vapour alone. */
export function vapourLine(loop: LoopFile, coolantC: number): VapourLine | null {
  const reservoir = loop.components.find(({ kind }) => kind === 'reservoir');
  const heightMm = reservoir?.box ? reservoir.box.max[1] - reservoir.box.min[1] : 0;
  if (!reservoir || !(heightMm > 0) || !(reservoir.volume_ml > 0)) return null;
  const tubes = tubePieces(loop);
  if (!tubes) return null;
  const { mlPerMonth, range } = wallLoss(tubes, coolantC);
  const mmPerMl = heightMm / reservoir.volume_ml;
  return { mmPerMonth: mlPerMonth * mmPerMl, lowMm: range[0] * mmPerMl, highMm: range[1] * mmPerMl };
}

/**
 * Why a level falls: air that comes home in the first days, vapour through the walls, or a leak. A fall of the first days that goes on at no
 * more than vapour's rate was air; what falls faster than the walls explain is looked for.
 * @param read in any order; those from before the fill do not count
 */
export function levelDrift(filledOn: string, read: readonly LevelPoint[], vapour: VapourLine | null): LevelDrift {
  const since = read.filter(({ on }) => on >= filledOn).sort((a, b) => a.on.localeCompare(b.on));
  const dayOf = ({ on }: LevelPoint): number => daysBetween(filledOn, on);
  const early = since.filter((point) => dayOf(point) <= LEVEL.settlesDays);
  const late = since.filter((point) => dayOf(point) > LEVEL.settlesDays);
  const lastEarly = early.at(-1);
  const high = (vapour?.highMm ?? 0) / DAYS_PER_MONTH;
  const beyond = lastEarly ? -lastEarly.mm - high * dayOf(lastEarly) : 0;
  const settledMm = beyond > LEVEL.verdictSd * LEVEL.readSdMm ? beyond : 0;
  const base = { points: since, filledOn, vapour, settledMm };
  // the check of the first days is where the fall by vapour begins; without one it is the first that was read behind them
  const from = lastEarly ?? late[0];
  const last = late.at(-1);
  if (!from || !last || from === last) {
    const verdict = lastEarly ? (settledMm > 0 ? 'air-home' : 'steady') : 'cannot-tell';
    return { ...base, mmPerMonth: null, sdMm: null, verdict };
  }
  const months = daysBetween(from.on, last.on) / DAYS_PER_MONTH;
  const mmPerMonth = (last.mm - from.mm) / months;
  const sdMm = (LEVEL.readSdMm * Math.SQRT2) / months;
  return { ...base, mmPerMonth, sdMm, verdict: verdictOf(mmPerMonth, sdMm, vapour) };
}

function verdictOf(mmPerMonth: number, sdMm: number, vapour: VapourLine | null): LevelVerdict {
  const reach = LEVEL.verdictSd * sdMm;
  if (mmPerMonth > reach) return 'rises';
  if (-mmPerMonth <= reach) return 'steady';
  // a fall that no wall is known for cannot be told from a leak
  if (vapour === null) return 'cannot-tell';
  return -mmPerMonth - reach > vapour.highMm ? 'leak' : 'vapour';
}
