import { tubeName } from '../catalogue/names.js';
import { pieceMm } from '../fit/bodies.js';
import { groupBy } from '../../base/numerics/groupBy.js';
import type { LoopChange } from '../loop-change/loopChange.js';
import { partFinder, tubesByHand, type LoopFile } from '../loop-file/loopFile.js';
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

interface Stock {
  readonly boreMm: number;
  readonly outerMm: number;
  readonly material: string;
}
type Cut = CutPiece & Stock;

/** One list for each kind of tube, the longest piece first. */
function byStock(cuts: readonly Cut[], soft: (material: string) => boolean): TubeKindCuts[] {
  const kinds = groupBy(cuts, ({ material, boreMm, outerMm }) => `${material} ${boreMm}/${outerMm}`);
  return [...kinds.values()].map((own) => {
    const [{ boreMm, outerMm, material }] = own as [Cut];
    const isSoft = soft(material);
    const stockMm = isSoft ? CUTTING.softStockMm : CUTTING.rigidStockMm;
    const all = own.map(({ id, name, laidMm, cutMm }): CutPiece => ({ id, name, laidMm, cutMm })).sort((a, b) => b.cutMm - a.cutMm);
    const pieces = all.filter(({ cutMm }) => cutMm <= stockMm);
    return {
      boreMm,
      outerMm,
      material,
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

/** The loop's tubes as cuts, one list for each kind. `soft` tells what is sold by the roll. */
export function tubeCuts(loop: LoopFile, soft: (material: string) => boolean, allowanceMm: number = CUTTING.allowanceMm): TubeKindCuts[] {
  const find = partFinder(loop);
  return byStock(
    tubesByHand(loop).map((tube): Cut => {
      const laidMm = pieceMm(loop, tube, find);
      const cutMm = Math.ceil(laidMm + allowanceMm);
      return {
        id: tube.id,
        name: tubeName(loop, tube),
        laidMm,
        cutMm,
        boreMm: tube.bore_mm,
        outerMm: tube.outer_mm,
        material: tube.material,
      };
    }),
    soft,
  );
}

/** What a change takes from stock: its new pieces alone. What is cut out of a tube that comes out is on the list of the work. */
export const changeCuts = ({ tubes }: Pick<LoopChange, 'tubes'>, soft: (material: string) => boolean): TubeKindCuts[] =>
  byStock(
    tubes.flatMap(({ id, name, fate, lengthMm, boreMm, outerMm, material }): Cut[] =>
      fate === 'new' && lengthMm !== null ? [{ id, name, laidMm: lengthMm, cutMm: lengthMm, boreMm, outerMm, material }] : [],
    ),
    soft,
  );
