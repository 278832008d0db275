import { reasonWords } from '../../edge/words/dates.js';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { COOLANT_CLASS_KEYS } from '../../machine/liquids/classes.js';
import { daysBetween } from '../../base/units/calendar.js';
import { dueState, nextService, SERVICE_POLICY_KEYS, settlingCheck, type DueInput } from './due.js';

const clear: DueInput = {
  filledOn: '2026-03-10',
  coolantClass: 'clear',
  productName: 'Plain Clear',
  sheetLifeMonths: null,
  policy: 'twelve-months',
  meanCoolantC: null,
  hoursPerDay: null,
};

describe('the next coolant service', () => {
  it('follows the workshop’s policy where the coolant lasts longer', () => {
    const due = nextService({ ...clear, policy: 'six-months', sheetLifeMonths: 24 });
    expect(due.dueOn).toBe('2026-09-10');
    expect(reasonWords(due.reason)).toBe('workshop policy: every six months after the fill');
    expect(due.clocks.map(({ kind }) => kind)).toEqual(['policy', 'coolant-life']);
  });

  it('says whose policy it was', () => {
    expect(reasonWords(nextService({ ...clear, policy: 'six-months', policyScope: 'owner' }).reason)).toBe(
      'agreed with this owner: every six months after the fill',
    );
    expect(reasonWords(nextService({ ...clear, policy: 'six-months', policyScope: 'system' }).reason)).toBe(
      'set for this machine: every six months after the fill',
    );
  });

  it('follows the coolant where it ends first', () => {
    const due = nextService({ ...clear, coolantClass: 'opaque' });
    expect(due.dueOn).toBe('2026-06-10');
    expect(reasonWords(due.reason)).toContain('opaque pastel: 3 months, particles leave suspension');
    expect(due.estimated).toBe(true);
  });

  it('believes the product’s own sheet before its class', () => {
    const due = nextService({ ...clear, coolantClass: 'opaque', sheetLifeMonths: 5, productName: 'Chalk', policy: 'product-life' });
    expect(due.dueOn).toBe('2026-08-10');
    expect(reasonWords(due.reason)).toBe('Chalk: 5 months by its sheet');
    expect(due.estimated).toBe(false);
  });

  it('shortens a chemical life in a warm loop, and says so', () => {
    const due = nextService({ ...clear, policy: 'product-life', meanCoolantC: 45 });
    expect(due.dueOn).toBe('2026-09-10');
    expect(reasonWords(due.reason)).toContain('shortened to 6.0 at 45 °C coolant');
  });

  it('counts a show coolant in running hours', () => {
    const due = nextService({ ...clear, coolantClass: 'show', hoursPerDay: 2 });
    expect(due.dueOn).toBe('2026-03-14');
    expect(reasonWords(due.reason)).toContain('8 running hours (2 h a day by its owner)');
    const assumed = nextService({ ...clear, coolantClass: 'show' });
    expect(assumed.dueOn).toBe('2026-03-12');
    expect(reasonWords(assumed.reason)).toContain('assumed 4 h a day');
    expect(assumed.estimated).toBe(true);
  });

  it('shortens the hours of a show coolant in a warm loop, by its sheet as well', () => {
    const warm = nextService({ ...clear, coolantClass: 'show', hoursPerDay: 1, meanCoolantC: 45 });
    expect(warm.dueOn).toBe('2026-03-14');
    expect(reasonWords(warm.reason)).toContain('8 running hours (1 h a day by its owner, shortened to 4.0 h at 45 °C coolant)');
    const sheet = nextService({ ...clear, coolantClass: 'show', sheetLifeHours: 40, hoursPerDay: 2, meanCoolantC: 45 });
    expect(sheet.dueOn).toBe('2026-03-20');
    expect(nextService({ ...clear, coolantClass: 'show', hoursPerDay: 1, meanCoolantC: 25 }).dueOn).toBe('2026-03-18');
  });

  it('a show coolant may not stand for months because nobody runs it, unless its sheet gives months', () => {
    const stands = nextService({ ...clear, coolantClass: 'show', hoursPerDay: 0 });
    expect(stands.dueOn).toBe('2026-04-07');
    expect(stands.reason).toEqual({ why: 'standing', coolantClass: 'show', days: 28 });
    expect(reasonWords(stands.reason)).toContain('it stood 28 days in the loop by then');
    expect(nextService({ ...clear, coolantClass: 'show', hoursPerDay: 0, sheetLifeMonths: 3 }).dueOn).toBe('2026-06-10');
    expect(nextService({ ...clear, coolantClass: 'opaque', hoursPerDay: 0 }).clocks.map(({ kind }) => kind)).not.toContain('standing');
  });

  it('comes at once where what fell out stays, within weeks where it still comes back, never for what came out', () => {
    const opaque = { ...clear, coolantClass: 'opaque' as const };
    expect(nextService({ ...opaque, fallout: { stage: 'stays', on: '2026-04-01' } })).toMatchObject({
      dueOn: '2026-04-01',
      reason: { why: 'fallout', stage: 'stays' },
      estimated: false,
    });
    expect(nextService({ ...opaque, fallout: { stage: 'comes-back', on: '2026-04-01' } }).dueOn).toBe('2026-05-01');
    expect(nextService({ ...opaque, fallout: { stage: 'stays', on: '2026-03-01' } }).dueOn).toBe('2026-06-10');
  });

  it('always has a date, the earliest of its clocks, with a reason', () => {
    const input = fc.record({
      filledOn: fc.constantFrom('2026-01-31', '2024-02-29', '2026-12-31'),
      coolantClass: fc.constantFrom(...COOLANT_CLASS_KEYS),
      productName: fc.constant('X'),
      sheetLifeMonths: fc.option(fc.double({ min: 0.1, max: 60, noNaN: true })),
      policy: fc.constantFrom(...SERVICE_POLICY_KEYS),
      meanCoolantC: fc.option(fc.double({ min: 15, max: 70, noNaN: true })),
      hoursPerDay: fc.option(fc.double({ min: 0.1, max: 24, noNaN: true })),
    });
    fc.assert(
      fc.property(input, (each) => {
        const due = nextService(each);
        expect(due.dueOn).toBe([...due.clocks].map(({ dueOn }) => dueOn).sort()[0]);
        expect(reasonWords(due.reason).length).toBeGreaterThan(5);
        expect(daysBetween(each.filledOn, due.dueOn)).toBeGreaterThanOrEqual(0);
      }),
    );
  });
});

