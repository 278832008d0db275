import { usualLoop } from '../catalogue/testLoops.js';
import fc from 'fast-check';
import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { InputProblem } from '../../base/checking/input.js';
import type { LoopFile } from './loopFile.js';
import { readLoopFile } from './loopFileSchema.js';
import { often } from '../../../tests/often.js';

const text = readFileSync('examples/two-radiators.json', 'utf8');
const example = (): LoopFile => JSON.parse(text) as LoopFile;

/** Changes a copy of the example and gives the refusal. */
function refusal(change: (loop: Record<string, never> & LoopFile) => void, root = 'loop'): { path: string; message: string } {
  const loop = example() as Record<string, never> & LoopFile;
  change(loop);
  try {
    readLoopFile(loop, root);
  } catch (error) {
    if (error instanceof InputProblem) return { path: error.path, message: error.message };
    throw error;
  }
  throw new Error('was accepted');
}

const component = (loop: LoopFile, index: number) => loop.components[index] as LoopFile['components'][number];
const tube = (loop: LoopFile, index: number) => loop.tubes[index] as LoopFile['tubes'][number];

describe('reading a loop file', () => {
  it('takes the contract’s example as it is', () => {
    expect(readLoopFile(example())).toEqual(example());
  });

  it('takes what this product itself builds', () => {
    expect(readLoopFile(usualLoop())).toEqual(usualLoop());
  });

  it('keeps fields it does not know, everywhere', () => {
    const loop = example() as LoopFile & { author: string };
    loop.author = 'somebody';
    component(loop, 0).colour_of_cap = 'black';
    tube(loop, 0).sleeve = { kind: 'spring' };
    expect(readLoopFile(loop)).toEqual(loop);
  });

  it('does without a name, bends and fittings', () => {
    const loop = example();
    delete loop.name;
    loop.tubes.forEach((each) => {
      delete each.path;
      delete each.fittings;
    });
    expect(readLoopFile(loop)).toEqual(loop);
  });

  it('takes a kind from elsewhere', () => {
    const loop = example();
    component(loop, 4).kind = 'memory-block';
    expect(() => readLoopFile(loop)).not.toThrow();
  });
});

describe('refusing a loop file', () => {
  it.each<[string, (loop: LoopFile) => void, string]>([
    ['another format', (loop) => Object.assign(loop, { format: 'other' }), 'loop.format'],
    ['a later version', (loop) => Object.assign(loop, { version: 2 }), 'loop.version'],
    ['no ports', (loop) => Reflect.deleteProperty(component(loop, 2), 'ports'), 'loop.components[2].ports'],
    ['a port without depth', (loop) => Object.assign(component(loop, 0).ports, { out: [1, 2] }), 'loop.components[0].ports.out'],
    ['a negative volume', (loop) => Object.assign(component(loop, 1), { volume_ml: -25 }), 'loop.components[1].volume_ml'],
    ['a volume in quotes', (loop) => Object.assign(component(loop, 1), { volume_ml: '25' }), 'loop.components[1].volume_ml'],
    ['an absurd volume', (loop) => Object.assign(component(loop, 1), { volume_ml: 1e9 }), 'loop.components[1].volume_ml'],
    ['a null volume', (loop) => Object.assign(component(loop, 1), { volume_ml: null }), 'loop.components[1].volume_ml'],
    ['two parts of one id', (loop) => Object.assign(component(loop, 1), { id: 'res' }), 'loop.components[1].id'],
    ['a tube named like a part', (loop) => Object.assign(tube(loop, 0), { id: 'cpu' }), 'loop.tubes[0].id'],
    ['flow through no port', (loop) => Object.assign(component(loop, 1), { flow: ['in', 'up'] }), 'loop.components[1].flow[1]'],
    ['a closure on no port', (loop) => Object.assign(component(loop, 0), { closures: { top: 'cap' } }), 'loop.components[0].closures.top'],
    ['an unknown closure', (loop) => Object.assign(component(loop, 0), { closures: { fill: 'cork' } }), 'loop.components[0].closures.fill'],
    [
      'a box turned inside out',
      (loop) => Object.assign(component(loop, 0), { box: { min: [9, 0, 0], max: [1, 1, 1] } }),
      'loop.components[0].box',
    ],
    ['a fill mark above the brim', (loop) => Object.assign(component(loop, 0), { max_fill_ml: 300 }), 'loop.components[0].max_fill_ml'],
    ['a low mark above the fill mark', (loop) => Object.assign(component(loop, 0), { low_mark_ml: 240 }), 'loop.components[0].low_mark_ml'],
    [
      'a falling pump curve',
      (loop) =>
        Object.assign(component(loop, 1), {
          curve: [
            [0, 40],
            [500, 30],
            [400, 10],
          ],
        }),
      'loop.components[1].curve[2]',
    ],
    ['a tube from nowhere', (loop) => Object.assign(tube(loop, 3), { from: ['moon', 'out'] }), 'loop.tubes[3].from'],
    ['a tube to no port', (loop) => Object.assign(tube(loop, 3), { to: ['top', 'z'] }), 'loop.tubes[3].to'],
    ['a tube thinner outside than inside', (loop) => Object.assign(tube(loop, 1), { outer_mm: 8 }), 'loop.tubes[1].outer_mm'],
    ['a tube without length', (loop) => Object.assign(tube(loop, 1), { length_mm: 0 }), 'loop.tubes[1].length_mm'],
    ['a speed above full', (loop) => Object.assign(component(loop, 1), { speed: 1.2 }), 'loop.components[1].speed'],
  ])('%s', (_name, change, path) => {
    expect(refusal(change).path).toBe(path);
  });

  it('says what would be right', () => {
    expect(refusal((loop) => Object.assign(tube(loop, 3), { to: ['top', 'z'] })).message).toBe(
      '"z" is not a port of top; its ports are a, b, vent',
    );
    expect(refusal((loop) => Object.assign(tube(loop, 1), { outer_mm: 8 })).message).toContain('larger than the bore of 10 mm (got 8)');
  });

  it.each([[null], [3], ['loop'], [[]], [{}]])('refuses %j in place of a file', (input) => {
    expect(() => readLoopFile(input)).toThrow(InputProblem);
  });

  it('never fails in another way, whatever one field becomes', () => {
    const paths = ['format', 'version', 'name', 'components', 'tubes'];
    const fields = ['id', 'kind', 'volume_ml', 'ports', 'box', 'flow', 'curve', 'closures', 'from', 'to', 'path', 'bore_mm', 'fittings'];
    fc.assert(
      fc.property(
        fc.constantFrom(...paths),
        fc.nat(5),
        fc.constantFrom(...fields),
        fc.anything(),
        fc.boolean(),
        (top, index, field, junk, deep) => {
          const loop = example() as unknown as Record<string, unknown>;
          const list = loop[top];
          if (deep && Array.isArray(list)) (list[index % list.length] as Record<string, unknown>)[field] = junk;
          else loop[top] = junk;
          try {
            readLoopFile(loop);
          } catch (error) {
            expect(error).toBeInstanceOf(InputProblem);
          }
        },
      ),
      { numRuns: often(1500) },
    );
  });
});
