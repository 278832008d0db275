import { loopOf, part, tube, usualLoop } from '../../machine/catalogue/testLoops.js';
import { buildProcedure } from './buildProcedure.js';
import { procedureOf, TestRun } from '../../../tests/bench/testRun.js';
import { fillByGravity } from '../../physics/filling/gravityFill.js';
import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { circuitFiles, type OwnCircuit } from '../../machine/loop-file/circuits.js';
import { readLoopFile } from '../../machine/loop-file/loopFileSchema.js';
import { USUAL_STACK } from '../../machine/shop-sums/fanScrews.js';
import type { Procedure } from '../runs/procedure.js';
import { DEFAULT_SCHOOLS, LEAK_SCHOOL_KEYS } from '../../physics/leak-testing/schools.js';

const stepIds = (schools: Parameters<typeof procedureOf>[0]): string[] => procedureOf(schools).steps.map(({ id }) => id);
const texts = (procedure: ReturnType<typeof procedureOf>, stepId: string): string[] =>
  procedure.steps.find(({ id }) => id === stepId)?.checks.map(({ text }) => text) ?? [];

describe('the procedure by school', () => {
  it('goes from the kit to the sign-off', () => {
    expect(stepIds({ leak: 'dry-then-wet' })).toEqual([
      'kit',
      'flush',
      'assemble',
      'close',
      'isolate',
      'dry',
      'fill',
      'wet',
      'bleed',
      'power',
      'baseline',
      'sign-off',
    ]);
  });

  it('leaves out the test that the school does without', () => {
    expect(stepIds({ leak: 'wet-only' })).not.toContain('dry');
    expect(stepIds({ leak: 'dry-only' })).not.toContain('wet');
    expect(procedureOf({ leak: 'wet-only' }).dry).toBeNull();
    expect(procedureOf({ leak: 'dry-only' }).wetSeconds).toBeNull();
  });

  it('never leaves out what protects people and electronics', () => {
    for (const leak of LEAK_SCHOOL_KEYS) expect(stepIds({ leak })).toEqual(expect.arrayContaining(['close', 'isolate', 'power']));
  });

  it('times the wet run by its school', () => {
    const timer = (wet: 'ten-minutes' | 'hours' | 'day'): number | undefined =>
      procedureOf({ wet }).steps.find(({ id }) => id === 'wet')?.timers[0]?.seconds;
    expect([timer('ten-minutes'), timer('hours'), timer('day')]).toEqual([600, 14_400, 86_400]);
  });

  it('inspects a long run three times, a short one twice', () => {
    expect(texts(procedureOf({ wet: 'day' }), 'wet').filter((text) => text.startsWith('All'))).toHaveLength(2);
    expect(texts(procedureOf({ wet: 'ten-minutes' }), 'wet').filter((text) => text.startsWith('All'))).toHaveLength(1);
  });
});

describe('the procedure knows its own loop', () => {
  const procedure = procedureOf();

  it('asks for every new radiator and block to be flushed', () => {
    expect(texts(procedure, 'flush')).toEqual(['Flushed: graphics', 'Flushed: processor', 'Flushed: roof', 'Flushed: front']);
  });

  it('names every run in flow order, and every closure, the valve with its handle', () => {
    const close = texts(procedure, 'close');
    expect(close.find((text) => text.startsWith('Both joints'))).toBe('Both joints tight: reservoir → pump');
    expect(close).toContain('Valve shut, handle across the pipe: drain');
    expect(close.filter((text) => text.startsWith('Both joints'))).toHaveLength(7);
  });

  it('puts every part together by name, each radiator with its own screws, one by one', () => {
    const assemble = procedure.steps.find(({ id }) => id === 'assemble')?.checks ?? [];
    const radiators = usualLoop().components.filter(({ kind }) => kind === 'radiator');
    const screws = assemble.filter(({ id }) => id.startsWith('fan-screws:'));
    expect(screws.map(({ place }) => place)).toEqual(radiators.map(({ id }) => id));
    expect(
      screws.every(({ together, beforePower, text }) => together === undefined && beforePower && text.startsWith('Measured before')),
    ).toBe(true);
    expect(assemble.filter(({ id }) => id.startsWith('fits-card:'))).toHaveLength(1);
    const measured = buildProcedure({ loop: usualLoop(), schools: DEFAULT_SCHOOLS, order: null, coolantName: null, fanStacks: { [radiators[0]?.id ?? '']: USUAL_STACK } }); // prettier-ignore
    expect(texts(measured, 'assemble').find((text) => text.includes('crosswise'))).toMatch(/^Screws of \d+ mm/);
  });

  it('says which runs give way least, so that they are made first', () => {
    expect(texts(procedure, 'close').find((text) => text.startsWith('Shortest'))).toContain('reservoir → pump (10 mm)');
  });

  it('puts nothing together where parts that were in use are tested again', () => {
    const again = buildProcedure({ loop: usualLoop(), schools: { ...DEFAULT_SCHOOLS, leak: 'opened-joints' }, order: null, coolantName: null, opened: { joints: [usualLoop().tubes[0]?.id ?? ''], lostMl: 20 } }); // prettier-ignore
    expect(again.steps.map(({ id }) => id)).not.toContain('assemble');
  });

  it('orders the bottles and plugs that it needs', () => {
    expect(texts(procedure, 'kit')).toEqual(expect.arrayContaining(['2 bottles of Plain Clear', '2 plugs for unused ports, and a spare']));
  });

  it('names the screws of each radiator that was measured, and says which was not', () => {
    const radiators = usualLoop().components.filter(({ kind }) => kind === 'radiator');
    const [first] = radiators;
    const given = { loop: usualLoop(), schools: DEFAULT_SCHOOLS, order: null, coolantName: null };
    const screws = (of: Procedure): string => texts(of, 'kit').find((text) => text.startsWith('Fan and radiator screws')) ?? '';
    expect(screws(buildProcedure(given)).match(/not measured yet/g)).toHaveLength(radiators.length);
    const measured = screws(buildProcedure({ ...given, fanStacks: { [first?.id ?? '']: { ...USUAL_STACK, panelMm: 1, spacerMm: 1 } } }));
    expect(measured).toMatch(/ 32 mm; .* not measured yet/);
  });

  it('puts back by name what was pulled', () => {
    const pulled = texts(procedure, 'isolate').filter((text) => text.startsWith('Pulled'));
    const back = texts(procedure, 'power').filter((text) => text.startsWith('Reconnected'));
    expect(back).toEqual(pulled.map((text) => text.replace('Pulled', 'Reconnected')));
  });

  it('gives every check of a step an id of its own', () => {
    for (const step of procedure.steps) expect(new Set(step.checks.map(({ id }) => id)).size).toBe(step.checks.length);
  });

  it('proposes the hold time from the gauge and the loop', () => {
    expect(procedureOf({ limit: 'long', gaugeResolutionKpa: 0.5 }).dry?.holdMinutes).toBeGreaterThan(
      procedureOf().dry?.holdMinutes ?? Infinity,
    );
  });

  it('can be built for the contract’s example and for a loop without reservoir', () => {
    const example = readLoopFile(JSON.parse(readFileSync('examples/two-radiators.json', 'utf8')));
    const bare = loopOf([part('p', 'pump', 20), part('b', 'block', 30)], [tube('1', 'p', 'b'), tube('2', 'b', 'p')]);
    for (const loop of [example, bare, usualLoop()]) {
      expect(buildProcedure({ loop, schools: DEFAULT_SCHOOLS, order: null, coolantName: null }).steps.length).toBeGreaterThan(8);
    }
  });
});

