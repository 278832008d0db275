import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { usualLoop } from '../../machine/catalogue/testLoops.js';
import { findCataloguePart, type CataloguePart } from '../../machine/catalogue/parts.js';
import { waterAt } from '../../machine/liquids/fluids.js';
import { readLoopFile } from '../../machine/loop-file/loopFileSchema.js';
import { solveFlow } from '../flow/flow.js';
import { fanCurve, type FanEnds } from './fanCurve.js';
import { heatAskedBy, setupOf, type RadiatorFans } from './setup.js';
import { wattsToSpare } from './spare.js';
import { airOf, solveHeat, type HeatConditions } from './steady.js';
import { lastRadiator, withRadiator } from './variants.js';

const loop = usualLoop();
const fluid = waterAt(35);
const flow = solveFlow(loop, { fluid, speeds: {}, closed: [] });
const [processor, card] = loop.components.filter(({ kind }) => kind === 'block').map(({ id }) => id) as [string, string];
const conditions: HeatConditions = { roomC: 24, fluid, loadsW: { [processor]: 150, [card]: 340 }, caseHeatW: 60, air: airOf(loop, 0.6) };
const now = solveHeat(loop, flow, conditions);
const partC = (given: HeatConditions, id: string): number =>
  solveHeat(loop, flow, given).parts.find((part) => part.id === id)?.partC ?? NaN;

describe('watts to spare', () => {
  it('bring the first part to its limit exactly, whatever the limits', () => {
    fc.assert(
      fc.property(fc.integer({ min: 40, max: 100 }), fc.integer({ min: 40, max: 100 }), (one, other) => {
        const limitsC = { [processor]: one, [card]: other };
        for (const { id, spareW, first } of wattsToSpare(loop, flow, conditions, limitsC, now)) {
          const given = { ...conditions, loadsW: { ...conditions.loadsW, [id]: (conditions.loadsW[id] ?? 0) + spareW } };
          // a load below nothing is none
          if ((given.loadsW[id] ?? 0) <= 0) continue;
          expect(partC(given, first)).toBeCloseTo(limitsC[first] as number, 6);
          for (const each of [processor, card]) expect(partC(given, each)).toBeLessThanOrEqual((limitsC[each] as number) + 1e-6);
        }
      }),
      { numRuns: 40 },
    );
  });

  it('are none where nobody said a limit', () => {
    expect(wattsToSpare(loop, flow, conditions, {}, now)).toEqual([]);
  });
});

describe('fans that follow the coolant', () => {
  const { air: _, ...given } = conditions;
  const curveOf = (ends: FanEnds, limitsC = {}) => fanCurve(loop, flow, given, limitsC, {}, ends);
  const ENDS: FanEnds = { restShare: 0.1, restSpeed: 0.3, loadSpeed: 0.6 };

  it('begin and end where the loop settles at either setting', () => {
    const answer = curveOf(ENDS);
    if (answer.end !== 'curve') throw new Error(answer.end);
    const { fromC, toC, points } = answer.curve;
    const [first, last] = [points[0], points.at(-1)];
    expect(first?.coolantC).toBeCloseTo(fromC, 3);
    expect(last?.coolantC).toBeCloseTo(toC, 3);
    expect([first?.fanSpeed, last?.fanSpeed]).toEqual([expect.closeTo(0.3, 4), expect.closeTo(0.6, 4)]);
  });

  it('meet in between where the line and the loop agree, and never turn slower for more load', () => {
    const answer = curveOf(ENDS, { [card]: 70 });
    if (answer.end !== 'curve') throw new Error(answer.end);
    const { fromC, toC, points } = answer.curve;
    points.forEach(({ coolantC, fanSpeed }, index) => {
      expect(fanSpeed).toBeCloseTo(0.3 + (0.3 * (coolantC - fromC)) / (toC - fromC), 3);
      expect(fanSpeed).toBeGreaterThanOrEqual((points[index - 1]?.fanSpeed ?? 0) - 1e-6);
    });
    const full = solveHeat(loop, flow, { ...given, air: airOf(loop, 0.6) });
    expect(points.at(-1)?.marginK).toBeCloseTo(70 - (full.parts.find(({ id }) => id === card)?.partC ?? 0), 3);
  });

  it('say that there is nothing to follow where load leaves the coolant as cool as rest', () => {
    expect(curveOf({ restShare: 0.9, restSpeed: 0.2, loadSpeed: 1 }).end).toBe('nothing-to-follow');
    expect(curveOf({ restShare: 0.1, restSpeed: 0.7, loadSpeed: 0.5 }).end).toBe('nothing-to-follow');
  });
});

describe('fans as the machine has them', () => {
  const [radiator] = loop.components.filter(({ kind }) => kind === 'radiator').map(({ id }) => id) as [string];
  const setup = setupOf(loop, null);
  const group = (count: number, more: Partial<RadiatorFans> = {}): RadiatorFans => ({ id: `g${count}`, name: 'Front', of: { loopId: 'l', part: radiator }, fans: { count, sizeMm: 120 }, openWhy: null, ...more }); // prettier-ignore
  const airOfGroups = (groups: RadiatorFans[], paces = {}) => heatAskedBy({ ...setup, paces }, loop, groups).air[radiator];
  const coolant = (groups: RadiatorFans[], paces = {}): number => {
    const asked = heatAskedBy({ ...setup, paces }, loop, groups);
    const { parts } = solveHeat(loop, flow, { ...asked, fluid, air: airOf(loop, 0.6, asked.air) });
    return Math.max(...parts.map(({ coolantOutC }) => coolantOutC));
  };

  it('say nothing where nobody wrote them down', () => {
    expect(airOfGroups([])).not.toHaveProperty('covered');
  });

  it('cool less where one is missing, slower, or not connected', () => {
    const whole = coolant([group(3)]);
    expect(whole).toBeCloseTo(coolant([]), 9);
    const [missing, slower, still] = [coolant([group(2)]), coolant([group(3)], { g3: 0.5 }), coolant([group(3, { openWhy: 'no header' })])];
    expect(missing).toBeGreaterThan(whole + 0.3);
    expect(slower).toBeGreaterThan(whole + 0.3);
    expect(still).toBeGreaterThan(slower);
  });

  it('turn at the mean of their groups, each by what it covers', () => {
    const two = [group(1, { id: 'a' }), group(2, { id: 'b' })];
    expect(airOfGroups(two, { a: 0.4, b: 1 })).toMatchObject({ covered: 1, pace: expect.closeTo(0.8, 9) });
  });
});

describe('one more radiator', () => {
  const kind = findCataloguePart('radiator-360-30') as CataloguePart;
  it('stands behind the last, in a loop that holds together and runs cooler', () => {
    const more = withRadiator(loop, kind, 'front');
    expect(more.components).toHaveLength(loop.components.length + 1);
    expect(more.tubes).toHaveLength(loop.tubes.length + 1);
    expect(() => readLoopFile(more)).not.toThrow();
    const fed = more.tubes.find(({ to }) => to[0] === more.components.at(-1)?.id);
    expect(fed?.from[0]).toBe(lastRadiator(loop)?.id);
    const cooler = solveHeat(more, solveFlow(more, { fluid, speeds: {}, closed: [] }), { ...conditions, air: airOf(more, 0.6) });
    expect(cooler.parts.find(({ id }) => id === card)?.partC).toBeLessThan(partC(conditions, card));
  });

  it('leaves a loop without a radiator as it is', () => {
    const bare = { ...loop, components: loop.components.filter(({ kind: each }) => each !== 'radiator') };
    expect(withRadiator(bare, kind, 'front')).toBe(bare);
  });
});
