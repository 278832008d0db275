import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { seededRandom } from '../../base/random/random.js';
import { toHave } from '../../edge/words/loopChange.js';
import { loopOf, part, tube, usualLoop } from '../catalogue/testLoops.js';
import { bypassPart } from '../drawing/bypass.js';
import { countFittings, unusedPorts } from '../loop-file/fittings.js';
import { generateSpatialLoop } from '../loop-file/generatedLoops.js';
import type { LoopFile, LoopTube } from '../loop-file/loopFile.js';
import { generateChange } from './generatedChanges.js';
import { changeBetween, isWetChange, tubesLeaving, tubeToHave } from './loopChange.js';

const ring = (more: Partial<LoopTube> = {}): LoopFile =>
  loopOf(
    [part('res', 'reservoir', 250), part('pump', 'pump', 30, [100, 0, 0]), part('block', 'block', 40, [100, 300, 0])],
    [tube('t1', 'res', 'pump'), tube('t2', 'pump', 'block', more), tube('t3', 'block', 'res')],
  );
const withBlock = (loop: LoopFile): LoopFile => ({
  ...loop,
  components: [...loop.components, part('memory', 'block', 15, [100, 150, 0])],
  tubes: [...loop.tubes.filter(({ id }) => id !== 't2'), tube('t4', 'pump', 'memory'), tube('t5', 'memory', 'block')],
});

