import type { Random } from '../../base/random/random.js';
import { INSTRUMENT_KEYS, type InstrumentKind } from '../instruments/kinds.js';
import { SIMULATED } from './defaults.js';
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
}

/** Readings with the noise and steps of real instruments; null for one that is silent. @param seconds since the bench began */
export function readInstruments(
  now: TrueReadings,
  { dropout, gaugeStepKpa }: HiddenTruth,
  seconds: number,
  random: Random,
): Record<InstrumentKind, number | null> {
  const noisy = (value: number, sd: number, step: number): number => Math.round((value + sd * random.normal()) / step) * step;
  const all: Record<InstrumentKind, number> = {
    gauge: noisy(now.gaugeKpa, now.closed ? SIMULATED.gaugeNoiseKpa : 0, gaugeStepKpa),
    level: noisy(now.levelMm, now.levelMm > 0 ? SIMULATED.levelNoiseMm : 0, 0.1),
    flow: Math.max(0, noisy(now.flowLph, now.flowLph * SIMULATED.flowNoiseShare, 1)),
    'coolant-temp': noisy(now.coolantC, SIMULATED.tempNoiseK, 0.1),
    'room-temp': noisy(now.roomC, SIMULATED.tempNoiseK, 0.1),
    scale: noisy(now.canG, SIMULATED.scaleNoiseG, 1),
    supply: now.supplyOn ? 1 : 0,
  };
  const silent = (kind: InstrumentKind): boolean =>
    dropout?.kind === kind && seconds >= dropout.fromS && seconds < dropout.fromS + dropout.forS;
  return Object.fromEntries(INSTRUMENT_KEYS.map((kind) => [kind, silent(kind) ? null : Number(all[kind].toFixed(2))])) as Record<
    InstrumentKind,
    number | null
  >;
}
