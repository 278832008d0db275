import { flowOrder } from '../loops/chain.js';
import type { LoopFile, PortRef } from '../loops/loopFile.js';

/**
 * The same loop with the first two blocks of its way changed round: what comes first gets the cooler liquid. Tubes stay
 * where they are. A loop with fewer than two blocks comes back as it is.
 */
export function swapBlocks(loop: LoopFile): LoopFile {
  const [first, second] = flowOrder(loop)
    .links.map(({ component }) => component)
    .filter(({ kind, flow }) => kind === 'block' && flow);
  if (!first?.flow || !second?.flow) return loop;
  const other = new Map([
    [`${first.id} ${first.flow[0]}`, [second.id, second.flow[0]] as PortRef],
    [`${first.id} ${first.flow[1]}`, [second.id, second.flow[1]] as PortRef],
    [`${second.id} ${second.flow[0]}`, [first.id, first.flow[0]] as PortRef],
    [`${second.id} ${second.flow[1]}`, [first.id, first.flow[1]] as PortRef],
  ]);
  const turn = (port: PortRef): PortRef => other.get(port.join(' ')) ?? port;
  return { ...loop, tubes: loop.tubes.map((tube) => ({ ...tube, from: turn(tube.from), to: turn(tube.to) })) };
}
