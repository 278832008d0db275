import { describe, expect, it } from 'vitest';
import { usualLoop } from '../../machine/catalogue/testLoops.js';
import { usualHours } from './usualHours.js';
import { COOLER_THETA, waysOn, WAYS_ON } from './waysOn.js';

const file = usualLoop();
const held = { sensor: 'graphics chip', kPerW: 0.1, sd: 0.005, powerW: 300 };
const given = { file, serviceDays: 365, coolantMinor: 2000, hourMinor: 6000, held };
const of = (way: (typeof WAYS_ON)[number], more: object = {}) => {
  const found = waysOn({ ...given, ...more }).find((each) => each.way === way);
  if (!found) throw new Error(way);
  return found;
};

describe('what can become of a loop', () => {
  it('costs by what is done to it: kept, its services and its coolant; without it, dust', () => {
    expect(of('keep').workHours).toBe(0);
    expect(of('keep').hoursAYear).toBeCloseTo(usualHours('flush-refill', file) + 0.5, 9);
    expect(of('keep').yearMinor).toBe(Math.round(of('keep').hoursAYear * 6000 + 2000));
    // a coolant that lasts half as long costs twice the visits
    expect(of('keep', { serviceDays: 182.5 }).hoursAYear).toBeCloseTo(2 * usualHours('flush-refill', file) + 0.5, 9);
    expect(of('air').hoursAYear).toBe(0.5);
    expect(of('air').yearMinor).toBe(3000);
    expect(of('sealed').hoursAYear).toBeGreaterThan(of('air').hoursAYear);
    expect(of('keep', { hourMinor: null }).yearMinor).toBeNull();
  });

  it('holds its part by its own reading where the loop stays, by an estimate with its spread where it goes', () => {
    expect(of('keep').overRoomK).toEqual({ k: 30, sd: 1.5, measured: true });
    expect(of('air').overRoomK).toEqual({ k: COOLER_THETA.air.kPerW * 300, sd: COOLER_THETA.air.sd * 300, measured: false });
    for (const way of WAYS_ON) expect(of(way, { held: null }).overRoomK).toBeNull();
  });
});
