import { daysBetween } from '../../base/units/calendar.js';
import { formatDay } from '../../base/units/dates.js';
import { formatKelvinPerWatt, grouped } from '../../base/units/display.js';
import { say, type Messages } from '../../base/words/say.js';
import {
  TREND,
  type ConditionMark,
  type ConditionPoint,
  type DatedReading,
  type MarkKind,
  type PartCondition,
  type TrendLine,
} from '../../physics/condition/series.js';
import { limitWords, rangeWords } from './dates.js';

/** Words of a machine's condition. */

const MARK_WORDS: Messages<MarkKind> = { filled: 'filled', dusted: 'dusted', paste: 'new paste', part: 'new part' };
/** What was done, with the coolant that went in. */
export const markWords = ({ kind, coolant }: Pick<ConditionMark, 'kind' | 'coolant'>): string => coolant ?? say(MARK_WORDS[kind]);
export const SOURCE_WORDS: Messages<DatedReading['source']> = {
  log: 'from its log',
  hand: 'read by hand',
  before: 'before a service',
  after: 'at the hand-over',
};
export const LEFT_WORDS: Messages<NonNullable<ConditionPoint['left']>> = {
  settings: 'pump or fans turned at another speed',
  'still-warming': 'still warming',
  'old-cooler': 'with the old cooler',
};

/** How much higher a part stands than on its best days: "+12 %"; null: nothing to compare. */
export const risenPercent = ({ best, now }: PartCondition): number | null =>
  best === null || now === null ? null : 100 * (now / best - 1);

/** "+12", "−3", or "0": in whole per cent. */
export const signedPercent = (percent: number): string =>
  Math.round(percent) === 0 ? '0' : `${percent < 0 ? '−' : '+'}${grouped(Math.abs(percent), 0)}`;

/** What a part's readings say, in a sentence or two. */
export function conditionWords(condition: PartCondition): string {
  const { points, limit, step, crosses, isOver } = condition;
  if (points.length === 0) return say('Never read under load with its watts.');
  if (isOver && limit)
    return say('Stands over its limit of {limit} ({because}): bring it in.', {
      limit: formatKelvinPerWatt(limit.theta),
      because: limitWords(limit),
    });
  if (step)
    return say('No creep: about {day} it moved by {by} K/W at once. What happened, or was done, on that day?', {
      day: formatDay(step.on),
      by: `${step.by > 0 ? '+' : '−'}${grouped(Math.abs(step.by), 3)}`,
    });
  if (crosses && limit)
    return say('Meets its limit of {limit} ({because}) about {day}, {range}.', {
      limit: formatKelvinPerWatt(limit.theta),
      because: limitWords(limit),
      day: formatDay(crosses.on),
      range: rangeWords(crosses.lowOn, crosses.highOn),
    });
  return condition.trend ? slopeWords(condition.trend) : tooFewWords(condition);
}

function slopeWords({ low, high }: TrendLine): string {
  if (low && high && low.perYear > 0) return say('It rises, but meets no limit within five years.');
  if (high && high.perYear < 0) return say('It falls: better than it was.');
  return say('No trend: what it moves in a year may as well be nothing.');
}

function tooFewWords({ counted, since }: PartCondition): string {
  const [first, last] = [counted[0], counted.at(-1)];
  return say(
    'Cannot tell yet: {counted, plural, one {one reading counts} other {{counted} readings count}}{since}, over {days, plural, one {one day} other {{days} days}}; a line takes {least} over {span} days.',
    {
      counted: counted.length,
      since: since === null ? '' : say(' since {day}', { day: formatDay(since) }),
      days: first && last ? daysBetween(first.on, last.on) : 0,
      least: TREND.leastPoints,
      span: TREND.leastDays,
    },
  );
}
