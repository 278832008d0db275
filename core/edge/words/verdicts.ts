import { SEEN_BLED_WINDOW_DAYS } from '../../workshop/due-dates/defaults.js';
import { say } from '../../base/words/say.js';
import { formatIn, formatMlWithSd, formatSpan } from '../../base/units/display.js';
import type { Verdict } from '../../bench/runs/verdicts.js';

/** A plate as it is read: one word, and under it what it rests on or why it was not earned. */
export interface PlateWords {
  readonly word: string;
  readonly under: string;
}

/** why a plate of a kind was not earned */
type Because<Kind extends Verdict['verdict']> = Extract<Verdict, { verdict: Kind; earned: false; because: string }>['because'];

const NOT_TIGHT: Readonly<Record<Because<'tight'>, string>> = {
  'leak-open': 'a leak is not closed',
  'air-failed': 'the air test failed',
  'air-open': 'the air test was not decided',
  'not-tested': 'no test was made',
};
const NOT_COOLER: Readonly<Record<Because<'cooler'>, string>> = {
  'not-measured': 'not measured',
  'not-comparable': 'before and after differ in more than the loop',
  'as-before': 'no difference seen',
  warmer: 'warmer than before',
};
const TIGHT_BY = { air: 'by air', wet: 'wet', 'air-and-wet': 'by air, then wet' } as const;

export function plateWords(verdict: Verdict): PlateWords {
  switch (verdict.verdict) {
    case 'tight':
      return {
        word: say('leak-tight'),
        under: verdict.earned
          ? `${say(TIGHT_BY[verdict.by])}${verdict.wetS === null ? '' : say(' for {formatSpan}', { formatSpan: formatSpan(verdict.wetS) })}`
          : say(NOT_TIGHT[verdict.because]),
      };
    case 'bled':
      return {
        word: say('bled'),
        under: verdict.earned
          ? `${verdict.cycles} ${verdict.cycles === 1 ? say('cycle') : say('cycles')}`
          : verdict.seen
            ? say('as seen, no level compared: looked at again within {days} days', { days: SEEN_BLED_WINDOW_DAYS.to })
            : verdict.cycles === 0
              ? say('no cycle was read')
              : say('{cycles} {cycles2}, not by the criterion', {
                  cycles: verdict.cycles,
                  cycles2: verdict.cycles === 1 ? say('cycle') : say('cycles'),
                }),
      };
    case 'inside':
      return {
        word: say('inside'),
        under: verdict.earned
          ? `${formatMlWithSd(verdict.ml, verdict.sdMl)}${verdict.product === null ? '' : ` ${verdict.product}`}`
          : verdict.because === 'empty'
            ? say('nothing was filled in')
            : say('nobody can tell how much'),
      };
    case 'cooler':
      if (!verdict.earned) return { word: say('cooler'), under: say(NOT_COOLER[verdict.because]) };
      return verdict.than === 'room'
        ? { word: say('measured'), under: say('{rise} above the room', { rise: formatIn('K', verdict.kelvin, 1) }) }
        : { word: say('cooler'), under: say('by {rise}, like with like', { rise: formatIn('K', verdict.kelvin, 1) }) };
  }
}
