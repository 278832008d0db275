import { describe, expect, it } from 'vitest';
import { seededRandom, type Random } from '../../base/random/random.js';
import { findCataloguePart } from '../../machine/catalogue/parts.js';
import { buildLoop, type PartPick } from '../../machine/catalogue/starters.js';
import type { LoopFile } from '../../machine/loop-file/loopFile.js';
import { loopVolume } from '../../machine/loop-file/volume.js';
import { learnCatalogue, type LearnedItem, type ObservedFill } from './catalogueVolumes.js';
import { gasGuess, gasPlaces, type GasPlace } from './gasByStand.js';
import { cushionMl, withOwnFill } from './ownLoop.js';
import { LEARNING } from './defaults.js';

/** mL; what pours and the level at the mark are off by together */
const SEEN_SD_ML = 19;

interface Hidden {
  /** what a catalogue item truly holds over what its sheet says */
  readonly factorOf: (key: string) => number;
  /** mL of gas that stay in a loop */
  readonly gasMl: (loop: LoopFile) => number;
}

function anyLoop(random: Random): LoopFile {
  const radiators: PartPick[] = [
    ...(random.next() < 0.7 ? [[random.pick(['radiator-360-30', 'radiator-240-30']), 'roof', 'roof'] as PartPick] : []),
    ...(random.next() < 0.6 ? [[random.pick(['radiator-360-45', 'radiator-360-30']), 'front', 'front'] as PartPick] : []),
  ];
  if (radiators.length === 0 || random.next() < 0.4) radiators.push(['radiator-240-30', 'floor', 'floor']);
  return buildLoop('loop', [
    ['reservoir-260', 'tray', 'reservoir'],
    [random.pick(['pump-large', 'pump-compact']), 'tray', 'pump'],
    ['block-processor', 'board', 'processor'],
    ...(random.next() < 0.5 ? [['block-graphics', 'board', 'graphics'] as PartPick] : []),
    ...radiators,
  ]);
}

/** Fills as a workshop signs them off: every piece a little different, gas that stays, pours and levels with their errors. */
function fillsOf(hidden: Hidden, count: number, random: Random): ObservedFill[] {
  return Array.from({ length: count }, (_, at) => {
    const loop = anyLoop(random);
    const parts = loopVolume(loop).parts.reduce((sum, { volumeMl, sdMl }, index) => {
      const component = loop.components[index];
      if (component?.kind === 'reservoir') return sum + volumeMl;
      if (!component?.catalogue) return sum + volumeMl + sdMl * random.normal();
      return sum + volumeMl * hidden.factorOf(component.catalogue) * (1 + LEARNING.pieceSpread * random.normal());
    }, 0);
    const gas = Math.max(0, hidden.gasMl(loop) + LEARNING.gasSpreadMl * random.normal());
    const volumeMl = parts - cushionMl(loop) - gas + SEEN_SD_ML * random.normal();
    return { id: `fill ${at}`, loop, fill: { volumeMl, sdMl: SEEN_SD_ML }, verdict: null };
  });
}

/** The same answer for the same question. */
function once<K>(draw: (key: K) => number): (key: K) => number {
  const drawn = new Map<K, number>();
  return (key) => {
    const known = drawn.get(key) ?? draw(key);
    drawn.set(key, known);
    return known;
  };
}

const usualGas = (random: Random): Hidden['gasMl'] => {
  const share = once((place: GasPlace) => Math.max(0, gasGuess(place).mean + gasGuess(place).sd * random.normal()));
  return (loop) => [...gasPlaces(loop, ({ volume_ml }) => volume_ml)].reduce((sum, [place, weight]) => sum + weight * share(place), 0);
};

const trueMl = ({ key }: LearnedItem, { factorOf }: Hidden): number => (findCataloguePart(key)?.volumeMl ?? 0) * factorOf(key);

