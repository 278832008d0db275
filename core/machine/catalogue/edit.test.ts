import { usualLoop } from './testLoops.js';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { flowOrder, isSeriesLoop } from '../loop-file/chain.js';
import type { LoopFile } from '../loop-file/loopFile.js';
import { readLoopFile } from '../loop-file/loopFileSchema.js';
import { loopVolume } from '../loop-file/volume.js';
import { addPart, changePart, changeRun, movePart, removePart, setElbows, usualKind } from './edit.js';
import { CATALOGUE, findCataloguePart, makeComponent, suggestLengthMm, TUBE_KINDS, tubeKindOf, type CataloguePart } from './parts.js';
import { emptyLoop, STARTERS, buildLoop } from './starters.js';
import { often } from '../../../tests/often.js';

const order = (loop: LoopFile): string[] => flowOrder(loop).links.map(({ component }) => component.id);
const stock = (key: string): CataloguePart => findCataloguePart(key) as CataloguePart;

describe('the catalogue', () => {
  it('makes a part that a loop file accepts, in every place it may sit', () => {
    for (const part of CATALOGUE) {
      for (const place of part.places) {
        const loop = { ...emptyLoop('one'), components: [makeComponent(part, place, 'it')] };
        expect(() => readLoopFile(loop), `${part.key} ${place}`).not.toThrow();
      }
    }
  });

  it('names every part once, without a maker', () => {
    expect(new Set(CATALOGUE.map(({ key }) => key)).size).toBe(CATALOGUE.length);
    expect(findCataloguePart('nothing')).toBeUndefined();
  });

  it('places a roof radiator above a floor radiator', () => {
    const height = (place: 'roof' | 'floor'): number => makeComponent(stock('radiator-360-30'), place, 'r').box?.min[1] as number;
    expect(height('roof')).toBeGreaterThan(height('floor'));
  });

  it('suggests tubes longer than the straight line, rounded to 5 mm', () => {
    const reservoir = makeComponent(stock('reservoir-260'), 'tray', 'a');
    const block = makeComponent(stock('block-processor'), 'board', 'b');
    const length = suggestLengthMm([reservoir, block], ['a', 'out'], ['b', 'in']);
    const [p, q] = [reservoir.ports.out ?? [0, 0, 0], block.ports.in ?? [0, 0, 0]];
    expect(length).toBeGreaterThan(Math.hypot(...p.map((value, axis) => value - (q[axis] ?? 0))));
    expect(length % 5).toBe(0);
  });

  it('recognises a tube by its measures and material', () => {
    for (const kind of TUBE_KINDS) expect(tubeKindOf({ bore_mm: kind.boreMm, outer_mm: kind.outerMm, material: kind.material })).toBe(kind);
    expect(tubeKindOf({ bore_mm: 9, outer_mm: 12, material: 'hose' })).toBeUndefined();
  });
});

describe('starters', () => {
  it.each(STARTERS.map((starter) => [starter.label, starter] as const))('%s is a closed series loop', (_label, starter) => {
    const loop = buildLoop('x', starter.picks);
    expect(isSeriesLoop(loop)).toBe(true);
    expect(() => readLoopFile(loop)).not.toThrow();
  });

  it('refuses a part it does not have', () => {
    expect(() => buildLoop('x', [['nothing', 'tray', 'a']])).toThrow('no catalogue part nothing');
  });
});

