import type { LoopComponent } from '../../machine/loop-file/loopFile.js';

/** What gas does in a radiator while liquid flows through its narrow channels (contract; estimates, which workshops learn anew). */
export const RADIATOR_CORE = {
  /** share of the middle by the shortest edge that is open channel, one pass */
  openShare: 0.077,
  /** m/s in the channels from which gas is carried down with the liquid */
  carriesMs: 0.2,
  /** m/s below which none of it is */
  hangsMs: 0.1,
  /** share of the radiator that can hold gas all the same: its far tank */
  staysShare: 0.1,
} as const;

/** Edges of the box in mm, the shortest first; of equal ones the later axis is the longer. */
function edgesOf({ min, max }: NonNullable<LoopComponent['box']>): { axis: 0 | 1 | 2; mm: number }[] {
  return ([0, 1, 2] as const).map((axis) => ({ axis, mm: max[axis] - min[axis] })).sort((a, b) => a.mm - b.mm || a.axis - b.axis);
}

/** Times the flow goes through the core: twice where it comes and leaves at the same end. */
export function passesOf({ box, flow, ports }: LoopComponent): 1 | 2 {
  const longest = box && edgesOf(box)[2];
  const ends = flow?.map((port) => ports[port]);
  if (!longest || !ends?.[0] || !ends[1]) return 1;
  const { axis } = longest;
  const middle = (box.min[axis] + box.max[axis]) / 2;
  return (ends[0][axis] - middle) * (ends[1][axis] - middle) >= 0 ? 2 : 1;
}

/** mm² that the liquid has in the core; 0 without a box */
export function coreSectionMm2(radiator: LoopComponent): number {
  if (!radiator.box) return 0;
  const [shortest, middle] = edgesOf(radiator.box);
  return (RADIATOR_CORE.openShare * (middle?.mm ?? 0) * (shortest?.mm ?? 0)) / passesOf(radiator);
}

/** m/s in a radiator's channels */
export function coreVelocity(radiator: LoopComponent, flowLph: number): number {
  const section = coreSectionMm2(radiator);
  return section > 0 ? Math.abs(flowLph) / 3.6 / section : 0;
}

/** mL of the gas above a radiator's highest flow port that stay while it is flowed through. */
export function staysInCore(radiator: LoopComponent, gasMl: number, flowLph: number): number {
  const { carriesMs, hangsMs, staysShare } = RADIATOR_CORE;
  const share = Math.min(1, Math.max(0, (coreVelocity(radiator, flowLph) - hangsMs) / (carriesMs - hangsMs)));
  const least = Math.min(gasMl, staysShare * radiator.volume_ml);
  return gasMl + share * (least - gasMl);
}
