import { buildProcedure } from '../../bench/procedures/buildProcedure.js';
import { DEFAULT_SCHOOLS } from '../../physics/leak-testing/schools.js';
import { findingsAtBench } from './beforeBuilding.js';
import { loopOf, part, tube, usualLoop } from '../catalogue/testLoops.js';
import { describe, expect, it } from 'vitest';
import { readFileSync } from 'node:fs';
import { readLoopFile } from '../loop-file/loopFileSchema.js';
import type { LoopComponent, LoopFile } from '../loop-file/loopFile.js';
import { openablePorts } from '../../physics/draining/openings.js';
import { loopFindings } from './loopFindings.js';
import type { FindingCode, LoopFinding } from './finding.js';

const found = (loop: LoopFile, code: FindingCode): LoopFinding | undefined => loopFindings(loop).find((finding) => finding.code === code);
/** What speaks against building it so; notes are left out. */
const against = (loop: LoopFile): string[] =>
  loopFindings(loop)
    .filter(({ weight }) => weight !== 'note')
    .map(({ code }) => code);
const example = (name: string): LoopFile => readLoopFile(JSON.parse(readFileSync(`examples/${name}.json`, 'utf8')));
const partOf = (loop: LoopFile, id: string): LoopComponent => loop.components.find((each) => each.id === id) as LoopComponent;

