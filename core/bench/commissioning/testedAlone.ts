import { say } from '../../base/words/say.js';
import type { Liquid } from '../../machine/liquids/fluids.js';
import type { LoopFile } from '../../machine/loop-file/loopFile.js';
import { loopVolume } from '../../machine/loop-file/volume.js';
import { unitLoop, unitsAlone } from '../../physics/filling/unitAlone.js';
import { twinFor } from '../../physics/live-book/atMark.js';
import { LiveBook } from '../../physics/live-book/liveBook.js';
import { dryContents, type LoopContents } from '../../physics/live-book/loopContents.js';
import { DEFAULT_SCHOOLS, type Schools } from '../../physics/leak-testing/schools.js';
import type { RunEventBody } from '../runs/entries/all.js';
import type { Procedure, UnitTested } from '../runs/procedure.js';
import type { RunState } from '../runs/state.js';
import { unitVerdict } from '../runs/verdicts.js';

/** A unit that is tested out of its case, and what its test means for the loop that it is built into. */

/** Coolant or water alone, ten minutes: what the bench's own clock says. */
export const UNIT_SCHOOLS: Schools = { ...DEFAULT_SCHOOLS, leak: 'wet-only', wet: 'ten-minutes' };

/** The unit around a pump and its own small loop; null where no reservoir feeds that pump. */
export function unitOf(loop: LoopFile, pumpId: string, liquid: Liquid): { readonly unit: UnitTested; readonly file: LoopFile } | null {
  const pump = loop.components.find(({ id }) => id === pumpId);
  const file = pump && unitLoop(loop, pump);
  const alone = file && unitsAlone(file, liquid)[0];
  return alone ? { unit: { pump: alone.pump, reservoir: alone.reservoir, name: alone.name }, file } : null;
}

/** What a signed-off test of a unit came to. */
export interface TestedAlone {
  readonly unit: UnitTested;
  readonly tight: boolean;
  readonly how: string;
  /** mL that stayed inside, by the book of its run */
  readonly leftMl: number;
}

/** null: nobody judged it */
export function resultOf({ unit }: Pick<Procedure, 'unit'>, state: RunState): TestedAlone | null {
  const said = unitVerdict({ unit }, state);
  if (!unit || !said) return null;
  return { unit, tight: said.tight, how: said.how, leftMl: Math.max(0, state.contents.insideMl ?? said.leftMl) };
}

/** What the loop holds before its build: what stayed in its units. */
export function insideAfter(loop: LoopFile, liquid: Liquid, tested: readonly TestedAlone[]): LoopContents {
  const twin = twinFor(loop, liquid);
  const contents = dryContents(twin);
  const book = new LiveBook(twin, contents, loopVolume(loop).sdMl);
  for (const { unit, leftMl } of tested) book.broughtIn(unit.pump, leftMl);
  return contents;
}

/**
 * The first entries of a build whose units were tested before: tight with what stayed inside, or in doubt until somebody tests it again.
 * @param day of the test, as people read it
 * @param isCounted what stayed inside is part of what the run begins with already
 */
export function entriesFrom({ unit, tight, how, leftMl }: TestedAlone, day: string, isCounted: boolean): RunEventBody[] {
  const said = say('out of its case on {day}: {how}', { day, how });
  const test = (part: string, ml: number): RunEventBody => ({ type: 'part-test', part, tight, how: said, leftMl: ml });
  return [
    ...(tight ? [] : [{ type: 'doubt', part: unit.pump, text: say('leaked {said}', { said }) } as const]),
    test(unit.pump, isCounted ? 0 : Math.round(leftMl)),
    ...(tight ? [test(unit.reservoir, 0)] : []),
  ];
}
