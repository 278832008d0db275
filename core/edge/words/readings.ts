import { say, type Messages } from '../../base/words/say.js';
import { formatPercent } from '../../base/units/display.js';
import type { ReadingDifference } from '../../physics/diagnosis/compareReadings.js';

const CONDITION_WORDS: Messages<'workload' | 'sensor' | 'statistic' | 'panels' | 'pumpSpeed' | 'fanSpeed' | 'coolantC'> = {
  workload: 'the workload',
  sensor: 'the sensor',
  statistic: 'the statistic',
  panels: 'the panels',
  pumpSpeed: 'the pump’s setting',
  fanSpeed: 'the fans’ setting',
  coolantC: 'the coolant’s temperature',
};
const SIDE_WORDS: Messages<'before' | 'after'> = { before: 'before', after: 'after' };

/** One way in which two readings are unlike. */
export function differenceWords(difference: ReadingDifference): string {
  switch (difference.what) {
    case 'unlike':
      return say('{condition} differs', { condition: say(CONDITION_WORDS[difference.condition]) });
    case 'setting':
      return say('{condition} differs: {before} and {after}', {
        condition: say(CONDITION_WORDS[difference.condition]),
        before: formatPercent(difference.before),
        after: formatPercent(difference.after),
      });
    case 'missing':
      return say('{condition} is missing {side}', {
        condition: say(CONDITION_WORDS[difference.condition]),
        side: say(SIDE_WORDS[difference.in]),
      });
    case 'not-warm':
      return say('it had come only {reached} of its way {side}', {
        reached: formatPercent(difference.reached),
        side: say(SIDE_WORDS[difference.in]),
      });
    case 'power':
      return say('the power of {part} differs: {before} and {after} W', {
        part: difference.part,
        before: Math.round(difference.beforeW),
        after: Math.round(difference.afterW),
      });
    case 'share-of-heat':
      return say('{part} has another share of the heat, and no coolant was measured', { part: difference.part });
    case 'changed-part':
      return say('{part} was replaced', { part: difference.part });
    case 'no-power':
      return say('{part} has no power in one of them', { part: difference.part });
    case 'part-missing':
      return say('{part} is missing in one of them', { part: difference.part });
  }
}
