import { reading } from './reading.js';
import { LARGE_FROM, largeVolume, scaleOf, shownIn, unitName, type StoredUnit } from './shown.js';

/** Sensible digits for the units of the bench, as their reader counts. Every text carries its unit. */

/** A true minus sign: a hyphen is lost beside tabular figures. Nothing, rounded, has no sign. */
export const withMinus = (text: string): string => text.replace(/^-(?=[0.]*$)/, '').replace(/^-/, '−');

/** The language that numbers and dates are written in. */
const LOCALES = { en: 'en-GB', de: 'de-DE' } as const;
export const locale = (): string => LOCALES[reading().language];

/** by language and decimals; made once, since making a format takes a hundred times as long as using it */
const groupings = new Map<string, Intl.NumberFormat>();
function numberAs(value: number, least: number, most: number): string {
  const language = locale();
  const key = `${language} ${least} ${most}`;
  const format = groupings.get(key) ?? new Intl.NumberFormat(language, { minimumFractionDigits: least, maximumFractionDigits: most });
  groupings.set(key, format);
  return withMinus(format.format(value).replace(language === LOCALES.de ? /\./g : /,/g, '\u202f'));
}
/** A number as its reader writes it: thousands apart by a thin space in every language, decimals by point or comma. */
export const grouped = (value: number, decimals: number): string => numberAs(value, decimals, decimals);
/** The same without zeros that say nothing: `2`, `2.5`. */
export const groupedUpTo = (value: number, decimals: number): string => numberAs(value, 0, decimals);

/** Hours of a meter: tenths where it shows them. */
export const formatHours = (hours: number): string => groupedUpTo(hours, 1);

/**
 * A stored number in the unit of its reader, without the unit.
 * @param decimals digits behind the point in the stored unit
 */
export const digitsIn = (unit: StoredUnit, stored: number, decimals = 0): string =>
  // a hair below nothing is nothing, and not "−0"
  grouped(shownIn(unit, stored) || 0, decimals + scaleOf(unit).more);
/** What must never be passed: rounded in the reader's unit it is never more than it is. */
export function digitsAtMost(unit: StoredUnit, stored: number, decimals = 0): string {
  const places = decimals + scaleOf(unit).more;
  // a hair of binary fractions is no reason to lose a digit
  return grouped(Math.floor(shownIn(unit, stored) * 10 ** places + 1e-6) / 10 ** places, places);
}
export const formatAtMost = (unit: StoredUnit, stored: number, decimals = 0): string =>
  `${digitsAtMost(unit, stored, decimals)} ${unitName(unit)}`;

export const formatIn = (unit: StoredUnit, stored: number, decimals = 0): string => `${digitsIn(unit, stored, decimals)} ${unitName(unit)}`;

/** Volume in mL below 10 L, in L above; never finer than 1 mL, which no jug resolves. In ounces and gallons for who reads those. */
export function formatMl(ml: number): string {
  if (Math.abs(ml) < LARGE_FROM[reading().volume]) return formatIn('mL', ml);
  const { unit, factor, more } = largeVolume();
  return `${grouped(ml * factor, more)} ${unit}`;
}

/** A volume known to two digits at most, small or large: `0.042 mL`, `1.2 mL`, `1 900 mL`. */
export function formatRoughMl(ml: number): string {
  const shown = shownIn('mL', ml);
  const digits = shown > 0 ? Math.floor(Math.log10(shown)) - 1 : 0;
  const rounded = Number((Math.round(shown / 10 ** digits) * 10 ** digits).toPrecision(2));
  return `${grouped(rounded, Math.max(0, Math.min(6, -digits)))} ${unitName('mL')}`;
}

/** `1 003 ± 62 mL`: the uncertainty is one standard deviation. A short tube, known to less than 1 mL, shows tenths. */
export function formatMlWithSd(ml: number, sdMl: number): string {
  const decimals = sdMl > 0 && sdMl < 0.95 ? 1 : 0;
  const sd = decimals === 1 && sdMl < 0.05 ? `<\u202f${grouped(0.1, 1)}` : digitsIn('mL', sdMl, decimals);
  return `${digitsIn('mL', ml, decimals)} ± ${sd} ${unitName('mL')}`;
}

/** A level or its change, to the half millimetre that an eye reads. */
export function formatMm(mm: number): string {
  const halves = Math.round(2 * mm);
  return formatIn('mm', halves / 2, halves % 2 === 0 ? 0 : 1);
}

