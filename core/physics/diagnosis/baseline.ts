import { formatIn } from '../../base/units/display.js';
import { say } from '../../base/words/say.js';
import type { BaselineReading } from './reading.js';

/** What can be compared in a year: temperature above room, and per watt where the load's power is known. */
export interface NormalisedBaseline {
  readonly aboveRoomK: number;
  /** K/W, part to room; null without a power */
  readonly kelvinPerWatt: number | null;
  readonly coolantAboveRoomK: number | null;
  /** what would make a later comparison a guess */
  readonly weakPoints: readonly string[];
}

/** minutes of load before a loop of usual size is near its steady state */
export const SATURATED_MINUTES = 30;
/** share of the way from which a curve that was watched counts as at its end */
const SATURATED_SHARE = 0.98;

export function normaliseBaseline(reading: BaselineReading): NormalisedBaseline {
  const aboveRoomK = reading.partC - reading.roomC;
  const loaded = reading.powerW !== null && reading.powerW > 0;
  const weakPoints: string[] = [];
  if (!loaded) weakPoints.push(say('no load power: cannot be compared per watt'));
  if (reading.warming && reading.warming.reachedFraction < SATURATED_SHARE)
    weakPoints.push(
      say('read at {percent} % of the way: by its curve it ends at {ends} ± {sd}', {
        percent: Math.round(100 * reading.warming.reachedFraction),
        ends: formatIn('°C', reading.warming.endsC, 1),
        sd: formatIn('K', reading.warming.endsSdK, 1),
      }),
    );
  else if (!reading.warming && reading.durationMinutes < SATURATED_MINUTES)
    weakPoints.push(say('only {durationMinutes} min: the coolant is probably still warming', { durationMinutes: reading.durationMinutes }));
  if (reading.coolantC === null) weakPoints.push(say('coolant not measured: part and radiator cannot be told apart'));
  if (aboveRoomK < 0) weakPoints.push(say('the part is colder than the room: check the sensor'));
  return {
    aboveRoomK,
    kelvinPerWatt: loaded ? aboveRoomK / (reading.powerW as number) : null,
    coolantAboveRoomK: reading.coolantC === null ? null : reading.coolantC - reading.roomC,
    weakPoints,
  };
}
