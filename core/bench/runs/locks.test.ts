import { buildRecord } from '../../edge/records/record.js';
import { usualLoop } from '../../machine/catalogue/testLoops.js';
import type { RunEventBody } from './entries/all.js';
import { CAN_OVERRIDE, dryingLeftMs, openFailures, type LockRule } from './locks.js';
import { fillBalance, levelNow, roomToMark } from './contents.js';
import { buildProcedure } from '../procedures/buildProcedure.js';
import { replay } from './replay.js';
import { lackWords, procedureOf, TestRun } from '../../../tests/bench/testRun.js';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { changePart } from '../../machine/catalogue/edit.js';
import { DEFAULT_SCHOOLS } from '../../physics/leak-testing/schools.js';
import { often } from '../../../tests/often.js';

const pumpOn: RunEventBody = { type: 'pump', on: true };
const pumpOff: RunEventBody = { type: 'pump', on: false };
const facts = procedureOf().facts;
const portEnding = (end: string): string => facts?.ports.find(({ name }) => name.endsWith(end))?.name ?? '';
const FILL = portEnding('.fill');
const VALVE = facts?.ports.find(({ valve }) => valve)?.name ?? '';
const JOINT = facts?.joints[2]?.id ?? '';
const rule = (run: TestRun, body: RunEventBody): LockRule | null => run.try(body)?.rule ?? null;

