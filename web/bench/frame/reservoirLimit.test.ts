// @vitest-environment happy-dom
import { describe, expect, it } from 'vitest';
import { mountScreen } from '../../../tests/screens/mountScreen.js';
import ReservoirLimit from './ReservoirLimit.vue';

const reservoir = { component: 'tank', fillMarkMl: 229, lowMarkMl: 78, capacityMl: 260, mlPerMm: 1.6 } as never;
const shown = (offAtMl: number | null): string =>
  mountScreen(ReservoirLimit, { props: { reservoir, colour: '#b23a3f', standsMl: 228, measured: true, offAtMl } })
    .find('svg')
    .attributes('aria-label') ?? '';

describe('the reservoir beside an order', () => {
  it('has the pump off where the order says so, not at another figure', () => {
    expect(shown(154)).toContain('pump off 154');
    expect(shown(154)).not.toContain('78');
  });

  it('has it off at the low mark where nothing is ordered, and never below it', () => {
    expect(shown(null)).toContain('pump off 78');
    expect(shown(40)).toContain('pump off 78');
  });
});
