import { loopOf, part, tube, usualLoop } from '../../machine/catalogue/testLoops.js';
import fc from 'fast-check';
import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { CATALOGUE } from '../../machine/catalogue/parts.js';
import { addPart } from '../../machine/catalogue/edit.js';
import { readLoopFile } from '../../machine/loop-file/loopFileSchema.js';
import { loopVolume } from '../../machine/loop-file/volume.js';
import { balanceFill, fillFront, fillVolume, planFill, type PulsePlan } from './fillPlan.js';
import { reservoirMarks } from '../../machine/loop-file/marks.js';

const example = readLoopFile(JSON.parse(readFileSync('examples/two-radiators.json', 'utf8')));
const pulses = (loop: typeof example): PulsePlan => {
  const plan = planFill(loop);
  if (plan.kind !== 'pulses') throw new Error('no pulses');
  return plan;
};

describe('what a loop takes', () => {
  it('leaves the gas cushion above the fill mark empty', () => {
    expect(fillVolume(example).volumeMl).toBeCloseTo(loopVolume(example).volumeMl - 30, 9);
  });

  it('is the whole inside where there is no reservoir', () => {
    const loop = loopOf([part('p', 'pump', 20), part('b', 'block', 30)], [tube('1', 'p', 'b'), tube('2', 'b', 'p')]);
    expect(fillVolume(loop).volumeMl).toBeCloseTo(loopVolume(loop).volumeMl, 9);
  });

  it('takes usual shares for marks that a file does not state', () => {
    const marks = reservoirMarks(part('r', 'reservoir', 200));
    expect(marks.fillMarkMl).toBeCloseTo(176, 9);
    expect(marks.lowMarkMl).toBeCloseTo(60, 9);
  });
});

describe('the first fill plan', () => {
  it('fills reservoir and pump first, then moves the working volume pulse by pulse', () => {
    const plan = pulses(example);
    expect(plan.workingMl).toBe(150);
    // reservoir to its mark, the short run below it, and the pump
    expect(plan.firstPourMl).toBeCloseTo(230 + 25 + loopVolume(example).parts.filter(({ id }) => id === 't0')[0]!.volumeMl, 6);
    expect(plan.pulses.map(({ moveMl }) => Math.round(moveMl))).toEqual([
      150,
      150,
      150,
      Math.round(plan.total.volumeMl - plan.firstPourMl - 450),
    ]);
  });

  it('pours in total what the loop takes', () => {
    fc.assert(
      fc.property(fc.array(fc.nat(CATALOGUE.length - 1), { maxLength: 12 }), (picks) => {
        const loop = picks.reduce((so, index) => {
          const stock = CATALOGUE[index] as (typeof CATALOGUE)[number];
          return stock.kind === 'reservoir' ? so : addPart(so, stock, stock.places[0] as 'tray', null);
        }, usualLoop());
        const plan = pulses(loop);
        const poured = plan.firstPourMl + plan.pulses.reduce((sum, { pourMl }) => sum + pourMl, 0);
        expect(poured).toBeCloseTo(plan.total.volumeMl, 6);
        expect(plan.pulses.every(({ moveMl }) => moveMl > 0 && moveMl <= plan.workingMl + 1e-9)).toBe(true);
        expect(plan.pulses.at(-1)?.pouredSoFarMl ?? plan.firstPourMl).toBeCloseTo(plan.total.volumeMl, 6);
      }),
      { numRuns: 50 },
    );
  });

  it('knows how soon the low mark can come from the free flow of the pump', () => {
    // 150 mL at 1 500 L/h
    expect(pulses(example).pulses[0]?.soonestS).toBeCloseTo(0.36, 3);
    const slow = { ...example, components: example.components.map((each) => (each.id === 'pump' ? { ...each, speed: 0.5 } : each)) };
    expect(pulses(slow).pulses[0]?.soonestS).toBeCloseTo(0.72, 3);
    const unknown = {
      ...example,
      components: example.components.map((each) => (each.id === 'pump' ? { ...each, curve: undefined } : each)),
    };
    expect(pulses(unknown).pulses[0]?.soonestS).toBeNull();
  });

  it('asks for gravity without a reservoir, or with one that leaves nothing to pulse with', () => {
    expect(planFill(loopOf([part('p', 'pump', 20)])).kind).toBe('gravity');
    const tight = { ...example, components: example.components.map((each) => (each.id === 'res' ? { ...each, low_mark_ml: 230 } : each)) };
    expect(planFill(tight)).toMatchObject({ kind: 'gravity', reason: expect.stringContaining('no volume between') as string });
  });

  it('needs no pulse where the reservoir holds it all', () => {
    const loop = loopOf(
      [part('r', 'reservoir', 500, [0, 100, 0], { max_fill_ml: 450, low_mark_ml: 100 }), part('p', 'pump', 20)],
      [tube('1', 'r', 'p', { length_mm: 10 }), tube('2', 'p', 'r', { length_mm: 1 })],
    );
    expect(pulses(loop).pulses.length).toBeLessThanOrEqual(1);
  });
});

describe('poured against planned', () => {
  const total = { volumeMl: 1000, sdMl: 50 };
  it.each([
    [0, 'filling', 1000],
    [899, 'filling', 101],
    [901, 'as-planned', 99],
    [1099, 'as-planned', -99],
    [1240, 'more-than-planned', -240],
  ])('%d mL', (poured, verdict, stillToPourMl) => {
    expect(balanceFill(total, poured)).toEqual({ pouredMl: poured, verdict, stillToPourMl });
  });
});

describe('the estimated fill front', () => {
  const filled = (ml: number): Map<string, number> => new Map(fillFront(example, ml).map(({ id, filled: share }) => [id, share]));

  it('fills in flow order, the reservoir to its mark first', () => {
    const early = filled(115);
    expect(early.get('res')).toBeCloseTo(115 / 260, 9);
    expect(early.get('pump')).toBe(0);
    const later = filled(400);
    expect(later.get('res')).toBeCloseTo(230 / 260, 9);
    expect(later.get('pump')).toBe(1);
    expect(later.get('front')).toBe(0);
  });

  it('stands full when all is poured, and empty before', () => {
    expect([...filled(fillVolume(example).volumeMl + 1).values()].every((share) => share > 0.88)).toBe(true);
    expect([...filled(0).values()].every((share) => share === 0)).toBe(true);
  });

  it('accounts for every millilitre until the loop is full', () => {
    fc.assert(
      fc.property(fc.double({ min: 0, max: 770, noNaN: true }), (ml) => {
        const volumes = new Map(loopVolume(example).parts.map(({ id, volumeMl }) => [id, volumeMl]));
        const inside = fillFront(example, ml).reduce((sum, { id, filled: share }) => sum + share * (volumes.get(id) ?? 0), 0);
        expect(inside).toBeCloseTo(ml, 6);
      }),
    );
  });
});
