// @vitest-environment happy-dom
import { describe, expect, it } from 'vitest';
import { defineComponent, h, nextTick, ref } from 'vue';
import { mountScreen } from '../../../tests/screens/mountScreen.js';
import { setTimeZone, useDates } from './dates.js';
import { serverNowMs, setServerNow } from './now.js';
import NumberField from './NumberField.vue';

describe('a number field', () => {
  const field = (value: number | null = null) => mountScreen(NumberField, { props: { modelValue: value, label: 'Poured', unit: 'mL' } });
  const last = (screen: ReturnType<typeof field>): unknown => (screen.emitted('update:modelValue') as unknown[][] | undefined)?.at(-1)?.[0];

  it.each([
    ['120', 120],
    ['12,5', 12.5],
    ['12.5', 12.5],
    [' 7 ', 7],
    ['-3', -3],
    ['−3', -3],
    ['.5', 0.5],
  ])('reads %s as %d', async (text, value) => {
    const screen = field();
    await screen.find('input').setValue(text);
    expect(last(screen)).toBe(value);
    expect(screen.text()).not.toContain('A number');
  });

  it('takes a figure key by key: half a number stays as it is typed', async () => {
    const screen = mountScreen(
      defineComponent(() => {
        const value = ref<number | null>(null);
        return () => h(NumberField, { modelValue: value.value, 'onUpdate:modelValue': (now: number | null) => (value.value = now), label: 'Poured', unit: 'mL' }); // prettier-ignore
      }),
    );
    const input = screen.find('input');
    for (const key of '12,5') {
      await input.setValue(input.element.value + key);
      await nextTick();
    }
    expect(input.element.value).toBe('12,5');
    expect(screen.text()).not.toContain('A number');
  });

  it.each(['12 ml', 'abc', '1.2.3', '1e5', '--2'])('says that %s is no number, and passes none on', async (text) => {
    const screen = field(5);
    await screen.find('input').setValue(text);
    await nextTick();
    expect(last(screen)).toBeNull();
    expect(screen.text()).toContain('A number, in mL');
  });

  it('shows its unit, its label and what the server had against it', () => {
    const screen = mountScreen(NumberField, { props: { modelValue: 3, label: 'Poured', unit: 'mL', errors: ['too much'] } });
    expect(screen.text()).toContain('mL');
    expect(screen.text()).toContain('Poured');
    expect(screen.text()).toContain('too much');
  });

  it('keeps what is being typed while the value is the same', async () => {
    const screen = field(1);
    await screen.find('input').setValue('1.0');
    await screen.setProps({ modelValue: 1 });
    expect((screen.find('input').element as HTMLInputElement).value).toBe('1.0');
    await screen.setProps({ modelValue: 2 });
    expect((screen.find('input').element as HTMLInputElement).value).toBe('2');
  });

  it('tells when Enter was pressed', async () => {
    const screen = field(1);
    await screen.find('input').trigger('keydown', { key: 'Enter' });
    expect(screen.emitted('enter')).toHaveLength(1);
  });
});

describe('time on the screen', () => {
  it('follows the server, whatever this device thinks', () => {
    setServerNow(new Date(Date.now() + 3_600_000).toISOString());
    expect(serverNowMs() - Date.now()).toBeGreaterThan(3_590_000);
    setServerNow(new Date().toISOString());
  });

  it('shows instants in the zone of the workshop and days as days', () => {
    setTimeZone('Asia/Tokyo');
    const dates = useDates();
    expect(dates.time('2026-03-09T20:30:00Z')).toBe('05:30');
    expect(dates.day('2026-03-09T20:30:00Z')).toBe('10 Mar 2026');
    expect(dates.day('2026-03-09')).toBe('9 Mar 2026');
    expect(dates.dayAndTime('2026-03-09T20:30:00Z')).toBe('10 Mar 2026, 05:30');
  });
});
