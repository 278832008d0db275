// @vitest-environment happy-dom
import noReservoirText from '../../../examples/no-reservoir.json?raw';
import { buildProcedure } from '@core/bench/procedures/buildProcedure.js';
import { emptyState, type RunState } from '@core/bench/runs/state.js';
import { readLoopFile } from '@core/machine/loop-file/loopFileSchema.js';
import { DEFAULT_SCHOOLS } from '@core/physics/leak-testing/schools.js';
import { describe, expect, it } from 'vitest';
import { mountScreen, wordsOf } from '../../../tests/screens/mountScreen.js';
import WeighPanel from './WeighPanel.vue';

const procedure = buildProcedure({
  loop: readLoopFile(JSON.parse(noReservoirText)),
  schools: DEFAULT_SCHOOLS,
  order: null,
  coolantName: null,
});
const shown = (change: (state: RunState) => void) => {
  const state = emptyState(procedure);
  change(state);
  return mountScreen(WeighPanel, { props: { procedure, state, locked: false } });
};
const pour = (state: RunState): void => void state.pours.push({ eventId: 'p', at: '2026-03-10T09:00:00Z', value: 300, source: 'hand' });

describe('a machine without a reservoir on the scale', () => {
  it('is weighed before the first pour, and asks for a figure instead of guessing', async () => {
    const screen = shown(() => undefined);
    await screen.get('form').trigger('submit');
    expect(wordsOf(screen)).toContain('Read the scale, in g, hoses and bottle off.');
    await screen.get('input').setValue('12400');
    await screen.get('form').trigger('submit');
    expect(screen.emitted('send')).toEqual([[{ type: 'weighed', when: 'before', massG: 12_400 }]]);
  });

  it('says what is inside once it was weighed twice, with its error, beside what left the jug', () => {
    const screen = shown((state) => {
      pour(state);
      state.weights.before = { massG: 12_400, insideMl: 0, insideSdMl: 0 };
      state.weights.after = { massG: 12_690 };
    });
    expect(wordsOf(screen)).toContain('291 ± 8 mL inside by the scale; 300 mL left the jug.');
  });

  it('does not ask for a second weight that nothing can be taken from', () => {
    const screen = shown(pour);
    expect(screen.find('form').exists()).toBe(false);
    expect(wordsOf(screen)).toContain('Not weighed before the first pour');
  });
});
