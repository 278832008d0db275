import fc from 'fast-check';
import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { STANDING, STANDING_NAMES, upVector, type StandingName } from '../../machine/loop-file/orientation.js';
import { allPorts, generateSpatialLoop } from '../../machine/loop-file/generatedLoops.js';
import { readLoopFile } from '../../machine/loop-file/loopFileSchema.js';
import type { LoopComponent, LoopFile, LoopTube, Point } from '../../machine/loop-file/loopFile.js';
import { loopVolume } from '../../machine/loop-file/volume.js';
import { drainLoop, type DrainResult } from './drain.js';
import type { DrainSetup } from './openings.js';
import { often } from '../../../tests/often.js';

const example = readLoopFile(JSON.parse(readFileSync('examples/two-radiators.json', 'utf8')));

const loop = (components: LoopComponent[], tubes: LoopTube[]): LoopFile => ({ format: 'lavacrum-loop', version: 1, components, tubes });
const tubeOf = (id: string, from: LoopTube['from'], to: LoopTube['to'], more: Partial<LoopTube> = {}): LoopTube => ({
  id,
  from,
  to,
  bore_mm: 10,
  outer_mm: 16,
  material: 'epdm',
  path: [],
  fittings: [],
  ...more,
});
const small = (id: string, ports: Record<string, Point>, volume_ml = 20): LoopComponent => ({
  id,
  kind: 'block',
  volume_ml,
  ports,
  flow: Object.keys(ports).slice(0, 2) as unknown as [string, string],
});
const drain = (file: LoopFile, setup: Partial<DrainSetup>): DrainResult =>
  drainLoop(file, { tilt: STANDING.upright, open: [], drains: [], closed: [], ...setup });
const partOf = (result: DrainResult, id: string): DrainResult['parts'][number] =>
  result.parts.find((part) => part.id === id) as DrainResult['parts'][number];
/** mL per mm of 10 mm bore */
const PER_MM = (Math.PI / 4) * 0.1;

/** Two open ends joined by a tube that hangs down to a valve in its middle. */
const hangingTube = loop(
  [
    small('left', { top: [0, 300, 0], under: [0, 280, 0] }),
    small('right', { top: [200, 300, 0], under: [200, 280, 0] }),
    small('tee', { a: [100, 100, 0], b: [110, 100, 0], valve: [105, 90, 0] }, 5),
  ],
  [tubeOf('l', ['left', 'under'], ['tee', 'a']), tubeOf('r', ['right', 'under'], ['tee', 'b'])],
);

