import { locale } from '../../base/units/display.js';

/**
 * Money is kept in whole minor units (cents where a currency has them), so that sums are exact. A currency is its ISO 4217 code.
 */

const known = new Set(Intl.supportedValuesOf('currency'));
export const isCurrency = (code: string): boolean => known.has(code);
/** What a workshop may choose, by code. */
export const CURRENCIES: readonly string[] = [...known].sort();

/** Decimal places of a currency: 2 for most, 0 or 3 for some (ISO 4217, as the platform knows it). */
export function decimalsOf(currency: string): number {
  return new Intl.NumberFormat('en', { style: 'currency', currency }).resolvedOptions().maximumFractionDigits ?? 2;
}

/** Minor units as the number that people write: 1250 of EUR is 12.5. */
export const fromMinor = (minor: number, currency: string): number => minor / 10 ** decimalsOf(currency);
/** What somebody wrote, in whole minor units; half a unit is rounded away from nothing. */
export const toMinor = (amount: number, currency: string): number =>
  Math.sign(amount) * Math.round(Math.abs(amount) * 10 ** decimalsOf(currency) + 1e-9);

const formats = new Map<string, Intl.NumberFormat>();
/** A sum as its reader writes it: "€120.50", or "120,50 €". */
export function formatMoney(minor: number, currency: string, language = locale()): string {
  const key = `${language} ${currency}`;
  const format = formats.get(key) ?? new Intl.NumberFormat(language, { style: 'currency', currency });
  formats.set(key, format);
  // thousands stand apart as in every other number
  return format.formatToParts(fromMinor(minor, currency)).map(({ type, value }) => (type === 'group' ? '\u202f' : value)).join(''); // prettier-ignore
}
