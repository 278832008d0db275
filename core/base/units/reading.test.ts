import fc from 'fast-check';
import { afterEach, describe, expect, it } from 'vitest';
import { addDays } from './calendar.js';
import { formatDay, formatDayTime, formatTime, formatWeekday, longDay, longTime, monthName, weekdayNames } from './dates.js';
import { formatDegrees, formatIn, formatKpa, formatMl, formatMlWithSd, formatMm, formatTube } from './display.js';
import { readBy, readingAs, USUAL_READING, type Reading } from './reading.js';
import { shownIn, STORED_UNITS, storedFrom } from './shown.js';
import { shownTime, typedDay, typedTime } from './typedDay.js';

const thin = (text: string): string => text.replaceAll(/[\u202f\u00a0]/g, ' ');
const reads = (way: Partial<Reading>): void => readBy(() => ({ ...USUAL_READING, ...way }));
afterEach(() => reads({}));

describe('units of a reader', () => {
  // NIST SP 811, appendix B.8 and B.9
  it.each([
    ['mL', { volume: 'fl oz' }, 29.57353, 1],
    ['kPa', { pressure: 'psi' }, 6.894757, 1],
    ['kPa', { pressure: 'bar' }, 100, 1],
    ['°C', { temperature: '°F' }, 37.7777778, 100],
    ['K', { temperature: '°F' }, 10, 18],
    ['mm', { length: 'in' }, 25.4, 1],
    ['L/h', { flow: 'gal/h' }, 3.785412, 1],
  ] as const)('counts %s in %o', (unit, way, stored, shown) => {
    reads(way as Partial<Reading>);
    expect(shownIn(unit, stored)).toBeCloseTo(shown, 5);
  });

  it('gives back what was typed, to what an instrument resolves', () => {
    const ways = fc.record({
      volume: fc.constantFrom('mL', 'fl oz'),
      pressure: fc.constantFrom('kPa', 'bar', 'psi'),
      temperature: fc.constantFrom('°C', '°F'),
      length: fc.constantFrom('mm', 'in'),
      flow: fc.constantFrom('L/h', 'gal/h'),
    }) as fc.Arbitrary<Partial<Reading>>;
    fc.assert(
      fc.property(ways, fc.constantFrom(...STORED_UNITS), fc.double({ min: -50, max: 5000, noNaN: true }), (way, unit, typed) => {
        reads(way);
        expect(shownIn(unit, storedFrom(unit, typed))).toBeCloseTo(typed, 2);
      }),
    );
  });

  it('shows volumes, pressures, degrees, levels and tubes in ounces, psi, °F and inches', () => {
    reads({ volume: 'fl oz', pressure: 'psi', temperature: '°F', length: 'in', flow: 'gal/h' });
    expect([formatMl(750), formatMl(5000), formatMlWithSd(1003, 62)].map(thin)).toEqual(['25.4 fl oz', '1.32 gal', '33.9 ± 2.1 fl oz']);
    expect([formatKpa(50), formatDegrees(31), formatMm(6.5), formatIn('L/h', 180)].map(thin)).toEqual([
      '7.25 psi',
      '88 °F',
      '0.256 in',
      '47.6 gal/h',
    ]);
    expect(formatTube({ boreMm: 9.525, outerMm: 12.7 })).toBe('0.375/0.5 in');
  });

  it('writes decimals with a comma in German, and parts thousands alike', () => {
    reads({ language: 'de' });
    expect(thin(formatMl(12_345))).toBe('12,3 L');
    expect(thin(formatMl(1263))).toBe('1 263 mL');
    expect(thin(formatKpa(-3.25))).toBe('−3,3 kPa');
  });
});

