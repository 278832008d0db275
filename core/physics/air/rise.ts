import { tubeVolumeMl } from '../../machine/loop-file/volume.js';
import { TUBE_MATERIALS, type TubePiece } from '../../machine/materials/tubes.js';

/**
 * mL by which a tube's inside grows under pressure: ΔV/V = (2Δp/E)·[(b² + a²)/(b² − a²) + ν], a and b the inner and
 * outer radius (Lamé's thick-walled cylinder). Walls of glass and metal do not give.
 */
export function tubeStretchMl({ material, boreMm, outerMm, lengthMm }: TubePiece, riseKpa: number): number {
  const { modulusMpa, poisson } = TUBE_MATERIALS[material];
  if (modulusMpa === null) return 0;
  const [a2, b2] = [boreMm ** 2, outerMm ** 2];
  return tubeVolumeMl(boreMm, lengthMm) * ((2 * riseKpa) / (modulusMpa * 1000)) * ((b2 + a2) / (b2 - a2) + poisson);
}

export interface RiseReading {
  /** how far the level rose in the reservoir when the pump stopped; negative when it sank */
  readonly levelRiseMm: number;
  /** free cross-section of the reservoir */
  readonly areaMm2: number;
  /** gauge pressure at the air while the pump runs, and while it stands; run above off */
  readonly runGaugeKpa: number;
  readonly offGaugeKpa: number;
  readonly atmosphereKpa: number;
  /** tubes under the running pressure, whose stretch is taken off the rise */
  readonly tubes: readonly TubePiece[];
}

/**
 * Air still in the loop, in mL at standing pressure, from the level's rise at pump stop (Boyle):
 * V_off = ΔV·p_run/(p_run − p_off), absolute pressures, ΔV = rise × area − the tubes' stretch. Never below 0.
 */
export function airFromRiseMl({ levelRiseMm, areaMm2, runGaugeKpa, offGaugeKpa, atmosphereKpa, tubes }: RiseReading): number {
  const pressedMl = (levelRiseMm * areaMm2) / 1000;
  const stretchMl = tubes.reduce((sum, tube) => sum + tubeStretchMl(tube, runGaugeKpa - offGaugeKpa), 0);
  return (Math.max(0, pressedMl - stretchMl) * (runGaugeKpa + atmosphereKpa)) / (runGaugeKpa - offGaugeKpa);
}
