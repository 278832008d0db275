import { describe, expect, it } from 'vitest';
import {
  formatClock,
  formatKpa,
  formatLeak,
  formatLeakWithSe,
  formatMl,
  formatMlWithSd,
  formatPercent,
  formatRoughMl,
  formatSpan,
} from './display.js';

const thin = (text: string): string => text.replaceAll('\u202f', ' ');

describe('numbers as they are shown', () => {
  it('shows volumes with their unit and no digit that a jug cannot give', () => {
    expect(thin(formatMl(806.37))).toBe('806 mL');
    expect(thin(formatMl(-0.3))).toBe('0 mL');
    expect(thin(formatMl(1263.4))).toBe('1 263 mL');
    expect(thin(formatMl(12_345))).toBe('12.3 L');
    expect([1936, 12.34, 1.15, 0.0423, 0].map((ml) => thin(formatRoughMl(ml)))).toEqual([
      '1 900 mL',
      '12 mL',
      '1.1 mL',
      '0.042 mL',
      '0 mL',
    ]);
    expect(thin(formatMlWithSd(1002.6, 61.7))).toBe('1 003 ± 62 mL');
    expect(formatMlWithSd(6.28, 0.19)).toBe('6.3 ± 0.2 mL');
    expect(thin(formatMlWithSd(0.8, 0.02))).toBe('0.8 ± < 0.1 mL');
    expect(formatMl(-12)).toBe('−12 mL');
  });

  it('shows shares and pressures', () => {
    expect(thin(formatPercent(0.256))).toBe('26 %');
    expect(formatKpa(49.96)).toBe('50.0 kPa');
  });

  it.each([
    [0, '0 s'],
    [59.4, '59 s'],
    [600, '10 min'],
    [3600, '1 h'],
    [4800, '1 h 20 min'],
    [86_400, '24 h'],
    [3 * 86_400 + 7200, '3 d 2 h'],
    [-5, '0 s'],
  ])('says %d s as %s', (seconds, words) => {
    expect(formatSpan(seconds)).toBe(words);
  });

  it.each([
    [5, '0:05'],
    [245, '4:05'],
    [86_347, '23:59:07'],
    [-1, '0:00'],
  ])('shows %d s on a clock as %s', (seconds, face) => {
    expect(formatClock(seconds)).toBe(face);
  });

  it('shows leak rates with two digits and a raised exponent', () => {
    expect(formatLeak(0.0123)).toBe('1.2 × 10⁻² mbar·L/s');
    expect(formatLeak(-0.0004)).toBe('−4.0 × 10⁻⁴ mbar·L/s');
    expect(formatLeak(0)).toBe('0 mbar·L/s');
    expect(formatLeakWithSe(0.00091, 0.0033)).toBe('(0.9 ± 3.3) × 10⁻³ mbar·L/s');
    // nothing, rounded, has no sign
    expect(formatLeakWithSe(-0.000001, 0.00063)).toBe('(0.0 ± 6.3) × 10⁻⁴ mbar·L/s');
    expect(formatLeakWithSe(0.12, 0.0021)).toBe('(1.20 ± 0.02) × 10⁻¹ mbar·L/s');
    expect(formatLeakWithSe(0, 0)).toBe('0 mbar·L/s');
  });
});
