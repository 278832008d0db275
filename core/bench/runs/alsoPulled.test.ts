import { describe, expect, it } from 'vitest';
import { lackWords, procedureOf, TestRun } from '../../../tests/bench/testRun.js';
import { buildProcedure } from '../procedures/buildProcedure.js';
import { DEFAULT_SCHOOLS } from '../../physics/leak-testing/schools.js';
import { usualLoop } from '../../machine/catalogue/testLoops.js';
import { usualSheet } from '../../machine/electrical/usual.js';
import type { Procedure } from './procedure.js';
import { procedureNow } from './alsoPulled.js';
import { sheetAfterRun, stillOff } from './connectorsAfter.js';

const LIGHTS = { type: 'also-pulled', step: 'isolate', line: 'l1', name: 'Light strip, rear' } as const;
const ids = (run: TestRun, step: string): string[] =>
  procedureNow(run.procedure, run.state)
    .steps.find(({ id }) => id === step)
    ?.checks.map(({ id }) => id) ?? [];

describe('a connector that no list knew', () => {
  it('is pulled as it is written down, and comes back by name', () => {
    const run = new TestRun(procedureOf()).upTo('isolate');
    run.say(LIGHTS);
    expect(run.state.steps.find(({ id }) => id === 'isolate')?.checks['pulled:beside:l1']?.mark).toBe('done');
    expect(ids(run, 'isolate').indexOf('pulled:beside:l1')).toBe(ids(run, 'isolate').indexOf('pulled:drive-power') + 1);
    expect(ids(run, 'power').indexOf('back:beside:l1')).toBe(ids(run, 'power').indexOf('back:drive-power') + 1);
  });

  it('is missed where it did not come back', () => {
    const run = new TestRun(procedureOf()).upTo('isolate');
    run.say(LIGHTS);
    const lacks = (checks: Procedure): string => lackWords(checks, run.state, 'power', run.nowMs)[0] ?? '';
    const open = (words: string): number => Number(/^(\d+) checks/.exec(words)?.[1]);
    expect(open(lacks(procedureNow(run.procedure, run.state)))).toBe(open(lacks(run.procedure)) + 1);
  });

  it('stands there once, and only where loads come off', () => {
    const run = new TestRun(procedureOf()).upTo('isolate');
    run.say(LIGHTS);
    expect(run.try({ ...LIGHTS, line: 'l2', name: 'light strip, REAR' })?.message).toContain('stands on the list already');
    expect(run.try({ ...LIGHTS, step: 'close', line: 'l3', name: 'Hub' })?.message).toContain('nothing is pulled');
  });

  it('is not planned twice where its lines are in already', () => {
    const run = new TestRun(procedureOf()).upTo('isolate');
    run.say(LIGHTS);
    const now = procedureNow(run.procedure, run.state);
    expect(procedureNow(now, run.state)).toBe(now);
    expect(procedureNow(run.procedure, run.state)).toBe(now);
  });
});

describe('what a run tells of the connectors', () => {
  const LOOP = 'loop-1';
  const sheet = usualSheet([{ id: LOOP, file: usualLoop() }]);
  const given = { loop: usualLoop(), schools: DEFAULT_SCHOOLS, order: null, coolantName: null };

  it('is nothing where all came back and a sheet is none', () => {
    const run = new TestRun(procedureOf()).upTo('isolate');
    expect(sheetAfterRun(null, usualLoop(), run.procedure, run.state)).toBeNull();
  });

  it('makes a sheet of what any machine has, once there is something to remember', () => {
    const run = new TestRun(procedureOf()).upTo('isolate');
    run.say(LIGHTS).say({ type: 'check', step: 'isolate', check: 'pulled:card-power', mark: 'not-needed', reason: 'no card in it' });
    const made = sheetAfterRun(null, usualLoop(), run.procedure, run.state);
    expect(made?.connectors.map(({ name }) => name)).toEqual([
      'Board main connector',
      'Board processor connector',
      'Drives, lights and hubs',
      'Light strip, rear',
    ]);
  });

  it('keeps with its reason what stays off', () => {
    const schools = { ...DEFAULT_SCHOOLS, wet: 'ten-minutes' } as const;
    const run = new TestRun(buildProcedure({ ...given, schools, connectors: { sheet, loopId: LOOP } })).upTo('power');
    const card = sheet.connectors.find(({ kind }) => kind === 'card-power');
    const check = `back:card-power:${card?.id}`;
    run.say({ type: 'check', step: 'power', check, mark: 'not-needed', reason: 'the owner has the card' });
    expect(stillOff(run.procedure, run.state)).toEqual([{ id: check, lead: card?.name, why: 'the owner has the card' }]);
    expect(sheetAfterRun(sheet, usualLoop(), run.procedure, run.state)?.connectors.find(({ id }) => id === card?.id)?.openWhy).toBe(
      'the owner has the card',
    );
  });

  it('asks for leads of another supply before there is power', () => {
    const foreign = {
      ...sheet,
      supply: 'Tern 750',
      connectors: sheet.connectors.map((each) => (each.kind === 'card-power' ? { ...each, cable: 'foreign' as const } : each)),
    };
    const checks = (of: typeof sheet) =>
      buildProcedure({ ...given, connectors: { sheet: of, loopId: LOOP } }).steps.find(({ kind }) => kind === 'power')?.checks ?? [];
    expect(checks(sheet).some(({ id }) => id === 'supply-cables')).toBe(false);
    expect(checks(foreign).find(({ id }) => id === 'supply-cables')).toMatchObject({
      text: 'Leads that came with Tern 750, or each pin measured before power: Graphics card connectors',
      beforePower: true,
    });
  });
});
