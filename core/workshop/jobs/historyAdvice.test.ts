import { describe, expect, it } from 'vitest';
import type { LoopHistory } from './answers.js';
import { adviseByHistory, NOTHING_SAID } from './historyAdvice.js';

const known: LoopHistory = {
  filledOn: '2026-01-10',
  ageDays: 90,
  coolantId: 'clear',
  coolantName: 'Plain Clear',
  coolantClass: 'clear',
  lifeMonths: 24,
  dyes: [],
  baselineFlowLph: 160,
  risenK: 0,
  fallout: null,
  dueSoon: null,
};
const unknown: LoopHistory = {
  ...known,
  filledOn: null,
  ageDays: null,
  coolantId: null,
  coolantName: null,
  coolantClass: null,
  lifeMonths: null,
};

describe('what a loop’s history advises', () => {
  it('is to leave a loop closed that is well, and to change what is due by itself where the same follows', () => {
    expect(adviseByHistory(NOTHING_SAID, known, null).kind).toBe('closed-loop');
    expect(adviseByHistory(NOTHING_SAID, { ...known, dueSoon: 'over' }, null).kind).toBe('drain-refill');
    expect(adviseByHistory(NOTHING_SAID, { ...known, dueSoon: 'over' }, 'fine').kind).toBe('drain-refill');
  });

  it('is to rinse where nobody knows what is inside: it may meet nothing', () => {
    const advice = adviseByHistory(NOTHING_SAID, { ...unknown, dueSoon: 'over' }, null);
    expect(advice.kind).toBe('flush-refill');
    expect(advice.reasons.join()).toContain('nobody knows what is inside');
    // whatever is chosen for it
    expect(adviseByHistory({ ...NOTHING_SAID, productId: 'clear' }, unknown, 'never').kind).toBe('flush-refill');
  });

  it('is to rinse where a coolant is asked for that may not meet what is inside, and not where it may', () => {
    const asked = { ...NOTHING_SAID, productId: 'other' };
    expect(adviseByHistory(asked, known, 'rinse-between').kind).toBe('flush-refill');
    expect(adviseByHistory(asked, known, 'fine').kind).toBe('closed-loop');
    expect(adviseByHistory(asked, known, null).kind).toBe('closed-loop');
  });

  it('reads the flow against the loop’s own baseline', () => {
    expect(adviseByHistory({ ...NOTHING_SAID, flowLph: 130 }, known, null).kind).toBe('flush-refill');
    expect(adviseByHistory({ ...NOTHING_SAID, flowLph: 130 }, { ...known, baselineFlowLph: null }, null).kind).toBe('closed-loop');
  });
});
