import type { LoopComponent } from '../loop-file/loopFile.js';

/** What a block cools. */
export type BlockRole = 'processor' | 'graphics' | 'other';

const BY_CATALOGUE: Readonly<Record<string, BlockRole>> = {
  'block-processor': 'processor',
  'block-graphics': 'graphics',
  'block-memory': 'other',
  'block-storage': 'other',
  'block-regulator': 'other',
};

/**
 * What a block cools: by the catalogue part it was made from, else by the words of its own id and name, else by its place.
 * A name that somebody gave it ("board") says nothing against the part that it is.
 */
export function blockRole({ catalogue, id, label, place }: LoopComponent): BlockRole {
  const made = catalogue === undefined ? undefined : BY_CATALOGUE[catalogue];
  if (made) return made;
  const words = `${id} ${label ?? ''}`;
  if (/graphic|\bcard\b|gpu/i.test(words)) return 'graphics';
  if (/processor|cpu/i.test(words)) return 'processor';
  return place === 'card' ? 'graphics' : 'other';
}