describe('draining a full loop', () => {
  it('runs out whole where air comes in on top and the drain lies lowest', () => {
    const result = drain(hangingTube, { open: ['left.top', 'right.top'], drains: ['tee.valve'] });
    expect(result.heldMl + result.trappedHighMl + result.trappedLowMl).toBeCloseTo(0, 9);
    expect(result.drainedMl).toBeCloseTo(loopVolume(hangingTube).volumeMl, 9);
  });

  it('holds the leg that gets no air: narrow, it cannot take air in from below', () => {
    const result = drain(hangingTube, { open: ['left.top'], drains: ['tee.valve'] });
    expect(partOf(result, 'l').drainedMl).toBeGreaterThan(0);
    expect(partOf(result, 'r').drainedMl).toBeCloseTo(0, 9);
    // but for the first cell, which lies level with the tee
    expect(partOf(result, 'r').heldMl).toBeCloseTo(partOf(result, 'l').drainedMl, 0);
    expect(partOf(result, 'right').heldMl).toBeCloseTo(20, 9);
  });

  it('lets the leg run when its tube is wide enough for air to rise past the liquid', () => {
    const wide = { ...hangingTube, tubes: hangingTube.tubes.map((tube) => ({ ...tube, bore_mm: 13, outer_mm: 19 })) };
    expect(partOf(drain(wide, { open: ['left.top'], drains: ['tee.valve'] }), 'r').heldMl).toBeCloseTo(0, 9);
    // the block above it is narrow, but gas stands at its port
    expect(partOf(drain(wide, { open: ['left.top'], drains: ['tee.valve'] }), 'right').heldMl).toBeCloseTo(20, 9);
  });

  it('keeps what lies below the drain, and calls it high where it stands above it behind a crest', () => {
    // up from a low valve, over a crest at 300, down to a pocket at 150
    const file = loop(
      [
        small('start', { a: [0, 100, 0], b: [10, 100, 0], valve: [5, 90, 0] }, 10),
        small('end', { a: [400, 150, 0], b: [410, 150, 0] }, 30),
      ],
      [tubeOf('over', ['start', 'b'], ['end', 'a'], { path: [[200, 300, 0]] })],
    );
    const result = drain(file, { open: ['start.a'], drains: ['start.valve'] });
    expect(partOf(result, 'end').trappedHighMl).toBeCloseTo(30, 9);
    const onDrain = drain(file, { open: ['start.a'], drains: ['end.b'] });
    expect(partOf(onDrain, 'start').trappedLowMl).toBeCloseTo(10, 9);
  });

  it('drains a vessel down to the lowest port that leads out, and no further', () => {
    const radiator: LoopComponent = {
      id: 'rad',
      kind: 'radiator',
      volume_ml: 200,
      ports: { a: [0, 150, 0], b: [20, 150, 0], vent: [10, 300, 0] },
      flow: ['a', 'b'],
      box: { min: [0, 100, 0], max: [30, 300, 100] },
    };
    const file = loop([radiator, small('tee', { a: [0, 50, 0], b: [10, 50, 0] }, 5)], [tubeOf('t', ['rad', 'a'], ['tee', 'a'])]);
    const result = drain(file, { open: ['rad.vent'], drains: ['tee.b'] });
    expect(partOf(result, 'rad')).toMatchObject({ heldMl: 0, trappedLowMl: 0 });
    expect(partOf(result, 'rad').drainedMl).toBeCloseTo(150, 9);
    expect(partOf(result, 'rad').trappedHighMl).toBeCloseTo(50, 9);
  });

  it('keeps a closed vessel’s liquid above its lower port where no air gets in, and lets it go where it does', () => {
    const tank: LoopComponent = {
      id: 'tank',
      kind: 'reservoir',
      volume_ml: 200,
      ports: { out: [20, 100, 0], cap: [10, 300, 0] },
      flow: ['out', 'out'],
      box: { min: [0, 50, 0], max: [30, 300, 100] },
    };
    const file = loop([tank, small('tee', { a: [0, 20, 0], b: [10, 20, 0] }, 5)], [tubeOf('t', ['tank', 'out'], ['tee', 'a'])]);
    const shut = partOf(drain(file, { open: [], drains: ['tee.b'] }), 'tank');
    expect(shut.drainedMl).toBeCloseTo(0, 9);
    expect(shut.heldMl).toBeCloseTo(160, 9);
    const aired = partOf(drain(file, { open: ['tank.cap'], drains: ['tee.b'] }), 'tank');
    expect(aired.drainedMl).toBeCloseTo(160, 9);
    expect(aired.heldMl).toBe(0);
  });

  it('opens both sides of a joint undone: what stands above it on each side leaves, and the path is cut there', () => {
    const result = drain(example, { open: ['top.vent'], drains: ['t2.from'] });
    // the card's block stands level with its own outlet port and so runs out at the joint
    expect(partOf(result, 'gpu').drainedMl).toBeCloseTo(60, 9);
    expect(partOf(result, 't2').drainedMl).toBeCloseTo(partOf(result, 't2').drainedMl + partOf(result, 't2').heldMl, 9);
    expect(partOf(result, 'pump').trappedLowMl).toBeCloseTo(25, 9);
  });

  it('does not pass a tube that is shut', () => {
    const open = drain(hangingTube, { open: ['left.top', 'right.top'], drains: ['tee.valve'] });
    const shut = drain(hangingTube, { open: ['left.top', 'right.top'], drains: ['tee.valve'], closed: ['l'] });
    expect(partOf(open, 'left').drainedMl).toBeCloseTo(20, 9);
    expect(partOf(shut, 'left').trappedHighMl).toBeCloseTo(20, 9);
  });

  it('warns of an opening that is no drain, and of none that stays dry', () => {
    const onItsHead = { tilt: STANDING['upside-down'], open: ['left.top', 'tee.valve'], drains: ['right.top'] };
    const { spills } = drain(hangingTube, onItsHead);
    expect(spills.map(({ port }) => port)).toEqual(['left.top']);
    // the block and its leg: with the drains shut, air comes in at the valve, now on top
    expect(spills[0]?.volumeMl).toBeGreaterThan(20 + 150 * PER_MM);
    // beside the open drain, which lies as high: its own leg, and the tee, whose crest is the same to both
    const leg = loopVolume(hangingTube).parts.find(({ id }) => id === 'l')?.volumeMl as number;
    expect(spills[0]?.withDrainsOpenMl).toBeCloseTo(20 + leg + 5, 9);
    expect(drain(hangingTube, { open: ['left.top', 'right.top'], drains: ['tee.valve'] }).spills).toEqual([]);
  });

  it('sends what has a choice to the lower opening, and says what waits for air', () => {
    // a block over a straight leg that ends in a part with two valves, one 5 mm below the other
    const file = loop(
      [
        small('top', { vent: [0, 300, 0], under: [0, 280, 0] }),
        small('end', { in: [0, 100, 0], out: [10, 100, 0], upper: [5, 95, 0], lower: [5, 90, 0] }, 10),
      ],
      [tubeOf('leg', ['top', 'under'], ['end', 'in'])],
    );
    const whole = loopVolume(file).volumeMl;
    const open = { open: ['top.vent', 'end.upper'], drains: ['end.lower'] };
    // shut, the lower valve leaves everything to the upper one; open, it takes everything
    expect(drain(file, open).spills).toEqual([{ port: 'end.upper', volumeMl: expect.closeTo(whole, 9), withDrainsOpenMl: 0, heldMl: 0 }]);
    expect(drain(file, open).drainedMl).toBeCloseTo(whole, 9);
    const swapped = drain(file, { open: ['top.vent', 'end.lower'], drains: ['end.upper'] }).spills;
    expect(swapped).toEqual([
      { port: 'end.lower', volumeMl: expect.closeTo(whole, 9), withDrainsOpenMl: expect.closeTo(whole, 9), heldMl: 0 },
    ]);
    // the other leg of a V has its air only through the drain that is shut: it hangs, and follows when knocked
    const [valve] = drain(hangingTube, { open: ['left.top', 'tee.valve'], drains: ['right.top'] }).spills;
    const side = 20 + (loopVolume(hangingTube).parts.find(({ id }) => id === 'r')?.volumeMl as number);
    expect(valve).toMatchObject({ port: 'tee.valve', heldMl: expect.closeTo(side, 0) });
    expect(valve?.volumeMl).toBeCloseTo(loopVolume(hangingTube).volumeMl - (valve?.heldMl as number), 9);
    expect(valve?.withDrainsOpenMl).toBeCloseTo(loopVolume(hangingTube).volumeMl, 9);
  });

  it('gives the sketch of the example loop: card and roof run out, pump and the run below the card stay', () => {
    const result = drain(example, { open: ['top.vent'], drains: ['gpu.low'] });
    expect(partOf(result, 'top').drainedMl).toBeCloseTo(180, 9);
    expect(partOf(result, 'gpu').drainedMl).toBeCloseTo(60, 9);
    expect(partOf(result, 'pump').trappedLowMl).toBeCloseTo(25, 9);
    // reservoir: crest at the card's inlet, 240 mm; 90 … 260 mm hold 260 mL
    expect(partOf(result, 'res').drainedMl).toBeCloseTo((20 / 170) * 260, 6);
    // front radiator: crest at its own ports, 440 mm
    expect(partOf(result, 'front').drainedMl).toBeCloseTo((10 / 390) * 180, 6);
    expect(partOf(result, 't1').trappedHighMl).toBeLessThan(20 * PER_MM);
  });
});

