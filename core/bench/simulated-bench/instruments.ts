import type { Random } from '../../base/random/random.js';
import { INSTRUMENT_KEYS, PART_INSTRUMENTS, type InstrumentKind } from '../instruments/kinds.js';
import { SIMULATED } from './defaults.js';
import type { PartShown } from './heatInside.js';
import { PART_KINDS, type PartKind } from '../../physics/diagnosis/sensors.js';
import type { HiddenTruth } from './truth.js';

/** What an instrument would show if it had no noise and never fell silent. */
export interface TrueReadings {
  readonly gaugeKpa: number;
  /** the loop is closed at pressure */
  readonly closed: boolean;
  readonly levelMm: number;
  readonly flowLph: number;
  readonly coolantC: number;
  readonly roomC: number;
  readonly canG: number;
  readonly supplyOn: boolean;
  /** parts that the loop cools */
  readonly parts: Readonly<Partial<Record<PartKind, PartShown>>>;
}

/** Instruments that speak where a machine says so much of its parts: nothing of those that it does not have. */
export function instrumentsWith(parts: readonly PartKind[]): InstrumentKind[] {
  const silent = PART_KINDS.filter((kind) => !parts.includes(kind)).flatMap((kind): (InstrumentKind | null)[] => {
    const { temp, power } = PART_INSTRUMENTS[kind];
    return [temp, power];
  });
  return INSTRUMENT_KEYS.filter((key) => !silent.includes(key));
}

/** Readings with the noise and steps of real instruments; null for one that is silent. @param seconds since the bench began */
export function readInstruments(
  now: TrueReadings,
  { dropout, gaugeStepKpa }: HiddenTruth,
  seconds: number,
  random: Random,
): Record<InstrumentKind, number | null> {
  const noisy = (value: number, sd: number, step: number): number => Math.round((value + sd * random.normal()) / step) * step;
  const partTemp = (kind: PartKind): number | null => {
    const shown = now.parts[kind];
    return shown ? noisy(shown.tempC, SIMULATED.tempNoiseK, 0.1) : null;
  };
  const partPower = (kind: PartKind): number | null => {
    const shown = now.parts[kind];
    return shown ? Math.max(0, noisy(shown.powerW, SIMULATED.powerNoiseShare * shown.powerW, 1)) : null;
  };
  const all: Record<InstrumentKind, number | null> = {
    gauge: noisy(now.gaugeKpa, now.closed ? SIMULATED.gaugeNoiseKpa : 0, gaugeStepKpa),
    level: noisy(now.levelMm, now.levelMm > 0 ? SIMULATED.levelNoiseMm : 0, 0.1),
    flow: Math.max(0, noisy(now.flowLph, now.flowLph * SIMULATED.flowNoiseShare, 1)),
    'coolant-temp': noisy(now.coolantC, SIMULATED.tempNoiseK, 0.1),
    'room-temp': noisy(now.roomC, SIMULATED.tempNoiseK, 0.1),
    scale: noisy(now.canG, SIMULATED.scaleNoiseG, 1),
    'processor-temp': partTemp('processor'),
    'processor-power': partPower('processor'),
    'graphics-temp': partTemp('graphics'),
    'graphics-power': partPower('graphics'),
    'memory-temp': partTemp('memory'),
    supply: now.supplyOn ? 1 : 0,
  };
  const silent = (kind: InstrumentKind): boolean =>
    dropout?.kind === kind && seconds >= dropout.fromS && seconds < dropout.fromS + dropout.forS;
  const shown = (kind: InstrumentKind): number | null => {
    const value = all[kind];
    return value === null || silent(kind) ? null : Number(value.toFixed(2));
  };
  return Object.fromEntries(INSTRUMENT_KEYS.map((kind) => [kind, shown(kind)])) as Record<InstrumentKind, number | null>;
}
