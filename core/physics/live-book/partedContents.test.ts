import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { circuitFiles } from '../../machine/loop-file/circuits.js';
import { readLoopFile } from '../../machine/loop-file/loopFileSchema.js';
import { fillVolume } from '../filling/fillPlan.js';
import { partedContents } from './partedContents.js';

const circuits = circuitFiles(readLoopFile(JSON.parse(readFileSync('examples/two-loops-one-case.json', 'utf8')))).map(({ file }) => file);
const bothMl = circuits.reduce((sum, file) => sum + fillVolume(file).volumeMl, 0);

describe('what two circuits of one book hold', () => {
  it('is each one’s own mark where both were filled, standing in its own twin', () => {
    const parted = partedContents(circuits, { insideMl: bothMl * 0.95 });
    expect(parted.map(({ insideMl }) => Math.round(insideMl ?? -1))).toEqual(circuits.map((file) => Math.round(fillVolume(file).volumeMl)));
    expect(parted.every(({ standing }) => standing?.isRound)).toBe(true);
  });

  it('is nothing where nothing is in, and not known where one of them may be full and the other dry', () => {
    expect(partedContents(circuits, { insideMl: 0 }).map(({ insideMl }) => insideMl)).toEqual([0, 0]);
    for (const insideMl of [null, bothMl / 2, bothMl * 1.5])
      expect(partedContents(circuits, { insideMl }).map((each) => each.insideMl)).toEqual([null, null]);
  });
});
