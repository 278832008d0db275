import type { GeometricNetwork } from '../geometry/network.js';
import type { LoopFile, LoopTube } from '../../machine/loop-file/loopFile.js';

/** L/h; slower is no flow */
export const LEAST_FLOW_LPH = 1e-3;

/**
 * Where the liquid goes next from each node of a geometric network. Nodes of a tube are numbered from its `from` end.
 * @param flowLph by part index; positive from a tube's `from` to its `to`
 */
export function downstreamNodes(network: GeometricNetwork, loop: LoopFile, flowLph: (part: number) => number): (node: number) => number[] {
  const tubeAt = (node: number): LoopTube | undefined => loop.tubes[(network.part[node] as number) - loop.components.length];
  const around = (node: number): number[] => [...network.links.subarray(network.starts[node], network.starts[node + 1])];
  /** true for the tube node that takes liquid away from the port beside it */
  const takesAway = (node: number): boolean => {
    const tube = tubeAt(node);
    if (!tube) return false;
    const flow = flowLph(network.part[node] as number);
    if (Math.abs(flow) < LEAST_FLOW_LPH) return false;
    return network.joints.get(`${tube.id}.${flow > 0 ? 'from' : 'to'}`)?.tubeNode === node;
  };
  return (node) => {
    const tube = tubeAt(node);
    if (tube) {
      const part = network.part[node] as number;
      const flow = flowLph(part);
      if (Math.abs(flow) < LEAST_FLOW_LPH) return [];
      const last = network.joints.get(`${tube.id}.${flow > 0 ? 'to' : 'from'}`)?.tubeNode;
      return around(node).filter((other) => (network.part[other] === part ? other > node === flow > 0 : node === last));
    }
    // from a part's inside to every port whose tube carries liquid away
    if (network.isPort[node] === 0) return around(node).filter((port) => around(port).some(takesAway));
    const away = around(node).filter(takesAway);
    return away.length > 0 ? away : around(node).filter((other) => !tubeAt(other));
  };
}
