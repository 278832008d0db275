import { describeEntry } from './log.js';
import type { RunEventBody } from './entries/all.js';
import { buildRecord } from '../../edge/records/record.js';
import { judgeDryTest } from './dryTest.js';
import { replay } from './replay.js';
import { standardProcedure, withTraits } from '../procedures/procedureKinds.js';
import type { ProcedureTemplate } from './template.js';
import { lackWords, procedureOf, TestRun } from '../../../tests/bench/testRun.js';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { lastUndoable } from './rules.js';
import { dryReadings, pouredMl, timerFace } from './state.js';
import { often } from '../../../tests/often.js';

const open = (run: TestRun, step: string): string[] => lackWords(run.procedure, run.state, step, run.nowMs);

describe('a run from the kit to the sign-off', () => {
  it('can be led through without a refusal', () => {
    const run = new TestRun().upTo('sign-off');
    expect(run.state.current).toBe('sign-off');
    expect(run.try({ type: 'signed-off', remark: 'all well' })).toBeNull();
    expect(run.state.signedOff?.text).toBe('all well');
    expect(run.state.current).toBeNull();
  });

  it.each(['wet-only', 'dry-only'] as const)('can be led %s', (leak) => {
    expect(new TestRun(procedureOf({ leak })).upTo('sign-off').state.current).toBe('sign-off');
  });
});

describe('the order of steps', () => {
  it('refuses an entry for a step that is not reached, and says what comes first', () => {
    expect(new TestRun().try({ type: 'pour', volumeMl: 100 })).toMatchObject({
      code: 'too-early',
      fact: { why: 'too-early', first: 'Lay out the kit', then: 'Fill' },
      message: '"Lay out the kit" comes first; finish it before "Fill"',
    });
  });

  it('takes a note about any step at any time', () => {
    expect(new TestRun().try({ type: 'note', step: 'fill', text: 'use the small jug' })).toBeNull();
  });

  it('refuses to close a step while checks are open', () => {
    const run = new TestRun();
    expect(run.try({ type: 'step-done', step: 'kit' })?.message).toContain('is not done: 11 checks open');
    expect(run.finish('kit').state.current).toBe('flush');
  });

  it('counts the checks that stand before power', () => {
    expect(open(new TestRun().upTo('isolate'), 'isolate')).toEqual(['7 checks open, 6 of them before power']);
  });

  it('lets a check be taken off again', () => {
    const run = new TestRun().tick('kit').say({ type: 'check', step: 'kit', check: 'towels', mark: 'open' });
    expect(open(run, 'kit')).toEqual(['1 check open']);
  });

  it('takes "not needed" only where a check may not apply', () => {
    const run = new TestRun().upTo('flush');
    expect(run.try({ type: 'check', step: 'flush', check: 'flushed:roof', mark: 'not-needed', reason: 'used before' })).toBeNull();
    const isolate = new TestRun().upTo('isolate');
    expect(
      isolate.try({ type: 'check', step: 'isolate', check: 'pulled:board-main', mark: 'not-needed', reason: 'in a hurry' }),
    ).toMatchObject({ code: 'unsafe' });
  });

  it('does not ask for a connector back that was never pulled, until it is', () => {
    const run = new TestRun()
      .upTo('isolate')
      .say({ type: 'check', step: 'isolate', check: 'pulled:drive-power', mark: 'not-needed', reason: 'no drives' });
    const back = () => run.state.steps.find(({ id }) => id === 'power')?.checks['back:drive-power'];
    expect(back()).toMatchObject({ mark: 'not-needed', reason: 'was not pulled' });
    run.say({ type: 'check', step: 'isolate', check: 'pulled:drive-power', mark: 'done' });
    expect(back()?.mark).toBe('open');
  });

  it('does not know checks, timers and steps that are not its own', () => {
    const run = new TestRun();
    expect(run.try({ type: 'check', step: 'kit', check: 'magic', mark: 'done' })?.code).toBe('unknown-item');
    expect(run.try({ type: 'timer-started', step: 'kit', timer: 'egg' })?.code).toBe('unknown-item');
    expect(run.try({ type: 'step-done', step: 'lunch' })?.code).toBe('unknown-item');
  });
});

