import { describe, expect, it } from 'vitest';
import type { FillLife } from './fillLives.js';
import { LIFE_GROUPS, lifeGroups, policyMonthsOf } from './lifeGroups.js';

const fill = (more: Partial<FillLife>): FillLife => ({
  fillId: 'f',
  systemId: 's',
  coolantClass: 'clear',
  productId: 'p',
  lotId: 'l',
  tubes: ['epdm'],
  metals: ['brass', 'copper'],
  months: 10,
  event: false,
  entryMonths: 0,
  ...more,
});
const NO_SHEET = new Map<string, number | null>();

describe('fills put together', () => {
  it('by everything that is known of them, each fill once in each way', () => {
    const fills = [
      fill({}),
      fill({ lotId: null }),
      fill({ lotId: 'm', tubes: ['acrylic', 'pvc'] }),
      fill({ coolantClass: 'opaque', productId: 'q', lotId: 'n' }),
    ];
    const groups = lifeGroups(fills, NO_SHEET, 0.05);
    for (const by of LIFE_GROUPS)
      expect(
        groups.filter((each) => each.by === by).reduce((sum, each) => sum + each.fills, 0),
        by,
      ).toBe(by === 'lot' ? 3 : 4);
    // what lasts differently by its nature is not put together
    expect(groups.filter(({ by, key }) => by === 'tube' && key === 'epdm').map(({ coolantClass }) => coolantClass)).toEqual([
      'clear',
      'opaque',
    ]);
    expect(groups.find(({ key }) => key === 'acrylic + pvc')?.fills).toBe(1);
  });

  it('tell how many were still watched at each age, and their curve', () => {
    const fills = [2, 5, 7, 13].map((months, index) => fill({ months, event: index === 1 }));
    const [own] = lifeGroups(fills, NO_SHEET, 0.05);
    expect(own?.atRisk).toEqual([4, 3, 2, 1, 1, 0, 0, 0]);
    expect(own?.steps).toEqual([{ months: 5, atRisk: 3, events: 1, survival: expect.closeTo(2 / 3, 12) }]);
    expect(own).toMatchObject({ fills: 4, failed: 1, oldestMonths: 13 });
    // known from its fourth month on: it tells nothing of the first three
    expect(lifeGroups([fill({ entryMonths: 4 })], NO_SHEET, 0.05)[0]?.atRisk).toEqual([0, 0, 1, 1, 0, 0, 0, 0]);
  });

  it('are weighed beside their sheet, where it states a life, else beside their class', () => {
    const fills = [...[9, 11, 12, 14, 16].map((months) => fill({ months, event: true })), fill({ months: 20 })];
    const of = (sheet: Map<string, number | null>, by: string) => lifeGroups(fills, sheet, 0.05).find((each) => each.by === by);
    const sheet = new Map([['p', 24]]);
    expect(of(sheet, 'product')?.policyMonths).toBe(24);
    expect(of(sheet, 'class')?.policyMonths).toBe(12);
    expect(of(sheet, 'product')?.learned?.months).toBeGreaterThan(of(NO_SHEET, 'product')?.learned?.months ?? Infinity);
    expect(of(NO_SHEET, 'class')?.learned?.lowMonths).toBeLessThan(of(NO_SHEET, 'class')?.learned?.months ?? 0);
    // more may fail: later
    expect(lifeGroups(fills, sheet, 0.2)[0]?.learned?.months).toBeGreaterThan(of(sheet, 'class')?.learned?.months ?? Infinity);
  });

  it('of show coolants last as many hours as they may at the usual hours a day', () => {
    expect(policyMonthsOf('show', null)).toBeCloseTo(2 / 30.44, 9);
    expect(policyMonthsOf('show', 1)).toBe(1);
  });
});
