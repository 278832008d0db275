import { tubeLengthMm, type LoopFile, type LoopTube, type PartFinder } from '../loop-file/loopFile.js';

/**
 * What sits between a port and the end of its tube: flat fittings, extenders, offsets, angles. General estimates of what is sold, no
 * maker's data; whoever has the fitting in hand measures it.
 */
export interface FittingBody {
  readonly label: string;
  /** mm by which the tube begins further from the port than with a usual fitting; below zero: nearer */
  readonly standsMm: number;
  /** mm by which its collar is wider than the tube outside */
  readonly collarMm: number;
  /** what it adds to the losses, as the loop file names fittings */
  readonly loses: '45' | '90' | null;
}

export const FITTING_BODIES = {
  flat: { label: 'flat fitting', standsMm: -5, collarMm: 5, loses: null },
  extender: { label: 'extender, 15 mm', standsMm: 15, collarMm: 7, loses: null },
  'long-extender': { label: 'extender, 30 mm', standsMm: 30, collarMm: 7, loses: null },
  offset: { label: 'offset, 10 mm to the side', standsMm: 18, collarMm: 7, loses: null },
  'angle-45': { label: 'angle, 45°', standsMm: 18, collarMm: 8, loses: '45' },
  'angle-90': { label: 'angle, 90°', standsMm: 22, collarMm: 9, loses: '90' },
} as const satisfies Record<string, FittingBody>;
export type BodyKey = keyof typeof FITTING_BODIES;

/** mm by which the collar of a usual compression fitting is wider than its tube */
const USUAL_COLLAR_MM = 7;

export type TubeEnd = 'from' | 'to';

const isBody = (key: string): key is BodyKey => Object.hasOwn(FITTING_BODIES, key);

/** Those of one end, from the port on; words from elsewhere are left out. */
export const bodiesAt = ({ bodies }: Pick<LoopTube, 'bodies'>, end: TubeEnd): BodyKey[] => (bodies?.[end] ?? []).filter(isBody);

/** mm of tube that the bodies at its two ends stand in place of; below zero where they are flat. */
export const standsMm = (tube: Pick<LoopTube, 'bodies'>): number =>
  (['from', 'to'] as const).flatMap((end) => bodiesAt(tube, end)).reduce((sum, key) => sum + FITTING_BODIES[key].standsMm, 0);

/** mm of tube between what is screwed into its two ports; a length that somebody measured is the tube's own. */
export const pieceMm = (loop: LoopFile, tube: LoopTube, find?: PartFinder): number =>
  tube.length_mm ?? Math.max(0, tubeLengthMm(loop, tube, find) - standsMm(tube));

/** mm across what is screwed into the port at one end of a tube: its widest body or its own collar. */
export function collarMm(tube: Pick<LoopTube, 'bodies' | 'outer_mm'>, end: TubeEnd): number {
  const own = bodiesAt(tube, end).map((key) => FITTING_BODIES[key].collarMm);
  // a flat fitting takes the place of the usual one; every other body carries one
  const usual = own.length === 1 && bodiesAt(tube, end)[0] === 'flat' ? [] : [USUAL_COLLAR_MM];
  return tube.outer_mm + Math.max(...usual, ...own);
}

/** The loop with other bodies at one end of a tube; what they lose in flow goes with them. */
export function withBodies(loop: LoopFile, id: string, end: TubeEnd, keys: readonly BodyKey[]): LoopFile {
  return {
    ...loop,
    tubes: loop.tubes.map((tube) => {
      if (tube.id !== id) return tube;
      const fittings = [...(tube.fittings?.length ? tube.fittings : ['compression', 'compression'])];
      for (const key of bodiesAt(tube, end)) {
        const at = fittings.indexOf(FITTING_BODIES[key].loses ?? '');
        if (at >= 0) fittings.splice(at, 1);
      }
      fittings.push(...keys.flatMap((key) => FITTING_BODIES[key].loses ?? []));
      const others = { ...tube.bodies, [end]: [...keys] };
      const { bodies: _before, ...rest } = tube;
      const isBare = (others.from ?? []).length + (others.to ?? []).length === 0;
      return { ...rest, fittings, ...(isBare ? {} : { bodies: others }) };
    }),
  };
}
