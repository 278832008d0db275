import { formatSpan } from '../../base/units/display.js';
import { say, type Messages } from '../../base/words/say.js';
import type { GivenUp, JobSpan, LeastTime } from '../../workshop/jobs/leastTime.js';

/** Words of how long a job takes, and what its least time leaves out. */
const GIVEN_UP: Messages<GivenUp> = {
  'slow-weep': 'a joint that weeps only after hours is not seen here',
  'before-liquid': 'the first hole is found by liquid, not by air',
  'reading-short': 'readings end early: their end is reckoned from the curve, with its ±',
};

export const spanWords = ({ handsMinutes, aloneMinutes }: JobSpan): string =>
  aloneMinutes === 0
    ? say('{hands} with hands', { hands: formatSpan(handsMinutes * 60) })
    : say('{hands} with hands, {alone} standing alone', { hands: formatSpan(handsMinutes * 60), alone: formatSpan(aloneMinutes * 60) });

export const givenUpWords = ({ givenUp }: LeastTime): string[] => givenUp.map((each) => say(GIVEN_UP[each]));
