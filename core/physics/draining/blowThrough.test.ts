import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { usualLoop } from '../../machine/catalogue/testLoops.js';
import type { LoopFile } from '../../machine/loop-file/loopFile.js';
import { readLoopFile } from '../../machine/loop-file/loopFileSchema.js';
import { totalMl, fullContents } from '../contents/contents.js';
import { buildNetwork } from '../geometry/network.js';
import { adviseDraining } from './advice.js';
import { adviseBlowing, BLOW } from './blowThrough.js';

const example = (name: string): LoopFile => readLoopFile(JSON.parse(readFileSync(`examples/${name}.json`, 'utf8')));

describe('blowing through with a hand bulb', () => {
  it('takes no more than what is left, from the higher port to the lower', () => {
    for (const loop of [usualLoop(), example('two-radiators'), example('ports-at-bottom'), example('high-drain')]) {
      const network = buildNetwork(loop);
      const left = adviseDraining(loop, network, undefined, fullContents(network)).stages.at(-1)?.left;
      if (!left) continue;
      const blow = adviseBlowing(loop, network, left);
      if (!blow) continue;
      expect(blow.likelyMl).toBeLessThanOrEqual(totalMl(left));
      expect(blow.likelyMl).toBeGreaterThanOrEqual(BLOW.leastMl);
      const heightOf = (port: string): number => network.y[network.ports.get(port) as number] as number;
      expect(heightOf(blow.air)).toBeGreaterThanOrEqual(heightOf(blow.drain));
    }
  });

  it('counts what stands on the way of the air alone, and a film of it stays', () => {
    // two parts with a port each, joined by two tubes: one is full, the other holds half as much
    const part = (id: string, y: number): LoopFile['components'][number] => ({
      id,
      kind: 'block',
      volume_ml: 10,
      ports: { in: [0, y, 0], out: [10, y, 0], vent: [5, y, 0] },
      flow: ['in', 'out'],
      closures: { vent: 'plug' },
    });
    const tube = (id: string, from: [string, string], to: [string, string]): LoopFile['tubes'][number] => ({
      ...{ id, from, to, bore_mm: 10, outer_mm: 16, material: 'epdm', length_mm: 500 },
    });
    const loop = {
      ...usualLoop(),
      components: [part('high', 400), part('low', 0)],
      tubes: [tube('one', ['high', 'out'], ['low', 'in']), tube('two', ['low', 'out'], ['high', 'in'])],
    } as LoopFile;
    const network = buildNetwork(loop);
    const share = new Map([['one', 1], ['two', 0.5], ['high', 0], ['low', 0]]); // prettier-ignore
    const left = fullContents(network).map((ml, node) => ml * (share.get(network.partIds[network.part[node] as number] as string) ?? 0));
    const whole = fullContents(network).reduce(
      (sum, ml, node) => (network.partIds[network.part[node] as number] === 'two' ? sum + ml : sum),
      0,
    );
    const blow = adviseBlowing(loop, network, left);
    expect(blow).toMatchObject({ air: 'high.vent', drain: 'low.vent' });
    expect(blow?.likelyMl).toBeCloseTo(BLOW.tubeShare * 0.5 * whole, 6);
  });

  it('says nothing where nothing is left to blow', () => {
    const loop = usualLoop();
    const network = buildNetwork(loop);
    expect(adviseBlowing(loop, network, new Float64Array(network.size))).toBeNull();
  });
});
