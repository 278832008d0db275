// @vitest-environment happy-dom
import { describe, expect, it } from 'vitest';
import { defineComponent, h, ref } from 'vue';
import { mountScreen, settle, wordsOf } from '../../../tests/screens/mountScreen.js';
import NumberField from '../../base/units/NumberField.vue';
import BenchFrame from './BenchFrame.vue';

/** A frame with two figures to enter and a note. */
const Step = defineComponent(() => {
  const [level, gauge] = [ref<number | null>(null), ref<number | null>(null)];
  return () =>
    h(
      BenchFrame,
      { powered: false, shows: 'loop' },
      {
        act: () => [
          h(NumberField, {
            modelValue: level.value,
            'onUpdate:modelValue': (now: number | null) => (level.value = now),
            label: 'Level',
            unit: 'mL',
          }),
          h(NumberField, {
            modelValue: gauge.value,
            'onUpdate:modelValue': (now: number | null) => (gauge.value = now),
            label: 'Gauge',
            unit: 'kPa',
          }),
          h('p', { class: 'read' }, `${level.value} ${gauge.value}`),
        ],
      },
    );
});
async function touched(pointerType: 'touch' | 'mouse'): Promise<ReturnType<typeof mountScreen>> {
  const screen = mountScreen(Step);
  const field = screen.find('input').element;
  field.dispatchEvent(new PointerEvent('pointerdown', { bubbles: true, pointerType }));
  field.focus();
  await settle();
  return screen;
}
async function press(screen: ReturnType<typeof mountScreen>, ...keys: string[]): Promise<void> {
  for (const key of keys)
    await screen
      .findAll('.pad button')
      .find((button) => button.text() === key)
      ?.trigger('click');
}

describe('the key pad', () => {
  it('comes where a finger touches a figure, instead of the device’s keyboard', async () => {
    const screen = await touched('touch');
    expect(screen.find('.pad').attributes('aria-label')).toContain('Level');
    expect(screen.find('input').element.inputMode).toBe('none');
  });

  it('never meets a mouse or a real keyboard', async () => {
    const screen = await touched('mouse');
    expect(screen.find('.pad').exists()).toBe(false);
    expect(screen.find('input').element.inputMode).toBe('decimal');
  });

  it('types figures with a comma and a sign, rubs out, and reads them like any other', async () => {
    const screen = await touched('touch');
    await press(screen, '1', '2', ',', '5', '7', '⌫', '−');
    expect(wordsOf(screen.find('.read') as never)).toBe('-12.5 null');
    await press(screen, '−');
    expect(wordsOf(screen.find('.read') as never)).toBe('12.5 null');
  });

  it('goes when it is closed, and what was typed stays', async () => {
    const screen = await touched('touch');
    await press(screen, '4', '2', 'close');
    await settle();
    expect(screen.find('.pad').exists()).toBe(false);
    expect(wordsOf(screen.find('.read') as never)).toBe('42 null');
  });
});
