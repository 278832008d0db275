import { often } from '../../../tests/often.js';
import fc from 'fast-check';
import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { InputProblem } from '../../base/checking/input.js';
import { CALC_COMMANDS, type CalcCommand } from './commands.js';

/**
 * Every command against documents that are nearly right: a valid one in which some places were replaced, removed or
 * doubled. It must answer with finite numbers or refuse with a path: never crash, hang or give NaN.
 */
const loop: unknown = JSON.parse(readFileSync('examples/two-radiators.json', 'utf8'));
const water = { density_kg_m3: 998.2, viscosity_mpa_s: 1.0016 };
const hose = { material: 'epdm', bore_mm: 10, outer_mm: 16, length_mm: 2000 };
const VALID: Readonly<Record<string, unknown>> = {
  plan: {
    now: '2026-03-09T08:00:00Z',
    technicians: [{ id: 'a', shifts: [{ from: '2026-03-09T08:00:00Z', to: '2026-03-09T16:00:00Z' }] }],
    benches: [{ id: 'w' }],
    jobs: [
      {
        id: 'j',
        release: '2026-03-09T08:00:00Z',
        due: '2026-03-09T09:00:00Z',
        weight: 1,
        steps: [
          { minutes: 30, attended: true },
          { minutes: 60, attended: false, max_wait_minutes: 5 },
        ],
      },
    ],
    seconds: 0,
  },
  volume: { loop },
  flow: { loop, fluid: water, speeds: { pump: 0.7 }, closed: [] },
  drain: { loop, orientation: { pitch_deg: 10, roll_deg: 0 }, open: ['top.vent', 't2.to'], drains: ['gpu.low'], closed: ['t5'] },
  air: { loop, orientation: 'on-back', closed: [], fluid: water },
  fill: { loop, fluid: water },
  rise: { level_rise_mm: 4, area_mm2: 2500, run_gauge_kpa: 20, tubes: [hose] },
  loss: { tubes: [hose, { ...hose, material: 'pvc' }], temp_c: 34 },
  screws: { fan_mm: 25, washers_mm: 1, flange_mm: 1.5, clearance_mm: 4, stock_mm: [28, 30, 35] },
  cut: { pieces_mm: [300, 200, 120], stock_mm: 1000, kerf_mm: 2 },
  saturate: { samples: [20, 34, 41, 45, 47, 48].map((temp_c, k) => ({ t_s: 300 * k, temp_c })) },
  compare: {
    before: {
      room_c: 22,
      powers_w: { cpu: 150, gpu: 300 },
      parts_c: { cpu: 61, gpu: 55 },
      coolant_c: 34,
      pump_speed: 0.6,
      fan_speed: 0.4,
      workload: 'render',
      minutes: 45,
    },
    after: {
      room_c: 25,
      powers_w: { cpu: 160, gpu: 290 },
      parts_c: { cpu: 70, gpu: 57 },
      coolant_c: 38,
      pump_speed: 0.6,
      fan_speed: 0.4,
      workload: 'render',
      reached_fraction: 0.9,
      changed: ['gpu'],
    },
  },
  diagnose: {
    loop,
    fluid: water,
    before: {
      room_c: 22,
      powers_w: { cpu: 150, gpu: 300 },
      parts_c: { cpu: 58, gpu: 66 },
      coolant_c: 33,
      flow_lph: 190,
      pump_speed: 0.7,
      fan_speed: 0.6,
    },
    after: {
      room_c: 24,
      powers_w: { cpu: 150, gpu: 300 },
      parts_c: { cpu: 65, gpu: 73 },
      coolant_c: 40,
      flow_lph: 188,
      pump_speed: 0.7,
      fan_speed: 0.6,
    },
    seen: ['fans-turn'],
  },
  trend: { points: [1, 2, 2.5, 4, 4.5, 6].map((value, k) => ({ day: 30 * k, value })), limit: 9 },
  life: { lives: [6, 9, 14, 20].map((months, k) => ({ months, event: k % 2 === 0, entry_months: k })), risk: 0.05 },
  mates: {
    groups: [
      {
        name: 'a',
        lives: [
          { months: 4, event: true },
          { months: 9, event: false },
        ],
      },
      { name: 'b', lives: [{ months: 6, event: true, entry_months: 2 }] },
    ],
  },
  colour: { a: { L: 50, a: 2.5, b: 0 }, b: { L: 58, a: 24, b: 15 } },
  rinse: { left_ml: 80, rinse_ml: 600, target_fraction: 0.01 },
  dose: { loop_ml: 700, left_ml: 100, target_fraction: 0.3 },
  hold: { volume_ml: 700, limit_mbar_l_s: 0.01, resolution_kpa: 0.1 },
  decay: {
    volume_ml: 700,
    readings: Array.from({ length: 12 }, (_, k) => ({ t_s: 60 * k, gauge_kpa: 50 - 0.01 * k, temp_c: 21 })),
    atmosphere_kpa: 101.3,
    resolution_kpa: 0.1,
    limit_mbar_l_s: 0.01,
  },
};

