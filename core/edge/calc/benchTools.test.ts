import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { tubeStretchMl } from '../../physics/air/rise.js';
import { InputProblem } from '../../base/checking/input.js';
import { cutList } from '../../machine/shop-sums/cutList.js';
import { calcCut, calcLoss, calcRise, calcScrews } from './benchTools.js';

const hose = { material: 'epdm', bore_mm: 10, outer_mm: 16, length_mm: 2000 };

describe('air from the level’s rise', () => {
  it('is Boyle’s law: at 20 kPa a rise of 1 mL stands for 6.1 mL of air', () => {
    expect(calcRise({ level_rise_mm: 1, area_mm2: 1000, run_gauge_kpa: 20 })).toEqual({ air_ml: (1 * 121.325) / 20 });
  });

  it('takes the tubes’ stretch off: 2 m of 10/16 give about 3.5 mL at 20 kPa, as much as 20 mL of air', () => {
    expect(tubeStretchMl({ material: 'epdm', boreMm: 10, outerMm: 16, lengthMm: 2000 }, 20)).toBeCloseTo(3.48, 2);
    const plain = calcRise({ level_rise_mm: 10, area_mm2: 1000, run_gauge_kpa: 20 }) as { air_ml: number };
    const less = calcRise({ level_rise_mm: 10, area_mm2: 1000, run_gauge_kpa: 20, tubes: [hose] }) as { air_ml: number };
    expect(plain.air_ml - less.air_ml).toBeCloseTo(21.1, 1);
    expect(calcRise({ level_rise_mm: 1, area_mm2: 1000, run_gauge_kpa: 20, tubes: [hose] })).toEqual({ air_ml: 0 });
  });

  it('does not stretch glass', () => {
    expect(tubeStretchMl({ material: 'glass', boreMm: 10, outerMm: 16, lengthMm: 2000 }, 20)).toBe(0);
  });

  it('refuses a run pressure that squeezes nothing, with the reason', () => {
    expect(() => calcRise({ level_rise_mm: 1, area_mm2: 1000, run_gauge_kpa: 5, off_gauge_kpa: 5 })).toThrow(/air is not squeezed/);
  });
});

describe('water through the walls', () => {
  it('is W·A/t, and doubles every 10 K from 38 °C', () => {
    const at38 = calcLoss({ tubes: [hose], temp_c: 38 }) as { ml_per_month: number; range: [number, number] };
    // mean diameter 13 mm, wall 3 mm, 0.6 g·mm/(m²·day)
    expect(at38.ml_per_month).toBeCloseTo((0.6 * Math.PI * 0.013 * 2 * 30.44) / 3, 9);
    expect((calcLoss({ tubes: [hose], temp_c: 48 }) as { ml_per_month: number }).ml_per_month).toBeCloseTo(2 * at38.ml_per_month, 9);
    expect(at38.range[0]).toBeLessThan(at38.ml_per_month);
    expect(at38.range[1]).toBeGreaterThan(at38.ml_per_month);
  });

  it('refuses an unknown wall by name', () => {
    expect(() => calcLoss({ tubes: [{ ...hose, material: 'rubber' }], temp_c: 30 })).toThrow(/must be one of/);
  });
});

describe('fan screws', () => {
  it('hold by 3 mm of thread and stay 1 mm off the tubes', () => {
    expect(calcScrews({ fan_mm: 25, washers_mm: 1, flange_mm: 1.5, clearance_mm: 4, stock_mm: [35, 30, 28, 31] })).toEqual({
      min_mm: 29,
      max_mm: 30.5,
      fits: [30],
    });
  });

  it('says that nothing fits, rather than stretch the rule', () => {
    const tight = calcScrews({ fan_mm: 25, washers_mm: 0, flange_mm: 1, clearance_mm: 1, stock_mm: [26, 28, 30] });
    expect(tight).toMatchObject({ fits: [] });
  });
});

describe('cutting tube', () => {
  it('finds the fewest stocks where first fit takes one more', () => {
    // first fit decreasing takes three: [44, 24, 22], [33, 33, 21], [21]
    expect(cutList([44, 24, 24, 22, 21, 17, 8, 8, 6, 6], 60, 0).stocks.length).toBe(3);
    expect(cutList([6, 5, 5, 4, 4, 4, 2, 2].map((n) => n * 10), 160, 0)).toMatchObject({ wasteMm: 0 }); // prettier-ignore
  });

  it('saws between pieces only: three of 300 with a 2 mm kerf need 904', () => {
    expect(calcCut({ pieces_mm: [300, 300, 300], stock_mm: 904, kerf_mm: 2 })).toEqual({ stocks: [[300, 300, 300]], waste_mm: 4 });
    expect(calcCut({ pieces_mm: [300, 300, 300], stock_mm: 903, kerf_mm: 2 })).toMatchObject({ stocks: [[300, 300], [300]] });
  });

  it('refuses a piece that no stock gives', () => {
    expect(() => calcCut({ pieces_mm: [100, 1200], stock_mm: 1000 })).toThrow(InputProblem);
    expect(calcCut({ pieces_mm: [], stock_mm: 1000 })).toEqual({ stocks: [], waste_mm: 0 });
  });

  it('cuts every piece once, within the stock, and never needs more than a stock a piece', () => {
    const pieces = fc.array(fc.integer({ min: 20, max: 900 }), { minLength: 1, maxLength: 13 });
    fc.assert(
      fc.property(pieces, fc.integer({ min: 0, max: 4 }), (lengths, kerf) => {
        const { stocks, wasteMm } = cutList(lengths, 900, kerf);
        expect(stocks.flat().sort((a, b) => a - b)).toEqual([...lengths].sort((a, b) => a - b));
        for (const stock of stocks) {
          expect(stock.reduce((sum, length) => sum + length, 0) + kerf * (stock.length - 1)).toBeLessThanOrEqual(900);
          expect([...stock].sort((a, b) => b - a)).toEqual(stock);
        }
        expect(wasteMm).toBe(stocks.length * 900 - lengths.reduce((sum, length) => sum + length, 0));
      }),
      { numRuns: 100 },
    );
  });
});
