import { describe, expect, it } from 'vitest';
import { InputProblem } from '../../base/checking/input.js';
import type { InstrumentReading } from './kinds.js';
import { levelMlOf, levelsAroundStop } from './level.js';
import { readReading, readState, readingPayload, statePayload } from './payloads.js';
import { pouredByScale } from './pours.js';
import { deviceName, instrumentTopic, mayPublish, maySubscribe, readDeviceName, readTopic } from './topics.js';

const workshopId = '6f9d1f0e-9c0a-4f3a-8f58-0d6a3f1c2b7e';
const benchId = '0b1c2d3e-4f50-4617-8293-a4b5c6d7e8f9';
const other = '11111111-2222-4333-8444-555555555555';
const bench = { workshopId, benchId };
const at = (seconds: number): string => new Date(Date.parse('2026-03-10T09:00:00Z') + seconds * 1000).toISOString();

describe('topics', () => {
  it('say whose instrument it is, and read back as they were made', () => {
    const topic = { ...bench, kind: 'gauge', channel: 'reading' } as const;
    expect(instrumentTopic(topic)).toBe(`lavacrum/${workshopId}/${benchId}/gauge/reading`);
    expect(readTopic(instrumentTopic(topic))).toEqual(topic);
  });

  it.each([
    'lavacrum/x/y/gauge/reading',
    `lavacrum/${workshopId}/${benchId}/heat/reading`,
    `lavacrum/${workshopId}/${benchId}/gauge/reading/more`,
    'other/thing',
  ])('that are none of ours are left alone: %s', (topic) => expect(readTopic(topic)).toBeNull());

  it('let a device write its own bench’s states and readings, and nothing else', () => {
    const own = `lavacrum/${workshopId}/${benchId}`;
    expect(mayPublish(bench, `${own}/gauge/reading`, false)).toBe(true);
    expect(mayPublish(bench, `${own}/supply/state`, false)).toBe(true);
    expect(mayPublish(bench, `${own}/supply/set`, false)).toBe(false);
    expect(mayPublish(bench, `${own}/hands`, true)).toBe(false);
    expect(mayPublish(bench, `${own}/seen`, false)).toBe(false);
    expect(mayPublish(bench, `${own}/seen`, true)).toBe(true);
    expect(mayPublish(bench, `lavacrum/${workshopId}/${other}/gauge/reading`, true)).toBe(false);
    expect(maySubscribe(bench, `${own}/supply/set`)).toBe(true);
    expect(maySubscribe(bench, 'lavacrum/#')).toBe(false);
    expect(maySubscribe(bench, `lavacrum/${workshopId}/+/gauge/reading`)).toBe(false);
  });

  it('name a device by its workshop and bench', () => {
    expect(readDeviceName(deviceName(workshopId, benchId))).toEqual(bench);
    expect(readDeviceName('somebody')).toBeNull();
  });
});

describe('payloads', () => {
  it('are read as they are written', () => {
    expect(readReading('gauge', readingPayload({ kind: 'gauge', value: 49.8, at: at(0) }))).toEqual({ value: 49.8, at: at(0) });
    expect(readReading('supply', readingPayload({ kind: 'supply', value: 1, at: at(0) }))).toEqual({ value: 1, at: at(0) });
    const state = { online: true, resolution: 0.1, simulated: false };
    expect(readState('gauge', statePayload('gauge', state))).toEqual(state);
  });

  it('may leave out unit and time', () => {
    expect(readReading('flow', '{"value":180}')).toEqual({ value: 180, at: null });
  });

  it.each([
    ['gauge', '{"value":0.5,"unit":"bar"}', 'must be kPa for gauge (got bar)'],
    ['level', '{"value":"12"}', 'must be a number'],
    ['flow', '{"value":-3}', 'must lie between 0 and 5000 (got -3)'],
    ['supply', '{"value":1}', 'is required'],
    ['gauge', 'fifty', 'is not JSON'],
    ['gauge', '{"value":50,"at":"today"}', 'must be an instant'],
  ] as const)('with %s %s are refused with what is wrong', (kind, payload, words) => {
    expect(() => readReading(kind, payload)).toThrow(InputProblem);
    expect(() => readReading(kind, payload)).toThrow(words);
  });
});

const scale = (values: readonly (readonly [number, number])[]): InstrumentReading[] =>
  values.map(([seconds, value]) => ({ kind: 'scale', value, at: at(seconds) }));

describe('a pour by the scale under the can', () => {
  it('is what it lost, once it stands still', () => {
    const pour = pouredByScale(scale([[0, 4000], [1, 3900], [2, 3760], [3, 3760], [3.5, 3761], [4, 3760], [4.5, 3760]]), at(0), 1); // prettier-ignore
    expect(pour).toEqual({ ml: 240, steady: true });
  });

  it('is not over while the scale moves', () => {
    expect(pouredByScale(scale([[0, 4000], [1, 3900], [2, 3800], [2.4, 3780]]), at(0), 1)?.steady).toBe(false); // prettier-ignore
  });

  it('goes by density', () => {
    const glycol = pouredByScale(scale([[0, 4000], [5, 3896], [5.5, 3896], [6.5, 3896]]), at(0), 1.04); // prettier-ignore
    expect(glycol?.ml).toBeCloseTo(100, 6);
  });

  it('is nothing for a drip, and not told while the can is lifted off', () => {
    expect(pouredByScale(scale([[0, 4000], [5, 3997], [6, 3997], [7, 3997]]), at(0), 1)?.ml).toBe(0); // prettier-ignore
    expect(pouredByScale(scale([[0, 4000], [5, 2], [6, 2], [7, 2]]), at(0), 1)).toEqual({ ml: 0, steady: false }); // prettier-ignore
  });

  it('cannot be told without readings on both sides', () => {
    expect(pouredByScale([], at(0), 1)).toBeNull();
    expect(pouredByScale(scale([[0, 4000]]), at(0), 1)).toBeNull(); // prettier-ignore
  });
});

describe('levels around a stop of the pump', () => {
  const level = (values: readonly (readonly [number, number])[]): InstrumentReading[] =>
    values.map(([seconds, value]) => ({ kind: 'level', value, at: at(seconds) }));

  it('are the median before it, and once the surface came to rest', () => {
    const readings = level([[7, 80], [8, 100.2], [9, 100], [10, 99.8], [11, 118], [13, 95], [16, 104.1], [17, 104], [18, 103.9]]); // prettier-ignore
    expect(levelsAroundStop(readings, at(0), at(10))).toEqual({ runningMm: 100, stoppedMm: 104 });
  });

  it('say nothing of what was not measured yet', () => {
    expect(levelsAroundStop(level([[9, 100]]), at(0), at(10))).toEqual({ runningMm: 100, stoppedMm: null }); // prettier-ignore
    // a sensor that speaks every half minute: its last word before the stop counts, none from before the start
    expect(levelsAroundStop(level([[0, 97], [40, 101], [70, 104]]), at(10), at(60)).runningMm).toBe(101); // prettier-ignore
    expect(levelsAroundStop(level([[0, 97]]), at(10), at(60)).runningMm).toBeNull(); // prettier-ignore
    expect(levelsAroundStop([], at(0), at(10))).toEqual({ runningMm: null, stoppedMm: null });
  });

  it('become millilitres where the reservoir’s measures are known', () => {
    expect(levelMlOf({ mlPerMm: 1.5 }, 40)).toBe(60);
    expect(levelMlOf({}, 40)).toBeNull();
  });
});
