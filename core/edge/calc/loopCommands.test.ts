import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { InputProblem } from '../../base/checking/input.js';
import type { LoopComponent, LoopFile } from '../../machine/loop-file/loopFile.js';
import { CALC_COMMANDS, type CalcCommand } from './commands.js';

/** The commands that take a loop, as documents: what comes out by the contract, and where a wrong input is wrong. */
const example = (): LoopFile => JSON.parse(readFileSync('examples/two-radiators.json', 'utf8')) as LoopFile;
const partOf = (loop: LoopFile, id: string): LoopComponent => loop.components.find((each) => each.id === id) as LoopComponent;
const fluid = { density_kg_m3: 998.2, viscosity_mpa_s: 1.0016 };
const run = <T>(name: string, input: object): T => (CALC_COMMANDS[name] as CalcCommand).run(input) as T;
function refusal(name: string, input: object): { path: string; message: string } {
  try {
    run(name, input);
  } catch (error) {
    if (error instanceof InputProblem) return { path: error.path, message: error.message };
    throw error;
  }
  throw new Error('was accepted');
}

interface FlowOut {
  links: Record<string, { flow_lph: number; dp_kpa: number }>;
  ports: Record<string, { gauge_kpa: number }>;
  converged: boolean;
  iterations: number;
}
interface DrainOut {
  drained_ml: number;
  held_ml: number;
  trapped_high_ml: number;
  trapped_low_ml: number;
  spills: { port: string; volume_ml: number }[];
  parts: ({ id: string } & Record<string, number>)[];
}

describe('calc flow', () => {
  it('gives every component and tube as a link and every port a pressure', () => {
    const loop = example();
    const out = run<FlowOut>('flow', { loop, fluid });
    expect(Object.keys(out.links)).toEqual([...loop.components, ...loop.tubes].map(({ id }) => id));
    expect(Object.keys(out.ports)).toEqual(loop.components.flatMap(({ id, ports }) => Object.keys(ports).map((port) => `${id}.${port}`)));
    expect(out).toMatchObject({ converged: true });
    expect(out.links.pump?.dp_kpa).toBeLessThan(0);
  });

  it('takes speeds and shut links, and stands still without complaint', () => {
    const slow = run<FlowOut>('flow', { loop: example(), fluid, speeds: { pump: 0.5 } });
    expect(slow.links.cpu?.flow_lph).toBeLessThan(run<FlowOut>('flow', { loop: example(), fluid }).links.cpu?.flow_lph as number);
    for (const closed of [['t2'], ['cpu'], ['pump']]) {
      const out = run<FlowOut>('flow', { loop: example(), fluid, closed });
      expect(out.converged).toBe(true);
      for (const { flow_lph } of Object.values(out.links)) expect(flow_lph).toBe(0);
    }
  });

  it('turns round what a tube that points backwards carries', () => {
    const loop = example();
    loop.tubes = loop.tubes.map((tube) => (tube.id === 't2' ? { ...tube, from: tube.to, to: tube.from } : tube));
    const out = run<FlowOut>('flow', { loop, fluid });
    expect(out.links.t2?.flow_lph).toBeCloseTo(-(out.links.t1?.flow_lph as number), 6);
    expect(out.links.t2?.dp_kpa).toBeLessThan(0);
  });

  it.each<[string, object, string]>([
    ['no fluid', { loop: example() }, 'fluid'],
    ['a fluid without viscosity', { loop: example(), fluid: { density_kg_m3: 998 } }, 'fluid.viscosity_mpa_s'],
    ['a density in g/cm³', { loop: example(), fluid: { ...fluid, density_kg_m3: 0.998 } }, 'fluid.density_kg_m3'],
    ['a speed above full', { loop: example(), fluid, speeds: { pump: 1.5 } }, 'speeds.pump'],
    ['the speed of a block', { loop: example(), fluid, speeds: { cpu: 1 } }, 'speeds.cpu'],
    ['an unknown link', { loop: example(), fluid, closed: ['t0', 'moon'] }, 'closed[1]'],
    ['an unknown field', { loop: example(), fluid, close: [] }, 'close'],
  ])('refuses %s by its place', (_name, input, path) => {
    expect(refusal('flow', input).path).toBe(path);
  });

  it('asks for the curve of a pump that runs, not of one that stands or is shut', () => {
    const loop = example();
    delete partOf(loop, 'pump').curve;
    expect(refusal('flow', { loop, fluid }).path).toBe('loop.components[1].curve');
    expect(run<FlowOut>('flow', { loop, fluid, speeds: { pump: 0 } }).converged).toBe(true);
    expect(run<FlowOut>('flow', { loop, fluid, closed: ['pump'] }).converged).toBe(true);
  });

  it('refuses a loss that falls and a pump whose pressure rises', () => {
    const loop = example();
    partOf(loop, 'cpu').resistance = { points: [[100, 5], [200, 4]] }; // prettier-ignore
    expect(refusal('flow', { loop, fluid }).path).toBe('loop.components[4].resistance.points[1]');
    const rising = example();
    partOf(rising, 'pump').curve = [[0, 30], [500, 40]]; // prettier-ignore
    expect(refusal('flow', { loop: rising, fluid }).message).toContain('must not rise with flow');
  });
});