describe('going on with a reason', () => {
  it('is written down and counts as done', () => {
    const run = new TestRun().say({ type: 'deviation', step: 'kit', reason: 'kit laid out yesterday' });
    expect(run.state.current).toBe('flush');
    expect(run.state.steps[0]?.deviation).toMatchObject({ text: 'kit laid out yesterday', by: 'Tess' });
  });

  it.each(['close', 'isolate', 'power'])('is refused at "%s"', (step) => {
    expect(new TestRun().upTo(step).try({ type: 'deviation', step, reason: 'no time' })).toMatchObject({ code: 'unsafe' });
  });
});

describe('the dry test in a run', () => {
  it('is judged on the gas of its own time: what was poured after it changes nothing', () => {
    const run = new TestRun().upTo('dry').tick('dry').dryTest();
    const before = judgeDryTest(run.procedure, run.state);
    run.finish('dry').pourAll();
    expect(judgeDryTest(run.procedure, run.state)).toEqual(before);
  });

  it('never goes above 70 kPa', () => {
    expect(new TestRun().upTo('dry').try({ type: 'dry-reading', gaugeKpa: 71, tempC: 20 })).toMatchObject({
      rule: 'over-pressure',
      mayOverride: false,
    });
  });

  it('is not done without a pass', () => {
    const run = new TestRun().upTo('dry').tick('dry');
    expect(open(run, 'dry')).toEqual(['1 check open', 'no reading yet; a verdict needs at least 4']);
    run.dryTest(4);
    expect(open(run, 'dry').at(-1)).toMatch(/^cannot tell yet: about \d+ more min/);
    run.dryTest(20);
    expect(open(run, 'dry')).toEqual(['1 check open']);
    expect(open(run.tick('dry'), 'dry')).toEqual([]);
  });

  it('fails a falling pressure, and begins anew once it was mended', () => {
    const run = new TestRun().upTo('dry').tick('dry');
    for (let n = 0; n < 12; n += 1) run.wait(100).say({ type: 'dry-reading', gaugeKpa: 50 - n, tempC: 21 });
    expect(open(run.tick('dry'), 'dry')).toEqual(['the air test failed: find the leak, then start the test again']);
    run.say({ type: 'dry-restarted', reason: 'nut at the roof radiator tightened' });
    expect(run.state.dryReadings).toEqual([]);
    expect(run.state.dryTestNumber).toBe(2);
    expect(run.dryTest().finish('dry').state.current).toBe('fill');
  });

  it('takes a joint that was mended under air for tight only once air says so, and keeps the test that failed', () => {
    const run = new TestRun().upTo('dry').tick('dry');
    const at = run.procedure.facts?.joints[0]?.id ?? '';
    for (let n = 0; n < 12; n += 1) run.wait(100).say({ type: 'dry-reading', gaugeKpa: 50 - n, tempC: 21 });
    run.say({ type: 'leak', at, when: 'under-pressure', amount: 'seep', text: 'bubbles at the nut' });
    const leak = run.events.at(-1)?.id ?? '';
    expect(run.try({ type: 'leak-mended', leak, cause: 'loose', fix: 'tightened' })?.message).toContain('"loose" is no cause of a leak');
    run.say({ type: 'leak-mended', leak, cause: 'loose-closure', fix: 'tightened' });
    expect(run.try({ type: 'leak-retested', leak, dry: true })?.message).toContain('start the air test again');
    run.say({ type: 'dry-restarted', reason: 'nut tightened' });
    expect(run.try({ type: 'leak-retested', leak, dry: true })?.message).toContain('start the air test again');
    run.dryTest().say({ type: 'leak-retested', leak, dry: true });
    expect(run.state.leaks[0]?.retested).toMatchObject({ dry: true, how: 'air' });
    expect(run.state.pastDryTests).toMatchObject([
      { testNumber: 1, verdict: 'fail', readings: 12, ended: 'Test started again: nut tightened' },
    ]);
    expect(run.state.pastDryTests[0]?.leakMbarLs).toBeGreaterThan(0.01);
  });

  it('begins a new test by itself when somebody pumped up again, and not when the room warms', () => {
    const run = new TestRun().upTo('dry').tick('dry');
    for (const gaugeKpa of [51, 20, 1, 0]) run.wait(100).say({ type: 'dry-reading', gaugeKpa, tempC: 21 });
    run.wait(100).say({ type: 'dry-reading', gaugeKpa: 50, tempC: 21 });
    expect(run.state.dryTestNumber).toBe(2);
    expect(dryReadings(run.state).map(({ gaugeKpa }) => gaugeKpa)).toEqual([50]);
    // ten kelvin are five kilopascal, which the correction takes out
    run.wait(100).say({ type: 'dry-reading', gaugeKpa: 55.1, tempC: 31 });
    expect(run.state.dryTestNumber).toBe(2);
    expect(run.dryTest().finish('dry').state.current).toBe('fill');
  });

  it('puts a reading that was entered late where it belongs in time', () => {
    const run = new TestRun().upTo('dry');
    run.say({ type: 'dry-reading', gaugeKpa: 50, tempC: 21 }).wait(600).say({ type: 'dry-reading', gaugeKpa: 49, tempC: 21 });
    const late = {
      id: '00000000-0000-4000-8000-00000000ffff',
      seq: 99,
      at: new Date(run.nowMs - 300_000).toISOString(),
      by: 'Tess',
      body: { type: 'dry-reading', gaugeKpa: 49.5, tempC: 21 } as const,
    };
    expect(dryReadings(replay(run.procedure, [...run.events, late])).map(({ gaugeKpa }) => gaugeKpa)).toEqual([50, 49.5, 49]);
  });

  it('has nothing to judge where the school makes no dry test', () => {
    const run = new TestRun(procedureOf({ leak: 'wet-only' }));
    expect(judgeDryTest(run.procedure, run.state)).toBeNull();
  });
});

