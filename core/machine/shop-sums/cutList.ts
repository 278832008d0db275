export interface CutList {
  /** pieces in mm by stock length, longest first; the longest cut comes first in every stock */
  readonly stocks: readonly (readonly number[])[];
  /** mm left over or sawn away */
  readonly wasteMm: number;
}

/** Up to this many pieces the fewest stocks are found for certain; above, first fit decreasing. */
export const EXACT_UP_TO = 20;

/** mm; sums of lengths are compared with this much room for rounding */
const ROUNDING_MM = 1e-9;

/** First fit decreasing: each piece into the first stock with room. Sizes and capacity include the kerf. */
function firstFit(sizes: readonly number[], capacity: number): number[][] {
  const bins: { room: number; pieces: number[] }[] = [];
  sizes.forEach((size, piece) => {
    const bin = bins.find(({ room }) => room >= size - ROUNDING_MM);
    if (bin) {
      bin.room -= size;
      bin.pieces.push(piece);
    } else bins.push({ room: capacity - size, pieces: [piece] });
  });
  return bins.map(({ pieces }) => pieces);
}

/**
 * The fewest stocks by dynamic programming over subsets: the best way to cut a set ends with one piece, and what
 * counts about the rest is how many stocks it took and how much of the last one is used.
 */
function fewestStocks(sizes: readonly number[], capacity: number): number[][] {
  const sets = 1 << sizes.length;
  const stocks = new Uint8Array(sets).fill(255);
  const used = new Float64Array(sets);
  const lastPiece = new Uint8Array(sets);
  stocks[0] = 0;
  used[0] = capacity;
  for (let set = 1; set < sets; set += 1) {
    for (let piece = 0; piece < sizes.length; piece += 1) {
      if ((set & (1 << piece)) === 0) continue;
      const before = set ^ (1 << piece);
      const size = sizes[piece] as number;
      const fits = (used[before] as number) + size <= capacity + ROUNDING_MM;
      const count = (stocks[before] as number) + (fits ? 0 : 1);
      const use = fits ? (used[before] as number) + size : size;
      if (count < (stocks[set] as number) || (count === stocks[set] && use < (used[set] as number))) {
        stocks[set] = count;
        used[set] = use;
        lastPiece[set] = piece;
      }
    }
  }
  const bins: number[][] = Array.from({ length: stocks[sets - 1] as number }, () => []);
  for (let set = sets - 1; set > 0;) {
    const piece = lastPiece[set] as number;
    (bins[(stocks[set] as number) - 1] as number[]).push(piece);
    set ^= 1 << piece;
  }
  return bins;
}

/**
 * Cuts pieces from equal stock lengths with the least waste; the kerf lies between pieces, so the last piece of a
 * stock needs none. Before: lengths above 0, no piece longer than the stock.
 */
export function cutList(piecesMm: readonly number[], stockMm: number, kerfMm: number): CutList {
  const pieces = [...piecesMm].sort((a, b) => b - a);
  const sizes = pieces.map((length) => length + kerfMm);
  const capacity = stockMm + kerfMm;
  let bins = firstFit(sizes, capacity);
  const least = Math.ceil(sizes.reduce((sum, size) => sum + size, 0) / capacity - ROUNDING_MM);
  if (bins.length > least && pieces.length <= EXACT_UP_TO) {
    const best = fewestStocks(sizes, capacity);
    if (best.length < bins.length) bins = best;
  }
  const stocks = bins.map((bin) => bin.map((piece) => pieces[piece] as number).sort((a, b) => b - a));
  stocks.sort((a, b) => (b[0] as number) - (a[0] as number));
  return { stocks, wasteMm: stocks.length * stockMm - pieces.reduce((sum, length) => sum + length, 0) };
}
