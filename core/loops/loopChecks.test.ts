import { describe, expect, it } from 'vitest';
import { countFittings, unusedPorts } from './fittings.js';
import { checkLoop } from './loopChecks.js';
import { loopOf, part, run, usualLoop } from './testLoops.js';

const codes = (loop: Parameters<typeof checkLoop>[0]): string[] => checkLoop(loop).map(({ code }) => code);

describe('counting fittings', () => {
  it('counts two for each run of a series loop, and a closure for every port without a run', () => {
    const loop = usualLoop();
    const counts = Object.fromEntries(countFittings(loop).map(({ kind, count }) => [kind, count]));
    expect(counts).toEqual({ compression: 2 * loop.components.length, plug: 2, cap: 1, valve: 1 });
  });

  it('counts what a run lists, elbows included', () => {
    const loop = loopOf(
      [part('a', 'pump', 1), part('b', 'block', 1)],
      [run('t', 'a', 'b', { fittings: ['barb', '90', '90', 'barb'] }), run('u', 'b', 'a')],
    );
    expect(countFittings(loop)).toEqual([
      { kind: '90', count: 2 },
      { kind: 'barb', count: 2 },
      { kind: 'compression', count: 2 },
    ]);
  });

  it('finds the ports that carry no run', () => {
    const loop = usualLoop();
    expect(unusedPorts(loop, loop.components[0] as never)).toEqual(['fill']);
  });
});

describe('checking a loop before it is built', () => {
  it('has nothing against a usual loop, nor against an empty one', () => {
    expect(codes(usualLoop())).toEqual([]);
    expect(codes(loopOf([]))).toEqual([]);
  });

  it('misses a pump and a reservoir', () => {
    const loop = loopOf([part('a', 'block', 1), part('b', 'radiator', 1)], [run('1', 'a', 'b'), run('2', 'b', 'a')]);
    expect(codes(loop)).toEqual(expect.arrayContaining(['no-pump', 'no-reservoir']));
  });

  it('sees an open end and a part beside the path', () => {
    expect(codes(loopOf([part('a', 'reservoir', 1), part('p', 'pump', 1)], [run('1', 'a', 'p')]))).toContain('open-chain');
    const findings = checkLoop(
      loopOf([part('a', 'reservoir', 1), part('p', 'pump', 1), part('x', 'block', 1)], [run('1', 'a', 'p'), run('2', 'p', 'a')]),
    );
    expect(findings.find(({ code }) => code === 'open-chain')?.part).toBe('x');
  });

  it('sees a port without run or plug', () => {
    const loop = usualLoop();
    const radiator = loop.components.find(({ id }) => id === 'roof');
    if (radiator) delete radiator.closures;
    expect(checkLoop(loop).find(({ code }) => code === 'unplugged-port')).toMatchObject({
      part: 'roof',
      todo: expect.stringContaining('Plug it') as string,
    });
  });

  it('sees a pump that draws from above its reservoir', () => {
    const loop = usualLoop();
    const pump = loop.components.find(({ id }) => id === 'pump');
    if (pump) pump.ports = { in: [300, 200, 80], out: [300, 190, 80] };
    expect(codes(loop)).toContain('pump-above-reservoir');
  });

  it('sees a block that is fed at its outlet', () => {
    const loop = usualLoop();
    loop.tubes = loop.tubes.map((tube) => (tube.to[0] === 'processor' ? { ...tube, to: ['processor', 'out'] as const } : tube));
    expect(checkLoop(loop).find(({ code }) => code === 'fed-backwards')?.part).toBe('processor');
  });

  it('sees that no drain lies low and no inlet high', () => {
    const loop = usualLoop();
    const sealed = { ...loop, components: loop.components.map((component) => ({ ...component, closures: undefined })) };
    expect(codes(sealed)).toEqual(expect.arrayContaining(['no-drain', 'no-air-inlet']));
  });

  it('says what to do about each', () => {
    const loop = loopOf([part('a', 'block', 1)]);
    expect(checkLoop(loop).every(({ todo }) => todo.length > 10)).toBe(true);
  });
});
