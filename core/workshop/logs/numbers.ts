/** digits of a decimal that are exact in what a number holds */
const MOST_DIGITS = 15;
const POWERS = Array.from({ length: MOST_DIGITS + 1 }, (_, n) => 10 ** n);

/**
 * The number that a cell holds, with a point or a comma before its decimals: what `Number` says, at a fraction of its time for the plain
 * ones that a log is made of.
 * @returns NaN for what is none
 */
export function numberIn(text: string, decimalComma: boolean): number {
  const point = decimalComma ? 44 : 46;
  const from = text.charCodeAt(0) === 45 ? 1 : 0;
  let value = 0;
  let digits = 0;
  let decimals = -1;
  for (let at = from; at < text.length; at += 1) {
    const code = text.charCodeAt(at);
    if (code >= 48 && code <= 57) {
      value = value * 10 + code - 48;
      digits += 1;
      if (decimals >= 0) decimals += 1;
    } else if (code === point && decimals < 0) decimals = 0;
    else return slowly(text, decimalComma);
  }
  if (digits === 0 || digits > MOST_DIGITS) return slowly(text, decimalComma);
  const size = decimals > 0 ? value / (POWERS[decimals] as number) : value;
  return from === 1 ? -size : size;
}

function slowly(text: string, decimalComma: boolean): number {
  const plain = (decimalComma ? text.replace(',', '.') : text).trim();
  const value = plain === '' ? Number.NaN : Number(plain);
  return Number.isFinite(value) ? value : Number.NaN;
}
