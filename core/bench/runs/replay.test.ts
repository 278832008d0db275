import { formatDay } from '../../base/units/dates.js';
import fc from 'fast-check';
import { readFileSync } from 'node:fs';
import { gunzipSync } from 'node:zlib';
import { leakCauseWords } from '../leak-finding/causes.js';
import { describe, expect, it } from 'vitest';
import { TestRun } from '../../../tests/bench/testRun.js';
import type { RunEventBody } from './entries/all.js';
import { describeEntry, readStoredEntry, type RunEvent } from './log.js';
import { NewerProcedure, readProcedure } from './procedure.js';
import { replay, RunFold } from './replay.js';

interface Golden {
  readonly name: string;
  readonly procedure: unknown;
  readonly events: readonly RunEvent[];
  readonly then: {
    readonly current: string | null;
    readonly steps: readonly [string, string][];
    readonly pouredMl: number;
    readonly openPorts: readonly string[];
    readonly openJoints: readonly string[];
    readonly leaks: number;
    readonly doubts: number;
    readonly spills: number;
    readonly flows: number;
    readonly withdrawn: readonly string[];
    readonly signedOff: string | null;
    readonly sentences: readonly string[];
  };
}

/** Logs that an older release wrote, with what it made of them. */
const golden = (JSON.parse(gunzipSync(readFileSync('tests/golden/release-1/runs.json.gz')).toString()) as readonly Golden[]).map(
  (each) => ({
    ...each,
    events: each.events.map((event) => ({ ...event, body: readStoredEntry(event.body) })),
  }),
);

/** A film counted as sound then. */
const filmAsThen = (sentence: string): string =>
  sentence.replace(/(use again, a film that wipes off|clean again, a film on fins .*)$/, 'use again, sound, smooth and clear');

/** Sentences that are worded otherwise since: a word has one meaning now. */
const reworded = (sentence: string): string =>
  sentence
    .replace('Dry test started again', 'Air test started again')
    .replace('interlock passed over', 'lock passed over')
    // days are written as people read them
    .replace(/\d{4}-\d\d-\d\d/g, formatDay)
    // a code then, words now
    .replace(/^Leak mended: ([a-z-]+), /, (_, cause: string) => `Leak mended: ${leakCauseWords(cause)}; `);

describe('logs of an older release', () => {
  it.each(golden.map((each) => [each.name, each] as const))('%s', (_name, { procedure: stored, events, then }) => {
    const procedure = readProcedure(stored);
    const state = replay(procedure, events);
    expect({
      current: state.current,
      steps: state.steps.map(({ id, status }) => [id, status]),
      pouredMl: state.pours.reduce((sum, { value }) => sum + value, 0),
      openPorts: [...state.openPorts],
      openJoints: [...state.openJoints],
      leaks: state.leaks.length,
      doubts: state.doubts.length,
      spills: state.spills.length,
      flows: state.service.flows.length,
      withdrawn: [...state.withdrawn],
      signedOff: state.signedOff?.at ?? null,
    }).toEqual({ ...then, sentences: undefined });
    expect(events.map((event) => filmAsThen(describeEntry(procedure, event, events)))).toEqual(then.sentences.map(reworded));
  });
});

