import { middleOf } from '../../base/statistics/median.js';
import { isMoved } from '../diagnosis/compareReadings.js';
import { reachedOf } from '../diagnosis/loadReading.js';
import { beginnings, FIRST_FEW, TREND, type ConditionMark, type DatedReading } from './series.js';

/** The flow on a day. */
export interface FlowPoint {
  readonly id: string;
  readonly on: string;
  readonly lph: number;
  readonly pumpSpeed: number | null;
  /** the pump was set otherwise than it mostly is, or the load had hardly begun: it does not count */
  readonly left: boolean;
}

export interface FlowSeries {
  readonly points: readonly FlowPoint[];
  /** pump setting that counts; null: nobody noted one */
  readonly pumpSpeed: number | null;
  /** L/h on its best days, and by its newest readings since the last fill; null: none counts */
  readonly best: number | null;
  readonly now: number | null;
}

/** Flow over time at the pump's usual setting: the one at which most was read. */
export function flowSeries(readings: readonly DatedReading[], marks: readonly ConditionMark[]): FlowSeries {
  const own = readings
    .filter(({ reading }) => reading.flowLph !== undefined)
    .sort((a, b) => a.on.localeCompare(b.on))
    .map(({ id, on, reading }) => ({
      id,
      on,
      lph: reading.flowLph as number,
      pumpSpeed: reading.pumpSpeed ?? null,
      isWarm: reachedOf(reading) >= TREND.leastReached,
    }));
  const speeds = own.flatMap(({ pumpSpeed }) => (pumpSpeed === null ? [] : [pumpSpeed]));
  const near = (a: number, b: number): boolean => !isMoved(a, b);
  const counts = speeds.map((speed) => ({ speed, count: speeds.filter((other) => near(other, speed)).length }));
  const most = counts.sort((a, b) => b.count - a.count)[0]?.speed;
  const usual = most === undefined ? null : middleOf(speeds.filter((speed) => near(speed, most)));
  const points = own.map(({ isWarm, ...point }): FlowPoint => ({
    ...point,
    left: !isWarm || (usual !== null && point.pumpSpeed !== null && !near(point.pumpSpeed, usual)),
  }));
  const counted = points.filter(({ left }) => !left);
  const fills = marks.filter(({ kind }) => kind === 'filled').map(({ on }) => on);
  const firsts = beginnings(
    counted.map(({ on, lph }) => ({ on, value: lph })),
    fills,
  );
  return {
    points,
    pumpSpeed: usual,
    best: firsts.length === 0 ? null : Math.max(...firsts),
    now: counted.length === 0 ? null : middleOf(counted.slice(-FIRST_FEW).map(({ lph }) => lph)),
  };
}
