import Joi from 'joi';

/** Upper bounds of what a workshop can mean; above them an entry is a slip of the finger, not a loop. */
export const MOST = {
  /** mL; the largest loops hold a few litres */
  volumeMl: 100_000,
  /** mm; ten metres */
  lengthMm: 10_000,
  /** L/h; a hundred times the largest loop pump */
  flowLph: 100_000,
  /** kPa; ten bar */
  pressureKpa: 1000,
  /** kPa/(L/min) and kPa/(L/min)²; a part that lets next to nothing through */
  resistance: 100_000,
  /** days and instants of a workshop's books: before it nothing of this work was, after it nobody plans */
  firstDay: '1990-01-01',
  lastDay: '2120-12-31',
  /** saves of one row: what its column holds */
  version: 2_147_483_646,
  /** minor units of a currency in one price; above it a finger slipped */
  minor: 1_000_000_000,
  /** characters in a note */
  noteLength: 4000,
} as const;

export const finite = (): Joi.NumberSchema => Joi.number().unsafe();
export const volumeMl = (): Joi.NumberSchema => finite().min(0).max(MOST.volumeMl);
export const positiveMl = (): Joi.NumberSchema => finite().greater(0).max(MOST.volumeMl);
export const fraction = (): Joi.NumberSchema => finite().min(0).max(1);
export const name = (): Joi.StringSchema => Joi.string().trim().min(1).max(120).pattern(/\S/, 'a text with at least one letter or digit');
export const note = (): Joi.StringSchema => Joi.string().allow('').max(MOST.noteLength);
/** A price in whole minor units of a currency. */
export const minor = (): Joi.NumberSchema => Joi.number().integer().min(0).max(MOST.minor);
/** A text that stands for something else, as in an address: read once. @param most characters @param read null: it stands for nothing */
export const readText = (most: number, read: (text: string) => object | null): Joi.StringSchema =>
  // the reader of a schema sees what was read
  Joi.string()
    .max(most)
    .custom((text: string, helpers) => (read(text) ?? helpers.error('any.invalid')) as unknown as string);
/** characters of a data address before its bytes, at most */
const ADDRESS_BEGINS = 80;
/** whether a text is bytes in base64; one look at each character, however many there are */
function isBase64(text: string): boolean {
  const padding = text.endsWith('==') ? 2 : text.endsWith('=') ? 1 : 0;
  return text.length > padding && !/[^A-Za-z0-9+/]/.test(text.slice(0, text.length - padding));
}
/**
 * A file as a data address in base64 (RFC 2397).
 * One pattern from `^` to `$` remembers every one of millions of characters in case it has to go back, and fails of its own size.
 * @param types media types it may have @param mostBytes of the file @param what it should be, for who sent something else
 */
export const dataAddress = (types: readonly string[], mostBytes: number, what: string): Joi.StringSchema =>
  Joi.string()
    .max(Math.ceil((mostBytes * 4) / 3) + ADDRESS_BEGINS)
    .custom((address: string, helpers) => {
      const comma = address.indexOf(',');
      const isSo = types.some((type) => address.slice(0, comma) === `data:${type};base64`) && isBase64(address.slice(comma + 1));
      return isSo ? address : helpers.error('string.pattern.name', { name: what, value: address });
    });
export const id = (): Joi.StringSchema => Joi.string().guid({ separator: '-' });
export const rowVersion = (): Joi.NumberSchema => Joi.number().integer().min(1).max(MOST.version).required();
const inTime = (day: string): boolean => day >= MOST.firstDay && day <= MOST.lastDay;
const OUT_OF_TIME = `{{#label}} must lie between ${MOST.firstDay} and ${MOST.lastDay}`;
/** A calendar day, `2026-03-09`. */
export const day = (): Joi.StringSchema =>
  Joi.string()
    .pattern(/^\d{4}-\d{2}-\d{2}$/, 'a date as YYYY-MM-DD')
    .custom((value: string, helpers) => {
      const parsed = new Date(`${value}T00:00:00Z`);
      const real = !Number.isNaN(parsed.getTime()) && parsed.toISOString().startsWith(value);
      if (!real) return helpers.message({ custom: '{{#label}} must be a day of the calendar, as YYYY-MM-DD' });
      return inTime(value) ? value : helpers.message({ custom: OUT_OF_TIME });
    });
/** An instant, ISO 8601 with zone. */
export const instant = (): Joi.StringSchema =>
  Joi.string()
    .max(40)
    .custom((value: string, helpers) => {
      if (!/^\d{4}-\d{2}-\d{2}T[\d:.]+(Z|[+-]\d{2}:\d{2})$/.test(value) || Number.isNaN(Date.parse(value)))
        return helpers.message({ custom: '{{#label}} must be an instant with its zone, like 2026-03-09T14:05:00Z' });
      return inTime(value.slice(0, 10)) ? value : helpers.message({ custom: OUT_OF_TIME });
    });
