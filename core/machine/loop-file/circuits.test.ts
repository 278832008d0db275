import { loopOf, part, tube, usualLoop } from '../catalogue/testLoops.js';
import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { circuitFiles, findCircuits } from './circuits.js';
import { loopVolume } from './volume.js';
import { readLoopFile } from './loopFileSchema.js';

describe('circuits', () => {
  it('are one for a usual loop, with every tube in it', () => {
    const [circuit, ...others] = findCircuits(usualLoop());
    expect(others).toEqual([]);
    expect(circuit?.tubes).toEqual(usualLoop().tubes);
  });

  it('are two for a case with two loops, each with its own tubes, in the file’s order', () => {
    const loop = readLoopFile(JSON.parse(readFileSync('examples/two-loops-one-case.json', 'utf8')));
    const circuits = findCircuits(loop);
    expect(circuits.map(({ components }) => components[0]?.id)).toEqual(['res-processor', 'res-graphics']);
    expect(circuits.map(({ tubes }) => tubes.map(({ id }) => id[0]))).toEqual([Array(5).fill('p'), Array(4).fill('g')]);
  });

  it('leave a part without tubes alone, and are none for an empty loop', () => {
    const loop = loopOf([part('a', 'pump', 1), part('x', 'block', 1), part('b', 'block', 1)], [tube('1', 'a', 'b')]);
    expect(findCircuits(loop).map(({ components }) => components.map(({ id }) => id))).toEqual([['a', 'b'], ['x']]);
    expect(findCircuits(loopOf([]))).toEqual([]);
  });
});

describe('a file of two circuits', () => {
  const two = readLoopFile(JSON.parse(readFileSync('examples/two-loops-one-case.json', 'utf8')));

  it('becomes two files by what they cool, which together are the one', () => {
    const files = circuitFiles({ ...two, author: 'somebody' });
    expect(files.map(({ name }) => name)).toEqual(['Processor block', 'Graphics block']);
    expect(files.flatMap(({ file }) => file.components).map(({ id }) => id)).toEqual(two.components.map(({ id }) => id));
    expect(files.flatMap(({ file }) => file.tubes)).toEqual(two.tubes);
    expect(files.reduce((sum, { file }) => sum + loopVolume(file).volumeMl, 0)).toBeCloseTo(loopVolume(two).volumeMl, 9);
    expect(files.every(({ file }) => file.author === 'somebody' && readLoopFile(file))).toBeTruthy();
  });

  it('keeps a part that is joined to nothing with the first, and a usual loop whole', () => {
    const loose = { ...two, components: [...two.components, part('spare', 'block', 10)] };
    expect(circuitFiles(loose)[0]?.file.components.some(({ id }) => id === 'spare')).toBe(true);
    expect(circuitFiles(usualLoop())[0]?.file).toEqual(usualLoop());
  });
});
