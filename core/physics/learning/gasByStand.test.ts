import { describe, expect, it } from 'vitest';
import type { LoopComponent } from '../../machine/loop-file/loopFile.js';
import { usualLoop } from '../../machine/catalogue/testLoops.js';
import { gasPlaces, radiatorStand } from './gasByStand.js';

const radiator = (size: readonly [number, number, number], portsY: number): LoopComponent => ({
  id: 'radiator',
  kind: 'radiator',
  volume_ml: 180,
  box: { min: [0, 0, 0], max: size },
  ports: { a: [0, portsY, 10], b: [20, portsY, 10] },
  flow: ['a', 'b'],
});

describe('how a radiator stands', () => {
  it.each([
    ['flat', radiator([400, 30, 120], 15)],
    ['ports-up', radiator([30, 400, 120], 390)],
    ['ports-aside', radiator([400, 120, 30], 60)],
    ['ports-down', radiator([30, 400, 120], 8)],
    ['unknown', { ...radiator([30, 400, 120], 8), box: undefined }],
  ] as const)('%s', (stand, part) => expect(radiatorStand(part)).toBe(stand));

  it('counts the radiators of one stand together, and the rest of the loop once', () => {
    const loop = usualLoop();
    const places = gasPlaces(loop, ({ volume_ml }) => volume_ml);
    const radiators = loop.components.filter(({ kind }) => kind === 'radiator');
    const whole = [...places].reduce((sum, [place, weight]) => (place === 'elsewhere' ? sum : sum + weight), 0);
    expect(whole).toBeCloseTo(radiators.reduce((sum, { volume_ml }) => sum + volume_ml, 0), 9); // prettier-ignore
    expect(places.get('elsewhere')).toBe(1);
  });
});
