import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { COOLANT_CLASS_KEYS, COOLANT_CLASSES, lifeFactor } from './classes.js';
import { ORDER_ALLOWANCE, orderCoolant } from './order.js';

const readyMix = { form: 'ready-mix', targetFraction: null, bottleMl: 1000 } as const;
const concentrate = { form: 'concentrate', targetFraction: 0.25, bottleMl: 250 } as const;

describe('coolant to order', () => {
  it('covers the likely fill, its uncertainty, the spill and the sample in whole bottles', () => {
    const order = orderCoolant({ volumeMl: 800, sdMl: 50 }, readyMix);
    expect(order.orderMl).toBeCloseTo((800 + 1.645 * 50) * 1.05 + 30, 6);
    expect(order.bottles).toBe(1);
    expect(order.leftOverMl).toBeCloseTo(1000 - order.orderMl, 6);
    expect(order.concentrateMl).toBeNull();
  });

  it('buys concentrate as concentrate, with the water beside it', () => {
    const order = orderCoolant({ volumeMl: 900, sdMl: 0 }, concentrate);
    expect(order.concentrateMl).toBeCloseTo(order.orderMl * 0.25, 9);
    expect((order.concentrateMl ?? 0) + (order.waterMl ?? 0)).toBeCloseTo(order.orderMl, 9);
    expect(order.bottles).toBe(1);
  });

  it('orders a second bottle one millilitre above the first, and none for rounding noise', () => {
    const exact = (1000 - ORDER_ALLOWANCE.sampleMl) / (1 + ORDER_ALLOWANCE.spillShare);
    expect(orderCoolant({ volumeMl: exact, sdMl: 0 }, readyMix).bottles).toBe(1);
    expect(orderCoolant({ volumeMl: exact + 1, sdMl: 0 }, readyMix).bottles).toBe(2);
  });

  it('always buys enough and never a whole bottle too much', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 1, max: 5000, noNaN: true }),
        fc.double({ min: 0, max: 300, noNaN: true }),
        fc.constantFrom(250, 500, 1000),
        (volumeMl, sdMl, bottleMl) => {
          const order = orderCoolant({ volumeMl, sdMl }, { ...readyMix, bottleMl });
          expect(order.bottles * bottleMl).toBeGreaterThanOrEqual(order.orderMl - 1e-3);
          expect((order.bottles - 1) * bottleMl).toBeLessThan(order.orderMl);
        },
      ),
    );
  });
});

describe('coolant classes', () => {
  it('states a life for each: months, or hours where months would hide it', () => {
    for (const key of COOLANT_CLASS_KEYS)
      expect(COOLANT_CLASSES[key].baseLifeMonths > 0 || COOLANT_CLASSES[key].baseLifeRunningHours !== null).toBe(true);
  });

  it('halves the life for each 10 K above 35 °C and gives none back below', () => {
    expect(lifeFactor(35)).toBe(1);
    expect(lifeFactor(45)).toBeCloseTo(0.5, 12);
    expect(lifeFactor(55)).toBeCloseTo(0.25, 12);
    expect(lifeFactor(20)).toBe(1);
  });
});
