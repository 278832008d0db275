import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { purchaseList, type ComingJob, type CoolantStock } from './purchase.js';

const clear: CoolantStock = { productId: 'c', name: 'Plain Clear', bottleMl: 1000, stockMl: 1500, targetFraction: null, reorderBottles: 1 };
const job = (coolantMl: number, more: Partial<ComingJob> = {}): ComingJob => ({
  id: 'j',
  systemName: 'Tower',
  productId: 'c',
  coolantMl,
  partsText: '',
  parts: [],
  ...more,
});

describe('the purchase list', () => {
  it('is empty when the shelf covers the fortnight and the reserve', () => {
    expect(purchaseList([clear], [], [job(400)])).toEqual([]);
  });

  it('orders whole bottles for the jobs beyond the reserve, and says for whom', () => {
    const [line] = purchaseList([clear], [], [job(800), job(900, { systemName: 'Mill' })]);
    expect(line).toMatchObject({ what: 'Plain Clear', order: '2 bottles' });
    expect(line?.why).toContain('Tower, Mill');
  });

  it('counts a concentrate by its share of the loop', () => {
    const concentrate = { ...clear, targetFraction: 0.1, bottleMl: 250, stockMl: 0, reorderBottles: 0 };
    expect(purchaseList([concentrate], [], [job(1000)])[0]?.order).toBe('1 bottle');
  });

  it('does not guess what nobody counts', () => {
    expect(purchaseList([{ ...clear, stockMl: null }], [], [])).toEqual([]);
    expect(purchaseList([{ ...clear, stockMl: null }], [], [job(800)])[0]?.why).toContain('no lot is counted');
  });

  it('names counted things below their level, and the parts that jobs wait for', () => {
    const lines = purchaseList(
      [],
      [{ id: 'o', name: 'O-ring 11 × 2', unit: 'pcs', count: 4, reorderAt: 20 }],
      [job(0, { partsText: 'pump' })],
    );
    expect(lines.map(({ what, order }) => `${what}: ${order}`)).toEqual(['O-ring 11 × 2: 36 pcs', 'pump: for the job']);
  });

  it('always covers need and reserve once it is bought', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: 5000 }),
        fc.integer({ min: 0, max: 5 }),
        fc.integer({ min: 1, max: 5000 }),
        (stockMl, reorderBottles, needMl) => {
          const [line] = purchaseList([{ ...clear, stockMl, reorderBottles }], [], [job(needMl)]);
          const bought = line ? Number.parseInt(line.order, 10) * clear.bottleMl : 0;
          expect(stockMl + bought + 1e-6).toBeGreaterThanOrEqual(1.05 * needMl + reorderBottles * clear.bottleMl);
        },
      ),
    );
  });
});
