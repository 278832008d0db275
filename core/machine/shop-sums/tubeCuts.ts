import { tubeName } from '../catalogue/names.js';
import { partFinder, tubeLengthMm, tubesByHand, type LoopFile, type LoopTube } from '../loop-file/loopFile.js';
import { cutList, type CutList } from './cutList.js';

export interface CutPiece {
  readonly id: string;
  /** what it joins */
  readonly name: string;
  /** as laid, without allowance */
  readonly laidMm: number;
  readonly cutMm: number;
}

/** All tubes of one kind, and how they come out of stock lengths. */
export interface TubeKindCuts {
  readonly boreMm: number;
  readonly outerMm: number;
  readonly material: string;
  /** longest first */
  readonly pieces: readonly CutPiece[];
  readonly stockMm: number;
  readonly list: CutList;
  /** pieces longer than the stock: they need a longer one or a joint */
  readonly tooLong: readonly CutPiece[];
}

export const CUTTING = {
  /** mm a piece is cut longer: what both fittings swallow, and one trimming */
  allowanceMm: 12,
  /** mm; how soft tube is sold by the roll, and rigid tube by the bar */
  softStockMm: 2000,
  rigidStockMm: 1000,
  /** mm; a fine saw on rigid tube; soft tube is cut with a knife */
  kerfMm: 1.5,
} as const;

const kindOf = ({ bore_mm, outer_mm, material }: LoopTube): string => `${material} ${bore_mm}/${outer_mm}`;

/** The loop's tubes as cuts, one list for each kind. `soft` tells what is sold by the roll. */
export function tubeCuts(loop: LoopFile, soft: (material: string) => boolean, allowanceMm: number = CUTTING.allowanceMm): TubeKindCuts[] {
  const find = partFinder(loop);
  const kinds = new Map<string, LoopTube[]>();
  for (const tube of tubesByHand(loop)) kinds.set(kindOf(tube), [...(kinds.get(kindOf(tube)) ?? []), tube]);
  return [...kinds.values()].map((tubes) => {
    const [first] = tubes as [LoopTube];
    const isSoft = soft(first.material);
    const stockMm = isSoft ? CUTTING.softStockMm : CUTTING.rigidStockMm;
    const all = tubes
      .map((tube): CutPiece => {
        const laidMm = tubeLengthMm(loop, tube, find);
        return { id: tube.id, name: tubeName(loop, tube), laidMm, cutMm: Math.ceil(laidMm + allowanceMm) };
      })
      .sort((a, b) => b.cutMm - a.cutMm);
    const pieces = all.filter(({ cutMm }) => cutMm <= stockMm);
    return {
      boreMm: first.bore_mm,
      outerMm: first.outer_mm,
      material: first.material,
      pieces,
      stockMm,
      list: cutList(
        pieces.map(({ cutMm }) => cutMm),
        stockMm,
        isSoft ? 0 : CUTTING.kerfMm,
      ),
      tooLong: all.filter(({ cutMm }) => cutMm > stockMm),
    };
  });
}