describe('two circuits in one case', () => {
  const two = readLoopFile(JSON.parse(readFileSync('examples/two-loops-one-case.json', 'utf8')));
  const [own, other] = circuitFiles(two);
  const led = (isFilled: boolean) =>
    buildProcedure({
      ...{ loop: (own as OwnCircuit).file, schools: DEFAULT_SCHOOLS, order: null, coolantName: null },
      pumpsBeside: [{ id: 'b:pump', name: 'small pump', loop: (other as OwnCircuit).name, isFilled }],
    });

  it('are led each for itself, with its own fill, and pull the pump of the other', () => {
    expect(led(false).fillPlan.kind).toBe('pulses');
    expect(texts(led(false), 'isolate')).toContain('Pump connector of small pump pulled until Graphics block is filled');
    expect(texts(led(true), 'power')).toContain('Pump connector of small pump (Graphics block) back in');
  });

  it('never order a pump back onto the supply while its loop may be dry', () => {
    expect(texts(led(false), 'power').filter((text) => /Pump connector/.test(text))).toEqual([
      'Pump connector of small pump back in only where Graphics block is filled by now; else it stays pulled',
    ]);
    expect(
      texts(buildProcedure({ loop: usualLoop(), schools: DEFAULT_SCHOOLS, order: null, coolantName: null }), 'isolate').join(),
    ).not.toContain('Pump connector');
  });
});

describe('a loop without a reservoir', () => {
  const bare = readLoopFile(JSON.parse(readFileSync('examples/no-reservoir.json', 'utf8')));
  const procedure = buildProcedure({ loop: bare, schools: { ...DEFAULT_SCHOOLS, wet: 'ten-minutes' }, order: null, coolantName: null });
  const said = procedure.steps.flatMap(({ lead, cautions, checks }) => [lead, ...cautions, ...checks.map(({ text }) => text)]);

  it('is filled from a bottle, turn by turn, weighed, and closed over a cushion; nothing speaks of a mark', () => {
    const fill = procedure.steps.find(({ kind }) => kind === 'fill');
    expect(fill?.checks.map(({ id }) => id)).toEqual(
      expect.arrayContaining(['weighed-before', 'bottle-turn:0', 'short-runs', 'level-stays', 'cushion', 'weighed-after']),
    );
    const turns = fillByGravity(bare).turns;
    expect(fill?.checks.filter(({ id }) => id.startsWith('bottle-turn:'))).toHaveLength(turns.length);
    expect(fill?.checks.find(({ id }) => id === 'cushion')?.text).toMatch(/About \d+ mL drawn off/);
    expect(said.filter((text) => /\bmark\b|reservoir/i.test(text) && !/its mark in a year/.test(text))).toEqual([]);
  });

  it('may be turned with its bottle connected, and not with an open port', () => {
    const run = new TestRun(procedure).upTo('fill');
    const port = procedure.facts?.gravity?.port ?? '';
    run.say({ type: 'port', port, open: true, bottle: true });
    expect(run.state.bottleOn).toBe(port);
    expect(run.try({ type: 'turn', to: 'on-back', angleDeg: 90 })).toBeNull();
    run.say({ type: 'port', port, open: false });
    expect(run.state.bottleOn).toBeNull();
  });
});
