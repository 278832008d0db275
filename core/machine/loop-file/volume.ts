import { partFinder, tubeLengthMm, type LoopComponent, type LoopFile, type LoopTube, type PartFinder } from './loopFile.js';

/** Standard deviation of a component's volume where its file states none: 20 % of the volume (general estimate). */
export const COMPONENT_SD_SHARE = 0.2;
/** Standard deviation of a tube's volume: 3 % (bore tolerance and length as cut). */
export const TUBE_SD_SHARE = 0.03;

/** mL and its standard deviation, of one part or of the whole. */
export interface Volume {
  readonly volumeMl: number;
  readonly sdMl: number;
}

export interface PartVolume extends Volume {
  readonly id: string;
}

export interface LoopVolume extends Volume {
  /** components in the file's order, then tubes */
  readonly parts: readonly PartVolume[];
}

/** Inside volume of a straight tube, V = π/4·ID²·L. `boreMm` and `lengthMm` in mm, result in mL. */
export const tubeVolumeMl = (boreMm: number, lengthMm: number): number => ((Math.PI / 4) * boreMm ** 2 * lengthMm) / 1000;

export const componentSdMl = (component: LoopComponent): number => component.volume_sd_ml ?? COMPONENT_SD_SHARE * component.volume_ml;

const ofComponent = (component: LoopComponent): PartVolume => ({
  id: component.id,
  volumeMl: component.volume_ml,
  sdMl: componentSdMl(component),
});

function ofTube(loop: LoopFile, tube: LoopTube, find: PartFinder): PartVolume {
  const volumeMl = tubeVolumeMl(tube.bore_mm, tubeLengthMm(loop, tube, find));
  return { id: tube.id, volumeMl, sdMl: TUBE_SD_SHARE * volumeMl };
}

/** Sum of independent volumes: variances add. */
export function sumVolumes(volumes: readonly Volume[]): Volume {
  return {
    volumeMl: volumes.reduce((sum, { volumeMl }) => sum + volumeMl, 0),
    sdMl: Math.sqrt(volumes.reduce((sum, { sdMl }) => sum + sdMl ** 2, 0)),
  };
}

/** Volume of the whole loop; a reservoir counts everything it could hold. */
export function loopVolume(loop: LoopFile): LoopVolume {
  const find = partFinder(loop);
  const parts = [...loop.components.map(ofComponent), ...loop.tubes.map((tube) => ofTube(loop, tube, find))];
  return { ...sumVolumes(parts), parts };
}
