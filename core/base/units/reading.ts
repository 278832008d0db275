/**
 * How numbers, dates and words are read: by the person, else by the workshop. Everything is stored in mL, kPa, °C, mm and L/h, days as
 * `2026-03-09`; this only says how it is shown and typed.
 */
export interface Reading {
  readonly language: 'en' | 'de';
  /** millilitres and litres, or US fluid ounces and gallons */
  readonly volume: 'mL' | 'fl oz';
  readonly pressure: 'kPa' | 'bar' | 'psi';
  readonly temperature: '°C' | '°F';
  readonly length: 'mm' | 'in';
  readonly flow: 'L/h' | 'gal/h';
  /** 9 Mar 2026 · 09.03.2026 · 2026-03-09 · Mar 9, 2026 */
  readonly date: 'day-name' | 'dotted' | 'iso' | 'month-first';
  readonly clock: '24' | '12';
  /** 1 Monday, 6 Saturday, 7 Sunday (ISO 8601) */
  readonly weekBegins: 1 | 6 | 7;
}

/** SI and the ISO week: what stands on jugs and gauges in most places. */
export const USUAL_READING: Reading = {
  language: 'en',
  volume: 'mL',
  pressure: 'kPa',
  temperature: '°C',
  length: 'mm',
  flow: 'L/h',
  date: 'day-name',
  clock: '24',
  weekBegins: 1,
};

/** What can be chosen for each. */
export const READING_CHOICES: { readonly [K in keyof Reading]: readonly Reading[K][] } = {
  language: ['en', 'de'],
  volume: ['mL', 'fl oz'],
  pressure: ['kPa', 'bar', 'psi'],
  temperature: ['°C', '°F'],
  length: ['mm', 'in'],
  flow: ['L/h', 'gal/h'],
  date: ['day-name', 'dotted', 'iso', 'month-first'],
  clock: ['24', '12'],
  weekBegins: [1, 6, 7],
};

let source: () => Reading = () => USUAL_READING;

/** The edge says who is reading: a screen its account, the server whoever asked. */
export function readBy(next: () => Reading): void {
  source = next;
}
export const reading = (): Reading => source();

/** The same work read another way: letters go to owners in the workshop's way, whoever sends them. */
export function readingAs<T>(way: Reading, work: () => T): T {
  const before = source;
  source = () => way;
  try {
    return work();
  } finally {
    source = before;
  }
}
