import { shortName } from '../../machine/catalogue/names.js';
import type { LoopComponent, LoopFile } from '../../machine/loop-file/loopFile.js';

/** Kinds of parts that a sensor can mean. */
export const PART_KINDS = ['processor', 'graphics', 'memory'] as const;
export type PartKind = (typeof PART_KINDS)[number];

const KIND_SIGNS: readonly (readonly [PartKind, RegExp])[] = [
  ['memory', /memory|vram|dimm/i],
  ['graphics', /graphic|card|gpu/i],
  ['processor', /processor|package|core|cpu/i],
];

/** What a name speaks of: a sensor's, a block's, a column's. */
export const kindOfPart = (name: string): PartKind | null => KIND_SIGNS.find(([, sign]) => sign.test(name))?.[0] ?? null;

/** The one block a sensor can mean, or null where it could be several. */
export function blockOf(blocks: readonly LoopComponent[], sensor: string): LoopComponent | null {
  const kind = kindOfPart(sensor);
  if (!kind) return null;
  const meant = blocks.filter((part) => kindOfPart(shortName(part)) === kind);
  return meant.length === 1 ? (meant[0] as LoopComponent) : null;
}

/** A part that is read under load: a block of the loop, or what a machine without a drawing is taken to have. */
export interface ReadPart {
  readonly part: string;
  readonly kind: PartKind | null;
  readonly name: string;
}

/** What a part is called; its id where a machine has it no more. */
export const partName = (parts: readonly ReadPart[], part: string): string => parts.find((each) => each.part === part)?.name ?? part;

/** Parts of a machine that can be read. */
export const readParts = (loops: readonly LoopFile[]): ReadPart[] => {
  const blocks = loops.flatMap(({ components }) => components.filter(({ kind }) => kind === 'block'));
  return blocks.length > 0
    ? blocks.map((block) => ({ part: block.id, kind: kindOfPart(shortName(block)), name: shortName(block) }))
    : (['processor', 'graphics'] as const).map((kind) => ({ part: kind, kind, name: kind }));
};
