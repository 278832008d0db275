import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { SCREWS, screwsOfStack, STACK_FIELDS, USUAL_STACK, type MeasuredStack } from './fanScrews.js';

const stacks = fc.record(Object.fromEntries(STACK_FIELDS.map((field) => [field, fc.integer({ min: 0, max: 80 }).map((tenths) => tenths / 2)]))) as fc.Arbitrary<MeasuredStack>; // prettier-ignore

describe('the screws of a stack', () => {
  it('of a usual fan are 30 mm long: 25 of fan, 1 of washers, 3 of thread, and not into the tubes', () => {
    expect(screwsOfStack(USUAL_STACK)).toMatchObject({ minMm: 29, maxMm: 30.5, fits: [30] });
    // without washers the same screw would stand half a millimetre too deep
    expect(screwsOfStack({ ...USUAL_STACK, washersMm: 0 }).fits).toEqual([28]);
    // panel and spacer count
    expect(screwsOfStack({ ...USUAL_STACK, panelMm: 1, spacerMm: 1 }).fits).toEqual([32]);
  });

  it('hold by their thread and never reach the tubes, whatever was measured', () => {
    fc.assert(
      fc.property(stacks, (stack) => {
        const before = stack.panelMm + stack.washersMm + stack.spacerMm + stack.fanMm;
        for (const length of screwsOfStack(stack).fits) {
          expect(length - before).toBeGreaterThanOrEqual(SCREWS.threadMinMm);
          expect(length).toBeLessThanOrEqual(before + stack.flangeMm + stack.clearanceMm - SCREWS.tipGapMm);
        }
      }),
      { numRuns: 200 },
    );
  });
});
