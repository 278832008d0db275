import { say } from '../../base/words/say.js';
import { SEEN_AT } from '../leak-finding/hiddenCauses.js';
import type { HiddenTruth } from './truth.js';

/** What eyes, ears and fingers notice at a simulated bench, in words. */

/** mL of bubbles that are seen coming back */
const BUBBLES_FROM_ML = 3;

type Leak = HiddenTruth['leak'];
type Narrow = HiddenTruth['narrow'];

/** Water brushed on. @param leak null: none, or it is mended */
export function brushed(leak: Leak, isUnderPressure: boolean, joint: string): string {
  if (!isUnderPressure) return say('No bubbles: there is no pressure in the loop.');
  return leak?.place === joint
    ? say('Bubbles at {joint}. {cause}', { joint, cause: SEEN_AT[leak.cause] })
    : say('No bubbles at {joint}.', { joint });
}

/** Two fingers along a tube, or an eye into a part. @param narrow null: nothing holds the flow up */
export function felt(narrow: Narrow, at: string): string {
  if (narrow?.place !== at) return say('Nothing out of the way at {at}.', { at });
  return narrow.why === 'kink' ? say('Pinched flat at {at}.', { at }) : say('Hardly anything comes through at {at}.', { at });
}

/** @param dropAt place with a drop on its towel */
export const lookedAround = (dropAt: string | null, bubblesMl: number, rattles: boolean): string =>
  [
    dropAt === null ? say('Every towel is dry.') : say('A drop on the towel under {dropAt}.', { dropAt }),
    ...(bubblesMl > BUBBLES_FROM_ML ? [say('Bubbles come back at the return.')] : []),
    ...(rattles ? [say('The pump rattles.')] : []),
  ].join(' ');
