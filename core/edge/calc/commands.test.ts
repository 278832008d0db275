import fc from 'fast-check';
import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { InputProblem } from '../../base/checking/input.js';
import { CALC_COMMANDS, type CalcCommand } from './commands.js';
import { often } from '../../../tests/often.js';

const loop = JSON.parse(readFileSync('examples/two-radiators.json', 'utf8')) as Record<string, unknown>;
const run = (name: string, input: unknown): Record<string, unknown> =>
  (CALC_COMMANDS[name] as CalcCommand).run(input) as Record<string, unknown>;

function refusal(name: string, input: unknown): InputProblem {
  try {
    run(name, input);
  } catch (error) {
    if (error instanceof InputProblem) return error;
    throw error;
  }
  throw new Error('was accepted');
}

const readings = Array.from({ length: 21 }, (_, minute) => ({ t_s: minute * 60, gauge_kpa: 50, temp_c: 21 }));
const good: Record<string, Record<string, unknown>> = {
  volume: { loop },
  hold: { volume_ml: 700, limit_mbar_l_s: 0.01, resolution_kpa: 1 },
  decay: { volume_ml: 700, readings, atmosphere_kpa: 101.325, resolution_kpa: 0.1, limit_mbar_l_s: 0.01 },
  rinse: { left_ml: 100, rinse_ml: 400, target_fraction: 0.01 },
  dose: { loop_ml: 1000, left_ml: 200, target_fraction: 0.25 },
};

describe('the calculations as documents', () => {
  it('answers with the contract’s fields', () => {
    expect(Object.keys(run('volume', good.volume))).toEqual(['total_ml', 'sd_ml', 'parts']);
    expect(run('volume', good.volume).total_ml).toBeCloseTo(806.37, 2);
    expect(run('hold', good.hold)).toEqual({ minutes: expect.closeTo(15.92, 2) as number });
    expect(run('decay', good.decay)).toEqual({
      leak_mbar_l_s: expect.closeTo(0, 12) as number,
      se_mbar_l_s: expect.any(Number) as number,
      verdict: 'pass',
      settled_after_s: 0,
      excluded_ml_per_day: expect.any(Number) as number,
    });
    expect(run('rinse', good.rinse)).toEqual({
      rinses: 3,
      fraction_after: [0.2, expect.closeTo(0.04, 12), expect.closeTo(0.008, 12)] as number[],
    });
    expect(run('dose', good.dose)).toEqual({ concentrate_ml: 250, water_ml: 550, pour_fraction: 0.3125, possible: true });
  });

  it('says how many minutes are missing while it cannot tell', () => {
    const early = run('decay', { ...good.decay, readings: readings.slice(0, 3) });
    expect(early).toMatchObject({ verdict: 'not-yet', more_minutes: expect.any(Number) as number });
  });

  it('says how much more to drain when a dose is impossible', () => {
    expect(run('dose', { loop_ml: 1000, left_ml: 800, target_fraction: 0.3 })).toMatchObject({
      possible: false,
      drain_more_ml: expect.closeTo(100, 9) as number,
    });
  });

  it('checks a ready-mix against its sheet', () => {
    expect(run('dose', { loop_ml: 1000, left_ml: 400, ready_mix_fraction: 0.3, sheet_minimum: 0.2 })).toEqual({
      final_fraction: expect.closeTo(0.18, 12) as number,
      enough: false,
    });
  });

  it.each<[string, object, string]>([
    ['volume', { loop: { ...loop, components: [] as unknown[], tubes: loop.tubes } }, 'loop.tubes[0].from'],
    ['volume', { loop: 7 }, 'loop'],
    ['volume', {}, 'loop'],
    ['hold', { ...good.hold, volume_ml: -1 }, 'volume_ml'],
    ['hold', { ...good.hold, limit_mbar_l_s: 0 }, 'limit_mbar_l_s'],
    ['hold', { ...good.hold, speed: 1 }, 'speed'],
    ['decay', { ...good.decay, readings: [] }, 'readings'],
    ['decay', { ...good.decay, readings: [readings[1], readings[0]] }, 'readings[1].t_s'],
    ['decay', { ...good.decay, liquid_ml: 700 }, 'liquid_ml'],
    ['decay', { ...good.decay, readings: [{ ...readings[0], temp_c: 500 }] }, 'readings[0].temp_c'],
    ['rinse', { ...good.rinse, target_fraction: 0 }, 'target_fraction'],
    ['rinse', { ...good.rinse, rinse_ml: 0 }, 'rinse_ml'],
    ['dose', { ...good.dose, left_ml: 1001 }, 'left_ml'],
    ['dose', { loop_ml: 1000, left_ml: 0 }, ''],
    ['dose', { ...good.dose, ready_mix_fraction: 0.3 }, ''],
    ['dose', { loop_ml: 1000, left_ml: 0, ready_mix_fraction: 0.3 }, ''],
  ])('%s refuses %j at %s', (name, input, path) => {
    expect(refusal(name, input).path).toBe(path);
    expect(refusal(name, input).message.length).toBeGreaterThan(10);
  });

  it.each(Object.keys(good))('%s answers or refuses, whatever one field becomes, and never with NaN', (name) => {
    const keys = Object.keys(good[name] as object);
    fc.assert(
      fc.property(fc.constantFrom(...keys), fc.oneof(fc.anything(), fc.double(), fc.integer()), (key, junk) => {
        try {
          const answer = run(name, { ...good[name], [key]: junk });
          expect(JSON.stringify(answer)).not.toMatch(/:null(?!.*"possible":false)/);
          expect(JSON.parse(JSON.stringify(answer))).toEqual(answer);
        } catch (error) {
          expect(error).toBeInstanceOf(InputProblem);
        }
      }),
      { numRuns: often(400) },
    );
  });

  it('describes each command in a line', () => {
    for (const { summary } of Object.values(CALC_COMMANDS)) expect(summary).toMatch(/^[^\n]{10,100}$/);
  });
});