describe('the work between two drawings', () => {
  it('is none between a loop and itself, nor where only a drawing is put right', () => {
    const loop = usualLoop();
    expect(isWetChange(changeBetween(loop, loop))).toBe(false);
    const right = {
      ...loop,
      components: loop.components.map((each) => ({ ...each, volume_ml: each.volume_ml * 1.1, label: 'as it says' })),
    };
    expect(isWetChange(changeBetween(loop, right))).toBe(false);
  });

  it('puts a part into a tube: what was one comes out, two are made, the shorter of them out of the old one', () => {
    const change = changeBetween(ring(), withBlock(ring()));
    expect(change.in.map(({ id }) => id)).toEqual(['memory']);
    expect(change.out).toEqual([]);
    // 300 mm come out; both pieces of 150 and their allowance cannot be had of it
    expect(change.tubes.map(({ id, fate, cutFrom }) => [id, fate, cutFrom])).toEqual([
      ['t2', 'out', null],
      ['t4', 'cut', 't2'],
      ['t5', 'new', null],
    ]);
    expect(change.undone).toEqual(['t2.from', 't2.to']);
    expect(change.made).toEqual(['t4', 't5']);
    expect(tubesLeaving(change)).toEqual(['t2']);
    expect(tubeToHave(change)).toMatchObject([{ boreMm: 10, outerMm: 16, piecesMm: [163] }]);
    expect(toHave(change).map(({ what, amount, unit }) => `${amount} ${unit} ${what}`)).toEqual([
      '1 pcs memory',
      '0.2 m tube 10/16 mm, epdm',
      '2 pcs compression fittings',
      '4 pcs rings for joints that are made',
    ]);
  });

  it('leaves a part out: its tube goes on to where the next one led', () => {
    const loop = ring();
    const change = changeBetween(loop, bypassPart(loop, 'block').loop);
    expect(change.out.map(({ id }) => id)).toEqual(['block']);
    // its way is shorter now: it is cut back and seated at its other end
    expect(change.tubes.map(({ id, fate, cutFrom }) => [id, fate, cutFrom])).toEqual([
      ['t3', 'out', null],
      ['t2', 'cut', null],
    ]);
    expect(tubesLeaving(change)).toEqual(['t3']);
    expect(change.fittings).toEqual([{ kind: 'compression', count: -2 }]);
  });

  it('takes another make in the same place for another part, and undoes only its joints', () => {
    const loop = ring();
    const other = { ...loop, components: loop.components.map((each) => (each.id === 'block' ? { ...each, catalogue: 'another' } : each)) };
    const change = changeBetween(loop, other);
    expect([change.out, change.in].map((list) => list.map(({ id }) => id))).toEqual([['block'], ['block']]);
    expect(change.undone).toEqual(['t2.to', 't3.from']);
    expect(change.tubes.map(({ fate }) => fate)).toEqual(['reseated', 'reseated']);
  });

  it('cuts a soft tube back and never a rigid one', () => {
    const closer = (loop: LoopFile): LoopFile => ({ ...loop, components: loop.components.map((each) => (each.id === 'block' ? part('block', 'block', 40, [100, 200, 0]) : each)) }); // prettier-ignore
    const soft = changeBetween(ring(), closer(ring()));
    expect(soft.moved.map(({ id }) => id)).toEqual(['block']);
    expect(soft.tubes.find(({ id }) => id === 't2')).toMatchObject({ fate: 'cut', cutFrom: null, lengthMm: 201 });
    const rigid = changeBetween(ring({ material: 'petg' }), closer(ring({ material: 'petg' })));
    expect(rigid.tubes.find(({ id }) => id === 't2')).toMatchObject({ fate: 'new', lengthMm: 213 });
  });

  it('opens and closes ports that a tube goes to or leaves', () => {
    const loop = ring();
    const tee = { ...part('tee', 'junction', 5, [50, 0, 0]), ports: { in: [50, 0, 0], out: [60, 0, 0], side: [55, 10, 0] } } as const;
    const closed: LoopFile = { ...loop, components: [...loop.components, { ...tee, closures: { side: 'plug' } }], tubes: [tube('t1', 'res', 'tee'), tube('t6', 'tee', 'pump'), ...loop.tubes.slice(1)] }; // prettier-ignore
    const branched: LoopFile = { ...closed, components: [...closed.components, part('meter', 'meter', 5, [55, 40, 0])], tubes: [...closed.tubes, { ...tube('t7', 'tee', 'meter'), from: ['tee', 'side'] }] }; // prettier-ignore
    expect(changeBetween(closed, branched).ports[0]).toMatchObject({ place: 'tee.side', does: 'opens', closure: 'plug' });
    expect(changeBetween(branched, closed).ports).toMatchObject([{ place: 'tee.side', does: 'closes', closure: 'plug' }]);
  });

  it('closes what a part that comes in has open, and nothing that a tube goes to', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 400 }), (seed) => {
        const loop = generateSpatialLoop(seed);
        const wanted = generateChange(loop, seededRandom(seed));
        const { ports, in: into } = changeBetween(loop, wanted);
        const closes = ports.filter(({ does }) => does === 'closes').map(({ place }) => place);
        for (const { id } of into) {
          const arrived = wanted.components.find((each) => each.id === id);
          const open = arrived ? unusedPorts(wanted, arrived).map((port) => `${id}.${port}`) : [];
          expect(closes.filter((place) => place.startsWith(`${id}.`))).toEqual(open);
        }
      }),
      { numRuns: 60 },
    );
  });

  it('accounts for every fitting, undoes only what is there and makes only what is wanted', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 400 }), (seed) => {
        const loop = generateSpatialLoop(seed);
        const wanted = generateChange(loop, seededRandom(seed));
        const change = changeBetween(loop, wanted);
        const counted = (file: LoopFile): number => countFittings(file).reduce((sum, { count }) => sum + count, 0);
        expect(change.fittings.reduce((sum, { count }) => sum + count, 0)).toBe(counted(wanted) - counted(loop));
        const had = new Set(loop.tubes.map(({ id }) => id));
        const has = new Set(wanted.tubes.map(({ id }) => id));
        expect(change.undone.every((joint) => had.has(joint.replace(/\.(from|to)$/, '')))).toBe(true);
        expect(change.made.every((id) => has.has(id))).toBe(true);
        expect(isWetChange(change)).toBe(true);
        // the way back takes out what came in
        const back = changeBetween(wanted, loop);
        expect(back.out.map(({ id }) => id).sort()).toEqual(change.in.map(({ id }) => id).sort());
      }),
      { numRuns: 40 },
    );
  });
});