describe('filling in a run', () => {
  it('asks for the coolant and for the planned volume', () => {
    const run = new TestRun().upTo('fill').tick('fill');
    expect(open(run, 'fill')).toEqual(['2 checks open', 'coolant not chosen', 'nothing poured yet']);
    expect(open(run.pourAll().tick('fill'), 'fill')).toEqual([]);
  });

  it('names an overfill and lets it pass only with a reason', () => {
    const run = new TestRun().upTo('fill').pourAll().say({ type: 'pour', volumeMl: 900 }).tick('fill');
    expect(open(run, 'fill')[0]).toContain('mL more than the loop should hold');
    expect(run.try({ type: 'step-done', step: 'fill' })?.code).toBe('step-open');
    expect(run.try({ type: 'deviation', step: 'fill', reason: 'spilled and wiped' })).toBeNull();
  });
});

describe('timers', () => {
  it('run on the log: a replay at any time shows the same', () => {
    const run = new TestRun().upTo('wet').say({ type: 'timer-started', step: 'wet', timer: 'wet-run' });
    const timer = replay(run.procedure, JSON.parse(JSON.stringify(run.events)) as typeof run.events).timers['wet-run'];
    expect(timer && timerFace(timer, run.nowMs + 240_000)).toEqual({ running: true, remainingS: 360, finished: false });
    expect(timer && timerFace(timer, run.nowMs + 700_000)).toEqual({ running: false, remainingS: 0, finished: true });
  });

  it('that were stopped early keep their step open; starting again begins anew', () => {
    const run = new TestRun()
      .upTo('wet')
      .tick('wet')
      .runTimer('wet', 'wet-run', 100)
      .say({ type: 'timer-stopped', step: 'wet', timer: 'wet-run' })
      .wait(10_000);
    expect(open(run.tick('wet'), 'wet')).toEqual(['1 check open', 'timer stopped before its end, start it again: pump running']);
    run.runTimer('wet', 'wet-run', 600);
    expect(open(run.tick('wet'), 'wet')).toEqual([]);
  });

  it('show a future start as not yet begun rather than as time gained', () => {
    expect(
      timerFace({ step: 'wet', startedAt: '2026-03-10T10:00:00Z', stoppedAt: null, seconds: 600 }, Date.parse('2026-03-10T09:59:00Z'))
        .remainingS,
    ).toBe(600);
  });
});

