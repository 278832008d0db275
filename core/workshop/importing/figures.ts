import { MOST } from '../../base/checking/fields.js';
import type { TubeMaterialName } from '../../machine/materials/tubes.js';
import { MOST_METER_HOURS, SANE_COOLANT_C } from '../usage/defaults.js';
import type { CellProblem } from './problems.js';

/** Figures as people write them in tables: decimal commas, units in the cell, "about". */

/** What a cell holds, or what is wrong with it. */
export type Read<T> = { readonly value: T } | { readonly problem: CellProblem };
const read = <T>(value: T): Read<T> => ({ value });
const wrong = <T>(problem: CellProblem): Read<T> => ({ problem });

const FIGURE = /^(?:ca\.?|circa|about|approx\.?|etwa|rund|~|≈)?\s*([+-]?[\d.,'\s\u00a0\u202f]*\d)\s*(.*)$/iu;

/**
 * A number with the decimal sign that its writer uses: where both signs stand the later is the decimal one; one that stands
 * several times groups thousands.
 * @param groups a single sign before exactly three digits groups thousands, as in "1.200 mL"; else it is the decimal sign
 */
export function numberIn(text: string, groups: boolean): number {
  const digits = text.replace(/['\s\u00a0\u202f]/gu, '');
  const [comma, point] = [digits.lastIndexOf(','), digits.lastIndexOf('.')];
  const decimal = comma >= 0 && point >= 0 ? (comma > point ? ',' : '.') : comma >= 0 ? ',' : point >= 0 ? '.' : null;
  if (decimal === null) return Number(digits);
  const other = decimal === ',' ? '.' : ',';
  const plain = digits.replaceAll(other, '');
  const isGrouping = plain.split(decimal).length > 2 || (groups && !digits.includes(other) && /^[+-]?[1-9]\d{0,2}[.,]\d{3}$/u.test(plain));
  return Number(isGrouping ? plain.replaceAll(decimal, '') : plain.replace(decimal, '.'));
}

function figureOf(text: string, groups: boolean): { value: number; unit: string } | null {
  const found = FIGURE.exec(text);
  if (!found) return null;
  const value = numberIn(found[1] as string, groups);
  return Number.isFinite(value)
    ? { value, unit: (found[2] as string).trim().toLowerCase().replace(/\s+/gu, ' ').replace(/\.$/u, '') }
    : null;
}

const HOUR =
  /^(?:h|hs|hr|hrs|hour|hours|std|stdn|stunde|stunden)?(?:\s*(?:\/|per|pro|a|am|je)\s*(?:d|day|tag))?(?:\s*(?:daily|täglich))?$/u;

/** Running hours a day: "5,5", "6 h", "6 Std", "about 8 h/day". */
export function hoursADay(text: string): Read<number> {
  const figure = figureOf(text, false);
  if (!figure || !HOUR.test(figure.unit)) return wrong({ why: 'not-hours' });
  return figure.value > 0 && figure.value <= 24 ? read(figure.value) : wrong({ why: 'not-a-days-hours' });
}

/** What an hour meter showed: "3.412 h". */
export function meterHours(text: string): Read<number> {
  const figure = figureOf(text, true);
  if (!figure || !HOUR.test(figure.unit)) return wrong({ why: 'not-hours' });
  return figure.value >= 0 && figure.value <= MOST_METER_HOURS
    ? read(figure.value)
    : wrong({ why: 'not-meter-hours', most: MOST_METER_HOURS });
}

/** mL in one of a unit */
const ML_IN: Readonly<Record<string, number>> = {
  ml: 1, milliliter: 1, millilitre: 1, cc: 1, 'cm³': 1,
  cl: 10, dl: 100,
  l: 1000, ltr: 1000, lt: 1000, liter: 1000, litre: 1000, litres: 1000, liters: 1000,
  'fl oz': 29.5735295625, floz: 29.5735295625, oz: 29.5735295625, gal: 3785.411784, gallon: 3785.411784,
}; // prettier-ignore
/** below it a bare figure is litres: no loop holds 20 mL, none 20 L */
const LEAST_BARE_ML = 20;

/** A volume in mL. Without a unit a figure below 20 is litres. */
export function volumeMlIn(text: string): Read<number> {
  // "1.200 mL" groups thousands, "1.250 L" has decimals
  const figure = figureOf(text, !/(?:^|[^m\p{L}])l|d[l]|c[l]/iu.test(text));
  if (!figure) return wrong({ why: 'not-a-volume' });
  const factor = figure.unit === '' ? (figure.value < LEAST_BARE_ML ? 1000 : 1) : ML_IN[figure.unit];
  if (factor === undefined) return wrong({ why: 'not-a-volume' });
  const ml = figure.value * factor;
  return ml > 0 && ml <= MOST.volumeMl ? read(Math.round(ml * 10) / 10) : wrong({ why: 'volume-out-of-range', mostMl: MOST.volumeMl });
}

/** Mean temperature of the coolant, °C: "34", "34,5 °C", "93 °F". */
export function coolantC(text: string): Read<number> {
  const figure = figureOf(text, false);
  const isF = figure?.unit === '°f' || figure?.unit === 'f';
  if (!figure || !(isF || ['', '°c', 'c', 'grad', '°'].includes(figure.unit))) return wrong({ why: 'not-a-temperature' });
  const celsius = isF ? ((figure.value - 32) * 5) / 9 : figure.value;
  return celsius >= SANE_COOLANT_C.least && celsius <= SANE_COOLANT_C.most
    ? read(Math.round(celsius * 10) / 10)
    : wrong({ why: 'not-a-temperature' });
}

/** Tube as a table names it. */
export interface StatedTube {
  readonly boreMm: number;
  readonly outerMm: number;
  /** null: the table does not say */
  readonly material: TubeMaterialName | null;
}

const MM_AN_INCH = 25.4;
const TUBE_WORDS: readonly (readonly [RegExp, TubeMaterialName])[] = [
  [/epdm|rubber|gummi/iu, 'epdm'],
  [/petg/iu, 'petg'],
  [/acryl|pmma/iu, 'acrylic'],
  [/glas/iu, 'glass'],
  [/metal|copper|brass|steel|kupfer|messing|stahl/iu, 'metal'],
  [/pur\b|polyurethan/iu, 'pur'],
  [/pvc|soft|weich|schlauch/iu, 'pvc'],
];

function millimetres(text: string): number[] {
  const inches = /["”″]|\binch|\bin\b|\bzoll/iu.test(text);
  return [...text.matchAll(/(\d+)\s*\/\s*(\d+)\s*(?=["”″]|\s*(?:inch|in\b|zoll))|(\d+(?:[.,]\d+)?)/giu)].map(([, over, under, plain]) =>
    plain === undefined ? (Number(over) / Number(under)) * MM_AN_INCH : Number(plain.replace(',', '.')) * (inches ? MM_AN_INCH : 1),
  );
}

/** Two diameters in either order: "10/16", "13 x 10 mm", "3/8\" 5/8\" EPDM". The larger is the outer one. */
export function tubeIn(text: string): Read<StatedTube> {
  const [a, b, ...more] = millimetres(text);
  if (a === undefined || b === undefined || more.length > 0 || a === b) return wrong({ why: 'not-a-tube' });
  const [boreMm, outerMm] = [Math.min(a, b), Math.max(a, b)].map((mm) => Math.round(mm * 10) / 10) as [number, number];
  // what goes round a person's wrist is no tube of such a loop
  if (boreMm < 2 || outerMm > 40) return wrong({ why: 'not-a-tube' });
  return read({ boreMm, outerMm, material: TUBE_WORDS.find(([word]) => word.test(text))?.[1] ?? null });
}
