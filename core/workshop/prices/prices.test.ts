import { readingAs, USUAL_READING } from '../../base/units/reading.js';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Estimate, EstimateInput } from './estimate.js';
import { passesConsent, priceEstimate, priceTaken, sumUp, line } from './lines.js';
import { formatMoney, fromMinor, toMinor } from './money.js';
import { DEFAULT_RATES, type PriceList } from './rates.js';
import { ratesSchema } from './schema.js';

const list: PriceList = {
  rates: { ...DEFAULT_RATES, hourMinor: 6000, hourMinorByKind: { 'strip-clean': 5000 }, taxPercent: 23, withTax: false },
  items: [
    { id: 'ring', name: 'O-ring 11 × 2', unit: 'pcs', priceMinor: 40 },
    { id: 'tube', name: 'Soft tube 10/16', unit: 'm', priceMinor: 480 },
    { id: 'paste', name: 'Paste', unit: 'g', priceMinor: null },
  ],
  coolants: [
    { id: 'clear', name: 'Plain Clear', litreMinor: 3600, targetFraction: 0.25 },
    { id: 'red', name: 'Plain Red', litreMinor: 2900, targetFraction: null },
  ],
};
const told = (more: Partial<EstimateInput> = {}): EstimateInput => ({
  hours: 2,
  partsText: '',
  coolantMl: 0,
  priceText: '',
  parts: [],
  ...more,
});
const part = (itemId: string, amount: number) => ({ itemId, what: '', amount, unit: 'pcs' as const, eachMinor: null });

describe('what a job will cost', () => {
  it('is hours, coolant and parts, with the tax on top', () => {
    // 2 h at 60.00, 900 mL of 29.00 a litre, 6 rings at 0.40: 120.00 + 26.10 + 2.40 = 148.50, and 23 % of it
    const priced = priceEstimate(list, 'flush-refill', 'red', told({ coolantMl: 900, parts: [part('ring', 6)] }));
    expect(priced?.lines.map(({ sumMinor }) => sumMinor)).toEqual([12_000, 2610, 240]);
    expect(priced).toMatchObject({ netMinor: 14_850, taxMinor: 3416, totalMinor: 18_266, open: 0 });
  });

  it('takes of a concentrate what comes out of its bottle', () => {
    // a litre in the loop is 250 mL of the bottle: 9.00
    expect(priceEstimate(list, 'flush-refill', 'clear', told({ coolantMl: 1000 }))?.lines[1]?.sumMinor).toBe(900);
  });

  it('holds the tax where prices hold it', () => {
    const rates = { ...list.rates, withTax: true };
    // 123.00 with 23 % in it: 100.00 and 23.00
    expect(sumUp(rates, [line('labour', 'flush-refill', 1, 'h', 12_300)])).toMatchObject({ netMinor: 10_000, taxMinor: 2300, totalMinor: 12_300 }); // prettier-ignore
  });

  it('has a kind’s own hour, and says what nobody priced', () => {
    const priced = priceEstimate(list, 'strip-clean', null, told({ coolantMl: 500, parts: [part('paste', 4)] }));
    expect(priced?.lines[0]?.eachMinor).toBe(5000);
    expect(priced?.open).toBe(2);
    expect(priced?.totalMinor).toBe(12_300);
  });

  it('is not reckoned where no hour has a price', () => {
    expect(priceEstimate({ ...list, rates: DEFAULT_RATES }, 'flush-refill', 'red', told())).toBeNull();
  });

  it('is always net and tax, whatever the figures', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 1e7 }), fc.integer({ min: 0, max: 60 }), fc.boolean(), (sum, taxPercent, withTax) => {
        const priced = sumUp({ ...list.rates, taxPercent, withTax }, [line('part', 'x', 1, 'pcs', sum)]);
        expect(priced.netMinor + priced.taxMinor).toBe(priced.totalMinor);
        expect(withTax ? priced.totalMinor : priced.netMinor).toBe(sum);
      }),
    );
  });
});

describe('what a job took', () => {
  const estimate: Estimate = {
    ...told({ coolantMl: 900, parts: [{ itemId: null, what: 'Card block', amount: 1, unit: 'pcs', eachMinor: 9000 }, part('ring', 6)] }),
    priced: priceEstimate(list, 'flush-refill', 'red', told()),
  };
  const taken = { hours: 3.25, poured: [{ coolantId: 'red', ml: 1000 }], items: [{ itemId: 'ring', amount: 8 }] };

  it('is the hours as told, what was poured, what left the shelf, and parts that no shelf counts', () => {
    expect(priceTaken(list, 'flush-refill', estimate, taken)?.lines.map(({ what, sumMinor }) => [what, sumMinor])).toEqual([
      ['flush-refill', 12_000],
      ['Plain Red', 2900],
      ['O-ring 11 × 2', 320],
      ['Card block', 9000],
    ]);
  });

  it('is the hours as taken, at the rate that was told, where the workshop charges so', () => {
    const dearer = { ...list, rates: { ...list.rates, charge: 'taken' as const, hourMinor: 9900 } };
    expect(priceTaken(dearer, 'flush-refill', estimate, taken)?.lines[0]).toMatchObject({ amount: 3.25, sumMinor: 19_500 });
  });

  it('asks the owner again only beyond what the workshop lets pass', () => {
    const agreed = sumUp(list.rates, [line('part', 'x', 1, 'pcs', 10_000)]);
    const bill = (minor: number) => sumUp(list.rates, [line('part', 'x', 1, 'pcs', minor)]);
    expect(passesConsent(list.rates, agreed, bill(11_000))).toBe(false);
    expect(passesConsent(list.rates, agreed, bill(11_010))).toBe(true);
  });
});

describe('money', () => {
  it('is written with its currency’s own decimals', () => {
    expect(formatMoney(14_850, 'EUR')).toBe('€148.50');
    expect(formatMoney(14_850, 'JPY')).toBe('JP¥14\u202f850');
    expect(readingAs({ ...USUAL_READING, language: 'de' }, () => formatMoney(123_450, 'EUR'))).toBe('1\u202f234,50\u00a0€');
    expect(toMinor(12.345, 'EUR')).toBe(1235);
    expect(toMinor(12, 'JPY')).toBe(12);
  });

  it('goes to minor units and back without loss', () => {
    fc.assert(fc.property(fc.integer({ min: 0, max: 1e9 }), fc.constantFrom('EUR', 'JPY', 'KWD'), (minor, currency) => {
      expect(toMinor(fromMinor(minor, currency), currency)).toBe(minor);
    })); // prettier-ignore
  });

  it('knows real currencies and kinds of work only', () => {
    const schema = ratesSchema(['flush-refill']);
    const rates = { ...DEFAULT_RATES, version: 1 };
    expect(schema.validate(rates).error).toBeUndefined();
    expect(schema.validate({ ...rates, currency: 'XQX' }).error?.message).toContain('currency’s code');
    expect(schema.validate({ ...rates, hourMinorByKind: { painting: 100 } }).error).toBeDefined();
    expect(schema.validate({ ...rates, hourMinor: 12.5 }).error).toBeDefined();
  });
});
