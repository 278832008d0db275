import { describe, expect, it } from 'vitest';
import { usualLoop } from '../../machine/catalogue/testLoops.js';
import { loopVolume, type Volume } from '../../machine/loop-file/volume.js';
import { LEARNING } from './defaults.js';
import { gasPlaces, gasThatStays } from './gasByStand.js';
import { beforeOwnFills, cushionMl, learnFromFill, withOwnFill } from './ownLoop.js';

const loop = usualLoop();
const planned = loopVolume(loop);
const gas = gasThatStays(gasPlaces(loop, ({ volume_ml }) => volume_ml));
/** what the sheets say of a filled loop at its mark */
const expectedMl = planned.volumeMl - cushionMl(loop) - gas.ml;
const filled = (moreMl: number): Volume => ({ volumeMl: expectedMl + moreMl, sdMl: 20 });

describe('learning from one fill', () => {
  it('gives most of the difference to the parts that were known least, and none to a reservoir with its marks', () => {
    const learned = learnFromFill(loop, filled(60));
    const moved = learned.map(({ volumeMl }, index) => volumeMl - (planned.parts[index]?.volumeMl as number));
    const least = planned.parts.reduce((so, { sdMl }, at) => {
      if (loop.components[at]?.kind === 'reservoir') return so;
      return so < 0 || sdMl > (planned.parts[so]?.sdMl as number) ? at : so;
    }, -1);
    expect(Math.max(...moved)).toBe(moved[least]);
    expect(moved[loop.components.findIndex(({ kind }) => kind === 'reservoir')]).toBe(0);
    const total = moved.reduce((sum, ml) => sum + ml, 0);
    expect(total).toBeGreaterThan(35);
    expect(total).toBeLessThan(60);
  });

  it('narrows every other part and moves none when as much is inside as planned, less the gas that usually stays', () => {
    learnFromFill(loop, filled(0)).forEach(({ volumeMl, sdMl }, index) => {
      expect(volumeMl).toBeCloseTo(planned.parts[index]?.volumeMl as number, 9);
      expect(sdMl).toBeLessThanOrEqual(planned.parts[index]?.sdMl as number);
    });
  });

  it('shares the difference as the linear-Gaussian update has it', () => {
    const learned = learnFromFill(loop, filled(50));
    const sds = planned.parts.map(({ sdMl }, at) => (loop.components[at]?.kind === 'reservoir' ? 0 : sdMl));
    const whole = sds.reduce((sum, sd) => sum + sd ** 2, 20 ** 2 + gas.variance);
    learned.forEach(({ volumeMl }, at) =>
      expect(volumeMl).toBeCloseTo((planned.parts[at]?.volumeMl as number) + (50 * (sds[at] as number) ** 2) / whole, 9),
    );
  });
});

describe('a loop after its own first fill', () => {
  it('holds about what was seen, and is known better; each part remembers what was thought', () => {
    const after = withOwnFill(loop, filled(60));
    const volume = loopVolume(after);
    expect(volume.volumeMl).toBeGreaterThan(planned.volumeMl + 35);
    expect(volume.sdMl).toBeLessThan(planned.sdMl);
    after.components.forEach((part, index) => {
      if (part.learned) expect(part.learned).toMatchObject({ prior_ml: loop.components[index]?.volume_ml, fills: 1 });
    });
    expect(beforeOwnFills(after).components.map(({ volume_ml }) => volume_ml)).toEqual(loop.components.map(({ volume_ml }) => volume_ml));
  });

  it('learns nothing from a fill that no plan explains', () => {
    expect(withOwnFill(loop, filled(LEARNING.mostSurprise * planned.sdMl + 200))).toBe(loop);
    expect(withOwnFill(loop, { volumeMl: 0, sdMl: 20 })).toBe(loop);
  });
});