describe('days and times of a reader', () => {
  it.each([
    [{}, '9 Mar 2026', '9 Mar 2026, 14:30'],
    [{ date: 'iso' }, '2026-03-09', '2026-03-09, 14:30'],
    [{ date: 'dotted' }, '09.03.2026', '09.03.2026, 14:30'],
    [{ date: 'month-first', clock: '12' }, 'Mar 9, 2026', 'Mar 9, 2026, 2:30 pm'],
  ] as const)('are written as %o', (way, day, dayTime) => {
    reads(way as Partial<Reading>);
    expect(formatDay('2026-03-09')).toBe(day);
    expect(thin(formatDayTime('2026-03-09T14:30:00Z', 'Europe/Lisbon'))).toBe(dayTime);
  });

  it('speak the language of the reader', () => {
    reads({ language: 'de', weekBegins: 7 });
    expect(formatWeekday('2026-03-09')).toMatch(/^Mo.? 9\. März$/);
    expect(monthName('2026-03-09')).toBe('März 2026');
    expect(weekdayNames()).toEqual(['So', 'Mo', 'Di', 'Mi', 'Do', 'Fr', 'Sa']);
    expect(longTime('2026-03-10T09:00:00Z', 'Europe/Lisbon')).toBe('Dienstag, 10. März 2026 um 09:00');
  });

  it('put the month first in appointments and letters as well, where their reader does', () => {
    reads({ date: 'month-first', clock: '12' });
    expect(formatWeekday('2026-03-09')).toBe('Mon Mar 9');
    expect(longDay('2026-03-10')).toBe('March 10, 2026');
    expect(thin(longTime('2026-03-10T14:30:00Z', 'UTC'))).toBe('Tuesday, March 10, 2026 at 2:30 PM');
  });

  it('are read another way for a while, and then as before', () => {
    reads({ date: 'iso' });
    expect(readingAs({ ...USUAL_READING, date: 'dotted' }, () => formatDay('2026-03-09'))).toBe('09.03.2026');
    expect(formatDay('2026-03-09')).toBe('2026-03-09');
    expect(() => readingAs(USUAL_READING, () => { throw new Error('no'); })).toThrow('no'); // prettier-ignore
    expect(formatDay('2026-03-09')).toBe('2026-03-09');
  });

  it('are told on the clock of the workshop', () => {
    reads({ clock: '12' });
    expect(thin(formatTime('2026-07-01T12:05:00Z', 'Europe/Lisbon'))).toBe('1:05 pm');
  });
});

describe('a day that is typed', () => {
  const today = '2026-11-28';
  it.each([
    ['2026-12-24', '2026-12-24'],
    ['24.12.2026', '2026-12-24'],
    ['24.12.', '2026-12-24'],
    ['3/2', '2027-02-03'],
    ['9 1 27', '2027-01-09'],
    ['28', '2026-11-28'],
    ['5', '2026-12-05'],
    ['31', '2026-12-31'],
    ['29.2', '2028-02-29'],
    ['9 mar', '2027-03-09'],
    ['9. März 2026', '2026-03-09'],
    ['+10', '2026-12-08'],
    ['-1', '2026-11-27'],
    ['tomorrow', '2026-11-29'],
    ['30.2.2026', null],
    ['0.12.2026', null],
    ['soon', null],
    ['', null],
  ])('%s is %s', (text, day) => {
    if (/[äöü]/.test(text)) reads({ language: 'de' });
    expect(typedDay(text, today, new Map([['tomorrow', 1]]))).toBe(day);
  });

  it('has its month first for who reads it so', () => {
    reads({ date: 'month-first' });
    expect(typedDay('12/24/2026', today)).toBe('2026-12-24');
    expect(typedDay('24.12.2026', today)).toBe(null);
  });

  it('is read back from every way of writing it', () => {
    fc.assert(
      fc.property(fc.integer({ min: -3000, max: 3000 }), fc.constantFrom('iso', 'dotted', 'day-name', 'month-first'), (days, date) => {
        reads({ date: date as Reading['date'] });
        const day = addDays(today, days);
        expect(typedDay(formatDay(day), today)).toBe(day);
      }),
    );
  });
});

describe('a time that is typed', () => {
  it.each([
    ['9', '09:00'],
    ['930', '09:30'],
    ['9.30', '09:30'],
    ['17:05', '17:05'],
    ['5:05 pm', '17:05'],
    ['12 am', '00:00'],
    ['12p', '12:00'],
    ['24:00', null],
    ['13 pm', null],
    ['9:75', null],
    ['', null],
  ])('%s is %s', (text, time) => expect(typedTime(text)).toBe(time));

  it('is written as its reader writes it', () => {
    expect(shownTime('17:05')).toBe('17:05');
    reads({ clock: '12' });
    expect(['00:05', '12:00', '17:05', ''].map(shownTime)).toEqual(['12:05 am', '12:00 pm', '5:05 pm', '']);
  });
});
