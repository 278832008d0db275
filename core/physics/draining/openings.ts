import type { GeometricNetwork } from '../geometry/network.js';
import type { Tilt } from '../../machine/loop-file/orientation.js';
import type { CutEnds } from '../geometry/turned.js';
import type { LoopFile } from '../../machine/loop-file/loopFile.js';

/** What stands open. Names are "component.port", or "tube.from" / "tube.to" for a joint undone. */
export interface OpeningSetup {
  /** openings that let air in; a drain named here as well is a drain */
  readonly open: readonly string[];
  /** openings that liquid leaves by; at least one */
  readonly drains: readonly string[];
  /** tubes shut at their `from` end */
  readonly closed: readonly string[];
}

/** What stands open, and how the case stands. */
export interface DrainSetup extends OpeningSetup {
  readonly tilt: Tilt;
}

/** Ports that can be opened by hand: what no hand gets at in the built machine opens nothing. */
export const openablePorts = (loop: LoopFile): string[] =>
  loop.components.flatMap(({ id, closures, out_of_reach: hidden = [] }) =>
    Object.keys(closures ?? {})
      .filter((port) => !hidden.includes(port))
      .map((port) => `${id}.${port}`),
  );

/** Nodes that stand open, and the joints that are cut for it. */
export interface Openings {
  readonly cuts: CutEnds;
  readonly openings: readonly number[];
  readonly drains: readonly number[];
}

/** Both sides of a joint undone, or the one port. */
export function nodesOf(network: GeometricNetwork, name: string): readonly number[] {
  const joint = network.joints.get(name);
  if (joint) return [joint.tubeNode, joint.portNode];
  const port = network.ports.get(name);
  if (port === undefined) throw new Error(`no opening ${name}: the setup was not checked`);
  return [port];
}

/** mL that leave at an opening, by what a run-out gave node by node. */
export const leavesAt = (network: GeometricNetwork, opening: string, byDrain: ReadonlyMap<number, number>): number =>
  nodesOf(network, opening).reduce((sum, node) => sum + (byDrain.get(node) ?? 0), 0);

export function openUp(network: GeometricNetwork, { open, drains, closed }: OpeningSetup): Openings {
  const cuts = new Uint8Array(network.size);
  for (const name of [...open, ...drains]) {
    const joint = network.joints.get(name);
    if (joint) cuts[joint.tubeNode] = 1;
  }
  for (const tube of closed) {
    const joint = network.joints.get(`${tube}.from`);
    if (joint) cuts[joint.tubeNode] = 1;
  }
  const outlets = drains.flatMap((name) => nodesOf(network, name));
  return { cuts, drains: outlets, openings: [...open.flatMap((name) => nodesOf(network, name)), ...outlets] };
}
