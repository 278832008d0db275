import { openablePorts } from '../draining/openings.js';
import { totalMl } from '../contents/contents.js';
import { buildNetwork, type GeometricNetwork } from '../geometry/network.js';
import { STANDING, STANDING_NAMES, type StandingName } from '../../machine/loop-file/orientation.js';
import { turnNetwork } from '../geometry/turned.js';
import { gasAgainst } from '../air/pockets.js';
import type { LoopFile } from '../../machine/loop-file/loopFile.js';
import { loopVolume } from '../../machine/loop-file/volume.js';

export interface GravityTurn {
  readonly orientation: StandingName;
  readonly pouredMl: number;
}

export interface GravityFill {
  /** the port the bottle hangs on */
  readonly port: string;
  readonly turns: readonly GravityTurn[];
  readonly totalMl: number;
}

/** mL; a turn that lets out less is not worth two people's backs */
const LEAST_TURN_ML = 1;

/** Gas that stays, by node, with the bottle above `port`: where every way up to the port dips. mL */
function gasLeft(network: GeometricNetwork, standing: StandingName, port: number): Float64Array {
  return gasAgainst(turnNetwork(network, STANDING[standing]), [port]);
}

/**
 * Fills a loop without a reservoir from a bottle above one port: as the case is turned, gas that finds a way up to the
 * port leaves. In a vessel what is left after two turns is at most the smaller of both pockets.
 */
export function fillByGravity(loop: LoopFile): GravityFill {
  const network = buildNetwork(loop);
  const wholeMl = loopVolume(loop).volumeMl;
  const openable = openablePorts(loop);
  const ports = openable.length > 0 ? openable : [...network.ports.keys()];
  const plans = ports.map((port) => planFrom(network, port, wholeMl));
  const best = plans.reduce<GravityFill | null>((so, plan) => (so === null || plan.totalMl > so.totalMl + LEAST_TURN_ML ? plan : so), null);
  return best ?? { port: '', turns: [], totalMl: 0 };
}

function planFrom(network: GeometricNetwork, port: string, wholeMl: number): GravityFill {
  const gas = new Map(STANDING_NAMES.map((name) => [name, gasLeft(network, name, network.ports.get(port) as number)]));
  let left = Float64Array.from(network.volumeMl);
  const turns: GravityTurn[] = [];
  for (;;) {
    const now = totalMl(left);
    const options = STANDING_NAMES.map((orientation) => {
      const after = left.map((ml, node) => Math.min(ml, (gas.get(orientation) as Float64Array)[node] as number));
      return { orientation, after, pouredMl: now - totalMl(after) };
    });
    const best = options.reduce((so, each) => (each.pouredMl > so.pouredMl + LEAST_TURN_ML ? each : so));
    if (best.pouredMl < LEAST_TURN_ML) break;
    turns.push({ orientation: best.orientation, pouredMl: best.pouredMl });
    left = best.after;
  }
  return {
    port,
    turns,
    totalMl: Math.min(
      wholeMl,
      turns.reduce((total, { pouredMl }) => total + pouredMl, 0),
    ),
  };
}
