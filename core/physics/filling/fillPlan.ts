import { say } from '../../base/words/say.js';
import { AGREES_WITHIN_SD } from '../measuring/errors.js';
import { flowOrder } from '../../machine/loop-file/chain.js';
import { tubeName, shortName } from '../../machine/catalogue/names.js';
import type { LoopFile } from '../../machine/loop-file/loopFile.js';
import { reservoirMarks } from '../../machine/loop-file/marks.js';
import { loopVolume, sumVolumes, type Volume } from '../../machine/loop-file/volume.js';

export interface FillPulse {
  readonly number: number;
  /** what the pump may move before the level stands at the low mark */
  readonly moveMl: number;
  /** pour at most this much afterwards */
  readonly pourMl: number;
  /** everything poured once this pulse is topped up */
  readonly pouredSoFarMl: number;
  /** s; at the pump's free flow the low mark cannot come sooner. null without a pump curve */
  readonly soonestS: number | null;
}

export interface PulsePlan {
  readonly kind: 'pulses';
  /** reservoir to its fill mark, and what runs down into the pump by itself */
  readonly firstPourMl: number;
  readonly fillMarkMl: number;
  readonly lowMarkMl: number;
  /** between fill mark and low mark: what one pulse may move */
  readonly workingMl: number;
  readonly pulses: readonly FillPulse[];
  /** likely total with its standard deviation */
  readonly total: Volume;
}

export interface GravityPlan {
  readonly kind: 'gravity';
  readonly total: Volume;
  readonly reason: string;
}

export type FillPlan = PulsePlan | GravityPlan;

/** What the loop takes when its reservoir stands at the fill mark: the gas cushion above the mark stays. */
export function fillVolume(loop: LoopFile): Volume {
  const whole = loopVolume(loop);
  const reservoir = loop.components.find(({ kind }) => kind === 'reservoir');
  if (!reservoir) return { volumeMl: whole.volumeMl, sdMl: whole.sdMl };
  return { volumeMl: whole.volumeMl - reservoir.volume_ml + reservoirMarks(reservoir).fillMarkMl, sdMl: whole.sdMl };
}

/** Volume of the parts between the reservoir's outlet and the pump's outlet: they stand below the level and fill by themselves. */
function selfFillingMl(loop: LoopFile): number {
  const volumes = new Map(loopVolume(loop).parts.map((part) => [part.id, part]));
  const { links } = flowOrder(loop);
  const pumpAt = links.findIndex(({ component }) => component.kind === 'pump');
  if (links[0]?.component.kind !== 'reservoir' || pumpAt < 0) return 0;
  const below = links
    .slice(0, pumpAt + 1)
    .flatMap(({ component, tube }, index) => [...(index === 0 ? [] : [component.id]), ...(tube && index < pumpAt ? [tube.id] : [])]);
  return sumVolumes(below.map((id) => volumes.get(id) ?? { volumeMl: 0, sdMl: 0 })).volumeMl;
}

/** mL/s at zero back pressure: the last point of the curve, scaled by the pump's speed. */
function freeFlowMlPerS(loop: LoopFile): number | null {
  const pump = loop.components.find(({ kind, curve }) => kind === 'pump' && curve);
  const freeLph = pump?.curve?.at(-1)?.[0];
  return freeLph ? (freeLph * (pump?.speed ?? 1)) / 3.6 : null;
}

/**
 * First fill from the reservoir's working volume: fill to the mark, run the pump until the level stands at the low
 * mark, pour again, until nothing is left to fill. It does not yet know heights: when a column falls back between
 * pulses, less goes in than stated here, so each pour is an upper limit.
 * Before: a checked loop. After: pours add up to `total.volumeMl`.
 */