/** A random loop, how it stands, and what is open. */
const situation = fc
  .record({ seed: fc.nat(100_000), pitchDeg: fc.integer({ min: -180, max: 180 }), rollDeg: fc.integer({ min: -180, max: 180 }) })
  .chain(({ seed, pitchDeg, rollDeg }) => {
    const file = generateSpatialLoop(seed);
    const ports = allPorts(file);
    return fc.record({
      file: fc.constant(file),
      tilt: fc.constant({ pitchDeg, rollDeg }),
      drains: fc.subarray(ports, { minLength: 1, maxLength: 2 }),
      open: fc.subarray(ports, { maxLength: 3 }),
      more: fc.constantFrom(...ports),
    });
  });

/** Quarter turn about z: x → y, y → −x. Boxes stay boxes. */
function quarterTurn(file: LoopFile): LoopFile {
  const turn = ([x, y, z]: Point): Point => [-y, x, z];
  return {
    ...file,
    components: file.components.map((component) => {
      const corners = component.box && [turn(component.box.min), turn(component.box.max)];
      const extreme = (pick: (...values: number[]) => number): Point =>
        [0, 1, 2].map((axis) => pick(...(corners as Point[]).map((corner) => corner[axis] as number))) as unknown as Point;
      return {
        ...component,
        ports: Object.fromEntries(Object.entries(component.ports).map(([port, at]) => [port, turn(at)])),
        ...(corners ? { box: { min: extreme(Math.min), max: extreme(Math.max) } } : {}),
      };
    }),
    tubes: file.tubes.map((tube) => ({ ...tube, path: (tube.path ?? []).map(turn) })),
  };
}

