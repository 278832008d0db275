import { describe, expect, it } from 'vitest';
import type { Flow } from '../../physics/contents/ledger.js';
import type { Kept } from './contents.js';
import type { ServiceFacts } from './facts.js';
import { flushedOf, rinseForecast } from './rinses.js';

/** a loop that held 800 mL, of which 100 stay where it stands */
const service = { inside: { volumeMl: 800, sdMl: 10 }, leftMl: 100, rinseStand: null, stands: [], targetOldFraction: 0.05 } as unknown as ServiceFacts; // prettier-ignore
const flow = (way: Flow['way'], volumeMl: number, liquid: Flow['liquid'] = way === 'in' ? 'water' : 'old'): Flow => ({ eventId: '', at: '', way, liquid, volumeMl }); // prettier-ignore
const forecast = (insideMl: number | null, ...flows: Flow[]) =>
  rinseForecast(service, { contents: { insideMl, insideSdMl: 5 }, service: { flows } } as unknown as Kept);

describe('a flush as it is told afterwards', () => {
  const own = (eventId: string, way: Flow['way'], volumeMl: number, liquid: Flow['liquid']): Flow => ({
    eventId,
    at: '',
    way,
    liquid,
    volumeMl,
  });

  it('counts apart what came out first, the rinses, and the coolant that stays', () => {
    const flows = [
      ...[own('d1', 'out', 400, 'old'), own('d2', 'out', 220, 'old')],
      ...[own('r1', 'in', 500, 'water'), own('r2', 'in', 100, 'water'), own('d3', 'out', 590, 'old')],
      ...[own('r3', 'in', 620, 'water'), own('d4', 'out', 600, 'old'), own('p1', 'in', 620, 'coolant')],
    ];
    const ids = (...names: string[]) => names.map((eventId) => ({ eventId })) as never;
    expect(flushedOf({ flows, rinses: ids('r1', 'r2', 'r3'), drains: ids('d1', 'd2', 'd3', 'd4') })).toEqual({
      outMl: 620,
      rinses: 2,
      rinseMl: 610,
    });
    expect(flushedOf({ flows: flows.slice(0, 2), rinses: [], drains: ids('d1', 'd2') })).toEqual({ outMl: 620, rinses: 0, rinseMl: 0 });
  });
});

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
