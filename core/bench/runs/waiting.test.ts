import { describe, expect, it } from 'vitest';
import { COOLANT, TestRun } from '../../../tests/bench/testRun.js';
import { standCheckWords } from '../../edge/words/waiting.js';
import type { ResumedEntry } from './entries/resumed.js';
import type { WaitsEntry } from './entries/waits.js';
import { describeEntry } from './log.js';
import { lastUndoable } from './rules.js';
import { checksBeforeGoingOn, checksBeforeWaiting, untold, waitingNow } from './waiting.js';

const waitsOf = (run: TestRun, more: Partial<WaitsEntry> = {}): WaitsEntry => ({
  type: 'waits',
  for: 'parts',
  what: 'the seal of the plate',
  until: '2026-03-14',
  lies: 'shelf 3, screws in the blue tray',
  seen: checksBeforeWaiting(run.state).map(({ check }) => check),
  ...more,
});
const backOf = (run: TestRun): ResumedEntry => ({ type: 'resumed', seen: checksBeforeGoingOn(run.state).map(({ check }) => check) });
const filling = (): TestRun =>
  new TestRun()
    .upTo('fill')
    .say({ ...COOLANT })
    .say({ type: 'pour', volumeMl: 200 });

describe('a run that waits', () => {
  it('keeps its step, what is inside and what is open, and goes on there', () => {
    const run = filling();
    const port = run.procedure.facts?.ports[0]?.name ?? '';
    run.say({ type: 'port', port, open: true }).say(waitsOf(run));
    expect(waitingNow(run.state)).toMatchObject({ for: 'parts', what: 'the seal of the plate', until: '2026-03-14' });
    run.wait(26 * 3600).say(backOf(run));
    expect(waitingNow(run.state)).toBeNull();
    expect(run.state.current).toBe('fill');
    expect(run.state.openPorts).toContain(port);
    expect(run.state.contents.insideMl).toBeCloseTo(200, 6);
    expect(describeEntry(run.procedure, run.events.at(-2) as never, run.events)).toBe(
      'Waits for parts: the seal of the plate, until 14 Mar 2026; it lies: shelf 3, screws in the blue tray',
    );
  });

  it('takes nothing from hands meanwhile, but notes, a leak that somebody sees, and another day', () => {
    const run = filling();
    run.say(waitsOf(run));
    expect(run.try({ type: 'pour', volumeMl: 50 })?.message).toBe(
      'this run waits for parts (the seal of the plate), until 14 Mar 2026: put it back on a bench first',
    );
    expect(run.try({ type: 'pump', on: true })?.code).toBeTruthy();
    expect(run.try({ type: 'signed-off', remark: '' })?.code).toBe('waits');
    expect(run.try({ type: 'note', step: 'fill', text: 'the supplier called' })).toBeNull();
    expect(run.try({ type: 'leak', at: 'pump', when: 'after-hours', amount: 'drip', text: 'a drop in the tray' })).toBeNull();
    expect(run.try(waitsOf(run, { until: '2026-03-20', seen: [] }))).toBeNull();
    expect(run.state.waits).toHaveLength(1);
    expect(waitingNow(run.state)?.until).toBe('2026-03-20');
  });

  it('is not left with a pump or a clock running, a cleaner inside, a line unticked or a day that is over', () => {
    const run = filling();
    expect(run.try(waitsOf(run, { seen: ['supply-out', 'labelled'] }))?.message).toContain('1 line not ticked');
    expect(run.try(waitsOf(run, { until: '2026-03-01' }))?.fact.why).toBe('wait-day-past');
    run.say({ type: 'pump', on: true });
    expect(run.try(waitsOf(run))?.fact.why).toBe('wait-pump-on');
    const wet = new TestRun().upTo('wet').say({ type: 'timer-started', step: 'wet', timer: 'wet-run' });
    expect(wet.try(waitsOf(wet))?.code).toBe('unsafe');
  });

  it('asks for what is open, drips or stands under air to be made safe first, each by its name', () => {
    const run = filling();
    const port = run.procedure.facts?.ports[0];
    run.say({ type: 'port', port: port?.name ?? '', open: true });
    run.say({ type: 'leak', at: 'pump', when: 'after-hours', amount: 'drip', text: '' });
    const words = checksBeforeWaiting(run.state).map((check) => standCheckWords(run.procedure, check));
    expect(words.find((line) => line.startsWith('Capped'))).toContain(port?.label);
    expect(words.some((line) => line.startsWith('Nothing drips at') && !line.includes('{'))).toBe(true);
    const dry = new TestRun().upTo('dry').say({ type: 'dry-reading', gaugeKpa: 50, tempC: 21 });
    expect(checksBeforeWaiting(dry.state).map(({ check }) => check)).toContain('air-let-off');
    expect(checksBeforeWaiting(dry.state).map(({ check }) => check)).not.toContain('tray-under');
  });

  it('begins its air test anew afterwards: the air was let off', () => {
    const run = new TestRun().upTo('dry').say({ type: 'dry-reading', gaugeKpa: 50, tempC: 21 });
    run.say(waitsOf(run)).wait(86_400).say(backOf(run));
    expect(run.state.dryTestNumber).toBe(2);
    expect(run.state.dryReadings).toHaveLength(0);
    expect(run.state.pastDryTests).toHaveLength(1);
  });

  it('does not go on before somebody looked, and not twice', () => {
    const run = filling();
    run.say(waitsOf(run));
    expect(run.try({ type: 'resumed', seen: [] })?.fact.why).toBe('not-looked-at');
    run.say(backOf(run));
    expect(run.try(backOf(run))?.fact.why).toBe('not-waiting');
  });

  it('knows its level less well the longer it stood, and wants it read', () => {
    const stood = (hours: number): number => {
      const run = new TestRun().upTo('bleed');
      run.say({ type: 'level', levelMl: 150 }).say(waitsOf(run, { until: '2026-06-01' }));
      run.wait(hours * 3600).say(backOf(run));
      expect(run.state.contents.isLevelRead).toBe(false);
      return run.state.contents.insideSdMl;
    };
    expect(stood(12)).toBeLessThan(stood(240));
    expect(stood(240)).toBeLessThan(stood(720));
  });

  it('is not taken back, nor what others were told of; entries from before it stay while it waits', () => {
    const run = filling();
    const fix = { type: 'temporary-fix', step: 'fill', what: 'a cap on the branch', awaits: 'the seal', until: '2026-04-01', limits: ['do-not-move'] } as const; // prettier-ignore
    run.say({ ...fix, limits: ['do-not-move'] });
    expect(untold(run.state).fixes).toHaveLength(1);
    const fixed = run.events.at(-1)?.id ?? '';
    run.say(waitsOf(run));
    expect(untold(run.state).fixes).toHaveLength(0);
    expect(lastUndoable(run.events, run.state)).toBeNull();
    expect(run.try({ type: 'withdrawn', event: run.events.at(-1)?.id ?? '' })?.fact.why).toBe('not-undone');
    run.say({ type: 'note', step: 'fill', text: 'typed on the wrong run' });
    expect(run.try({ type: 'withdrawn', event: run.events.at(-1)?.id ?? '' })).toBeNull();
    run.say(backOf(run));
    expect(run.try({ type: 'withdrawn', event: fixed })?.fact.why).toBe('told-already');
    // the pour of before is the next that can be taken back
    expect(lastUndoable(run.events, run.state)?.body.type).toBe('pour');
  });
});
