import { usualLoop } from '../../machine/catalogue/testLoops.js';
import type { LoopComponent } from '../../machine/loop-file/loopFile.js';
import { reservoirMarks } from '../../machine/loop-file/marks.js';
import type { SimulatedBench } from './bench.js';

/** Hands of a careful technician at the usual loop, for tests. */

export const reservoirOf = (loop = usualLoop()): LoopComponent => loop.components.find(({ kind }) => kind === 'reservoir') as LoopComponent;

/**
 * Pours to the mark and pulses to the low mark until liquid goes round.
 * @param again it went round before, and was let out since
 */
export function fill(bench: SimulatedBench, again = false): void {
  const { fillMarkMl, lowMarkMl } = reservoirMarks(reservoirOf());
  const perMm = reservoirOf().volume_ml / ((reservoirOf().box?.max[1] ?? 0) - (reservoirOf().box?.min[1] ?? 0));
  const inReservoir = (): number => (bench.readings().level ?? 0) * perMm;
  const rounds = (): number => bench.report().happenings.filter(({ what }) => what === 'circulating').length;
  const before = again ? rounds() : 0;
  const circulating = (): boolean => rounds() > before;
  const toTheMark = (): void => {
    for (let n = 0; n < 8 && inReservoir() < fillMarkMl - 6; n += 1) bench.act({ do: 'pour', ml: fillMarkMl - inReservoir() - 2 });
  };
  for (let pulse = 0; pulse < 40 && !circulating(); pulse += 1) {
    toTheMark();
    bench.switchSupply(true);
    for (let s = 0; s < 60 && inReservoir() > lowMarkMl + 4 && !circulating(); s += 0.2) bench.advance(0.2);
    bench.switchSupply(false);
    bench.advance(3);
  }
  toTheMark();
}
