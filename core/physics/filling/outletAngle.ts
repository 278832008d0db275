import { levelAtShare, turnBox } from '../geometry/levelCut.js';
import { heightMm, STANDING, STANDING_NAMES, upVector, type StandingName, type Tilt } from '../../machine/loop-file/orientation.js';
import type { LoopComponent, Point } from '../../machine/loop-file/loopFile.js';

export interface UncoverAngle {
  readonly towards: StandingName;
  /** degrees of turn at which the outlet comes out of the liquid; null when it stays covered all the way */
  readonly angleDeg: number | null;
}

/** Turning stands: upright does not turn, and upside down is reached over one of the others. */
const TURNS = STANDING_NAMES.filter((name) => name !== 'upright' && name !== 'upside-down');

const partWay = (towards: StandingName, angleDeg: number): Tilt => {
  const { pitchDeg, rollDeg } = STANDING[towards];
  return { pitchDeg: Math.sign(pitchDeg) * angleDeg, rollDeg: Math.sign(rollDeg) * angleDeg };
};

/**
 * For each turn from upright, the angle at which the reservoir's outlet uncovers and a running pump draws air, to one
 * degree on the safe side.
 * Before: the reservoir has a box.
 */
export function uncoverAngles(reservoir: LoopComponent, contentMl: number): UncoverAngle[] {
  const outlet = reservoir.ports[reservoir.flow?.[1] ?? (Object.keys(reservoir.ports).at(-1) as string)] as Point;
  const share = reservoir.volume_ml > 0 ? Math.min(1, contentMl / reservoir.volume_ml) : 0;
  const covered = (tilt: Tilt): boolean => {
    const up = upVector(tilt);
    return heightMm(up, outlet) < levelAtShare(turnBox(reservoir.box as NonNullable<typeof reservoir.box>, up), share);
  };
  return TURNS.map((towards) => {
    for (let angleDeg = 0; angleDeg <= 90; angleDeg += 1) if (!covered(partWay(towards, angleDeg))) return { towards, angleDeg };
    return { towards, angleDeg: null };
  });
}
