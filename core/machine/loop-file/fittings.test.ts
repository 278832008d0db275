import { loopOf, part, tube, usualLoop } from '../catalogue/testLoops.js';
import { describe, expect, it } from 'vitest';
import { countFittings, unusedPorts } from './fittings.js';

describe('counting fittings', () => {
  it('counts two for each tube of a series loop, and a closure for every port without a tube', () => {
    const loop = usualLoop();
    const counts = Object.fromEntries(countFittings(loop).map(({ kind, count }) => [kind, count]));
    expect(counts).toEqual({ compression: 2 * loop.components.length, plug: 2, cap: 1, valve: 1 });
  });

  it('counts what a tube lists, elbows included', () => {
    const loop = loopOf(
      [part('a', 'pump', 1), part('b', 'block', 1)],
      [tube('t', 'a', 'b', { fittings: ['barb', '90', '90', 'barb'] }), tube('u', 'b', 'a')],
    );
    expect(countFittings(loop)).toEqual([
      { kind: '90', count: 2 },
      { kind: 'barb', count: 2 },
      { kind: 'compression', count: 2 },
    ]);
  });

  it('finds the ports that carry no tube', () => {
    const loop = usualLoop();
    expect(unusedPorts(loop, loop.components[0] as never)).toEqual(['fill']);
  });
});