describe('a check that belongs after something', () => {
  const tick = (run: TestRun, step: string, check: string) => run.try({ type: 'check', step, check, mark: 'done' });
  const long = (): TestRun => new TestRun(procedureOf({ wet: 'day' }));

  it('is refused before the clock that it is counted by', () => {
    const run = long().upTo('wet');
    const first = run.procedure.steps.find(({ id }) => id === 'wet')?.checks[0]?.id as string;
    expect(tick(run, 'wet', first)).toMatchObject({ code: 'too-early', fact: { why: 'check-later', after: 'clock-begins' } });
    run.runTimer('wet', 'wet-run', 60);
    expect(tick(run, 'wet', first)).toBeNull();
    expect(tick(run, 'wet', 'round:hour')?.message).toBe('"All 14 joints dry, towels dry" belongs after an hour of “pump running”');
    expect(tick(run.wait(3600), 'wet', 'round:hour')).toBeNull();
    expect(tick(run, 'wet', 'round:end')?.message).toContain('after “pump running” is over');
    expect(tick(run.wait(24 * 3600), 'wet', 'round:end')).toBeNull();
  });

  it('lets the air of a test out once it says something, or once a leak was found under it', () => {
    const run = new TestRun().upTo('dry').dryTest(4);
    expect(tick(run, 'dry', 'air-out')?.message).toContain('after the verdict');
    const joint = run.procedure.facts?.joints[0]?.id as string;
    run.say({ type: 'leak', at: joint, when: 'under-pressure', amount: 'seep', text: '' });
    expect(tick(run, 'dry', 'air-out')).toBeNull();
    expect(tick(new TestRun().upTo('dry').dryTest(20), 'dry', 'air-out')).toBeNull();
  });

  it('keeps its moment in a lead’s own version of the step', () => {
    const { steps } = standardProcedure('commissioning');
    const own = { steps: steps.map((step) => ({ ...step, checks: step.checks.map((each) => ({ ...each, after: undefined })) })) };
    expect(withTraits('commissioning', own as ProcedureTemplate)).toEqual(standardProcedure('commissioning'));
  });
});

describe('taking back', () => {
  it('undoes the newest entry first and never loses it from the log', () => {
    const run = new TestRun().upTo('fill');
    run.pourAll();
    const before = pouredMl(run.state);
    const last = lastUndoable(run.events, run.state);
    expect(last?.body.type).toBe('pour');
    const count = run.events.length;
    run.say({ type: 'withdrawn', event: last?.id ?? '' });
    expect(pouredMl(run.state)).toBeLessThan(before);
    expect(run.events).toHaveLength(count + 1);
    expect(lastUndoable(run.events, run.state)?.id).not.toBe(last?.id);
  });

  it('opens a step again that was closed', () => {
    const run = new TestRun().finish('kit');
    run.say({ type: 'withdrawn', event: lastUndoable(run.events, run.state)?.id ?? '' });
    expect(run.state.current).toBe('kit');
  });

  it('is refused twice, for an undo, and for what never happened', () => {
    const run = new TestRun().say({ type: 'note', step: 'kit', text: 'x' });
    const first = run.events[0]?.id ?? '';
    run.say({ type: 'withdrawn', event: first });
    expect(run.try({ type: 'withdrawn', event: first })?.code).toBe('not-yours-to-undo');
    expect(run.try({ type: 'withdrawn', event: run.events[1]?.id ?? '' })?.code).toBe('not-yours-to-undo');
    expect(run.try({ type: 'withdrawn', event: 'nothing' })?.code).toBe('unknown-item');
  });

  it('has nothing to take back in an empty run', () => {
    const run = new TestRun();
    expect(lastUndoable(run.events, run.state)).toBeNull();
  });
});

