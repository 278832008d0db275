import { STANDING } from '../../machine/loop-file/orientation.js';
import { copyOf } from '../../physics/live-book/liquidTwin.js';
import { standingNow } from './book.js';
import { LOCKS } from './locks.js';
import type { Procedure } from './procedure.js';
import type { RunState } from './state.js';

/** What would leave at an opening if it were opened now, as the machine stands and with what is inside. mL */
export interface WouldLeave {
  /** with everything else that is open giving air only, as if no jug took anything */
  readonly alone: number;
  /** beside the other openings, each running as it does */
  readonly beside: number;
  /** hangs above it for want of air, and lets go when a bubble gets in or it is knocked */
  readonly hangs: number;
}

/**
 * null where heights or contents are not known, or the machine stands at an angle between two stands.
 * @param place a port, or a tube's joint by its tube: then the end that would run more
 */
export function wouldLeave(procedure: Procedure, state: RunState, place: string, nowMs: number): WouldLeave | null {
  const { stand, openPorts, openJoints } = state;
  const isUpright = stand.angleDeg <= LOCKS.uprightWithinDeg;
  const now = standingNow(procedure, state, nowMs);
  if (!now || (!isUpright && stand.angleDeg < FULL_TURN_DEG)) return null;
  const tilt = STANDING[isUpright ? 'upright' : stand.to];
  const { network } = now.twin.drive;
  const known = (opening: string): boolean => network.ports.has(opening) || network.joints.has(opening);
  const ends = [place, `${place}.from`, `${place}.to`].filter(known);
  const others = [...openPorts, ...[...openJoints].flatMap((id) => [`${id}.from`, `${id}.to`])].filter(
    (each) => known(each) && !ends.includes(each),
  );
  const opened = (end: string, drains: readonly string[], open: readonly string[]): ReturnType<typeof now.twin.open> =>
    now.twin.open(copyOf(now.at), tilt, { open, drains: [end, ...drains], closed: [] });
  const most = (of: (end: string) => number): number => Math.max(0, ...ends.map(of));
  if (ends.length === 0) return null;
  return {
    alone: most((end) => opened(end, [], others).at(end)),
    beside: most((end) => opened(end, others, []).at(end)),
    hangs: most((end) => opened(end, [], others).heldMl),
  };
}

/** degrees from which a machine lies on the side that it was turned to */
const FULL_TURN_DEG = 85;