describe('what the workshop’s own fills teach', () => {
  const sheetsOff = (random: Random, sd: number): Hidden['factorOf'] => once(() => Math.max(0.4, 1 + sd * random.normal()));
  it.each<[string, (random: Random) => Hidden]>([
    ['sheets as good as thought', (random) => ({ factorOf: sheetsOff(random, 0.2), gasMl: usualGas(random) })],
    ['sheets 35 % off, each to its own side', (random) => ({ factorOf: sheetsOff(random, 0.35), gasMl: usualGas(random) })],
    ['sheets that are all 35 % too small', (random) => ({ factorOf: () => 1.35, gasMl: usualGas(random) })],
    ['40 mL of gas that stay', (random) => ({ factorOf: sheetsOff(random, 0.2), gasMl: () => 40 })],
    ['both', (random) => ({ factorOf: sheetsOff(random, 0.35), gasMl: () => 40 })],
  ])('has the truth in 90 of 100 bands over 80 workshops: %s', (_, hide) => {
    let [inside, all] = [0, 0];
    for (let seed = 1; seed <= 80; seed += 1) {
      const random = seededRandom(17 * seed);
      const hidden = hide(random);
      const { items } = learnCatalogue(fillsOf(hidden, 4 + Math.floor(random.between(0, 26)), random));
      for (const item of items) {
        all += 1;
        if (Math.abs(trueMl(item, hidden) - item.learned.volumeMl) <= 1.645 * item.learned.sdMl) inside += 1;
      }
    }
    expect(inside / all).toBeGreaterThanOrEqual(0.85);
    expect(inside / all).toBeLessThanOrEqual(0.95);
  });

  const random = seededRandom(5);
  const hidden: Hidden = { factorOf: (key) => (key === 'radiator-360-30' ? 1.25 : 1), gasMl: usualGas(random) };
  const fills = fillsOf(hidden, 60, random);

  it('knows more with more fills, and counts those that hold an item', () => {
    const [few, many] = [learnCatalogue(fills.slice(0, 6)), learnCatalogue(fills)];
    const of = (items: readonly LearnedItem[]): LearnedItem => items.find(({ key }) => key === 'radiator-360-30') as LearnedItem;
    expect(of(many.items).learned.sdMl).toBeLessThan(0.6 * of(many.items).prior.sdMl);
    expect(of(many.items).learned.sdMl).toBeLessThan(of(few.items).learned.sdMl);
    const holding = fills.filter(({ loop }) => loop.components.some(({ catalogue }) => catalogue === 'radiator-360-30'));
    expect(of(many.items).fills).toBe(holding.length);
    expect(many.items.some(({ key }) => key.startsWith('reservoir') || key === 'radiator-480-60')).toBe(false);
    expect(learnCatalogue([])).toMatchObject({ items: [], fills: 0 });
  });

  it('asks about a fill that is far off, learns nothing from it, and lets the lead say', () => {
    const wrong = { ...(fills[3] as ObservedFill), id: 'wrong' };
    const off = { ...wrong, fill: { ...wrong.fill, volumeMl: wrong.fill.volumeMl + 400 } };
    const plain = learnCatalogue(fills);
    const asked = learnCatalogue([...fills, off]);
    expect(asked.surprising.map(({ id }) => id)).toContain('wrong');
    expect(asked.surprising.find(({ id }) => id === 'wrong')?.byMl).toBeGreaterThan(300);
    expect(asked.items).toEqual(plain.items);
    const counts = learnCatalogue([...fills, { ...off, verdict: 'counts' }]);
    expect(counts.surprising.some(({ id }) => id === 'wrong')).toBe(false);
    expect(counts.items).not.toEqual(plain.items);
    const left = learnCatalogue([...fills.slice(1), { ...(fills[0] as ObservedFill), verdict: 'left-out' }]);
    expect(left.surprising).toContainEqual(expect.objectContaining({ id: 'fill 0', verdict: 'left-out' }));
  });

  it('is asked about as well where it is one of two', () => {
    const [one, two] = fills as [ObservedFill, ObservedFill];
    const off = { ...two, fill: { ...two.fill, volumeMl: two.fill.volumeMl + 700 } };
    expect(learnCatalogue([one, off]).surprising.map(({ id }) => id)).toEqual([two.id]);
  });

  it('hears the same from a loop that already carries what its own fill told: no fill counts twice', () => {
    const [one] = fills as [ObservedFill];
    expect(learnCatalogue([{ ...one, loop: withOwnFill(one.loop, one.fill) }])).toEqual(learnCatalogue([one]));
  });
});
