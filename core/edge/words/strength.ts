import { formatMl, formatPercent } from '../../base/units/display.js';
import { isTooWeak, type Strength } from '../../bench/runs/strength.js';

/** What the coolant inside comes to: "97 % of what was poured, 24 mL of water were inside; 24 % concentrate". By the book, not measured. */
export function strengthWords(strength: Strength): string {
  const { ofFull, concentrate, waterMl, least } = strength;
  const water = waterMl >= 1 ? `${formatMl(waterMl)} of water were inside` : '';
  const thinned = ofFull < 0.995 ? `${formatPercent(ofFull)} of what was poured` : 'as poured';
  const mixed = concentrate === null ? '' : `${formatPercent(concentrate)} concentrate`;
  const weak = isTooWeak(strength) && least !== null ? `below the ${formatPercent(least)} that its sheet asks for` : '';
  return `by the book ${[[thinned, water].filter(Boolean).join(', '), mixed, weak].filter(Boolean).join('; ')}`;
}
