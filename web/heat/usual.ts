import { shortName } from '@core/catalogue/names.js';
import type { LoopFile } from '@core/loops/loopFile.js';

/** W and °C of a part nobody has measured yet, by what it is (general estimates). */
const USUAL = { graphics: { loadW: 340, limitC: 65 }, processor: { loadW: 150, limitC: 80 }, other: { loadW: 15, limitC: 70 } } as const;

export interface BlockEstimate {
  readonly id: string;
  readonly name: string;
  readonly loadW: number;
  readonly limitC: number;
}

export const usualBlocks = (loop: LoopFile): BlockEstimate[] =>
  loop.components
    .filter(({ kind }) => kind === 'block')
    .map((part) => {
      const name = shortName(part);
      const usual = /graphic|card|gpu/i.test(name) ? USUAL.graphics : /processor|cpu/i.test(name) ? USUAL.processor : USUAL.other;
      return { id: part.id, name, ...usual };
    });
