import fc from 'fast-check';
import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { generateSpatialLoop } from '../../machine/loop-file/generatedLoops.js';
import { readLoopFile } from '../../machine/loop-file/loopFileSchema.js';
import type { LoopFile } from '../../machine/loop-file/loopFile.js';
import { STANDING, STANDING_NAMES } from '../../machine/loop-file/orientation.js';
import { openablePorts } from '../draining/openings.js';
import { simulateFill } from '../filling/fillSimulation.js';
import { pumpsWithoutCurve } from '../flow/network.js';
import { vesselsWithoutBox } from '../geometry/network.js';
import { LiquidTwin, type Wetted } from './liquidTwin.js';

const water = { densityKgM3: 998.2, viscosityMPaS: 1.0016 };
const example = (name: string): LoopFile => readLoopFile(JSON.parse(readFileSync(`examples/${name}.json`, 'utf8')));
const canTwin = (loop: LoopFile): boolean =>
  loop.components.filter(({ kind }) => kind === 'reservoir').length === 1 &&
  vesselsWithoutBox(loop).length === 0 &&
  pumpsWithoutCurve(loop).length === 0 &&
  loop.components.some(({ kind }) => kind === 'pump');

describe('what hands and pump do to the liquid', () => {
  it('pours to the mark what the fill simulation says fills by itself', () => {
    const loop = example('two-radiators');
    const twin = new LiquidTwin(loop, water);
    const at = twin.empty();
    const { passiveMl } = simulateFill(loop, water);
    expect(twin.pour(at, passiveMl)).toBe(0);
    expect(at.reservoirMl).toBeCloseTo(twin.drive.fillMarkMl, 0);
    expect(twin.goesRound(at)).toBe(false);
  });

  it('pulses as the fill simulation does: what was moved, what falls back, until liquid goes round', () => {
    const loop = example('two-radiators');
    const twin = new LiquidTwin(loop, water);
    const plan = simulateFill(loop, water);
    const at = twin.empty();
    twin.pour(at, plan.passiveMl);
    for (const { runS, movedMl, fallsBackMl, refillMl, speed } of plan.pulses) {
      const before = at.reservoirMl;
      twin.run(at, runS, speed / twin.drive.speed);
      expect(before - at.reservoirMl).toBeCloseTo(movedMl, -1);
      const running = at.reservoirMl;
      twin.stop(at);
      expect(at.reservoirMl - running).toBeCloseTo(fallsBackMl, -1);
      twin.pour(at, refillMl);
    }
    expect(twin.goesRound(at)).toBe(true);
    expect(twin.insideMl(at)).toBeCloseTo(plan.totalMl, 0);
  });

  it('draws air only once the outlet is free, and says for how long', () => {
    const loop = example('two-radiators');
    const twin = new LiquidTwin(loop, water);
    const at = twin.empty();
    expect(twin.run(at, 3).dryS).toBe(3);
    twin.pour(at, 200);
    expect(twin.run(at, 0.3).dryS).toBe(0);
    expect(twin.run(at, 60).dryS).toBeGreaterThan(0);
    expect(at.reservoirMl).toBeCloseTo(twin.drive.outletMl, 3);
  });

  it('lets run over only what is above the brim', () => {
    const twin = new LiquidTwin(example('two-radiators'), water);
    const at = twin.atMark();
    const over = twin.pour(at, 500);
    expect(at.reservoirMl).toBe(twin.brimMl);
    expect(over).toBeCloseTo(500 - (twin.brimMl - twin.drive.fillMarkMl), 6);
  });

  it('no more falls back than the pump has moved: what a drain left behind stays where it stood', () => {
    const twin = new LiquidTwin(example('two-radiators'), water);
    const at = twin.atMark();
    at.wettedMl.fill(0, 60, 120);
    const before = at.reservoirMl;
    twin.stop(at, 7);
    expect(at.reservoirMl).toBeLessThanOrEqual(before + 7 + 1e-6);
  });

  it('keeps every millilitre, whatever is done in whatever order', () => {
    type Move = { do: 'pour' | 'run' | 'stop' | 'open'; amount: number; standing: number };
    const move: fc.Arbitrary<Move> = fc.record({
      do: fc.constantFrom('pour', 'run', 'stop', 'open'),
      amount: fc.double({ min: 0, max: 1, noNaN: true }),
      standing: fc.nat({ max: STANDING_NAMES.length - 1 }),
    });
    fc.assert(
      fc.property(fc.nat({ max: 400 }), fc.array(move, { minLength: 1, maxLength: 12 }), (seed, moves) => {
        const loop = generateSpatialLoop(seed);
        fc.pre(canTwin(loop));
        const twin = new LiquidTwin(loop, water);
        const at: Wetted = twin.empty();
        let left = 0;
        for (const { do: what, amount, standing } of moves) {
          if (what === 'pour') {
            const ml = 300 * amount;
            left += ml - twin.pour(at, ml);
          } else if (what === 'run') twin.run(at, 20 * amount);
          else if (what === 'stop') left -= twin.stop(at);
          else {
            const ports = openablePorts(loop);
            const drain = ports[Math.floor(amount * (ports.length - 1))];
            if (drain !== undefined) {
              const tilt = STANDING[STANDING_NAMES[standing] as 'upright'];
              left -= twin.open(at, tilt, { open: [], drains: [drain], closed: [] }).drainedMl;
            }
          }
          expect(twin.insideMl(at)).toBeCloseTo(left, 3);
          expect(at.reservoirMl).toBeGreaterThanOrEqual(-1e-6);
          expect(at.wettedMl.every((ml) => ml >= -1e-6)).toBe(true);
        }
      }),
      { numRuns: 40 },
    );
  });
});
