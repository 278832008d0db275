import { escalationWords, reasonWords } from '../../edge/words/dates.js';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { daysBetween } from '../../base/units/calendar.js';
import { nextService, type DueInput } from './due.js';
import { DUST_PLACES, dustClean } from './dust.js';
import { DUST_PLACE_KEYS } from './facts.js';
import { escalationOf } from './escalation.js';
import { SEASON_LEAST_DAYS } from './defaults.js';
import { beforeHotSeason, comesSoon, seasonWords } from './season.js';

const SUMMER = { fromMonth: 6, untilMonth: 8 };
const SOUTHERN = { fromMonth: 12, untilMonth: 2 };

describe('a date that comes soon', () => {
  const summer = { fromMonth: 6, untilMonth: 8 };
  it.each([
    ['2026-03-01', 'over'],
    ['2026-04-08', 'month'],
    ['2026-07-15', 'hot'],
    ['2026-05-15', null],
    ['2027-07-15', null],
  ])('%s is %s on 10 March', (dueOn, soon) => expect(comesSoon(dueOn, '2026-03-10', summer)).toBe(soon));

  it('has no hot months where the workshop names none', () => expect(comesSoon('2026-07-15', '2026-03-10', null)).toBeNull());
});

describe('the hot months', () => {
  it.each([
    ['2026-07-12', '2026-05-31'],
    ['2026-06-01', '2026-05-31'],
    ['2026-08-31', '2026-05-31'],
    ['2026-09-01', null],
    ['2026-05-31', null],
  ])('%s is moved to %s', (dueOn, before) => expect(beforeHotSeason(dueOn, '2025-09-01', SUMMER)).toBe(before));

  it.each([
    ['2026-12-20', '2026-11-30'],
    ['2027-01-20', '2026-11-30'],
    ['2027-03-01', null],
  ])('around the turn of the year %s is moved to %s', (dueOn, before) =>
    expect(beforeHotSeason(dueOn, '2026-02-01', SOUTHERN)).toBe(before),
  );

  it('does not open a loop again that was filled shortly before them', () => {
    expect(beforeHotSeason('2026-07-12', '2026-04-20', SUMMER)).toBeNull();
  });

  it('never moves a date later, nor closer to its fill than is worth the work', () => {
    const day = fc.integer({ min: 0, max: 720 }).map((n) => new Date(Date.UTC(2026, 0, 1 + n)).toISOString().slice(0, 10));
    const month = fc.integer({ min: 1, max: 12 });
    fc.assert(
      fc.property(day, day, month, month, (since, dueOn, fromMonth, untilMonth) => {
        const before = beforeHotSeason(dueOn, since, { fromMonth, untilMonth });
        if (before === null) return;
        expect(before < dueOn).toBe(true);
        expect(daysBetween(since, before)).toBeGreaterThanOrEqual(SEASON_LEAST_DAYS);
        // the day before begins no hot month of its own, unless the whole year is hot
        const isWholeYear = fromMonth === untilMonth + 1 || (fromMonth === 1 && untilMonth === 12);
        if (!isWholeYear) expect(beforeHotSeason(before, '2020-01-01', { fromMonth, untilMonth })).toBeNull();
      }),
    );
  });

  it('is told in words', () => {
    expect(seasonWords(SUMMER)).toBe('June to August');
    expect(seasonWords({ fromMonth: 7, untilMonth: 7 })).toBe('July');
  });
});

describe('a service that would fall into them', () => {
  const fill: DueInput = {
    filledOn: '2025-07-10',
    coolantClass: 'clear',
    productName: 'Plain Clear',
    sheetLifeMonths: 24,
    policy: 'twelve-months',
    meanCoolantC: null,
    hoursPerDay: null,
    season: SUMMER,
  };
  it('is due before, says why, and keeps the clock it came from', () => {
    const due = nextService(fill);
    expect(due.dueOn).toBe('2026-05-31');
    expect(reasonWords(due.reason)).toMatch(/before the hot months \(June to August\).*every twelve months/);
    expect(due.clocks.map(({ kind }) => kind)).toEqual(['season', 'policy', 'coolant-life']);
    expect(nextService({ ...fill, season: null }).dueOn).toBe('2026-07-10');
  });

  it('counts running hours that a sheet states, by whichever source the hours have', () => {
    const sheet = nextService({ ...fill, sheetLifeHours: 900, hoursPerDay: 3, hoursSource: 'meter' });
    expect(sheet.dueOn).toBe('2026-05-06');
    expect(reasonWords(sheet.reason)).toBe('Plain Clear: 900 running hours by its sheet (3 h a day by its meter)');
    expect(sheet.estimated).toBe(false);
    const assumed = nextService({ ...fill, season: null, sheetLifeHours: 900 });
    expect(assumed).toMatchObject({ dueOn: '2026-02-20', estimated: true });
    expect(reasonWords(assumed.reason)).toContain('assumed 4 h a day');
  });

  it('says who measured the warm coolant that shortens its life', () => {
    const warm = nextService({ ...fill, policy: 'product-life', meanCoolantC: 45, coolantSource: 'log' });
    expect(reasonWords(warm.reason)).toContain('shortened to 12.0 at 45 °C coolant by its log');
  });
});

describe('dust', () => {
  it('comes sooner on a carpet than on a desk', () => {
    const days = DUST_PLACE_KEYS.map((place) => dustClean('2026-01-10', place, null).dueOn);
    expect(days).toEqual(['2027-01-10', '2026-07-10', '2026-04-10']);
    for (const place of DUST_PLACE_KEYS)
      expect(reasonWords(dustClean('2026-01-10', place, null).reason)).toContain(DUST_PLACES[place].label);
  });

  it('is cleaned before the hot months', () => {
    expect(dustClean('2026-01-10', 'usual', SUMMER)).toMatchObject({ dueOn: '2026-05-31' });
    expect(reasonWords(dustClean('2026-01-10', 'usual', SUMMER).reason)).toContain('before the hot months');
  });
});

describe('putting off', () => {
  it.each([
    [0, '2026-06-01', 0],
    [1, '2026-03-20', 1],
    [1, '2026-05-20', 2],
    [2, '2026-03-20', 2],
    [1, '2026-08-01', 3],
    [3, '2026-03-20', 3],
  ])('%i times, until %s, is level %i', (postponed, dueOn, level) => {
    expect(escalationOf({ postponed, dueOn, firstDueOn: '2026-03-01' }).level).toBe(level);
  });

  it('says how often and how long past its clock', () => {
    expect(escalationWords(escalationOf({ postponed: 2, dueOn: '2026-03-20', firstDueOn: '2026-03-01' }))).toBe(
      'put off 2 times, 19 days past its clock: the risk goes to the owner in writing',
    );
    expect(escalationWords(escalationOf({ postponed: 1, dueOn: '2026-03-20', firstDueOn: null }))).toBe(
      'put off once: the owner knows the risk',
    );
  });

  it('never grows quieter when it is put off again', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 5 }), fc.integer({ min: 0, max: 300 }), (postponed, past) => {
        const at = (times: number, days: number) =>
          escalationOf({
            postponed: times,
            dueOn: new Date(Date.UTC(2026, 2, 1 + days)).toISOString().slice(0, 10),
            firstDueOn: '2026-03-01',
          });
        expect(at(postponed + 1, past + 10).level).toBeGreaterThanOrEqual(at(postponed, past).level);
      }),
    );
  });
});
