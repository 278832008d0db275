import { jugSdMl } from '../measuring/errors.js';
import { usualLoop } from '../../machine/catalogue/testLoops.js';
import { describe, expect, it } from 'vitest';
import { buildLoop, type PartPick } from '../../machine/catalogue/starters.js';
import { seeded } from '../../machine/loop-file/generatedLoops.js';
import { reservoirMarks } from '../../machine/loop-file/marks.js';
import type { LoopFile } from '../../machine/loop-file/loopFile.js';
import { loopVolume } from '../../machine/loop-file/volume.js';
import { LEARNING, learnCatalogue, learnFromFill, withOwnFill, type ObservedFill } from './volumes.js';

const cushion = (loop: LoopFile): number => {
  const reservoir = loop.components.find(({ kind }) => kind === 'reservoir');
  return reservoir ? reservoir.volume_ml - reservoirMarks(reservoir).fillMarkMl : 0;
};

describe('learning from one fill', () => {
  const loop = usualLoop();
  const planned = loopVolume(loop);

  it('gives most of the difference to the parts that were known least', () => {
    const learned = learnFromFill(loop, planned.volumeMl - cushion(loop) + 60);
    const moved = learned.map(({ volumeMl }, index) => volumeMl - (planned.parts[index]?.volumeMl as number));
    const most = Math.max(...planned.parts.map(({ sdMl }) => sdMl));
    expect(Math.max(...moved)).toBe(moved[planned.parts.findIndex(({ sdMl }) => sdMl === most)]);
    const total = moved.reduce((sum, ml) => sum + ml, 0);
    expect(total).toBeGreaterThan(45);
    expect(total).toBeLessThan(60);
  });

  it('narrows every part and moves none when the total is as planned', () => {
    const learned = learnFromFill(loop, planned.volumeMl - cushion(loop));
    learned.forEach(({ volumeMl, sdMl }, index) => {
      expect(volumeMl).toBeCloseTo(planned.parts[index]?.volumeMl as number, 9);
      expect(sdMl).toBeLessThanOrEqual(planned.parts[index]?.sdMl as number);
    });
  });
});

describe('a loop after its own first fill', () => {
  const loop = usualLoop();
  const planned = loopVolume(loop);
  const expected = planned.volumeMl - cushion(loop);

  it('holds about what was poured, and is known better; each part remembers what was thought', () => {
    const after = withOwnFill(loop, expected + 60);
    const volume = loopVolume(after);
    expect(volume.volumeMl).toBeGreaterThan(planned.volumeMl + 40);
    expect(volume.sdMl).toBeLessThan(planned.sdMl);
    after.components.forEach((part, index) => {
      if (part.learned) expect(part.learned).toMatchObject({ prior_ml: loop.components[index]?.volume_ml, fills: 1 });
    });
  });

  it('learns nothing from a total that no plan explains', () => {
    expect(withOwnFill(loop, expected + 4 * planned.sdMl + 100)).toBe(loop);
    expect(withOwnFill(loop, 0)).toBe(loop);
  });

  it('tells the catalogue the same as the plan it came from: no fill counts twice', () => {
    const pouredMl = expected + 60;
    const fromPlan = learnCatalogue([{ loop, pouredMl }]);
    expect(learnCatalogue([{ loop: withOwnFill(loop, pouredMl), pouredMl }])).toEqual(fromPlan);
  });
});

describe('learning the catalogue from all fills', () => {
  /** Loops whose radiators truly hold other volumes than the catalogue says, poured with a jug's error. */
  function fillsOf(truth: Readonly<Record<string, number>>, count: number): ObservedFill[] {
    const random = seeded(41);
    const noise = (): number => (random() + random() + random() - 1.5) * 10;
    return Array.from({ length: count }, () => {
      const radiators: PartPick[] = [
        ...(random() < 0.7 ? [['radiator-360-30', 'roof', 'roof'] as const] : []),
        ...(random() < 0.6 ? [['radiator-360-45', 'front', 'front'] as const] : []),
        ['radiator-240-30', 'floor', 'floor'],
      ];
      const loop = buildLoop('loop', [
        ['reservoir-260', 'tray', 'reservoir'],
        ['pump-large', 'tray', 'pump'],
        ['block-processor', 'board', 'processor'],
        ...radiators,
      ]);
      const planned = loopVolume(loop);
      const off = loop.components.reduce((sum, { catalogue, volume_ml }) => sum + ((truth[catalogue ?? ''] ?? volume_ml) - volume_ml), 0);
      return { loop, pouredMl: planned.volumeMl - cushion(loop) + off + noise() };
    });
  }
  const truth = { 'radiator-360-30': 215, 'radiator-360-45': 250 };

  it('comes to the true volumes within what it says it knows, and knows more with more fills', () => {
    const few = learnCatalogue(fillsOf(truth, 4));
    const many = learnCatalogue(fillsOf(truth, 60));
    for (const [key, trueMl] of Object.entries(truth)) {
      const item = many.find((each) => each.key === key);
      expect(Math.abs((item?.learned.volumeMl as number) - trueMl)).toBeLessThan(3 * (item?.learned.sdMl as number) + 2);
      expect(item?.learned.sdMl).toBeLessThan(0.5 * (item?.prior.sdMl as number));
      expect(item?.learned.sdMl).toBeLessThan(few.find((each) => each.key === key)?.learned.sdMl as number);
    }
  });

  it('never knows an item better than two pieces of it are alike', () => {
    // one item alone, everything else exactly known: then precision adds up fill by fill
    const whole = buildLoop('loop', [
      ['reservoir-260', 'tray', 'reservoir'],
      ['pump-large', 'tray', 'pump'],
      ['radiator-360-30', 'roof', 'roof'],
    ]);
    const components = whole.components.map((each) =>
      each.catalogue === 'radiator-360-30' ? each : { ...each, catalogue: undefined, volume_sd_ml: 0 },
    );
    const loop = { ...whole, components };
    const pouredMl = loopVolume(loop).volumeMl - cushion(loop);
    const tubeVar = loopVolume(loop).parts.reduce((sum, { sdMl }, at) => sum + (at < components.length ? 0 : sdMl ** 2), 0);
    const jug = jugSdMl(pouredMl) ** 2 + LEARNING.gasLeftMl ** 2;
    const radiatorMl = components.find(({ catalogue }) => catalogue)?.volume_ml as number;
    const noise = jug + tubeVar + (LEARNING.pieceSpread * radiatorMl) ** 2;
    const [item] = learnCatalogue(Array.from({ length: 9 }, () => ({ loop, pouredMl })));
    expect(item?.learned.sdMl).toBeCloseTo(1 / Math.sqrt(1 / (item?.prior.sdMl as number) ** 2 + 9 / noise), 9);
  });

  it('counts the fills that hold each item, and leaves out what no fill holds', () => {
    const items = learnCatalogue(fillsOf(truth, 10));
    expect(items.find(({ key }) => key === 'radiator-240-30')?.fills).toBe(10);
    expect(items.some(({ key }) => key === 'radiator-480-60')).toBe(false);
    expect(learnCatalogue([])).toEqual([]);
  });
});