/** A whole machine's mass, to 5 g: what a scale that carries it shows. */
export const formatKg = (massG: number): string => `${grouped(massG / 1000, 3)} kg`;

export function formatPercent(fraction: number, decimals = 0): string {
  return `${grouped(fraction * 100, decimals)} %`;
}

/** Whole degrees, with a true minus. */
export const formatDegrees = (tempC: number): string => formatIn('°C', tempC);

/** A thermal resistance with three digits, as technicians compare it. */
export const formatKelvinPerWatt = (kelvinPerWatt: number): string => `${grouped(kelvinPerWatt, 3)} K/W`;

/** Seconds of a pump, without their unit: tenths below ten. */
export const secondsDigits = (s: number): string => grouped(s, s < 10 ? 1 : 0);

export const formatKpa = (kpa: number): string => formatIn('kPa', kpa, 1);

/** `45 s`, `12:05`, `1 h 20 min`, `3 d 4 h`: what a person would say of a running clock. */
export function formatSpan(seconds: number): string {
  const whole = Math.max(0, Math.round(seconds));
  if (whole < 60) return `${whole} s`;
  if (whole < 3600) return `${Math.round(whole / 60)} min`;
  if (whole < 2 * 86_400) {
    const minutes = Math.round((whole % 3600) / 60);
    return `${Math.floor(whole / 3600)} h${minutes ? ` ${minutes} min` : ''}`;
  }
  const hours = Math.round((whole % 86_400) / 3600);
  return `${Math.floor(whole / 86_400)} d${hours ? ` ${hours} h` : ''}`;
}

/** A clock face: `4:05` or `23:59:07`. */
export function formatClock(seconds: number): string {
  const whole = Math.max(0, Math.floor(seconds));
  const two = (n: number): string => String(n).padStart(2, '0');
  const hours = Math.floor(whole / 3600);
  const minutes = Math.floor((whole % 3600) / 60);
  return hours > 0 ? `${hours}:${two(minutes)}:${two(whole % 60)}` : `${minutes}:${two(whole % 60)}`;
}

/** A leak rate in mbar·L/s with two significant digits, `1.2 × 10⁻³ mbar·L/s`. */
export function formatLeak(mbarLs: number): string {
  if (mbarLs === 0) return '0 mbar·L/s';
  const exponent = Math.floor(Math.log10(Math.abs(mbarLs)));
  const mantissa = mbarLs / 10 ** exponent;
  return `${grouped(mantissa, 1)} × 10${superscript(exponent)} mbar·L/s`;
}

/** A leak rate with its standard error at one exponent, `(0.9 ± 3.3) × 10⁻³ mbar·L/s`. */
export function formatLeakWithSe(mbarLs: number, seMbarLs: number): string {
  const larger = Math.max(Math.abs(mbarLs), seMbarLs);
  if (!(larger > 0)) return formatLeak(0);
  const exponent = Math.floor(Math.log10(larger));
  // as many digits as the error has something to say in
  const errorExponent = seMbarLs > 0 ? Math.floor(Math.log10(seMbarLs)) : exponent;
  const digits = Math.max(1, Math.min(3, exponent - errorExponent));
  const scaled = (value: number): string => grouped(value / 10 ** exponent, digits);
  return `(${scaled(mbarLs)} ± ${scaled(seMbarLs)}) × 10${superscript(exponent)} mbar·L/s`;
}

const RAISED: Record<string, string> = {
  '-': '⁻',
  '0': '⁰',
  '1': '¹',
  '2': '²',
  '3': '³',
  '4': '⁴',
  '5': '⁵',
  '6': '⁶',
  '7': '⁷',
  '8': '⁸',
  '9': '⁹',
};

function superscript(n: number): string {
  return [...String(n)].map((character) => RAISED[character] ?? '').join('');
}

/** As it would be written on a part: no zeros behind the point, and no unit. */
export const plainIn = (unit: StoredUnit, stored: number): string =>
  groupedUpTo(shownIn(unit, stored), Math.min(4, scaleOf(unit).more + 1));

/** A tube by its two diameters, `10/13 mm`. */
export const formatTube = ({ boreMm, outerMm }: { readonly boreMm: number; readonly outerMm: number }): string =>
  `${plainIn('mm', boreMm)}/${plainIn('mm', outerMm)} ${unitName('mm')}`;