describe('the settling check', () => {
  it('lies two to seven days after the fill', () => {
    expect(settlingCheck('2026-02-26')).toMatchObject({ windowFrom: '2026-02-28', dueOn: '2026-03-05' });
  });
});

describe('how urgent a date is', () => {
  it.each([
    ['2026-03-09', 'overdue'],
    ['2026-03-10', 'soon'],
    ['2026-04-09', 'soon'],
    ['2026-04-10', 'later'],
  ])('%s is %s on 10 March', (dueOn, state) => {
    expect(dueState(dueOn, '2026-03-10')).toBe(state);
  });
});

describe('what wears whatever coolant is inside', () => {
  const filled: DueInput = {
    filledOn: '2026-03-01',
    coolantClass: 'clear',
    productName: 'Plain Clear',
    sheetLifeMonths: 24,
    policy: 'product-life',
    meanCoolantC: null,
    hoursPerDay: null,
  };

  it('brings a service forward when seals or soft tube are done before the coolant', () => {
    const worn = nextService({ ...filled, tubeOn: '2024-01-15', softTube: true });
    expect(worn).toMatchObject({ dueOn: '2027-01-15' });
    expect(reasonWords(worn.reason)).toContain('the same soft tube since 15 Jan 2024: 3 years');
    expect(nextService({ ...filled, sealsOn: '2022-06-01' }).clocks[0]?.kind).toBe('seals');
  });

  it('leaves rigid tube out, and what was over before the fill to the next service', () => {
    expect(nextService({ ...filled, tubeOn: '2024-01-15' }).clocks.map(({ kind }) => kind)).toEqual(['coolant-life']);
    expect(nextService({ ...filled, tubeOn: '2020-01-15', softTube: true }).clocks.map(({ kind }) => kind)).toEqual(['coolant-life']);
  });

  it('halves the first interval after something stayed inside, and keeps the usual clocks beside it', () => {
    const early = nextService({ ...filled, intervalShare: 0.5, intervalReason: [{ why: 'particles-stayed' }] });
    // half of 731 days: the second year ends in a leap year
    expect(early.dueOn).toBe('2027-03-02');
    expect(reasonWords(early.reason)).toContain('particles stayed inside: 50 %');
    expect(early.clocks.map(({ kind }) => kind)).toEqual(['findings', 'coolant-life']);
  });
});
