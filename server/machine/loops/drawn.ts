import { say } from '../../../core/base/words/say.js';
import type { LoopFile } from '../../../core/machine/loop-file/loopFile.js';
import { isOutline } from '../../../core/machine/loop-file/outline.js';
import { DomainError } from '../../base/http/errors.js';

/** Nothing can be led on a loop that was only stated: there are no parts to open, to tick or to fill. */
export function demandDrawn(file: LoopFile): void {
  if (isOutline(file)) throw new DomainError('refused', say('Nobody laid out this loop yet: only its volume was stated. Lay it out first, then it comes onto the bench.')); // prettier-ignore
}
