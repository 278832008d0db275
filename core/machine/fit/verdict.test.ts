import { describe, expect, it } from 'vitest';
import fc from 'fast-check';
import { findCataloguePart, makeComponent, type CataloguePart } from '../catalogue/parts.js';
import { usualLoop } from '../catalogue/testLoops.js';
import { changeBetween } from '../loop-change/loopChange.js';
import { addPart } from '../catalogue/edit.js';
import { loopFindings } from '../build-checks/loopFindings.js';
import { CATALOGUE } from '../catalogue/parts.js';
import { movePart } from '../drawing/edit.js';
import { caseInFile, caseOf } from '../drawing/cases.js';
import { readLoopFile } from '../loop-file/loopFileSchema.js';
import type { FitSheet, LoopComponent, LoopFile, Point, RoomInFile } from '../loop-file/loopFile.js';
import { tubeCuts } from '../shop-sums/tubeCuts.js';
import { withBodies, pieceMm } from './bodies.js';
import { largestAt, measuredPlaces, radiatorsAt } from './radiatorsAt.js';
import { FIT, fitOf, type FitReason } from './verdict.js';
import { fitWords } from './words.js';

const stock = (key: string): CataloguePart => findCataloguePart(key) as CataloguePart;
const withRoom = (loop: LoopFile, room: RoomInFile): LoopFile => ({ ...loop, case: caseInFile({ ...caseOf(loop), room }) });
const withFit = (loop: LoopFile, id: string, fit: FitSheet): LoopFile => ({
  ...loop,
  components: loop.components.map((part) => (part.id === id ? { ...part, fit } : part)),
});
const partOf = (loop: LoopFile, id: string): LoopComponent => loop.components.find((part) => part.id === id) as LoopComponent;
const codes = (loop: LoopFile, id: string): FitReason['code'][] => (fitOf(loop, partOf(loop, id))?.reasons ?? []).map(({ code }) => code);
const stateOf = (loop: LoopFile, id: string): string | undefined => fitOf(loop, partOf(loop, id))?.state;

const roof = makeComponent(stock('radiator-360-30'), 'roof', 'top');
const alone: LoopFile = { format: 'lavacrum-loop', version: 1, components: [roof], tubes: [] };
const room = (length_mm: number, width_mm: number, depth_mm: number): RoomInFile => ({
  radiators: { roof: { length_mm, width_mm, depth_mm } },
});

describe('a radiator against its room', () => {
  it('is not known before anybody measured, and never more than that', () => {
    expect(stateOf(alone, 'top')).toBe('not-known');
    expect(codes(alone, 'top')).toEqual(['room-not-measured']);
  });

  it('fits to the millimetre, and one millimetre less is too little, in each direction by its own name', () => {
    const deep = 30 + FIT.fanStackMm;
    expect(stateOf(withRoom(alone, room(397, 120, deep)), 'top')).toBe('fits');
    expect(codes(withRoom(alone, room(396, 120, deep)), 'top')).toEqual(['longer']);
    expect(codes(withRoom(alone, room(397, 119, deep)), 'top')).toEqual(['wider']);
    expect(codes(withRoom(alone, room(397, 120, deep - 1)), 'top')).toEqual(['deeper']);
  });

  it('longer than the case itself needs no measuring', () => {
    const cube = { ...alone, case: 'small-cube' };
    expect(codes(cube, 'top')).toEqual(['longer']);
    expect(fitWords(cube, { code: 'longer', needMm: 397, haveMm: 360 })).toBe('397 mm long, room for 360 mm.');
  });

  it('for wider fans is wider: 140 is not laid into room for 120', () => {
    const wide = { ...alone, components: [makeComponent(stock('radiator-280-30'), 'roof', 'top')] };
    expect(codes(withRoom(wide, room(400, 120, 60)), 'top')).toEqual(['wider']);
    expect(stateOf(withRoom(wide, room(400, 140, 60)), 'top')).toBe('fits');
  });

  it('is the largest of those that fit: more face before more depth', () => {
    const measured = withRoom(alone, room(400, 125, 75));
    expect(measuredPlaces(measured)).toEqual(['roof']);
    expect(largestAt(measured, 'roof', CATALOGUE)?.key).toBe('radiator-360-45');
    expect(largestAt(withRoom(alone, room(300, 140, 60)), 'roof', CATALOGUE)?.key).toBe('radiator-240-30');
    expect(largestAt(withRoom(alone, room(330, 140, 60)), 'roof', CATALOGUE)?.key).toBe('radiator-280-30');
    expect(largestAt(withRoom(alone, room(100, 120, 60)), 'roof', CATALOGUE)).toBeNull();
    expect(largestAt(alone, 'roof', CATALOGUE)).toBeNull();
  });

  it('never fits a smaller room when it does not fit a larger one', () => {
    fc.assert(
      fc.property(fc.tuple(fc.nat(600), fc.nat(200), fc.nat(120)), fc.tuple(fc.nat(60), fc.nat(60), fc.nat(60)), ([l, w, d], [a, b, c]) => {
        const fitting = (of: LoopFile): Set<string> =>
          new Set(
            radiatorsAt(of, 'roof', CATALOGUE)
              .filter(({ verdict }) => verdict.state === 'fits')
              .map(({ part }) => part.key),
          );
        const larger = fitting(withRoom(alone, room(l + a + 1, w + b + 1, d + c + 1)));
        for (const key of fitting(withRoom(alone, room(l + 1, w + 1, d + 1)))) expect(larger).toContain(key);
      }),
    );
  });
});