describe('after the sign-off', () => {
  const signed = (): TestRun => new TestRun().upTo('sign-off').say({ type: 'signed-off', remark: '' });

  it('takes corrections and nothing else', () => {
    const run = signed();
    expect(run.try({ type: 'note', step: 'kit', text: 'late' })?.code).toBe('signed-off');
    expect(run.try({ type: 'withdrawn', event: run.events[0]?.id ?? '' })?.code).toBe('signed-off');
    expect(run.try({ type: 'correction', about: null, text: 'it was lot 9' })).toBeNull();
    expect(run.state.corrections[0]?.text).toBe('it was lot 9');
  });

  it('takes no correction before', () => {
    expect(new TestRun().try({ type: 'correction', about: null, text: 'early' })?.code).toBe('step-open');
  });

  it('cannot be signed off early', () => {
    expect(new TestRun().upTo('baseline').try({ type: 'signed-off', remark: '' })?.code).toBe('too-early');
    expect(new TestRun().upTo('sign-off').try({ type: 'step-done', step: 'sign-off' })?.code).toBe('step-open');
  });

  it('leaves a record that tells the whole story', () => {
    const run = new TestRun().upTo('flush');
    run.say({ type: 'check', step: 'flush', check: 'flushed:roof', mark: 'not-needed', reason: 'flushed last week' });
    for (const check of ['flushed:graphics', 'flushed:processor', 'flushed:front'])
      run.say({ type: 'check', step: 'flush', check, mark: 'done' });
    run.say({ type: 'step-done', step: 'flush' });
    for (const step of ['assemble', 'close', 'isolate']) run.finish(step);
    run.dryTest().finish('dry').pourAll().finish('fill').runTimer('wet', 'wet-run', 600).finish('wet');
    run.say({ type: 'deviation', step: 'bleed', reason: 'owner collects today' });
    run.runTimer('power', 'firmware', 900).finish('power').measure().finish('baseline').say({ type: 'signed-off', remark: 'handed over' });
    const record = buildRecord({
      procedure: run.procedure,
      events: run.events,
      system: { name: 'Tower', owner: 'Ada' },
      loop: { name: 'Main', revision: 2, file: {} as never },
      startedAt: '2026-03-10T09:00:00Z',
      filledOn: '2026-03-10',
    });
    expect(record).toMatchObject({
      remark: 'handed over',
      signedOffBy: 'Tess',
      dryTest: { verdict: 'pass', testNumber: 1 },
      bleeding: { bled: false, cycles: 0, lastRiseMm: null },
      passedOver: [{ step: 'Bleed', reason: 'owner collects today' }],
      notNeeded: ['Flushed: roof: flushed last week'],
      settling: { from: '2026-03-12', to: '2026-03-17' },
    });
    expect(record.volumes.pouredMl).toBe(pouredMl(run.state));
    expect(record.log).toHaveLength(run.events.length);
  });

  it('makes no record of an open run', () => {
    const run = new TestRun();
    expect(() =>
      buildRecord({ procedure: run.procedure, events: [], system: {} as never, loop: {} as never, startedAt: '', filledOn: '2026-03-10' }),
    ).toThrow('signed-off');
  });
});

describe('the log', () => {
  it('tells every entry in a sentence', () => {
    const run = new TestRun()
      .upTo('sign-off')
      .say({ type: 'signed-off', remark: 'good' })
      .say({ type: 'correction', about: null, text: 'lot 9' });
    const sentences = run.events.map((event) => describeEntry(run.procedure, event, run.events));
    expect(sentences).toEqual(
      expect.arrayContaining([
        'Gauge 50.0 kPa at 21.0 °C',
        'Coolant: Plain Clear',
        'Level 120 mm running, 121 mm stopped',
        'Done: Bleed',
        'Signed off: good',
        'Correction: lot 9',
        'Timer started: Pump running',
      ]),
    );
    expect(sentences.every((sentence) => sentence.length > 3 && !sentence.includes('undefined'))).toBe(true);
  });

  it('tells what was taken back', () => {
    const run = new TestRun().say({ type: 'check', step: 'kit', check: 'towels', mark: 'done' });
    run.say({ type: 'withdrawn', event: run.events[0]?.id ?? '' });
    expect(describeEntry(run.procedure, run.events[1] as never, run.events)).toBe(
      'Taken back: Paper towels under every joint, plug and base, spill kit',
    );
  });

  it('replays to the same state however often it is read, under any accepted entries', () => {
    const bodies: fc.Arbitrary<RunEventBody> = fc.oneof(
      fc.record({
        type: fc.constant('check' as const),
        step: fc.constant('kit'),
        check: fc.constantFrom('towels', 'bottle', 'static', 'parts'),
        mark: fc.constantFrom('done' as const, 'open' as const),
      }),
      fc.record({ type: fc.constant('note' as const), step: fc.constantFrom('kit', 'fill'), text: fc.constant('n') }),
      fc.record({ type: fc.constant('deviation' as const), step: fc.constantFrom('kit', 'flush', 'dry'), reason: fc.constant('because') }),
      fc.record({ type: fc.constant('pour' as const), volumeMl: fc.integer({ min: 1, max: 500 }) }),
    );
    fc.assert(
      fc.property(fc.array(bodies, { maxLength: 30 }), fc.array(fc.nat(40), { maxLength: 8 }), (list, undos) => {
        const run = new TestRun();
        list.forEach((body) => run.wait(5).try(body));
        undos.forEach((index) => run.try({ type: 'withdrawn', event: run.events[index]?.id ?? '' }));
        expect(replay(run.procedure, run.events)).toEqual(replay(run.procedure, run.events));
        expect(run.state.steps.filter(({ status }) => status === 'current')).toHaveLength(1);
      }),
      { numRuns: often(60) },
    );
  });
});
