import type { FlowResult } from '../flow/flow.js';
import type { LoopFile } from '../../machine/loop-file/loopFile.js';
import { airOf, solveHeat, type AirPath, type HeatConditions } from './steady.js';

/** Two settings of the fans: as they are left at rest, and as they may turn under full load. */
export interface FanEnds {
  /** share of full load that the machine draws at rest */
  readonly restShare: number;
  /** 0 to 1 */
  readonly restSpeed: number;
  readonly loadSpeed: number;
}

/** Where the loop settles at a share of its load, with fans that follow the curve. */
export interface CurvePoint {
  readonly share: number;
  readonly coolantC: number;
  readonly fanSpeed: number;
  /** K to the nearest limit; negative: over it. null: no limits */
  readonly marginK: number | null;
}

export interface FanCurve {
  /** coolant up to which fans turn as at rest, and from which they turn as under load */
  readonly fromC: number;
  readonly toC: number;
  /** from rest to full load */
  readonly points: readonly CurvePoint[];
}

export type FanCurveAnswer =
  | { readonly end: 'curve'; readonly curve: FanCurve }
  /** full load at its speed leaves the coolant no warmer than rest at its own: coolant cannot tell the two apart */
  | { readonly end: 'nothing-to-follow' | 'cannot-tell' };

/** shares of load that are looked at between rest and full */
const STEPS = 12;
/** K of coolant between both ends below which a sensor's own error decides the speed */
const LEAST_SPAN_K = 1;

/**
 * A curve for fans that follow the coolant, straight between two settings: its ends are where the loop settles at rest and under full load.
 * What it does in between is where warmer coolant and faster fans meet: coolant falls with speed and speed rises with coolant, so there is
 * one such point for every load, found by halving.
 * @param limitsC by component id
 */
export function fanCurve(
  loop: LoopFile,
  flow: FlowResult,
  { loadsW, ...conditions }: Omit<HeatConditions, 'air'>,
  limitsC: Readonly<Record<string, number>>,
  air: Readonly<Record<string, AirPath>>,
  { restShare, restSpeed, loadSpeed }: FanEnds,
): FanCurveAnswer {
  const settle = (share: number, fanSpeed: number): Omit<CurvePoint, 'share' | 'fanSpeed'> | null => {
    const drawn = Object.fromEntries(Object.entries(loadsW).map(([id, watt]) => [id, watt * share]));
    const { end, parts } = solveHeat(loop, flow, { ...conditions, loadsW: drawn, air: airOf(loop, fanSpeed, air) });
    if (end !== 'solved') return null;
    const margins = Object.entries(limitsC).flatMap(([id, limit]) => {
      const partC = parts.find((part) => part.id === id)?.partC;
      return partC === null || partC === undefined ? [] : [limit - partC];
    });
    return {
      coolantC: Math.max(...parts.map(({ coolantOutC }) => coolantOutC)),
      marginK: margins.length > 0 ? Math.min(...margins) : null,
    };
  };
  const [rest, full] = [settle(restShare, restSpeed), settle(1, loadSpeed)];
  if (!rest || !full) return { end: 'cannot-tell' };
  const [fromC, toC] = [rest.coolantC, full.coolantC];
  if (toC - fromC < LEAST_SPAN_K || loadSpeed < restSpeed) return { end: 'nothing-to-follow' };
  const speedAt = (coolantC: number): number =>
    restSpeed + (loadSpeed - restSpeed) * Math.min(1, Math.max(0, (coolantC - fromC) / (toC - fromC)));
  const points = Array.from({ length: STEPS + 1 }, (_, step): CurvePoint | null => {
    const share = restShare + ((1 - restShare) * step) / STEPS;
    let [slow, fast] = [restSpeed, loadSpeed];
    for (let halved = 0; halved < 30; halved += 1) {
      const middle = (slow + fast) / 2;
      const at = settle(share, middle);
      if (!at) return null;
      if (speedAt(at.coolantC) > middle) slow = middle;
      else fast = middle;
    }
    const at = settle(share, fast);
    return at && { share, fanSpeed: fast, ...at };
  });
  const known = points.filter((point) => point !== null);
  return known.length === points.length ? { end: 'curve', curve: { fromC, toC, points: known } } : { end: 'cannot-tell' };
}
