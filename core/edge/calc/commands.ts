import { calcCut, calcLoss, calcRise, calcScrews } from './benchTools.js';
import { calcColour, calcCompare, calcLife, calcMates, calcSaturate, calcTrend } from './condition.js';
import { calcDiagnose } from './diagnosing.js';
import { calcDrain } from './draining.js';
import { calcFill } from './filling.js';
import { calcFlow } from './flow.js';
import { calcDecay, calcHold } from './leakTesting.js';
import { calcDose, calcRinse } from './dosing.js';
import { calcPlan } from './planning.js';
import { calcAir } from './trappedAir.js';
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
  flow: { summary: 'flow and pressure loss of every part, gauge pressure at every port', run: calcFlow },
  drain: { summary: 'what runs out, what is held and what stays, for an orientation and openings', run: calcDrain },
  air: { summary: 'where gas can stay in an orientation, and what the flow sweeps out', run: calcAir },
  fill: { summary: 'pulses of a first fill: seconds, millilitres, what falls back, what to pour', run: calcFill },
  rise: { summary: 'air left in the loop from the level’s rise at pump stop', run: calcRise },
  loss: { summary: 'water lost through tube walls in a month', run: calcLoss },
  screws: { summary: 'fan-screw lengths that hold and do not reach the radiator’s tubes', run: calcScrews },
  cut: { summary: 'tube pieces from stock lengths with the least waste', run: calcCut },
  hold: { summary: 'minutes to hold an air test for a limit, a gauge and a volume', run: calcHold },
  decay: { summary: 'verdict of an air test from its readings', run: calcDecay },
  rinse: { summary: 'rinses needed to dilute what a drain leaves behind', run: calcRinse },
  dose: { summary: 'concentrate and water for a target strength, or the strength a ready-mix ends at', run: calcDose },
  saturate: { summary: 'where a warming ends, how far it is and how long until half a kelvin is left', run: calcSaturate },
  compare: { summary: 'two readings under load, a part at a time, at the same room, power and heat', run: calcCompare },
  trend: { summary: 'a robust line through readings with its interval, and the days it meets a limit', run: calcTrend },
  diagnose: { summary: 'what makes a machine worse than on its sound days, and what to look at next', run: calcDiagnose },
  life: { summary: 'how long fills last: survival, Weibull, and the age at a chosen risk', run: calcLife },
  mates: { summary: 'whether groups, such as lots, last alike: log-rank', run: calcMates },
  colour: { summary: 'how unlike two colours look: ΔE₀₀', run: calcColour },
  plan: {
    summary: 'jobs on benches and technicians over days: least weighted lateness, with its lower bound',
    run: (input) => calcPlan(input),
  },
};