describe('a block against what it sits on', () => {
  const loop = usualLoop();
  const card = loop.components.find(({ place }) => place === 'card') as LoopComponent;
  const given = (fit: FitSheet): LoopFile => withFit(loop, card.id, fit);
  const listed = [{ model: 'Heron 40', revision: 'B' }, { model: 'Heron 50' }];

  it('is not known without its list, nor before the card was read', () => {
    expect(codes(loop, card.id)).toEqual(['no-list']);
    expect(codes(given({ listed }), card.id)).toEqual(['not-read']);
    expect(codes(given({ listed, sits_on: { model: 'heron-40' } }), card.id)).toEqual(['revision-not-read']);
  });

  it('fits by model and revision, however they are spelt, and a list without revisions names all', () => {
    expect(stateOf(given({ listed, sits_on: { model: 'HERON 40', revision: 'b' } }), card.id)).toBe('fits');
    expect(stateOf(given({ listed, sits_on: { model: 'Heron 50', revision: 'anything' } }), card.id)).toBe('fits');
    expect(codes(given({ listed, sits_on: { model: 'Heron 40', revision: 'C' } }), card.id)).toEqual(['other-revision']);
    expect(codes(given({ listed, sits_on: { model: 'Heron 4' } }), card.id)).toEqual(['other-model']);
  });

  it('asks slots, length, height and leads of the case, once they were measured', () => {
    const sits = { listed, sits_on: { model: 'Heron 50' } };
    expect(codes(given({ ...sits, slots: 3, length_mm: 300, height_mm: 140 }), card.id)).toEqual(['card-room-not-measured']);
    const has: RoomInFile = { card: { slots: 2, length_mm: 290, height_mm: 150 }, power_leads: 1 };
    const asks = withRoom(given({ ...sits, slots: 3, length_mm: 300, height_mm: 140, power_leads: 2 }), has);
    expect(codes(asks, card.id)).toEqual(['slots', 'card-longer', 'power-leads']);
    expect(stateOf(withRoom(given({ ...sits, slots: 2, length_mm: 290, height_mm: 150, power_leads: 1 }), has), card.id)).toBe('fits');
  });

  it('that does not fit stands with what is looked at before building, and on the list of a change', () => {
    const wrong = given({ listed, sits_on: { model: 'Merlin 7' } });
    expect(loopFindings(wrong)[0]).toMatchObject({ code: 'does-not-fit', weight: 'stop', part: card.id });
    const before = { ...wrong, components: wrong.components.filter(({ id }) => id !== card.id) };
    const arrives = changeBetween({ ...before, tubes: [] }, { ...wrong, tubes: [] }).in.find(({ id }) => id === card.id);
    expect(arrives?.fit?.reasons).toEqual([{ code: 'other-model', model: 'Merlin 7' }]);
  });
});

