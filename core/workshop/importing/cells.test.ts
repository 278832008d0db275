import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { cellProblemWords } from '../../edge/words/importing.js';
import { dayIn, dayOrderOf } from './days.js';
import { coolantC, hoursADay, meterHours, numberIn, tubeIn, volumeMlIn, type Read } from './figures.js';

const valueOf = <T>(read: Read<T>): T | string => ('value' in read ? read.value : read.problem.why);

describe('figures as people write them', () => {
  it.each([
    ['1,5', 1.5], ['1.5', 1.5], ['1 234,5', 1234.5], ['1.234,5', 1234.5], ['1,234.5', 1234.5], ['1.234.567', 1234567], ["1'200", 1200], ['12', 12],
  ])('%s is %d', (text, value) => expect(numberIn(text, false)).toBe(value)); // prettier-ignore

  it.each([
    ['6', 6], ['5,5', 5.5], ['6 h', 6], ['6h/Tag', 6], ['6 Std', 6], ['6 Std.', 6], ['about 8 h/day', 8], ['ca. 4 Stunden am Tag', 4],
    ['6 hours a day', 6], ['all day', 'not-hours'], ['30', 'not-a-days-hours'], ['0', 'not-a-days-hours'], ['-3', 'not-a-days-hours'],
  ])('hours a day: %s → %s', (text, value) => expect(valueOf(hoursADay(text))).toBe(value)); // prettier-ignore

  it.each([
    ['3412', 3412],
    ['3.412 h', 3412],
    ['3,412.5 h', 3412.5],
    ['much', 'not-hours'],
    ['999999', 'not-meter-hours'],
  ])('an hour meter: %s → %s', (text, value) => expect(valueOf(meterHours(text))).toBe(value));

  it.each([
    ['1200', 1200], ['1200 ml', 1200], ['1,2 L', 1200], ['1.2l', 1200], ['1,2', 1200], ['0.9 liter', 900], ['1.200 ml', 1200], ['1,200 mL', 1200],
    ['1.250 l', 1250], ['32 fl oz', 946.4], ['plenty', 'not-a-volume'], ['12 kg', 'not-a-volume'], ['500 l', 'volume-out-of-range'],
  ])('a volume: %s → %s mL', (text, value) => expect(valueOf(volumeMlIn(text))).toBe(value)); // prettier-ignore

  it.each([
    ['34', 34],
    ['34,5 °C', 34.5],
    ['95 °F', 35],
    ['warm', 'not-a-temperature'],
    ['140', 'not-a-temperature'],
  ])('a temperature: %s → %s', (text, value) => expect(valueOf(coolantC(text))).toBe(value));

  it.each([
    ['10/16', [10, 16, null]], ['16/10 mm', [10, 16, null]], ['13 x 10 soft', [10, 13, 'pvc']], ['ID 12 OD 16 PETG', [12, 16, 'petg']],
    ['3/8" x 5/8" EPDM', [9.5, 15.9, 'epdm']], ['1/2" 3/4"', [12.7, 19, null]], ['Schlauch 11,2/16', [11.2, 16, 'pvc']],
  ])('a tube: %s', (text, [boreMm, outerMm, material]) => expect(valueOf(tubeIn(text))).toEqual({ boreMm, outerMm, material })); // prettier-ignore
  it.each(['thick', '10', '10/10', '10/16/3', '100/200'])('no tube: %s', (text) => expect(valueOf(tubeIn(text))).toBe('not-a-tube'));
});

describe('days as people write them', () => {
  it.each([
    ['2024-03-15', '2024-03-15'], ['2024/3/5', '2024-03-05'], ['15.3.2024', '2024-03-15'], ['15.03.24', '2024-03-15'], ['15. 3. 2024', '2024-03-15'],
    ['15/3/2024', '2024-03-15'], ['15 March 2024', '2024-03-15'], ['15. März 2024', '2024-03-15'], ['March 15, 2024', '2024-03-15'], ['Mar-24', '2024-03-01'],
    ['Dez 2024', '2024-12-01'], ['03/2024', '2024-03-01'], ['2024-03', '2024-03-01'], ['45366', '2024-03-15'], ['2024-03-15 00:00:00', '2024-03-15'],
    ['2024-03-15T08:30:00Z', '2024-03-15'], ['31.2.2024', 'not-a-day'], ['soon', 'not-a-day'], ['2024', 'a-year-alone'], ['15/33/2024', 'not-a-day'],
  ])('%s → %s', (text, value) => expect(valueOf(dayIn(text, 'day-first'))).toBe(value)); // prettier-ignore

  it('go by the order of their column, which the column gives away or leaves open', () => {
    expect(valueOf(dayIn('3/4/2024', 'month-first'))).toBe('2024-03-04');
    expect(dayOrderOf(['3/4/2024', '25/4/2024'])).toBe('day-first');
    expect(dayOrderOf(['3/4/2024', '4/25/2024'])).toBe('month-first');
    expect(dayOrderOf(['3/4/2024', '5/6/2024'])).toBe('open');
    expect(dayOrderOf(['2024-03-04', '5.6.2024', ''])).toBe(null);
  });

  it('are days of the calendar, whatever stands in the cell', () => {
    const cell = fc.oneof(
      fc.string(),
      fc.tuple(fc.nat(40), fc.nat(40), fc.nat(3000)).map(([a, b, c]) => `${a}/${b}/${c}`),
    );
    fc.assert(
      fc.property(cell, fc.constantFrom('day-first' as const, 'month-first' as const), (text, order) => {
        const read = dayIn(text, order);
        if ('value' in read) expect(new Date(`${read.value}T00:00:00Z`).toISOString().slice(0, 10)).toBe(read.value);
        else expect(cellProblemWords(read.problem, text)).toContain('is');
      }),
    );
  });
});
