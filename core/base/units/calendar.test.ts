import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { addDays, addMonths, dayIn, daysBetween, isTimeZone } from './calendar.js';

const anyDay = fc
  .date({ min: new Date('1990-01-01'), max: new Date('2090-12-31'), noInvalidDate: true })
  .map((date) => date.toISOString().slice(0, 10));

describe('calendar arithmetic', () => {
  it('adds months, falling back to the last day of a shorter month', () => {
    expect(addMonths('2026-08-31', 6)).toBe('2027-02-28');
    expect(addMonths('2023-08-31', 6)).toBe('2024-02-29');
    expect(addMonths('2026-01-15', 12)).toBe('2027-01-15');
    expect(addMonths('2026-03-31', -1)).toBe('2026-02-28');
  });

  it('turns fractions of a month into days', () => {
    expect(addMonths('2026-01-01', 0.5)).toBe('2026-01-16');
  });

  it('adds days over month and year ends and over clock changes', () => {
    expect(addDays('2026-12-31', 1)).toBe('2027-01-01');
    expect(addDays('2026-03-28', 2)).toBe('2026-03-30');
    expect(addDays('2026-03-01', -1)).toBe('2026-02-28');
  });

  it('counts back what it added', () => {
    fc.assert(fc.property(anyDay, fc.integer({ min: -5000, max: 5000 }), (day, days) => daysBetween(day, addDays(day, days)) === days));
  });

  it('never lands in another month than asked', () => {
    fc.assert(
      fc.property(anyDay, fc.integer({ min: 0, max: 60 }), (day, months) => {
        const [year, month] = day.split('-').map(Number) as [number, number];
        const [laterYear, laterMonth] = addMonths(day, months).split('-').map(Number) as [number, number];
        return laterYear * 12 + laterMonth === year * 12 + month + months;
      }),
    );
  });

  it('agrees with the platform’s own calendar on every day from 1900 to 2300', () => {
    for (let ms = Date.UTC(1900, 0, 1), nth = 0; ms < Date.UTC(2300, 0, 1); ms += 86_400_000, nth += 1) {
      const day = new Date(ms).toISOString().slice(0, 10);
      if (addDays('1900-01-01', nth) !== day || daysBetween('1900-01-01', day) !== nth) expect([addDays('1900-01-01', nth), daysBetween('1900-01-01', day)]).toEqual([day, nth]); // prettier-ignore
    }
    expect(addDays('2000-02-28', 1)).toBe('2000-02-29');
    expect(addDays('2100-02-28', 1)).toBe('2100-03-01');
    expect(addDays('0001-01-01', -1)).toBe('0000-12-31');
  });

  it('counts from no day that is none', () => {
    expect(() => addDays('tomorrow', 1)).toThrow(RangeError);
    expect(daysBetween('2026-03-10T09:00:00Z', '2026-03-11')).toBeNaN();
  });

  it('finds the day that an instant falls on in a zone', () => {
    const instant = new Date('2026-06-30T23:30:00Z');
    expect(dayIn('Europe/Lisbon', instant)).toBe('2026-07-01');
    expect(dayIn('America/New_York', instant)).toBe('2026-06-30');
    expect(dayIn('UTC', instant)).toBe('2026-06-30');
  });

  it('knows a time zone from a word', () => {
    expect(isTimeZone('Europe/Lisbon')).toBe(true);
    expect(isTimeZone('Europe/Nowhere')).toBe(false);
  });
});