const figures = ({ drainedMl, heldMl, trappedHighMl, trappedLowMl }: DrainResult): number[] =>
  [drainedMl, heldMl, trappedHighMl, trappedLowMl].map((ml) => Math.round(ml * 1e6) / 1e6);

describe('draining, whatever the loop', () => {
  it('accounts for every millilitre of every part', () => {
    fc.assert(
      fc.property(situation, ({ file, tilt, drains, open }) => {
        const result = drain(file, { tilt, drains, open });
        const volumes = loopVolume(file).parts;
        result.parts.forEach((part, index) => {
          const total = part.drainedMl + part.heldMl + part.trappedHighMl + part.trappedLowMl;
          expect(total).toBeCloseTo(volumes[index]?.volumeMl as number, 6);
          expect(Math.min(part.drainedMl, part.heldMl, part.trappedHighMl, part.trappedLowMl)).toBeGreaterThanOrEqual(-1e-9);
        });
      }),
      { numRuns: often(300) },
    );
  });

  it('shares what leaves among all that stands open: no opening gives more than there is, together they give the whole', () => {
    fc.assert(
      fc.property(situation, ({ file, tilt, drains, open }) => {
        const { spills } = drain(file, { tilt, drains, open });
        const all = drain(file, { tilt, drains: [...drains, ...open], open: [] }).drainedMl;
        const sum = spills.reduce((ml, { withDrainsOpenMl }) => ml + withDrainsOpenMl, 0);
        expect(sum).toBeLessThanOrEqual(all + 1e-6);
        for (const { volumeMl, heldMl } of spills) expect(volumeMl + heldMl).toBeLessThanOrEqual(loopVolume(file).volumeMl + 1e-6);
      }),
      { numRuns: often(200) },
    );
  });

  it('does not depend on the order of parts and tubes in the file', () => {
    fc.assert(
      fc.property(situation, ({ file, tilt, drains, open }) => {
        const shuffled = { ...file, components: [...file.components].reverse(), tubes: [...file.tubes].reverse() };
        expect(figures(drain(shuffled, { tilt, drains, open }))).toEqual(figures(drain(file, { tilt, drains, open })));
      }),
      { numRuns: often(200) },
    );
  });

  it('does not change when case and gravity turn together', () => {
    const byUp = (up: readonly number[]): StandingName =>
      STANDING_NAMES.find((name) => String(upVector(STANDING[name]).map((v) => v + 0)) === String(up.map((v) => v + 0))) as StandingName;
    fc.assert(
      fc.property(situation, fc.constantFrom(...STANDING_NAMES), ({ file, drains, open }, standing) => {
        const [x, y, z] = upVector(STANDING[standing]);
        const turned = byUp([-y, x, z]);
        const before = figures(drain(file, { tilt: STANDING[standing], drains, open }));
        expect(figures(drain(quarterTurn(file), { tilt: STANDING[turned], drains, open }))).toEqual(before);
      }),
      { numRuns: often(200) },
    );
  });

  it('never drains less through one more opening', () => {
    fc.assert(
      fc.property(situation, ({ file, tilt, drains, open, more }) => {
        const before = drain(file, { tilt, drains, open }).drainedMl;
        expect(drain(file, { tilt, drains, open: [...open, more] }).drainedMl).toBeGreaterThanOrEqual(before - 1e-9);
        expect(drain(file, { tilt, drains: [...drains, more], open }).drainedMl).toBeGreaterThanOrEqual(before - 1e-9);
      }),
      { numRuns: often(300) },
    );
  });
});