describe('the pump', () => {
  it('stays off until everything else is off its plug, and says how much is left to pull', () => {
    const run = new TestRun().upTo('isolate');
    expect(run.try(pumpOn)).toMatchObject({ rule: 'not-isolated', mayOverride: false });
    expect(run.try(pumpOn)?.message).toMatch(/\d still to pull/);
    run.tick('isolate').say({ type: 'step-done', step: 'isolate' });
    expect(rule(run, pumpOn)).toBe('pump-dry');
  });

  it('never runs in a loop that is known to be empty, and may once something was poured', () => {
    const run = new TestRun().upTo('fill');
    expect(run.try(pumpOn)).toMatchObject({ rule: 'pump-dry', mayOverride: false });
    expect(rule(run, { type: 'pump', on: true, override: { rule: 'pump-dry', reason: 'just for a second' } })).toBe('pump-dry');
    expect(levelNow(run.procedure, run.state, run.nowMs)).toMatchObject({ ml: 0, measured: false });
    expect(rule(run.pourAll(), pumpOn)).toBeNull();
    // small service work on a full loop begins with its liquid inside
    const opened = new TestRun(
      buildProcedure({
        loop: usualLoop(),
        schools: { ...DEFAULT_SCHOOLS, leak: 'opened-joints', wet: 'ten-minutes' },
        order: null,
        coolantName: null,
        opened: { joints: [JOINT], lostMl: 60 },
      }),
    ).upTo('fill');
    expect(rule(opened, pumpOn)).toBeNull();
  });

  it('counts what a part brought that was tested with water inside, all of it', () => {
    const run = new TestRun().upTo('fill');
    run.say({ type: 'part-test', part: 'roof', tight: true, how: 'filled and laid on paper', leftMl: 60 }).pourAll();
    const poured = run.state.pours.reduce((sum, { value }) => sum + value, 0);
    expect(fillBalance(run.procedure, run.state).pouredMl).toBeCloseTo(poured + 60, 9);
  });

  it('knows the room up to the mark from the last level, until the pump moves it', () => {
    const mark = facts?.reservoir?.fillMarkMl ?? 0;
    const run = new TestRun().upTo('fill').pourAll();
    expect(roomToMark(run.procedure, run.state)).toBeNull();
    run.say({ type: 'level', levelMl: mark - 70 });
    expect(roomToMark(run.procedure, run.state)).toBeCloseTo(70, 9);
    run.say({ type: 'pour', volumeMl: 50 });
    expect(roomToMark(run.procedure, run.state)).toBeCloseTo(20, 9);
    run.say(pumpOn).say(pumpOff);
    expect(roomToMark(run.procedure, run.state)).toBeNull();
  });

  it('that is switched off stops the clock of the wet test, which counts a running pump', () => {
    const run = new TestRun().upTo('wet').say({ type: 'timer-started', step: 'wet', timer: 'wet-run' }).wait(60).say(pumpOff);
    expect(run.state.timers['wet-run']?.stoppedAt).toBe(run.events.at(-1)?.at);
    expect(run.say({ type: 'timer-started', step: 'wet', timer: 'wet-run' }).state.pump?.on).toBe(true);
  });

  it('stays off, and every port and joint shut, while the air of the test stands inside', () => {
    const run = new TestRun().upTo('dry').tick('dry').dryTest(30);
    for (const body of [pumpOn, { type: 'port', port: FILL, open: true }, { type: 'joint', joint: JOINT, open: true }] as const)
      expect(rule(run, body)).toBe('under-air');
    // an instrument that reads on while the air goes out tells of no leak
    run.say({ type: 'dry-reading', gaugeKpa: 0.1, tempC: 21, source: 'instrument' }).tick('dry');
    expect(rule(run, { type: 'port', port: FILL, open: true })).toBeNull();
    expect(run.try({ type: 'step-done', step: 'dry' })).toBeNull();
    // pumped up again, it stands inside again
    const again = new TestRun().upTo('dry').dryTest(30).tick('dry').say({ type: 'dry-reading', gaugeKpa: 50, tempC: 21 });
    expect(rule(again, { type: 'port', port: FILL, open: true })).toBe('under-air');
  });

  it('stays off behind a test that was begun anew or passed over, until its air is out', () => {
    const run = new TestRun().upTo('dry').say({ type: 'dry-reading', gaugeKpa: 50, tempC: 21 });
    const fill = { type: 'port', port: FILL, open: true } as const;
    const leave = { type: 'deviation', step: 'dry', reason: 'no time today' } as const;
    // its air is no less inside for the readings being told from zero
    run.say({ type: 'dry-restarted', reason: 'the hose was loose' });
    for (const body of [pumpOn, fill, leave]) expect(rule(run, body)).toBe('under-air');
    expect(run.try({ ...leave, override: { rule: 'under-air', reason: 'it hisses' } } as typeof leave)).not.toBeNull();
    // the test is over: its air may go
    const out = { type: 'check', step: 'dry', check: 'air-out', mark: 'done' } as const;
    expect(run.try(out)).toBeNull();
    const tick = new TestRun().upTo('dry').say({ type: 'dry-reading', gaugeKpa: 50, tempC: 21 });
    expect(tick.try(out)).toMatchObject({ code: 'too-early' });
    expect(rule(run, fill)).toBeNull();
    // raised again it is inside again; who leaves the step says that it is out
    run.say({ type: 'dry-reading', gaugeKpa: 50, tempC: 21 });
    expect(rule(run, leave)).toBe('under-air');
    run.say({ ...leave, airOut: true });
    expect(run.state.steps.find(({ id }) => id === 'dry')).toMatchObject({ status: 'done', checks: { 'air-out': { mark: 'done' } } });
    expect(rule(run, fill)).toBeNull();
  });

  it('stays off while a joint is recorded undone, whatever reason is given', () => {
    const run = new TestRun().upTo('fill').pourAll().say({ type: 'joint', joint: JOINT, open: true });
    expect(rule(run, pumpOn)).toBe('joint-open');
    expect(rule(run, { type: 'pump', on: true, override: { rule: 'joint-open', reason: 'it will be all right' } })).toBe('joint-open');
    expect(rule(run.say({ type: 'joint', joint: JOINT, open: false }), pumpOn)).toBeNull();
  });

  it('may run with the fill port open while filling, but not with the drain valve', () => {
    const run = new TestRun().upTo('fill').pourAll().say({ type: 'port', port: FILL, open: true });
    expect(rule(run, pumpOn)).toBeNull();
    const other = new TestRun().upTo('fill').say({ type: 'port', port: VALVE, open: true });
    expect(rule(other, pumpOn)).toBe('port-open');
  });

  it('stays off at the low mark in every step: a level that was read passes, a reason never', () => {
    const run = new TestRun().upTo('fill').pourAll();
    const low = facts?.reservoir?.lowMarkMl ?? 0;
    run.say({ type: 'level', levelMl: low - 5 });
    expect(run.try(pumpOn)).toMatchObject({ rule: 'low-mark', mayOverride: false });
    expect(rule(run, { type: 'pump', on: true, override: { rule: 'low-mark', reason: 'Jorrit pours while it runs' } })).toBe('low-mark');
    expect(rule(run.say({ type: 'level', levelMl: low + 60 }), pumpOn)).toBeNull();
    const wet = new TestRun().upTo('wet').say({ type: 'level', levelMl: low - 5 });
    expect(rule(wet, { type: 'timer-started', step: 'wet', timer: 'wet-run' })).toBe('low-mark');
  });

  it('is off beyond the angle at which the outlet uncovers, and may not be turned that far while on', () => {
    const turn = facts?.uncovers.find(({ angleDeg }) => angleDeg !== null);
    expect(turn).toBeDefined();
    const { towards: to, angleDeg } = turn as { towards: 'on-back'; angleDeg: number };
    const run = new TestRun().upTo('bleed');
    run.say({ type: 'turn', to, angleDeg: angleDeg + 2 });
    expect(rule(run, pumpOn)).toBe('pump-turned');
    run.say({ type: 'turn', to: 'upright', angleDeg: 0 }).say(pumpOn);
    expect(rule(run, { type: 'turn', to, angleDeg })).toBe('outlet-uncovers');
    expect(rule(run, { type: 'turn', to, angleDeg: Math.max(0, angleDeg - 1) })).toBeNull();
    expect(rule(run.say(pumpOff), { type: 'turn', to, angleDeg })).toBeNull();
  });
});

