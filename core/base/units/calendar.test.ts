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
