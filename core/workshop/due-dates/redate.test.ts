import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { reasonWords } from '../../edge/words/dates.js';
import { nextService, type DueInput } from './due.js';
import type { DateReason } from './facts.js';
import { redateAll, type OpenService } from './redate.js';

const FILL: DueInput = {
  filledOn: '2026-01-10',
  coolantClass: 'clear',
  productName: 'Stillbrook Blue',
  sheetLifeMonths: 12,
  policy: 'twelve-months',
  meanCoolantC: null,
  hoursPerDay: null,
};
const open = (more: Partial<OpenService> = {}, from: Partial<DueInput> = {}): OpenService => {
  const { dueOn, reason, clocks } = nextService(FILL);
  return { id: 'a', dueOn, reason, clocks, postponed: 0, from: { ...FILL, ...from }, ...more };
};

const putOffUntil = (until: string): DateReason => ({ why: 'put-off', until, said: 'asked to wait', first: nextService(FILL).reason });

describe('dates computed anew', () => {
  it('stay where nothing changed', () => expect(redateAll([open()])).toEqual([]));

  it('follow a product’s new limit, and say where it came from', () => {
    expect(redateAll([open({}, { sheetLifeMonths: 6 })])).toMatchObject([
      {
        id: 'a',
        before: '2027-01-10',
        dueOn: '2026-07-10',
        reason: { why: 'sheet-life', product: 'Stillbrook Blue', months: 6, warm: null },
      },
    ]);
    expect(redateAll([open({}, { sheetLifeMonths: 24, policy: 'product-life' })])[0]?.dueOn).toBe('2028-01-10');
  });

  it('keep a day that was agreed with the owner, while no clock ends earlier than it did when the risk was told', () => {
    const reason = putOffUntil('2027-03-01');
    const putOff = open({ dueOn: '2027-03-01', reason, postponed: 1 });
    expect(redateAll([putOff])).toEqual([]);
    const longer = redateAll([{ ...putOff, from: { ...FILL, sheetLifeMonths: 24, policy: 'product-life' } }]);
    expect(longer).toMatchObject([{ dueOn: '2027-03-01', reason }]);
  });

  it('end a postponement that a new limit overtakes, and say that the owner must be told', () => {
    const [moved] = redateAll([open({ dueOn: '2027-03-01', reason: putOffUntil('2027-03-01'), postponed: 1 }, { sheetLifeMonths: 4 })]);
    expect(moved?.dueOn).toBe('2026-05-10');
    expect(moved && reasonWords(moved.reason)).toBe(
      'Stillbrook Blue: 4 months by its sheet; earlier than when it was put off until 1 Mar 2027: tell the owner',
    );
  });

  it('computed a second time change nothing', () => {
    const months = fc.option(fc.integer({ min: 1, max: 48 }), { nil: null });
    fc.assert(
      fc.property(
        months,
        fc.constantFrom('six-months', 'twelve-months', 'product-life'),
        fc.integer({ min: 0, max: 2 }),
        (sheetLifeMonths, policy, postponed) => {
          const item = open({ postponed, dueOn: postponed > 0 ? '2027-03-01' : nextService(FILL).dueOn }, {
            sheetLifeMonths,
            policy,
          } as Partial<DueInput>);
          const [moved] = redateAll([item]);
          if (moved) expect(redateAll([{ ...item, ...moved }])).toEqual([]);
        },
      ),
    );
  });
});