describe('openings', () => {
  it('want an air inlet above before the drain valve, once there is liquid; a reason may stand in for it', () => {
    const dry = new TestRun().upTo('fill');
    expect(rule(dry, { type: 'port', port: VALVE, open: true })).toBeNull();
    const wet = new TestRun().upTo('bleed');
    expect(wet.try({ type: 'port', port: VALVE, open: true })).toMatchObject({ rule: 'air-before-drain', mayOverride: true });
    expect(rule(wet.say({ type: 'port', port: FILL, open: true }), { type: 'port', port: VALVE, open: true })).toBeNull();
  });

  it('are closed before the case is turned', () => {
    const run = new TestRun().upTo('bleed').say({ type: 'port', port: FILL, open: true });
    expect(rule(run, { type: 'turn', to: 'on-back', angleDeg: 90 })).toBe('cap-before-turn');
    expect(rule(run.say({ type: 'port', port: FILL, open: false }), { type: 'turn', to: 'on-back', angleDeg: 90 })).toBeNull();
  });

  it('are those of this loop', () => {
    expect(new TestRun().upTo('fill').try({ type: 'port', port: 'nowhere.x', open: true })).toMatchObject({ code: 'unknown-item' });
  });
});

describe('air pressure', () => {
  it('never goes above the lowest rating in the loop, and names the part', () => {
    const loop = changePart(usualLoop(), 'reservoir', { pressure_rating_kpa: 40 });
    const run = new TestRun(buildProcedure({ loop, schools: DEFAULT_SCHOOLS, order: null, coolantName: null })).upTo('dry');
    const refused = run.try({ type: 'dry-reading', gaugeKpa: 45, tempC: 21 });
    expect(refused).toMatchObject({ rule: 'over-pressure', mayOverride: false });
    expect(refused?.message).toContain('40 kPa, the rating of reservoir');
    expect(rule(run, { type: 'dry-reading', gaugeKpa: 39, tempC: 21 })).toBeNull();
  });
});

describe('something that felt wrong', () => {
  it('keeps liquid out until that very part was tested alone and is tight', () => {
    const run = new TestRun().say({ type: 'doubt', part: 'front', text: 'cracked while a screw went in' }).upTo('fill');
    expect(run.try({ type: 'pour', volumeMl: 100 })).toMatchObject({ rule: 'doubt', mayOverride: false });
    run.say({ type: 'part-test', part: 'roof', tight: true, how: 'air, ten minutes', leftMl: 0 });
    expect(rule(run, { type: 'pour', volumeMl: 100 })).toBe('doubt');
    run.say({ type: 'part-test', part: 'front', tight: false, how: 'air, ten minutes', leftMl: 0 });
    expect(run.try({ type: 'pour', volumeMl: 100 })?.message).toContain('leaked in its own test');
    run.say({ type: 'part-test', part: 'front', tight: true, how: 'new radiator, air', leftMl: 0 });
    expect(rule(run, { type: 'pour', volumeMl: 100 })).toBeNull();
  });
});

