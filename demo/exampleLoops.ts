import { readLoopFile } from '../core/machine/loop-file/loopFileSchema.js';
import type { LoopFile } from '../core/machine/loop-file/loopFile.js';
import driveBayUnit from '../examples/drive-bay-unit.json';
import highDrain from '../examples/high-drain.json';
import noReservoir from '../examples/no-reservoir.json';
import parallelCards from '../examples/parallel-cards.json';
import portsAtBottom from '../examples/ports-at-bottom.json';
import rigidLoop from '../examples/rigid-loop.json';
import twoLoops from '../examples/two-loops-one-case.json';
import twoRadiators from '../examples/two-radiators.json';

/** Machines with a history that carry one of the example loops, in the order they are made. */
const IN_SERVICE: readonly unknown[] = [rigidLoop, parallelCards, portsAtBottom, highDrain, driveBayUnit, twoRadiators];
/** Planned ones: what no commissioning has been played on. */
const PLANNED: readonly unknown[] = [twoLoops, noReservoir];

/** The example loop for the n-th machine of a story, or null once they are used up. */
export function exampleLoop(story: string, nth: number): LoopFile | null {
  const file = (story === 'fine' ? IN_SERVICE : story === 'planned' ? PLANNED : [])[nth];
  return file === undefined ? null : readLoopFile(file);
}
