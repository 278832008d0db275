import { calcDecay, calcHold } from './leakTesting.js';
import { calcDose, calcRinse } from './dosing.js';
import { calcVolume } from './volume.js';

/** One computation that runs from the command line: a JSON document in, a JSON document out. */
export interface CalcCommand {
  /** one line for the list */
  readonly summary: string;
  /** @throws InputProblem when the document is not what the command takes */
  readonly run: (input: unknown) => object;
}

/** Every command of the contract that this version serves. */
export const CALC_COMMANDS: Readonly<Record<string, CalcCommand>> = {
  volume: { summary: 'volume of a loop and of each part, with standard deviations', run: calcVolume },
  hold: { summary: 'minutes to hold an air test for a limit, a gauge and a volume', run: calcHold },
  decay: { summary: 'verdict of an air test from its readings', run: calcDecay },
  rinse: { summary: 'rinses needed to dilute what a drain leaves behind', run: calcRinse },
  dose: { summary: 'concentrate and water for a target strength, or the strength a ready-mix ends at', run: calcDose },
};
