import { blockRole, type BlockRole } from '@core/machine/catalogue/blockRole.js';
import { shortName } from '@core/machine/catalogue/names.js';
import type { LoopFile } from '@core/machine/loop-file/loopFile.js';

/** W and °C of a part nobody has measured yet, by what it is (general estimates). */
const USUAL: Readonly<Record<BlockRole, { loadW: number; limitC: number }>> = {
  graphics: { loadW: 340, limitC: 65 },
  processor: { loadW: 150, limitC: 80 },
  other: { loadW: 15, limitC: 70 },
};

export interface BlockEstimate {
  readonly id: string;
  readonly name: string;
  readonly loadW: number;
  readonly limitC: number;
}

export const usualBlocks = (loop: LoopFile): BlockEstimate[] =>
  loop.components.filter(({ kind }) => kind === 'block').map((part) => ({ id: part.id, name: shortName(part), ...USUAL[blockRole(part)] }));
