import { expect, it } from 'vitest';
import { blockRole } from './blockRole.js';
import { findCataloguePart, makeComponent } from './parts.js';

const block = (key: string, place: 'board' | 'card', more: object = {}) => {
  const part = findCataloguePart(key);
  if (!part) throw new Error(key);
  return { ...makeComponent(part, place, 'b'), ...more };
};

it.each([
  ['a processor block that somebody named "board"', block('block-processor', 'board', { label: 'board' }), 'processor'],
  ['a graphics block named after its machine', block('block-graphics', 'card', { label: 'Moss' }), 'graphics'],
  ['memory beside the processor', block('block-memory', 'board', { label: 'beside processor' }), 'other'],
  ['a foreign block called cpu', block('block-processor', 'board', { catalogue: undefined, id: 'cpu' }), 'processor'],
  [
    'a foreign block that sits on a card',
    block('block-graphics', 'card', { catalogue: undefined, label: undefined, id: 'x1' }),
    'graphics',
  ],
  [
    'a foreign block of which nothing is known',
    block('block-processor', 'board', { catalogue: undefined, label: undefined, id: 'x1' }),
    'other',
  ],
] as const)('%s', (_what, part, role) => expect(blockRole(part)).toBe(role));
