import { describe, expect, it } from 'vitest';
import type { LoadReading } from '../diagnosis/loadReading.js';
import { USUAL_LIMITS } from './limits.js';
import type { DatedReading } from './series.js';
import { quietestThatHolds, settingsOf } from './settings.js';

const parts = [
  { part: 'cpu', kind: 'processor' as const, name: 'cpu' },
  { part: 'gpu', kind: 'graphics' as const, name: 'gpu' },
];
const marks = [{ on: '2026-03-01', kind: 'filled' as const, part: null }];
const read = (on: string, fanSpeed: number, gpuC: number, more: Partial<LoadReading> = {}): DatedReading => ({
  id: `${on} ${fanSpeed}`,
  on,
  source: 'hand',
  reading: { roomC: 22, powersW: { cpu: 150, gpu: 300 }, partsC: { cpu: 60, gpu: gpuC }, pumpSpeed: 0.6, fanSpeed, minutes: 60, ...more },
});
const of = (...readings: DatedReading[]) => settingsOf(parts, readings, marks, USUAL_LIMITS);

describe('two settings against each other', () => {
  it('stand as they would on a hot day, each part against its own limit, the quietest first', () => {
    const [quiet, loud] = of(read('2026-04-02', 0.7, 58), read('2026-04-01', 0.35, 66));
    expect([quiet?.fanSpeed, loud?.fanSpeed]).toEqual([0.35, 0.7]);
    // 44 K over a room of 22 °C: 76 °C in one of 32 °C
    const gpu = quiet?.parts.find(({ part }) => part === 'gpu');
    expect(gpu?.onHotDayC).toBeCloseTo(76, 9);
    expect(gpu).toMatchObject({ limitC: USUAL_LIMITS.partC.graphics, verdict: 'holds' });
    expect(quietestThatHolds(of(read('2026-04-02', 0.7, 58), read('2026-04-01', 0.35, 66)))?.fanSpeed).toBe(0.35);
  });

  it('propose the louder one where the quiet one would go over, and none where all would', () => {
    const settings = of(read('2026-04-02', 0.7, 58), read('2026-04-01', 0.35, 79));
    expect(settings[0]?.parts.find(({ part }) => part === 'gpu')?.verdict).toBe('over');
    expect(quietestThatHolds(settings)?.fanSpeed).toBe(0.7);
    expect(quietestThatHolds(of(read('2026-04-01', 0.35, 79)))).toBeNull();
    // within its error of the limit is no promise
    expect(of(read('2026-04-01', 0.35, 74.5))[0]).toMatchObject({ holds: false });
  });

  it('count what was read since the last fill, warm, and take the middle of what is alike', () => {
    const cold = read('2026-04-05', 0.35, 40, { minutes: 3 });
    const old = read('2026-02-01', 0.35, 40);
    const [only, ...others] = of(cold, old, read('2026-04-01', 0.35, 66), read('2026-04-02', 0.37, 68), read('2026-04-03', 0.34, 67));
    expect(others).toEqual([]);
    expect(only?.parts.find(({ part }) => part === 'gpu')?.onHotDayC).toBeCloseTo(77, 9);
    expect(only?.on).toBe('2026-04-03');
  });

  it('between fans alike goes by what was heard', () => {
    const settings = of(
      read('2026-04-01', 0.5, 60, { noiseDba: 34, pumpSpeed: 0.4 }),
      read('2026-04-02', 0.5, 60, { noiseDba: 31, pumpSpeed: 0.9 }),
    );
    expect(settings.map(({ noiseDba }) => noiseDba)).toEqual([31, 34]);
  });

  it('promise nothing of a part that was not read, nor by an idle reading of a busy day', () => {
    const idle = read('2026-04-03', 0.2, 30, { powersW: { cpu: 20, gpu: 30 }, partsC: { cpu: 27, gpu: 30 } });
    const settings = of(idle, read('2026-04-01', 0.7, 58));
    // 8 K at 30 W are 80 K at 300 W
    expect(settings[0]?.parts.find(({ part }) => part === 'gpu')).toMatchObject({ onHotDayC: 112, verdict: 'over' });
    const half = read('2026-04-02', 0.2, 60, { partsC: { cpu: 40 } });
    expect(of(half, read('2026-04-01', 0.7, 58))[0]).toMatchObject({ fanSpeed: 0.2, holds: false });
  });

  it('may go by name where nobody noted figures, and leave the old cooler out', () => {
    const bare = (on: string, profile: string, gpuC: number): DatedReading => {
      const whole = read(on, 0, gpuC, { profile });
      const { pumpSpeed: _, fanSpeed: __, ...reading } = whole.reading;
      return { ...whole, reading };
    };
    const settings = of(bare('2026-04-01', 'still', 60), bare('2026-04-02', 'full', 50), bare('2026-04-03', 'Still', 62));
    expect(settings.map(({ profile }) => profile).sort()).toEqual(['Still', 'full']);
    // with figures a name only names
    expect(of(read('2026-04-01', 0.4, 60, { profile: 'still' }), read('2026-04-02', 0.41, 60))).toMatchObject([{ profile: 'still' }]);
    expect(of(read('2026-04-02', 0.41, 60, { oldCooler: true }))).toEqual([]);
  });
});
