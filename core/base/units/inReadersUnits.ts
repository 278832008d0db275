import { digitsAtMost, digitsIn } from './display.js';
import { isStoredUnit, unitName } from './shown.js';

/**
 * A figure with its unit inside a sentence that was filled in once and kept. Sizes that things are named by stay as they are: tubes
 * (`10/16 mm`), fans and screws (`4 × 140 mm`, `30 or 35 mm`).
 */
const FIGURE = /(?<![\p{L}\d/.,–]|× ?|\b(?:or|oder) )(\d[\d\u202f\u00a0]*(?:[.,]\d+)?)([ \u202f\u00a0])(mL|kPa|°C|mm|L\/h)(?![\p{L}\d/])/gu;
/** what begins so names what is bought by its size */
const NAMED_BY_SIZE = /^(Screws|Schrauben)\b/u;

/** what must never be passed is never rounded up */
const IS_LIMIT = /\b(never|nie)\b/iu;

/** The same sentence with its figures as the reader counts them: "Raise to 50 kPa" is "Raise to 7.3 psi" for whoever reads psi. */
export function inReadersUnits(text: string): string {
  if (NAMED_BY_SIZE.test(text)) return text;
  return text.replace(FIGURE, (whole, figure: string, space: string, unit: string) => {
    if (!isStoredUnit(unit) || unitName(unit) === unit) return whole;
    const stored = Number(figure.replace(/[\u202f\u00a0]/gu, '').replace(',', '.'));
    const decimals = /[.,](\d+)$/u.exec(figure)?.[1]?.length ?? 0;
    const digits = IS_LIMIT.test(text) ? digitsAtMost : digitsIn;
    return Number.isFinite(stored) ? `${digits(unit, stored, decimals)}${space}${unitName(unit)}` : whole;
  });
}
