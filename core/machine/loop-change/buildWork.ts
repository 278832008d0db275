import type { LoopFile } from '../loop-file/loopFile.js';
import { changeBetween, type LoopChange } from './loopChange.js';

/** What a build takes, as a change takes it: every part comes in, with its verdict; every tube is cut, every joint made, every port closed. */
export const buildWork = (loop: LoopFile): LoopChange => changeBetween({ ...loop, components: [], tubes: [] }, loop);
