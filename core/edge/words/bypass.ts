import type { BypassHindrance } from '../../machine/drawing/bypass.js';

/** Why a part cannot be left out of its loop, after its name. */
export const HINDERED_BYPASS: Readonly<Record<BypassHindrance, string>> = {
  'no-such-part': 'is not a part of this loop.',
  reservoir: 'is the reservoir: a loop that loses it is filled another way. Draw the loop anew instead.',
  'one-piece': 'is one piece with its reservoir: it does not come out alone.',
  'only-pump': 'is the only pump: without it nothing goes round.',
  'not-two-tubes': 'does not stand between two tubes: they cannot be joined past it. Draw the loop anew instead.',
  'bare-branch':
    'is alone in its branch: an empty branch would take the flow from the ones beside it. Take the whole branch out of the drawing.',
};