describe('calc drain', () => {
  const upright = (more: object = {}): object => ({
    loop: example(),
    orientation: 'upright',
    open: ['top.vent'],
    drains: ['gpu.low'],
    ...more,
  });

  it('adds up to the loop, part by part', () => {
    const out = run<DrainOut>('drain', upright());
    const whole = run<{ total_ml: number; parts: { id: string; volume_ml: number }[] }>('volume', { loop: example() });
    expect(out.drained_ml + out.held_ml + out.trapped_high_ml + out.trapped_low_ml).toBeCloseTo(whole.total_ml, 6);
    out.parts.forEach(({ id, drained_ml, held_ml, trapped_high_ml, trapped_low_ml }, index) => {
      expect(id).toBe(whole.parts[index]?.id);
      const shares = [drained_ml, held_ml, trapped_high_ml, trapped_low_ml] as number[];
      expect(shares.reduce((sum, ml) => sum + ml, 0)).toBeCloseTo(whole.parts[index]?.volume_ml as number, 6);
    });
  });

  it('says the same of a stand by name and by its angles', () => {
    const named = run<DrainOut>('drain', upright({ orientation: 'on-window-side' }));
    expect(run<DrainOut>('drain', upright({ orientation: { pitch_deg: 0, roll_deg: 90 } }))).toEqual(named);
  });

  it('counts a port in drains as open, whether or not it is named twice', () => {
    expect(run<DrainOut>('drain', upright({ open: ['top.vent', 'gpu.low'] }))).toEqual(run<DrainOut>('drain', upright()));
  });

  it('warns of a joint undone as one opening, and cuts the way there', () => {
    const out = run<DrainOut>('drain', upright({ open: ['top.vent', 't3.from'] }));
    expect(out.spills.filter(({ port }) => port === 't3.from').length).toBe(1);
    expect(out.spills.find(({ port }) => port === 't3.from')?.volume_ml).toBeGreaterThan(100);
  });

  it.each<[string, object, string]>([
    ['no drain', { drains: [] }, 'drains'],
    ['a port that is not there', { open: ['top.vent', 'top.window'] }, 'open[1]'],
    ['a tube without end', { drains: ['t2'] }, 'drains[0]'],
    ['a component among the shut tubes', { closed: ['cpu'] }, 'closed[0]'],
    ['an unknown stand', { orientation: 'sideways' }, 'orientation'],
    ['half an angle', { orientation: { pitch_deg: 10 } }, 'orientation'],
  ])('refuses %s by its place', (_name, more, path) => {
    expect(refusal('drain', upright(more)).path).toBe(path);
  });

  it('asks for the box of a vessel: without it its liquid has no height', () => {
    const loop = example();
    delete partOf(loop, 'front').box;
    expect(refusal('drain', upright({ loop }))).toMatchObject({
      path: 'loop.components[2].box',
      message: expect.stringContaining('front') as string,
    });
    expect(run<{ total_ml: number }>('volume', { loop }).total_ml).toBeGreaterThan(800);
  });
});

describe('calc air and fill', () => {
  it('lists pockets largest first, and splits them only when the fluid is known', () => {
    const air = { loop: example(), orientation: 'on-blind-side' };
    const plain = run<{ pockets: Record<string, number>[]; total_ml: number }>('air', air);
    expect(plain.pockets.length).toBeGreaterThan(1);
    expect(plain.pockets.map((pocket) => pocket.volume_ml)).toEqual(
      plain.pockets.map((pocket) => pocket.volume_ml).sort((a, b) => (b as number) - (a as number)),
    );
    expect(plain.pockets[0]).not.toHaveProperty('swept_ml');
    for (const { volume_ml, swept_ml, stays_ml } of run<typeof plain>('air', { ...air, fluid }).pockets) {
      expect((swept_ml as number) + (stays_ml as number)).toBeCloseTo(volume_ml as number, 6);
    }
  });

  it('sweeps nothing through a loop that a shut tube stops', () => {
    const out = run<{ pockets: { swept_ml: number }[] }>('air', { loop: example(), orientation: 'upright', fluid, closed: ['t5'] });
    for (const { swept_ml } of out.pockets) expect(swept_ml).toBe(0);
  });

  it('fills from a reservoir in pulses, and by gravity without one', () => {
    const pulses = run<{ primes: boolean; passive_ml: number; pulses: { refill_ml: number }[]; total_ml: number }>('fill', {
      loop: example(),
      fluid,
    });
    expect(pulses.primes).toBe(true);
    expect(pulses.pulses.reduce((sum, { refill_ml }) => sum + refill_ml, pulses.passive_ml)).toBeCloseTo(pulses.total_ml, 6);
    const loop = example();
    partOf(loop, 'res').kind = 'radiator';
    const gravity = run<{ primes: boolean; gravity: { turns: { orientation: string; poured_ml: number }[]; total_ml: number } }>('fill', {
      loop,
      fluid,
    });
    expect(gravity.primes).toBe(false);
    expect(gravity.gravity.turns.reduce((sum, { poured_ml }) => sum + poured_ml, 0)).toBeCloseTo(gravity.gravity.total_ml, 6);
  });
});
