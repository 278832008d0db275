/** Who calls: a number in any form, a name, a machine's name or tag. */

/** digits of a number that stay the same in every form of it: without country, without the zero before an area */
const COMMON_DIGITS = 7;
/** fewer could be anybody */
const LEAST_DIGITS = 4;

/** The digits by which a number is found however it is written: its last ones; null: this is no number. */
export function digitsOfCaller(text: string): string | null {
  if (/[^\d\s()+/.-]/u.test(text)) return null;
  const digits = text.replace(/\D/gu, '');
  return digits.length < LEAST_DIGITS ? null : digits.slice(-COMMON_DIGITS).replace(/^0+/u, '');
}

/** How well a number fits what was typed: digits that are alike from the end; more is surer. */
export function alikeDigits(phone: string | null, text: string): number {
  const [a, b] = [phone ?? '', text].map((each) => [...each.replace(/\D/gu, '')].reverse()) as [string[], string[]];
  const different = a.findIndex((digit, index) => digit !== b[index]);
  return different < 0 ? a.length : different;
}
