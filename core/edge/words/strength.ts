import { say } from '../../base/words/say.js';
import { formatMl, formatPercent } from '../../base/units/display.js';
import { isTooWeak, type Strength } from '../../bench/runs/strength.js';

/** What the coolant inside comes to: "97 % of what was poured, 24 mL of water were inside; 24 % concentrate". By the book, not measured. */
export function strengthWords(strength: Strength): string {
  const { ofFull, concentrate, waterMl, least } = strength;
  const water = waterMl >= 1 ? say('{formatMl} of water were inside', { formatMl: formatMl(waterMl) }) : '';
  const thinned = ofFull < 0.995 ? say('{formatPercent} of what was poured', { formatPercent: formatPercent(ofFull) }) : say('as poured');
  const mixed = concentrate === null ? '' : say('{formatPercent} concentrate', { formatPercent: formatPercent(concentrate) });
  const weak =
    isTooWeak(strength) && least !== null
      ? say('below the {formatPercent} that its sheet asks for', { formatPercent: formatPercent(least) })
      : '';
  return say('by the book {filter}', { filter: [[thinned, water].filter(Boolean).join(', '), mixed, weak].filter(Boolean).join('; ') });
}