describe('leaks and spills', () => {
  const withLeak = () => {
    const run = new TestRun().upTo('wet').say({ type: 'leak', at: JOINT, when: 'pump-start', amount: 'drip', text: 'towel wet' });
    return { run, leak: run.events.at(-1)?.id ?? '' };
  };

  it('keep the pump off until mended, and the record unsigned until the joint was tested again', () => {
    const { run, leak } = withLeak();
    expect(rule(run, pumpOn)).toBe('leak-open');
    expect(run.try({ type: 'leak-retested', leak, dry: true })).toMatchObject({ code: 'step-open' });
    run.say({ type: 'leak-mended', leak, cause: 'tube-not-seated', fix: 'cut square and seated again' });
    // nothing has pressed on it since: dry in any case
    expect(run.try({ type: 'leak-retested', leak, dry: true })?.message).toContain('run it first');
    expect(rule(run, pumpOn)).toBeNull();
    expect(openFailures(run.procedure, run.state)).toHaveLength(1);
    run.runTimer('wet', 'wet-run', 600).finish('wet').bleed().finish('bleed');
    run.runTimer('power', 'firmware', 900).finish('power').measure().finish('baseline');
    expect(rule(run, { type: 'signed-off', remark: '' })).toBe('open-failure');
    expect(lackWords(run.procedure, run.state, 'sign-off', run.nowMs)).toHaveLength(1);
    run.say({ type: 'leak-retested', leak, dry: false }).say({ type: 'leak-retested', leak, dry: true });
    expect(rule(run, { type: 'signed-off', remark: '' })).toBeNull();
    // signed off now: the record keeps what was found, what was mended, and who looked again, as what
    const { leaks } = buildRecord({
      ...{ procedure: run.procedure, events: run.events, startedAt: '', filledOn: '2026-03-10' },
      ...{ system: { name: 'Tower', owner: 'Ada' }, loop: { name: 'Main', revision: 2, file: {} as never } },
    });
    expect(leaks).toMatchObject([
      {
        amount: 'drip',
        text: 'towel wet',
        inAir: false,
        by: 'Tess',
        mended: { cause: expect.stringContaining('Tube not pushed home'), by: 'Tess' },
      },
    ]);
    expect(leaks?.[0]?.retests).toMatchObject([{ dry: false, how: 'running', by: 'Tess' }, { dry: true, how: 'running', by: 'Tess' }]); // prettier-ignore
  });

  it('keep the wet test’s clock from starting, and the clock counts as the pump', () => {
    const { run, leak } = withLeak();
    const clock: RunEventBody = { type: 'timer-started', step: 'wet', timer: 'wet-run' };
    expect(rule(run, clock)).toBe('leak-open');
    run.say({ type: 'leak-mended', leak, cause: 'tube-not-seated', fix: 'seated again' }).say(clock);
    expect(run.state.pump?.on).toBe(true);
    expect(run.say({ type: 'timer-stopped', step: 'wet', timer: 'wet-run' }).state.pump?.on).toBe(false);
  });

  it('open again when the mended joint still leaks', () => {
    const { run, leak } = withLeak();
    run.say({ type: 'leak-mended', leak, cause: 'tube-not-seated', fix: 'seated again' }).say({ type: 'leak-retested', leak, dry: false });
    expect(openFailures(run.procedure, run.state)).toHaveLength(1);
  });

  it('give electronics no power until they were rinsed and a day has dried them', () => {
    const run = new TestRun().upTo('power').say({ type: 'spill', onElectronics: true, text: 'over the card' });
    const spill = run.events.at(-1)?.id ?? '';
    const back: RunEventBody = { type: 'check', step: 'power', check: 'pump-signal', mark: 'done' };
    expect(dryingLeftMs(run.state, run.nowMs)).toBeNull();
    expect(run.try(back)?.message).toContain('rinse');
    run.say({ type: 'spill-rinsed', spill, with: 'distilled water, then isopropanol' });
    expect(run.try(back)?.message).toMatch(/24 h/);
    expect(rule(run.wait(23 * 3600), back)).toBe('spill');
    expect(rule(run.wait(2 * 3600), back)).toBeNull();
  });

  it('on the bench alone stop nothing', () => {
    const run = new TestRun().upTo('power').say({ type: 'spill', onElectronics: false, text: 'under the reservoir' });
    expect(dryingLeftMs(run.state, run.nowMs)).toBe(0);
    expect(rule(run, { type: 'check', step: 'power', check: 'pump-signal', mark: 'done' })).toBeNull();
  });
});