describe('a run carried forward', () => {
  const events = golden
    .filter((each) => each.events.length > 0)
    .map(({ procedure, events: log }) => ({ procedure: readProcedure(procedure), log }));

  it('is what its whole log replays to, after every entry', () => {
    const { procedure, log } = events.find((each) => each.log.length > 60) as (typeof events)[number];
    const fold = new RunFold(procedure);
    log.forEach((event, index) => {
      fold.push(event);
      if (index % 7 === 0 || index === log.length - 1) expect(fold.state).toEqual(replay(procedure, log.slice(0, index + 1)));
    });
  });

  it('folds again from a checkpoint when an entry is taken back, or one comes late between others', () => {
    fc.assert(
      fc.property(fc.nat(), fc.nat(), fc.nat(), (which, at, target) => {
        const { procedure, log } = events[which % events.length] as (typeof events)[number];
        const cut = at % log.length;
        const late = log[cut] as RunEvent;
        const without = log.filter((event) => event !== late);
        // without it first, then with it in its place
        expect(new RunFold(procedure).sync(without).sync(log).state).toEqual(replay(procedure, log));
        // taking back is not taken back: the rules refuse it
        const may = log.filter(({ body }) => body.type !== 'withdrawn');
        const taken = may[target % may.length] as RunEvent;
        const undo: RunEvent = { id: 'undo', seq: log.length + 1, at: late.at, by: 'Tess', body: { type: 'withdrawn', event: taken.id } };
        const fold = new RunFold(procedure).sync(log).push(undo);
        const left = log.filter(({ id }) => id !== taken.id);
        const { withdrawn: _, ...undone } = fold.state;
        const { withdrawn: __, ...never } = replay(procedure, left);
        expect(undone).toEqual(never);
        expect(fold.state).toEqual(replay(procedure, [...log, undo]));
      }),
      { numRuns: 30 },
    );
  });

  it('gives screens a state that changes no more, and that is new down to the mark of a single check', () => {
    for (const { procedure, log } of events) {
      const fold = new RunFold(procedure);
      for (const event of log) {
        const before = fold.snapshot();
        const frozen = JSON.stringify(before);
        fold.push(event);
        expect(JSON.stringify(before)).toBe(frozen);
        expect(fold.snapshot()).toEqual(fold.state);
        expect(fold.snapshot().steps[0]?.checks).not.toBe(before.steps[0]?.checks);
      }
    }
  });

  it('finds an entry by its id, and does not fold it twice', () => {
    const { procedure, log } = events[0] as (typeof events)[number];
    const fold = new RunFold(procedure).sync(log);
    const { state } = fold;
    expect(fold.find(log[3]?.id ?? '')).toBe(log[3]);
    expect(fold.find('nobody')).toBeUndefined();
    expect(fold.sync(log).state).toBe(state);
  });
});

describe('what a newer program wrote', () => {
  const strange = { type: 'listened', step: 'fill', decibel: 12 } as unknown as RunEventBody;
  const run = new TestRun().upTo('fill');
  const event: RunEvent = { id: 'new', seq: run.events.length + 1, at: '2026-03-10T12:00:00Z', by: 'Tess', body: strange };

  it('is kept and shown as such, and changes nothing', () => {
    const before = replay(run.procedure, run.events);
    const after = replay(run.procedure, [...run.events, event]);
    expect(after.unknown).toMatchObject([{ eventId: 'new', kind: 'listened' }]);
    expect({ ...after, unknown: [] }).toEqual(before);
    expect(describeEntry(run.procedure, event, [])).toBe('An entry of a newer version of the program (listened)');
  });

  it('is not taken from a device', () => {
    expect(run.try(strange)?.message).toContain('belong to a newer version');
  });

  it('as a procedure is refused by name', () => {
    expect(() => readProcedure({ ...run.procedure, procedureVersion: 99 })).toThrow(NewerProcedure);
    expect(() => readProcedure({ ...run.procedure, procedureVersion: 99 })).toThrow(/newer version of the program/);
  });
});

describe('air that is let out', () => {
  it('is let out again behind each test: a tick of the one before says nothing of this one', () => {
    const run = new TestRun().upTo('dry').tick('dry').dryTest(30);
    run.say({ type: 'check', step: 'dry', check: 'air-out', mark: 'done' });
    const marked = (): boolean => run.state.steps.find(({ id }) => id === 'dry')?.checks['air-out'] !== undefined;
    expect(marked()).toBe(true);
    run.say({ type: 'leak', at: 'roof', when: 'under-pressure', amount: 'drip', text: '' });
    run.say({ type: 'dry-restarted', reason: 'mended' });
    expect(marked()).toBe(false);
    // nothing is raised yet: there is no air to let out
    expect(run.try({ type: 'check', step: 'dry', check: 'air-out', mark: 'done' })?.fact.why).toBe('check-later');
  });
});
