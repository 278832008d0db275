import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { usualLoop } from '../../machine/catalogue/testLoops.js';
import { generateSpatialLoop } from '../../machine/loop-file/generatedLoops.js';
import type { LoopFile } from '../../machine/loop-file/loopFile.js';
import { readLoopFile } from '../../machine/loop-file/loopFileSchema.js';
import { reservoirMarks } from '../../machine/loop-file/marks.js';
import { STANDING } from '../../machine/loop-file/orientation.js';
import { loopVolume } from '../../machine/loop-file/volume.js';
import { fullContents, type Contents } from '../contents/contents.js';
import { buildNetwork, type GeometricNetwork } from '../geometry/network.js';
import { turnNetwork } from '../geometry/turned.js';
import { openUp } from './openings.js';
import { runOut } from './runOut.js';
import { planTakeOut } from './takeOut.js';

const example = readLoopFile(JSON.parse(readFileSync('examples/two-radiators.json', 'utf8')));

/** mL at two joints that towels take up */
const RUNS_ML = 20;

/** A filled loop: every reservoir at its mark. */
function atMark(loop: LoopFile, network: GeometricNetwork): Contents {
  const contents = fullContents(network);
  for (const { node, part } of network.vessels) {
    const component = loop.components[part];
    if (component?.kind === 'reservoir') contents[node] = reservoirMarks(component).fillMarkMl;
  }
  return contents;
}

describe('taking one part out', () => {
  const turned = turnNetwork(buildNetwork(example), STANDING.upright);

  it('says what is drawn, what leaves at each joint, what stays in the part and what stays in the loop', () => {
    const plan = planTakeOut(turned, example, 'gpu');
    expect(plan.joints.map(({ joint }) => joint)).toEqual(['t1.to', 't2.from']);
    const out = plan.joints.reduce((total, { volumeMl }) => total + volumeMl, plan.drawFirstMl);
    expect(out + plan.insideMl + plan.elsewhereMl).toBeCloseTo(loopVolume(example).volumeMl, 3);
    // the roof radiator stands above the card's joints, and comes one way or the other
    expect(out).toBeGreaterThan(180);
    expect(plan.airs.length).toBeGreaterThan(0);
  });

  it('draws so much that the joints run no more, wherever a draw can bring that about', () => {
    const loop = usualLoop();
    const network = buildNetwork(loop);
    const upright = turnNetwork(network, STANDING.upright);
    const inside = atMark(loop, network);
    for (const part of ['graphics', 'processor']) {
      const plan = planTakeOut(upright, loop, part, inside);
      const runs = plan.joints.reduce((total, { volumeMl }) => total + volumeMl, plan.hangsMl);
      expect(runs).toBeLessThan(RUNS_ML);
      expect(plan.drawAt).not.toBeNull();
      // nothing drawn, it would have run there
      const undrawn = runOut(
        upright,
        openUp(network, { open: plan.airs, drains: plan.joints.map(({ joint }) => joint), closed: [] }),
        inside,
      );
      if (plan.drawFirstMl > 20) expect(undrawn.drainedMl).toBeGreaterThan(RUNS_ML - 5);
    }
  });

  it('names no inlet that runs, each opened after the one before it', () => {
    for (const seed of [3, 7, 13, 19]) {
      const loop = generateSpatialLoop(seed);
      const network = buildNetwork(loop);
      const upright = turnNetwork(network, STANDING.upright);
      let inside = atMark(loop, network);
      const { airs } = planTakeOut(upright, loop, loop.components.find(({ kind }) => kind === 'block')?.id as string, inside);
      airs.forEach((air, index) => {
        const { byDrain, left } = runOut(upright, openUp(network, { open: airs.slice(0, index), drains: [air], closed: [] }), inside);
        expect([...byDrain.values()].reduce((sum, ml) => sum + ml, 0)).toBeLessThan(1);
        inside = left;
      });
    }
  });
});
