import { blockRole, type BlockRole } from '../../machine/catalogue/blockRole.js';
import { shortName } from '../../machine/catalogue/names.js';
import type { LoopFile } from '../../machine/loop-file/loopFile.js';

/** W and °C of a part nobody has measured yet, by what it is (general estimates). */
const USUAL: Readonly<Record<BlockRole, { loadW: number; limitC: number }>> = {
  graphics: { loadW: 340, limitC: 65 },
  processor: { loadW: 150, limitC: 80 },
  other: { loadW: 15, limitC: 70 },
};

/** A block with what its part draws and may reach, as long as nobody measured. */
export interface BlockEstimate {
  readonly id: string;
  readonly name: string;
  readonly loadW: number;
  readonly limitC: number;
}

export const usualBlocks = (loop: LoopFile): BlockEstimate[] =>
  loop.components.filter(({ kind }) => kind === 'block').map((part) => ({ id: part.id, name: shortName(part), ...USUAL[blockRole(part)] }));