describe('parts in each other’s way', () => {
  const loop = usualLoop();
  const reservoir = loop.components.find(({ kind }) => kind === 'reservoir') as LoopComponent;

  it('are nothing as long as they lie where parts usually lie', () => {
    const crowded = addPart(loop, stock('radiator-360-60'), 'front', null);
    expect(loopFindings(crowded).filter(({ code }) => code === 'does-not-fit')).toEqual([]);
  });

  it('are told of once somebody drew them there, in both parts, and their fans as something to look at', () => {
    const front = addPart(loop, stock('radiator-360-30'), 'front', null);
    const radiator = front.components.find(({ place, kind }) => place === 'front' && kind === 'radiator') as LoopComponent;
    const box = reservoir.box as NonNullable<LoopComponent['box']>;
    const right = (radiator.box?.min[0] ?? 0) - box.max[0];
    const into = movePart(front, reservoir.id, [right + 12, 0, 0]);
    expect(codes(into, reservoir.id)).toContain('overlaps');
    expect(codes(into, radiator.id)).toContain('overlaps');
    expect(codes(movePart(front, reservoir.id, [right - 5, 0, 0]), reservoir.id)).toContain('meets-fans');
    expect(codes(movePart(front, reservoir.id, [right - FIT.fanStackMm - 5, 0, 0]), reservoir.id)).toEqual([]);
  });

  it('and the panel: a part that stands beyond it keeps it open', () => {
    expect(codes({ ...loop, panel_z_mm: 100 }, reservoir.id)).toEqual(['beyond-panel']);
    expect(codes({ ...loop, panel_z_mm: 120 }, reservoir.id)).toEqual([]);
  });

  it('fittings in ports side by side touch where their collars are wider than the ports lie apart', () => {
    const [tube] = loop.tubes as [LoopFile['tubes'][number]];
    const block = loop.components.find(({ kind }) => kind === 'block') as LoopComponent;
    const apart = (mm: number): LoopFile => ({
      ...loop,
      tubes: [
        { ...tube, from: [reservoir.id, 'out'], to: [block.id, 'in'], outer_mm: 16 },
        { ...tube, id: 't2', from: [block.id, 'out'], to: [reservoir.id, 'return'], outer_mm: 16 },
      ],
      components: loop.components.map((part) => (part.id === block.id ? { ...part, ports: { in: [0, 0, 0], out: [mm, 0, 0] } } : part)),
    });
    expect(codes(apart(24), block.id)).not.toContain('collars-touch');
    expect(codes(apart(23), block.id)).toContain('collars-touch');
    // flat ones are narrower, an angle wider
    const flat = withBodies(withBodies(apart(23), tube.id, 'to', ['flat']), 't2', 'from', ['flat']);
    expect(codes(flat, block.id)).not.toContain('collars-touch');
    expect(codes(withBodies(apart(24), tube.id, 'to', ['angle-90']), block.id)).toContain('collars-touch');
  });

  it('a thread of its own is told of, to order its fitting by; the usual one is not', () => {
    const named = (thread: string): LoopFile => withFit(loop, reservoir.id, { threads: { out: thread } });
    expect(codes(named('G1/4'), reservoir.id)).toEqual([]);
    expect(codes(named('G 3/8'), reservoir.id)).toEqual(['other-thread']);
    expect(fitOf(named('G 3/8'), partOf(loop, reservoir.id))).toBeNull();
  });
});

describe('what sits between port and tube', () => {
  const loop = usualLoop();
  const { length_mm: _before, ...tube } = { ...(loop.tubes[2] as LoopFile['tubes'][number]), path: [[200, 200, 100] as const] };
  const drawn: LoopFile = { ...loop, tubes: [tube, ...loop.tubes.filter(({ id }) => id !== tube.id)] };

  it('makes its tube shorter, in the cut list as well, and a measured length stays the tube’s own', () => {
    const out = withBodies(drawn, tube.id, 'from', ['extender', 'angle-90']);
    const after = out.tubes[0] as LoopFile['tubes'][number];
    expect(pieceMm(drawn, tube) - pieceMm(out, after)).toBeCloseTo(15 + 22);
    const cut = (of: LoopFile): number =>
      tubeCuts(of, () => true)
        .flatMap(({ pieces, tooLong }) => [...pieces, ...tooLong])
        .find(({ id }) => id === tube.id)?.laidMm as number;
    expect(cut(drawn) - cut(out)).toBeCloseTo(37);
    expect(pieceMm(out, { ...after, length_mm: 90 })).toBe(90);
  });

  it('must leave some tube between the two ports', () => {
    const [from] = [partOf(loop, tube.from[0]).ports[tube.from[1]] as Point];
    const near: Point = [from[0] + 50, from[1], from[2]];
    const short: LoopFile = {
      ...drawn,
      tubes: [{ ...tube, path: [] }],
      components: loop.components.map((part) =>
        part.id === tube.to[0] ? { ...part, ports: { ...part.ports, [tube.to[1]]: near } } : part,
      ),
    };
    const told = (of: LoopFile): boolean => loopFindings(of).some(({ code, part }) => code === 'does-not-fit' && part === tube.id);
    expect(told(withBodies(short, tube.id, 'from', ['extender']))).toBe(false);
    expect(told(withBodies(short, tube.id, 'from', ['long-extender', 'extender']))).toBe(true);
  });

  it('brings its losses, takes them away again, and a file without any is as before', () => {
    const out = withBodies(drawn, tube.id, 'to', ['angle-90', 'angle-45']);
    expect(out.tubes[0]?.fittings).toEqual(['compression', 'compression', '90', '45']);
    const back = withBodies(out, tube.id, 'to', []);
    expect(back.tubes[0]?.fittings).toEqual(['compression', 'compression']);
    expect(back.tubes[0]).not.toHaveProperty('bodies');
    expect(() => readLoopFile(structuredClone(out))).not.toThrow();
  });
});
