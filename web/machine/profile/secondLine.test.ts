import { describe, expect, it } from 'vitest';
import { readingAs, USUAL_READING } from '@core/base/units/reading.js';
import { drawSecondLine, type SecondLine } from './secondLine.js';

const PORTS = [{ name: 'b.in', x: 200 }, { name: 'a.out', x: 100 }, { name: 'c.none', x: 300 }]; // prettier-ignore
const line = (unit: string, a: number, b: number, more: Partial<SecondLine> = {}): SecondLine => ({
  unit,
  at: new Map([['a.out', a], ['b.in', b]]), // prettier-ignore
  ...more,
});

describe('a figure along the way', () => {
  it('runs from left to right, the larger the higher, where it is known', () => {
    const drawn = drawSecondLine(line('°C', 30, 34), PORTS, 200);
    const [, x1, y1, x2, y2] = /^M(\S+) (\S+)L(\S+) (\S+)$/.exec(drawn?.d ?? '')?.map(Number) ?? [];
    expect([x1, x2]).toEqual([100, 200]);
    expect(y1).toBeGreaterThan(y2 as number);
    expect(drawSecondLine(line('°C', 30, 34), [], 200)).toBeNull();
  });

  it('has few ticks, a pressure from zero on, and room for what it is compared with', () => {
    const values = (drawn: ReturnType<typeof drawSecondLine>) => drawn?.ticks.map(({ value }) => value) ?? [];
    expect(values(drawSecondLine(line('kPa', 12, 30), PORTS, 200))[0]).toBe(0);
    expect(values(drawSecondLine(line('kPa', -3, 30), PORTS, 200))[0]).toBeLessThan(1);
    const compared = values(drawSecondLine(line('°C', 30, 31, { beside: [60] }), PORTS, 200));
    expect(compared.at(-1)).toBe(60);
    expect(compared.length).toBeLessThanOrEqual(7);
  });

  it('has the scale that its reader counts in', () => {
    const drawn = readingAs({ ...USUAL_READING, temperature: '°F' }, () => drawSecondLine(line('°C', 30, 40), PORTS, 200));
    for (const { value } of drawn?.ticks ?? []) expect(value).toBeGreaterThanOrEqual(86);
  });
});
