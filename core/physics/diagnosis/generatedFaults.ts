import { seededRandom, type Random } from '../../base/random/random.js';
import type { Fluid } from '../../machine/liquids/fluids.js';
import type { LoopFile } from '../../machine/loop-file/loopFile.js';
import { CAUSE_AT, HEAT_CAUSES, type HeatCause } from './causes.js';
import { shiftAt } from './diagnose.js';
import { Hydraulics, showAt, type SoundTwin } from './heatTwin.js';
import { READING_ERRORS, type LoadReading } from './loadReading.js';

/** A machine with one hidden fault, as it was read on a sound day and after. */
export interface HiddenFault {
  readonly cause: HeatCause;
  readonly part: string | null;
  readonly before: LoadReading;
  readonly after: LoadReading;
}

/** What somebody reads of a machine that shows this: each figure off by its error. */
function readOf(
  random: Random,
  truth: LoadReading,
  shown: { flowLph: number; coolantC: number; partsC: Readonly<Record<string, number>> },
  withFlow: boolean,
): LoadReading {
  const { partK, roomK, coolantK, powerShare, flowShare } = READING_ERRORS;
  return {
    ...truth,
    roomC: truth.roomC + roomK * random.normal(),
    powersW: Object.fromEntries(Object.entries(truth.powersW).map(([id, watts]) => [id, watts * (1 + powerShare * random.normal())])),
    partsC: Object.fromEntries(Object.entries(shown.partsC).map(([id, c]) => [id, c + partK * random.normal()])),
    ...(withFlow
      ? { coolantC: shown.coolantC + coolantK * random.normal(), flowLph: shown.flowLph * (1 + flowShare * random.normal()) }
      : {}),
  };
}

/**
 * Machines on one loop, each with one fault drawn as `diagnose` thinks of them: causes alike, ranges even; room, watts and the machine's
 * own factors differ from one to the next, and room and watts from one day to the other.
 * @param withFlow coolant and flow were measured
 */
export function hiddenFaults(loop: LoopFile, fluid: Fluid, count: number, seed: number, withFlow = true): HiddenFault[] {
  const random = seededRandom(seed);
  const blocks = loop.components.filter(({ kind }) => kind === 'block').map(({ id }) => id);
  const radiators = loop.components.filter(({ kind }) => kind === 'radiator').map(({ id }) => id);
  const hydraulics = new Hydraulics(loop, fluid);
  const found: HiddenFault[] = [];
  while (found.length < count) {
    const cause = random.pick(HEAT_CAUSES);
    const part = CAUSE_AT[cause] === 'loop' ? null : random.pick(CAUSE_AT[cause] === 'block' ? blocks : radiators);
    const truth: SoundTwin = {
      hydraulics,
      pumpFactor: random.between(0.9, 1.1),
      radiatorSize: random.between(0.7, 1.4),
      blockFactors: Object.fromEntries(blocks.map((id) => [id, random.between(0.8, 1.6)])),
    };
    const day = (): LoadReading => ({
      roomC: random.between(18, 28),
      powersW: Object.fromEntries(blocks.map((id) => [id, random.between(130, 320)])),
      partsC: {},
      pumpSpeed: 0.7,
      fanSpeed: 0.6,
    });
    const [sound, late] = [day(), day()];
    const [first, then] = [showAt(truth, sound), showAt(truth, late, shiftAt(cause, part, random.next()))];
    if (first && then)
      found.push({ cause, part, before: readOf(random, sound, first, withFlow), after: readOf(random, late, then, withFlow) });
  }
  return found;
}
