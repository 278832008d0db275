/** A place on a picture, in px from its top left. */
export interface Px {
  readonly x: number;
  readonly y: number;
}

/** What was touched on an owner's picture of the reservoir. */
export interface LevelTouches {
  readonly mark: Px;
  readonly level: Px;
  /** both ends of something whose length is known, level as the machine stands: usually the reservoir's edges */
  readonly scale: readonly [Px, Px];
  /** mm between them */
  readonly scaleMm: number;
}

/** px that a finger misses by, of the picture as it was touched (one standard deviation; general estimate) */
export const TOUCH_SD_PX = 3;

/** The level over its mark; below is negative. */
export interface LevelRead {
  readonly mm: number;
  readonly sdMm: number;
}

/**
 * Reads a level off a picture. The known length says how many px a millimetre has, and, since it lies level, which way is up; the level's
 * distance from the mark is taken along that. Each touch misses by `TOUCH_SD_PX`, which goes through both (first order).
 * @returns null where the known length is too short on the picture to say anything
 */
export function readLevel({ mark, level, scale: [a, b], scaleMm }: LevelTouches, touchSdPx = TOUCH_SD_PX): LevelRead | null {
  const along = { x: b.x - a.x, y: b.y - a.y };
  const lengthPx = Math.hypot(along.x, along.y);
  if (!(scaleMm > 0) || lengthPx < 8 * touchSdPx) return null;
  const mmPerPx = scaleMm / lengthPx;
  // up is a quarter turn from the length, towards the top of the picture
  const sign = along.x >= 0 ? 1 : -1;
  const up = { x: (sign * along.y) / lengthPx, y: (-sign * along.x) / lengthPx };
  const d = { x: level.x - mark.x, y: level.y - mark.y };
  const px = d.x * up.x + d.y * up.y;
  const aside = d.x * up.y - d.y * up.x;
  // both touches of the distance; both ends of the length in its own direction (scale) and across it (turn)
  const variance = 2 * touchSdPx ** 2 + 2 * ((px / lengthPx) * touchSdPx) ** 2 + 2 * ((aside / lengthPx) * touchSdPx) ** 2;
  return { mm: px * mmPerPx, sdMm: Math.sqrt(variance) * mmPerPx };
}
