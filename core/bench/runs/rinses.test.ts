import { describe, expect, it } from 'vitest';
import type { Flow } from '../../physics/contents/ledger.js';
import type { Kept } from './contents.js';
import type { ServiceFacts } from './facts.js';
import { rinseForecast } from './rinses.js';

/** a loop that held 800 mL, of which 100 stay where it stands */
const service = { inside: { volumeMl: 800, sdMl: 10 }, leftMl: 100, rinseStand: null, stands: [], targetOldFraction: 0.05 } as unknown as ServiceFacts; // prettier-ignore
const flow = (way: Flow['way'], volumeMl: number, liquid: Flow['liquid'] = way === 'in' ? 'water' : 'old'): Flow => ({ eventId: '', at: '', way, liquid, volumeMl }); // prettier-ignore
const forecast = (insideMl: number | null, ...flows: Flow[]) =>
  rinseForecast(service, { contents: { insideMl, insideSdMl: 5 }, service: { flows } } as unknown as Kept);

describe('how many rinses are still to come', () => {
  it('is, before the first, what the loop takes over what stays in it', () => {
    const { rinses, shares, coming } = forecast(100, flow('out', 700));
    expect([rinses, shares]).toEqual([0, [1]]);
    // 100/800 of the old liquid after each: the second is under 5 %
    expect(coming.map((share) => Number(share.toFixed(4)))).toEqual([0.125, 0.0156]);
  });

  it('counts a rinse once, in however many pours it went in, and goes on with rinses as large', () => {
    const { rinses, shares, coming, nextOutMl } = forecast(100, flow('out', 700), flow('in', 300), flow('lost', 0), flow('in', 100), flow('out', 400)); // prettier-ignore
    expect([rinses, nextOutMl]).toEqual([1, 0]);
    expect(shares.map((share) => Number(share.toFixed(3)))).toEqual([1, 0.2]);
    // another 400 mL over the 100 that stay
    expect(coming.map((share) => Number(share.toFixed(3)))).toEqual([0.04]);
  });

  it('does not take a rinse that is still going in for the size of the next', () => {
    const { shares, coming, nextOutMl } = forecast(180, flow('out', 700), flow('in', 80));
    expect(shares[1]).toBeCloseTo(100 / 180, 6);
    expect(coming).toHaveLength(2);
    expect(nextOutMl).toBe(80);
  });

  it('tells no share where nobody knows what stood inside', () => {
    const unknown = rinseForecast({ ...service, inside: null }, { contents: { insideMl: null }, service: { flows: [flow('in', 500)] } } as unknown as Kept); // prettier-ignore
    expect(unknown).toEqual({ rinses: 1, shares: [], coming: [], nextOutMl: null });
  });
});