describe('checking a loop before it is built', () => {
  it('has nothing against a usual loop, nor against an empty one', () => {
    expect(against(usualLoop())).toEqual([]);
    expect(loopFindings(loopOf([]))).toEqual([]);
  });

  it('has nothing against branches side by side, nor against two circuits in one case', () => {
    for (const name of ['parallel-cards', 'two-loops-one-case'])
      expect(against(example(name)).filter((code) => code !== 'kink' && code !== 'no-drain')).toEqual([]);
  });

  it('misses a pump, and notes a missing reservoir', () => {
    const loop = loopOf([part('a', 'block', 1), part('b', 'radiator', 1)], [tube('1', 'a', 'b'), tube('2', 'b', 'a')]);
    expect(found(loop, 'no-pump')?.weight).toBe('stop');
    expect(found(loop, 'no-reservoir')?.weight).toBe('note');
  });

  it('sees an open end and a part that nothing feeds', () => {
    const loop = loopOf([part('a', 'reservoir', 1), part('p', 'pump', 1), part('x', 'block', 1)], [tube('1', 'a', 'p')]);
    expect(loopFindings(loop).filter(({ code }) => code === 'open-end').map(({ part: id }) => id)).toEqual(['a', 'p', 'x', 'x']); // prettier-ignore
  });

  it('sees a port without tube or plug', () => {
    const loop = usualLoop();
    delete partOf(loop, 'roof').closures;
    expect(found(loop, 'unplugged-port')).toMatchObject({ part: 'roof', todo: expect.stringContaining('Plug it') as string });
  });

  it('sees two tubes on one bore', () => {
    const loop = loopOf(
      [part('a', 'pump', 1), part('b', 'block', 1), part('c', 'block', 1)],
      [tube('1', 'a', 'b'), tube('2', 'a', 'c'), tube('3', 'b', 'a'), tube('4', 'c', 'a')],
    );
    expect(loopFindings(loop).filter(({ code }) => code === 'two-on-one-port').length).toBe(2);
  });

  it('sees a pump that draws from above its reservoir, judged circuit by circuit', () => {
    const loop = usualLoop();
    partOf(loop, 'pump').ports = { in: [300, 200, 80], out: [300, 190, 80] };
    expect(found(loop, 'pump-above-reservoir')?.part).toBe('pump');
  });

  it('sees a pump that may not run in this attitude', () => {
    const loop = usualLoop();
    partOf(loop, 'pump').may_stand = ['on-back'];
    expect(found(loop, 'pump-attitude')?.todo).toContain('on its back');
    partOf(loop, 'pump').may_stand = ['upright', 'on-back'];
    expect(found(loop, 'pump-attitude')).toBeUndefined();
  });

  it('sees a block that is fed at its outlet', () => {
    const loop = usualLoop();
    loop.tubes = loop.tubes.map((tube) => (tube.to[0] === 'processor' ? { ...tube, to: ['processor', 'out'] as const } : tube));
    expect(found(loop, 'fed-backwards')?.part).toBe('processor');
  });

  it('sees that no drain lies low and no inlet high', () => {
    const loop = usualLoop();
    const sealed = { ...loop, components: loop.components.map((component) => ({ ...component, closures: undefined })) };
    expect(against(sealed)).toEqual(expect.arrayContaining(['no-drain', 'no-air-inlet']));
    expect(found(example('high-drain'), 'no-drain')).toBeDefined();
  });

  it('counts only what hands get at in the built machine', () => {
    const loop = usualLoop();
    const hide = (...ids: readonly string[]): LoopFile => ({
      ...loop,
      components: loop.components.map((each) =>
        ids.includes(each.id) ? { ...each, out_of_reach: Object.keys(each.closures ?? {}) } : each,
      ),
    });
    const opening = loop.components.filter(({ closures }) => closures).map(({ id }) => id);
    expect(against(hide(...opening))).toEqual(expect.arrayContaining(['no-drain', 'no-air-inlet', 'no-fill-port']));
    expect(found(hide('reservoir'), 'no-fill-port')).toMatchObject({ part: 'reservoir', weight: 'look' });
    expect(found(hide('drain'), 'no-drain')).toBeDefined();
    // nothing is advised at a port that no hand gets at
    expect(openablePorts(hide('drain')).some((port) => port.startsWith('drain.'))).toBe(false);
    expect(openablePorts(loop).some((port) => port.startsWith('drain.'))).toBe(true);
  });

  it('notes a loop whose only cap is the one that it is filled by', () => {
    const loop = usualLoop();
    const only = { ...loop, components: loop.components.map((each) => (each.kind === 'reservoir' || each.id === 'drain' ? each : { ...each, closures: undefined })) }; // prettier-ignore
    expect(found(loop, 'one-bore')).toBeUndefined();
    expect(found(only as never, 'one-bore')).toMatchObject({ part: 'reservoir', weight: 'note' });
  });

  it('takes neither a bare plug for a drain, nor a valve above the lowest radiator', () => {
    const loop = usualLoop();
    const closed = (closure: 'plug' | 'valve') => ({
      ...loop,
      components: loop.components.map((part) => (part.id === 'drain' ? { ...part, closures: { drain: closure } } : part)),
    });
    expect(found(loop, 'no-drain')).toBeUndefined();
    expect(found(closed('plug') as typeof loop, 'no-drain')?.text).toContain('bare plug');
    const raised = { ...closed('valve'), components: closed('valve').components.map((part) => (part.id === 'drain' ? { ...part, ports: Object.fromEntries(Object.entries(part.ports).map(([name, [x, , z]]) => [name, [x, 400, z]])) } : part)) }; // prettier-ignore
    expect(found(raised as never, 'no-drain')?.text).toContain('what stands in it stays');
  });

  it('stands at the bench: what must not be built cannot be waved through, what is only trouble later takes a reason', () => {
    const loop = usualLoop();
    const backwards = {
      ...loop,
      tubes: loop.tubes.map((tube) => (tube.to[0] === 'processor' ? { ...tube, to: ['processor', 'out'] as const } : tube)),
    };
    const procedure = buildProcedure({ loop: backwards, schools: DEFAULT_SCHOOLS, order: { bottles: 1 }, coolantName: null });
    for (const id of ['kit', 'close']) {
      const check = procedure.steps.find((step) => step.id === id)?.checks.find((each) => each.id === 'finding:fed-backwards:processor');
      expect(check?.text).toContain('is fed at its outlet. Swap the two tubes');
      expect(check?.mayNotApply).toBeUndefined();
    }
    expect(findingsAtBench(loop)).toEqual([]);
  });

  it('sees tube that does not match its fitting in size or kind', () => {
    const loop = usualLoop();
    const [first] = loop.tubes as [LoopFile['tubes'][number]];
    const fits = { bore_mm: first.bore_mm, outer_mm: first.outer_mm };
    const at = partOf(loop, first.from[0]);
    at.port_fits = { [first.from[1]]: fits };
    expect(found(loop, 'wrong-fitting')).toBeUndefined();
    at.port_fits = { [first.from[1]]: { ...fits, outer_mm: fits.outer_mm - 3 } };
    expect(found(loop, 'wrong-fitting')).toMatchObject({ part: first.id, weight: 'stop' });
    at.port_fits = { [first.from[1]]: { ...fits, soft: false } };
    expect(found(loop, 'wrong-fitting')?.text).toContain('rigid');
  });

  it('sees a tube that is too short for its way: it pulls at its joints', () => {
    const loop = example('two-radiators');
    loop.tubes = loop.tubes.map((tube) => (tube.id === 't3' ? { ...tube, length_mm: 100 } : tube));
    expect(found(loop, 'joint-under-load')?.text).toContain('100 mm long for a way of');
  });

  it('sees a soft tube bent too tightly, and lets a rigid one have its corner', () => {
    const loop = example('two-radiators');
    const kinked = (): (string | null)[] => loopFindings(loop).filter(({ code }) => code === 'kink').map(({ part: id }) => id); // prettier-ignore
    expect(kinked()).not.toContain('t2');
    loop.tubes = loop.tubes.map((tube) => (tube.id === 't2' ? { ...tube, path: [[190, 250, 120], [150, 250, 120]] as const } : tube)); // prettier-ignore
    expect(kinked()).toContain('t2');
    loop.tubes = loop.tubes.map((tube) => ({ ...tube, material: 'acrylic' }));
    expect(found(loop, 'kink')).toBeUndefined();
  });

  it('sees that the panel does not close over a tube', () => {
    const loop = { ...example('two-radiators'), panel_z_mm: 150 };
    expect(found(loop, 'panel-does-not-close')?.text).toContain('8 mm beyond the panel');
    expect(found({ ...loop, panel_z_mm: 200 }, 'panel-does-not-close')).toBeUndefined();
  });

  it('refuses aluminium beside copper, in the same circuit only', () => {
    const loop = example('two-loops-one-case');
    partOf(loop, 'graphics').materials = ['aluminium'];
    const findings = loopFindings(loop).filter(({ code }) => code === 'mixed-metals');
    expect(findings[0]).toMatchObject({ weight: 'stop', part: 'graphics' });
    expect(loopFindings(loop)[0]?.weight).toBe('stop');
  });

  it('notes how many parts carry no pressure rating, until all do', () => {
    const loop = usualLoop();
    expect(found(loop, 'no-pressure-rating')).toMatchObject({ weight: 'note' });
    for (const each of loop.components) each.pressure_rating_kpa = 100;
    expect(found(loop, 'no-pressure-rating')).toBeUndefined();
  });

  it('says what to do about each', () => {
    const loop = loopOf([part('a', 'block', 1)]);
    expect(loopFindings(loop).every(({ todo }) => todo.length > 10)).toBe(true);
  });
});