describe('editing a series loop', () => {
  it('adds a part behind the chosen one and closes the loop again', () => {
    const loop = addPart(usualLoop(), stock('flow-meter'), 'tray', 'drain');
    expect(order(loop)).toEqual(['reservoir', 'pump', 'drain', 'meter-tray', 'graphics', 'processor', 'roof', 'front']);
    expect(isSeriesLoop(loop)).toBe(true);
  });

  it('adds at the end when nothing is chosen, and begins an empty loop', () => {
    expect(order(addPart(usualLoop(), stock('flow-meter'), 'tray', null)).at(-1)).toBe('meter-tray');
    expect(order(addPart(emptyLoop('x'), stock('pump-large'), 'tray', null))).toEqual(['pump-tray']);
  });

  it('gives a second part of a kind an id of its own', () => {
    const once = addPart(usualLoop(), stock('flow-meter'), 'tray', null);
    expect(order(addPart(once, stock('flow-meter'), 'tray', null)).slice(-2)).toEqual(['meter-tray', 'meter-tray-2']);
  });

  it('takes a part out and joins its neighbours', () => {
    const loop = removePart(usualLoop(), 'processor');
    expect(order(loop)).toEqual(['reservoir', 'pump', 'drain', 'graphics', 'roof', 'front']);
    expect(loop.tubes.find(({ from }) => from[0] === 'graphics')?.to[0]).toBe('roof');
  });

  it('swaps neighbours, and leaves the ends where they are', () => {
    expect(order(movePart(usualLoop(), 'processor', -1)).slice(3, 5)).toEqual(['processor', 'graphics']);
    expect(order(movePart(usualLoop(), 'front', 1))).toEqual(order(usualLoop()));
    expect(movePart(usualLoop(), 'nobody', 1)).toEqual(usualLoop());
  });

  it('keeps every tube whose ends stay neighbours', () => {
    const cut = changeRun(usualLoop(), 'reservoir--pump', { length_mm: 77 });
    expect(removePart(cut, 'processor').tubes.find(({ id }) => id === 'reservoir--pump')?.length_mm).toBe(77);
  });

  it('lays new tubes of the kind that the loop is made of', () => {
    const kind = TUBE_KINDS.find(({ rigid }) => rigid) as (typeof TUBE_KINDS)[number];
    const rigid = buildLoop('x', STARTERS[0]?.picks ?? [], kind);
    expect(usualKind(rigid)).toBe(kind);
    expect(addPart(rigid, stock('flow-meter'), 'tray', 'pump').tubes.every((tube) => tubeKindOf(tube) === kind)).toBe(true);
  });

  it('changes volumes, lengths, tubes and elbows', () => {
    const volume = loopVolume(usualLoop()).volumeMl;
    expect(loopVolume(changePart(usualLoop(), 'roof', { volume_ml: 280 })).volumeMl).toBeCloseTo(volume + 100, 9);
    const wide = TUBE_KINDS.find(({ boreMm }) => boreMm === 13) as (typeof TUBE_KINDS)[number];
    expect(changeRun(usualLoop(), 'reservoir--pump', { kind: wide }).tubes[0]).toMatchObject({ bore_mm: 13, outer_mm: 19 });
    const bent = setElbows(setElbows(usualLoop(), 'reservoir--pump', '90', 2), 'reservoir--pump', '90', 1);
    expect(bent.tubes[0]?.fittings).toEqual(['compression', 'compression', '90']);
    expect(setElbows(usualLoop(), 'nothing', '90', 1)).toEqual(usualLoop());
  });

  it('stays a closed series loop with unique ids under any edits', () => {
    const edit = fc.tuple(fc.constantFrom('add', 'remove', 'up', 'down'), fc.nat(20), fc.nat(CATALOGUE.length - 1));
    fc.assert(
      fc.property(fc.array(edit, { maxLength: 15 }), (edits) => {
        let loop = usualLoop();
        for (const [what, at, which] of edits) {
          const all = order(loop);
          const id = all[at % all.length] as string;
          const part = CATALOGUE[which] as CataloguePart;
          if (what === 'add') loop = addPart(loop, part, part.places[0] as 'tray', id);
          else if (what === 'remove' && all.length > 2) loop = removePart(loop, id);
          else loop = movePart(loop, id, what === 'up' ? -1 : 1);
        }
        expect(isSeriesLoop(loop)).toBe(true);
        expect(() => readLoopFile(loop)).not.toThrow();
      }),
      { numRuns: often(60) },
    );
  });
});
