import type { TurnedNetwork } from '../geometry/turned.js';
import type { LoopFile } from '../../machine/loop-file/loopFile.js';
import { fullContents } from '../contents/contents.js';
import { openablePorts, openUp } from './openings.js';
import { runOut } from './runOut.js';

export interface TakeOutPlan {
  /** joints to undo, each over a towel or bowl, with what leaves there */
  readonly joints: readonly { readonly joint: string; readonly volumeMl: number }[];
  /** openings that give air and do not run, opened first */
  readonly airs: readonly string[];
  /** mL that stays inside the part: it comes out when the part is tilted */
  readonly insideMl: number;
  /** mL that stays in the rest of the loop */
  readonly elsewhereMl: number;
}

/**
 * Taking one component out of a full loop: its joints undone at both ends of every tube it carries, air given through
 * every port that lies higher than the highest of them.
 */
export function planTakeOut(turned: TurnedNetwork, loop: LoopFile, componentId: string): TakeOutPlan {
  const { network, heightMm } = turned;
  const joints = loop.tubes.flatMap(({ id, from, to }) => [
    ...(from[0] === componentId ? [`${id}.from`] : []),
    ...(to[0] === componentId ? [`${id}.to`] : []),
  ]);
  const jointHeight = (joint: string): number => heightMm[network.joints.get(joint)?.portNode as number] as number;
  const highest = joints.reduce((most, joint) => Math.max(most, jointHeight(joint)), Number.NEGATIVE_INFINITY);
  const airs = openablePorts(loop).filter((port) => (heightMm[network.ports.get(port) as number] as number) > highest);
  const { byDrain, left } = runOut(turned, openUp(network, { open: airs, drains: joints, closed: [] }), fullContents(network));
  const at = (node: number): number => byDrain.get(node) ?? 0;
  let insideMl = 0;
  let elsewhereMl = 0;
  left.forEach((ml, node) => {
    if (network.partIds[network.part[node] as number] === componentId) insideMl += ml;
    else elsewhereMl += ml;
  });
  return {
    joints: joints.map((joint) => {
      const ends = network.joints.get(joint);
      return { joint, volumeMl: ends ? at(ends.tubeNode) + at(ends.portNode) : 0 };
    }),
    airs,
    insideMl,
    elsewhereMl,
  };
}
