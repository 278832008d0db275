import { LOOP_FORMAT, LOOP_VERSION, type LoopFile } from './loopFile.js';
import type { Volume } from './volume.js';

/**
 * A loop that nobody drew yet: its volume and perhaps its tube, as somebody stated them. Dates, jobs and owners go by it; what needs
 * parts, heights or openings waits for a drawing.
 */

const OUTLINE_KIND = 'outline';

/** A loop with one or two radiators, whose volume nobody stated. Estimate; workshop practice, 600 to 1300 mL. */
export const UNSTATED_VOLUME: Volume = { volumeMl: 900, sdMl: 250 };
/** share of a stated volume: what bottle and jug were rounded to */
const STATED_SD_SHARE = 0.1;

interface OutlineTube {
  readonly bore_mm: number;
  readonly outer_mm: number;
  readonly material: string | null;
}

export interface Outline {
  /** mL; null: nobody stated it */
  readonly volumeMl: number | null;
  readonly tube: { readonly boreMm: number; readonly outerMm: number; readonly material: string | null } | null;
}

export function outlineLoop(name: string, { volumeMl, tube }: Outline): LoopFile {
  const volume = volumeMl === null ? UNSTATED_VOLUME : { volumeMl, sdMl: STATED_SD_SHARE * volumeMl };
  return {
    format: LOOP_FORMAT,
    version: LOOP_VERSION,
    name,
    outline: {
      stated_ml: volumeMl,
      tube: tube && ({ bore_mm: tube.boreMm, outer_mm: tube.outerMm, material: tube.material } satisfies OutlineTube),
    },
    components: [
      {
        id: 'whole',
        kind: OUTLINE_KIND,
        label: 'Loop, not drawn',
        volume_ml: volume.volumeMl,
        volume_sd_ml: volume.sdMl,
        ports: { end: [0, 0, 0] },
      },
    ],
    tubes: [],
  };
}

/** Nobody drew it: nothing can be led on it. */
export const isOutline = ({ components }: Pick<LoopFile, 'components'>): boolean => components.some(({ kind }) => kind === OUTLINE_KIND);

/** What was stated of a loop that nobody drew; null for one that is drawn. */
export function outlineOf(file: LoopFile): Outline | null {
  if (!isOutline(file)) return null;
  const stated = file.outline as { stated_ml?: number | null; tube?: OutlineTube | null } | undefined;
  const tube = stated?.tube ?? null;
  return {
    volumeMl: stated?.stated_ml ?? null,
    tube: tube && { boreMm: tube.bore_mm, outerMm: tube.outer_mm, material: tube.material },
  };
}