type Place = (string | number)[];

/** Every place in a document, the document itself left out. */
function places(value: unknown, at: Place = []): Place[] {
  if (typeof value !== 'object' || value === null) return [at];
  const inner = Object.entries(value).flatMap(([key, child]) => places(child, [...at, Array.isArray(value) ? Number(key) : key]));
  return at.length === 0 ? inner : [at, ...inner];
}

const JUNK: fc.Arbitrary<unknown> = fc.oneof(
  fc.constantFrom<unknown>(0, -1, 1e-9, 1e-300, 1e9, 1e308, -0, 0.5, 1, 3, 1e4, 9999.5),
  fc.constantFrom<unknown>(null, true, '', 'res', 'pump', 'top.vent', '__proto__', 'constructor', 'toString', [], {}, [[]]),
  fc.constantFrom<unknown>([0, 0, 0], [1e4, -1e4, 1e4], [[0, 0], [1, 1]], ['in', 'out'], ['res', 'out'], [0, 40]), // prettier-ignore
  fc.double({ noNaN: true, noDefaultInfinity: true }),
  fc.jsonValue({ maxDepth: 2 }),
);
const change = fc.record({ at: fc.nat(), kind: fc.constantFrom('replace', 'replace', 'remove', 'double', 'scale'), junk: JUNK, factor: fc.double({ min: -3, max: 3, noNaN: true }) }); // prettier-ignore
type Change = typeof change extends fc.Arbitrary<infer T> ? T : never;

function apply(document: unknown, { at, kind, junk, factor }: Change): void {
  const all = places(document);
  const place = all[at % Math.max(1, all.length)];
  if (!place || place.length === 0) return;
  const last = place[place.length - 1] as string;
  const owner = place.slice(0, -1).reduce<unknown>((value, key) => (value as Record<string, unknown>)[key as string], document);
  const target = owner as Record<string, unknown>;
  if (kind === 'remove') {
    if (Array.isArray(owner)) owner.splice(Number(last), 1);
    else Reflect.deleteProperty(target, last);
  } else if (kind === 'double' && Array.isArray(owner)) owner.push(structuredClone(owner[Number(last)]));
  else if (kind === 'scale' && typeof target[last] === 'number') target[last] *= 10 ** factor;
  else target[last] = structuredClone(junk);
}

function notFinite(value: unknown): boolean {
  if (typeof value === 'number') return !Number.isFinite(value);
  return typeof value === 'object' && value !== null && Object.values(value).some(notFinite);
}

const commands = Object.keys(CALC_COMMANDS);
const RUNS = often(20_000, 12);

describe('the calc commands against nearly valid input', () => {
  it('has a valid document for every command', () => {
    for (const name of commands) expect(notFinite((CALC_COMMANDS[name] as CalcCommand).run(VALID[name])), name).toBe(false);
  });

  it.each(commands)(`%s answers in finite numbers or refuses with a path`, (name) => {
    const { run } = CALC_COMMANDS[name] as CalcCommand;
    fc.assert(
      fc.property(fc.array(change, { minLength: 1, maxLength: 3 }), (changes) => {
        const document = structuredClone(VALID[name]);
        for (const each of changes) apply(document, each);
        try {
          expect(notFinite(run(document))).toBe(false);
        } catch (error) {
          if (!(error instanceof InputProblem)) throw error;
          expect(typeof error.path).toBe('string');
        }
      }),
      { numRuns: Math.ceil(RUNS / commands.length) },
    );
  });
});