export function planFill(loop: LoopFile): FillPlan {
  const total = fillVolume(loop);
  const reservoir = loop.components.find(({ kind }) => kind === 'reservoir');
  if (!reservoir) {
    return {
      kind: 'gravity',
      total,
      reason: say('There is no reservoir: connect a temporary bottle above the machine and fill by gravity, turning the case.'),
    };
  }
  const { fillMarkMl, lowMarkMl } = reservoirMarks(reservoir);
  const workingMl = fillMarkMl - lowMarkMl;
  if (workingMl <= 0) {
    return {
      kind: 'gravity',
      total,
      reason: say(
        'The reservoir has no volume between its fill mark and its low mark to pulse with: pour while the pump runs, one person each.',
      ),
    };
  }
  const firstPourMl = Math.min(total.volumeMl, fillMarkMl + selfFillingMl(loop));
  return {
    kind: 'pulses',
    firstPourMl,
    fillMarkMl,
    lowMarkMl,
    workingMl,
    pulses: pulsesFor(total.volumeMl, firstPourMl, workingMl, freeFlowMlPerS(loop)),
    total,
  };
}

function pulsesFor(totalMl: number, firstPourMl: number, workingMl: number, freeFlow: number | null): FillPulse[] {
  const remainingMl = totalMl - firstPourMl;
  const count = Math.ceil(remainingMl / workingMl - 1e-9);
  return Array.from({ length: Math.max(0, count) }, (_, index) => {
    const moveMl = Math.min(workingMl, remainingMl - index * workingMl);
    return {
      number: index + 1,
      moveMl,
      pourMl: moveMl,
      pouredSoFarMl: firstPourMl + index * workingMl + moveMl,
      soonestS: freeFlow === null ? null : moveMl / freeFlow,
    };
  });
}

export type FillVerdict = 'filling' | 'as-planned' | 'more-than-planned';

export interface FillBalance {
  readonly pouredMl: number;
  /** planned total − poured; negative when more went in */
  readonly stillToPourMl: number;
  readonly verdict: FillVerdict;
}

/** Poured so far against the plan, with the plan's own uncertainty. */
export function balanceFill(total: Volume, pouredMl: number): FillBalance {
  const stillToPourMl = total.volumeMl - pouredMl;
  const slackMl = AGREES_WITHIN_SD * total.sdMl;
  const verdict = stillToPourMl > slackMl ? 'filling' : stillToPourMl >= -slackMl ? 'as-planned' : 'more-than-planned';
  return { pouredMl, stillToPourMl, verdict };
}

/** One stretch of the loop on the way of the fill front, for the loop profile. */
export interface FrontStretch {
  readonly id: string;
  readonly name: string;
  /** 0 empty … 1 full */
  readonly filled: number;
}

/**
 * Where the poured liquid is likely to stand: parts fill in flow order, the reservoir first.
 * An estimate from volumes alone; radiators really fill from below.
 */
export function fillFront(loop: LoopFile, pouredMl: number): FrontStretch[] {
  const marks = loop.components.filter(({ kind }) => kind === 'reservoir').map((each) => reservoirMarks(each).fillMarkMl);
  const inReservoirMl = Math.min(pouredMl, marks[0] ?? 0);
  return standingFront(loop, inReservoirMl, pouredMl - inReservoirMl);
}

/** The same with so much in the reservoir, read or predicted, and the rest on the way. */
export function standingFront(loop: LoopFile, inReservoirMl: number, onTheWayMl: number): FrontStretch[] {
  const volumes = new Map(loopVolume(loop).parts.map(({ id, volumeMl }) => [id, volumeMl]));
  let leftMl = Math.max(0, onTheWayMl);
  const stretch = (id: string, name: string, takenMl: number): FrontStretch => {
    const whole = volumes.get(id) ?? 0;
    return { id, name, filled: whole > 0 ? takenMl / whole : leftMl > 0 ? 1 : 0 };
  };
  const take = (id: string, name: string): FrontStretch => {
    const takenMl = Math.min(volumes.get(id) ?? 0, leftMl);
    leftMl -= takenMl;
    return stretch(id, name, takenMl);
  };
  return flowOrder(loop).links.flatMap(({ component, tube }) => {
    const name = shortName(component);
    const part =
      component.kind === 'reservoir'
        ? stretch(component.id, name, Math.max(0, Math.min(component.volume_ml, inReservoirMl)))
        : take(component.id, name);
    return tube ? [part, take(tube.id, tubeName(loop, tube))] : [part];
  });
}

/** The stretch that the front stands in: the last one on the way that holds something. null before anything left the reservoir. */
export const frontOf = (stretches: readonly FrontStretch[]): FrontStretch | null =>
  stretches.slice(1).reduce<FrontStretch | null>((front, each) => (each.filled > 0 ? each : front), null);