describe('the level', () => {
  it('is predicted from the pulse while the pump runs, and taken from the last reading', () => {
    const run = new TestRun().upTo('fill');
    run.say({ type: 'coolant', productId: '00000000-0000-4000-8000-00000000abcd', productName: 'Plain', lotId: null, lot: null });
    run.say({ type: 'pour', volumeMl: facts?.fill?.passiveMl ?? 0 }).say(pumpOn);
    const pulse = facts?.fill?.pulses[0] ?? { runS: 0, movedMl: 0 };
    const mark = facts?.reservoir?.fillMarkMl ?? 0;
    const at = (seconds: number): number => levelNow(run.procedure, run.state, run.nowMs + seconds * 1000)?.ml ?? NaN;
    // the pump's curve and the heights say how fast: with each second less, down to the outlet and no further
    const falling = [0, 0.25, 0.5, 1, 9].map((share) => at(share * pulse.runS));
    expect(Math.abs((falling[0] as number) - mark)).toBeLessThan(2);
    for (const [index, ml] of falling.slice(1).entries()) expect(ml).toBeLessThanOrEqual(falling[index] as number);
    expect(falling[3]).toBeLessThan(mark - 10);
    expect(falling.at(-1)).toBeGreaterThanOrEqual(0);
    run
      .wait(pulse.runS / 2)
      .say(pumpOff)
      .say({ type: 'level', levelMl: 150, source: 'instrument' });
    const read = levelNow(run.procedure, run.state, run.nowMs);
    expect(read?.measured).toBe(true);
    expect(Math.abs((read?.ml ?? 0) - 150)).toBeLessThan(2 * (read?.sdMl ?? 0) + 1);
  });
});

describe('any log', () => {
  it('replays to the same state, and hazards without a way round are never passed over', () => {
    const bodies: fc.Arbitrary<RunEventBody> = fc.oneof(
      fc.constantFrom<RunEventBody>(pumpOn, pumpOff, { type: 'turn', to: 'upright', angleDeg: 0 }),
      fc.record({
        type: fc.constant('pump' as const),
        on: fc.constant(true),
        override: fc.record({ rule: fc.constantFrom(...(Object.keys(CAN_OVERRIDE) as LockRule[])), reason: fc.constant('because') }),
      }),
      fc.record({ type: fc.constant('port' as const), port: fc.constantFrom(FILL, VALVE), open: fc.boolean() }),
      fc.record({ type: fc.constant('joint' as const), joint: fc.constant(JOINT), open: fc.boolean() }),
      fc.record({
        type: fc.constant('turn' as const),
        to: fc.constantFrom('on-back' as const, 'on-face' as const),
        angleDeg: fc.integer({ min: 0, max: 90 }),
      }),
      fc.record({ type: fc.constant('pour' as const), volumeMl: fc.integer({ min: 1, max: 300 }) }),
    );
    fc.assert(
      fc.property(fc.array(bodies, { maxLength: 40 }), (list) => {
        const run = new TestRun().upTo('fill');
        for (const body of list) run.wait(3).try(body);
        const state = replay(run.procedure, run.events);
        expect(replay(run.procedure, JSON.parse(JSON.stringify(run.events)))).toEqual(state);
        if (state.pump?.on) {
          expect(state.openJoints.size).toBe(0);
          expect(state.openPorts.has(VALVE)).toBe(false);
        }
      }),
      { numRuns: often(60) },
    );
  });
});
