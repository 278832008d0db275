import { describe, expect, it } from 'vitest';
import { PROCEDURE_KINDS, standardProcedure } from '../../bench/procedures/procedureKinds.js';
import { isEach, PLACEHOLDERS } from '../../bench/runs/template.js';
import { asShown, asStored, FILLED_IN } from './filledIn.js';

describe('what the loop fills in', () => {
  it('is read in words, each with its own, and never in braces', () => {
    expect(asShown('Raise to {gaugeKpa} kPa')).toBe('Raise to ‹test pressure› kPa');
    expect(new Set(Object.values(FILLED_IN)).size).toBe(PLACEHOLDERS.length);
    for (const kind of PROCEDURE_KINDS)
      for (const { lead, cautions, checks } of standardProcedure(kind).steps)
        for (const text of [lead, ...cautions, ...checks.flatMap((check) => (isEach(check) ? [] : [check.text]))]) {
          expect(asShown(text)).not.toMatch(/[{}]/);
          expect(asStored(asShown(text))).toBe(text);
        }
  });

  it('keeps what somebody typed that names nothing', () => {
    expect(asStored('‹so said the owner› and {x}')).toBe('‹so said the owner› and {x}');
  });
});
