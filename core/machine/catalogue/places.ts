import type { Point } from '../loop-file/loopFile.js';

/**
 * Where a part sits in an ordinary upright case, until somebody draws it true. Used to give a planned loop heights
 * for the loop profile; figures that depend on them are estimates.
 * Case frame in mm: x to the front, y up, z towards the side panel.
 */
export const PLACES = {
  roof: 'under the roof',
  front: 'behind the front panel',
  floor: 'on the floor',
  rear: 'at the rear fan',
  board: 'on the board',
  card: 'on the graphics card',
  tray: 'beside the board',
  'window-side': 'on the window side wall',
  'blind-side': 'on the blind side wall',
} as const;

export type Place = keyof typeof PLACES;

export interface Box {
  readonly min: Point;
  readonly max: Point;
}

export interface Geometry {
  readonly ports: Record<string, Point>;
  readonly box?: Box;
}

/** mm; the inside of a common tower */
const CASE = { frontX: 440, roofY: 490, floorY: 20, nearZ: 20, windowZ: 200 } as const;
/** mm; ports sit this far from the end of a radiator's tank, and this far apart */
const TANK = { inset: 10, portZ: [50, 110] as const } as const;

/** mm; a radiator for fans of 120 mm */
const USUAL_WIDTH_MM = 120;

/** A radiator standing flat on a side wall, in front of the board, its ports on the upper tank towards the inside. */
function onSideWall(place: 'window-side' | 'blind-side', lengthMm: number, thicknessMm: number, widthMm: number): Geometry {
  const onWindow = place === 'window-side';
  const [near, far] = onWindow ? [CASE.windowZ - thicknessMm, CASE.windowZ] : [0, thicknessMm];
  const inside = onWindow ? near : far;
  const [left, bottom] = [CASE.frontX - 160, 50];
  const top = bottom + lengthMm;
  const port = (x: number): Point => [left + x, top - TANK.inset, inside];
  const [a, b] = TANK.portZ;
  return {
    box: { min: [left, bottom, near], max: [left + widthMm, top, far] },
    ports: { a: port(a - CASE.nearZ), b: port(b - CASE.nearZ), vent: [left + 60, bottom + TANK.inset, inside] },
  };
}

/** A radiator with its two ports on one tank and a plugged vent at the other end. `lengthMm` along its fans, `widthMm` across them. */
export function placeRadiator(place: Place, lengthMm: number, thicknessMm: number, widthMm: number = USUAL_WIDTH_MM): Geometry {
  if (place === 'window-side' || place === 'blind-side') return onSideWall(place, lengthMm, thicknessMm, widthMm);
  const [nearZ, farZ] = [CASE.nearZ, CASE.nearZ + widthMm];
  const [za, zb] = TANK.portZ;
  if (place === 'front') {
    const x = CASE.frontX - thicknessMm;
    const top = 60 + lengthMm;
    return {
      box: { min: [x, 60, nearZ], max: [CASE.frontX, top, farZ] },
      ports: { a: [x, top - TANK.inset, za], b: [x, top - TANK.inset, zb], vent: [x, 60 + TANK.inset, 80] },
    };
  }
  if (place === 'rear') {
    return {
      box: { min: [5, 300, nearZ], max: [5 + thicknessMm, 300 + lengthMm, farZ] },
      ports: {
        a: [5 + thicknessMm, 300 + TANK.inset, za],
        b: [5 + thicknessMm, 300 + TANK.inset, zb],
        vent: [5 + thicknessMm, 300 + lengthMm - TANK.inset, 80],
      },
    };
  }
  const onFloor = place === 'floor';
  const bottom = onFloor ? CASE.floorY : CASE.roofY - thicknessMm;
  const portSide = onFloor ? bottom + thicknessMm : bottom;
  const ventSide = onFloor ? bottom : bottom + thicknessMm;
  const end = 40 + lengthMm;
  return {
    box: { min: [40, bottom, nearZ], max: [end, bottom + thicknessMm, farZ] },
    ports: { a: [end - TANK.inset, portSide, za], b: [end - TANK.inset, portSide, zb], vent: [50, ventSide, 80] },
  };
}

/** Foot of a standing reservoir or of a pump, by place. */
const FEET: Partial<Record<Place, Point>> = { tray: [325, 90, 85], floor: [300, 60, 85], front: [380, 120, 85] };

/** A standing cylinder: outlet below, return just under the lid, fill port in the lid. */
export function placeReservoir(place: Place, heightMm: number, widthMm: number): Geometry {
  const [x, y, z] = FEET[place] ?? (FEET.tray as Point);
  const half = widthMm / 2;
  return {
    box: { min: [x - half, y, z - half], max: [x + half, y + heightMm, z + half] },
    ports: { return: [x, y + heightMm - 20, z], out: [x, y, z], fill: [x, y + heightMm, z] },
  };
}

export function placePump(place: Place): Geometry {
  const [x, y, z] = FEET[place] ?? (FEET.tray as Point);
  return { ports: { in: [x, y - 5, z], out: [x, y - 30, z + 25] } };
}

/** Middle of a block, by place. */
const SEATS: Partial<Record<Place, Point>> = {
  board: [165, 380, 40],
  card: [205, 240, 120],
  rear: [120, 420, 40],
  floor: [250, 120, 60],
  tray: [330, 300, 40],
};

/** A block with its ports side by side, `pitchMm` apart along the case's depth. */
export function placeBlock(place: Place, pitchMm: number): Geometry {
  const [x, y, z] = SEATS[place] ?? (SEATS.board as Point);
  return { ports: { in: [x + pitchMm / 2, y, z], out: [x - pitchMm / 2, y, z] } };
}

/** A tee with a valve hanging from the lowest tube. */
export function placeDrain(): Geometry {
  return { ports: { in: [290, 40, 100], out: [250, 40, 100], drain: [270, 25, 100] } };
}

/** A splitter: the trunk's port, and one for each branch in a row beside it. */
export function placeSplitter(branches: number): Geometry {
  const [x, y, z] = [235, 180, 100];
  const side = Array.from(
    { length: branches },
    (_, index) => [`b${index + 1}`, [x + 15, y, z + 20 * (index - (branches - 1) / 2)]] as const,
  );
  return { ports: { trunk: [x - 15, y, z], ...Object.fromEntries(side) } as Geometry['ports'] };
}

/** An inline part such as a meter, on the way up behind the board's front edge. */
export function placeInline(): Geometry {
  return { ports: { in: [250, 160, 100], out: [250, 200, 100] } };
}
