import { formatMl, groupedUpTo } from '../../base/units/display.js';
import { JOB_WORDS } from '../../workshop/job-kinds/kinds.js';
import { formatMoney } from '../../workshop/prices/money.js';
import { PRICE_FOR } from '../../workshop/prices/rates.js';
import type { Priced, PricedLine } from '../../workshop/prices/priced.js';
import type { Estimate } from '../../workshop/prices/estimate.js';
import { capital, say, sayWord } from '../../base/words/say.js';

const plain = (value: number): string => groupedUpTo(value, 2);

/** What a line is for: "Flush", "Clear coolant", "O-ring 11 × 2". */
export function lineName({ kind, what }: PricedLine): string {
  if (kind === 'labour') return say('Work: {what}', { what: sayWord(JOB_WORDS[what]) ?? what });
  if (kind === 'coolant') return what === '' ? say('Coolant, not chosen yet') : what;
  return capital(what);
}
export const lineAmount = ({ amount, unit }: Pick<PricedLine, 'amount' | 'unit'>): string =>
  unit === 'mL' ? formatMl(amount) : `${plain(amount)} ${unit}`;
/** "€64.00 an hour" */
export const lineEach = ({ eachMinor, unit }: PricedLine, currency: string): string =>
  eachMinor === null ? say('no price yet') : `${formatMoney(eachMinor, currency)} ${say(PRICE_FOR[unit].words)}`;

/** "€148.50 with 23 % tax"; where lines have no price yet "at least €148.50". */
export function totalWords({ totalMinor, currency, open }: Pick<Priced, 'totalMinor' | 'currency' | 'open'>): string {
  const sum = formatMoney(totalMinor, currency);
  return open > 0 ? say('at least {sum}', { sum }) : sum;
}
export function taxWords({ taxMinor, taxPercent, currency }: Priced): string {
  return taxPercent === 0
    ? say('no tax')
    : say('with {plain} % tax, {formatMoney}', { plain: plain(taxPercent), formatMoney: formatMoney(taxMinor, currency) });
}

/** An estimate in one line, as it is said on the phone. */
export function estimateWords({ hours, coolantMl, partsText, parts, priceText, priced }: Estimate): string {
  const named = parts.map(({ what, amount, unit }) => `${lineAmount({ amount, unit })} ${what}`);
  return [
    `${plain(hours)} h`,
    coolantMl > 0 ? say('{formatMl} of coolant', { formatMl: formatMl(coolantMl) }) : '',
    ...named,
    partsText,
    priceText || (priced ? totalWords(priced) : ''),
  ]
    .filter(Boolean)
    .join(', ');
}
