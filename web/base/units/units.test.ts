// @vitest-environment happy-dom
import { afterEach, describe, expect, it } from 'vitest';
import { defineComponent, h, nextTick, ref } from 'vue';
import { mountScreen } from '../../../tests/screens/mountScreen.js';
import { setTimeZone, useDates } from './dates.js';
import DayField from './DayField.vue';
import MonthSheet from './MonthSheet.vue';
import { serverNowMs, setServerNow } from './now.js';
import { setReading } from './reader.js';
import TimeField from './TimeField.vue';
import { USUAL_READING } from '@core/base/units/reading.js';
import NumberField from './NumberField.vue';

afterEach(() => setReading(USUAL_READING));

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

/** A field over a value of its own, as a form holds it. */
const held = (field: typeof DayField | typeof TimeField | typeof NumberField, value: string | number | null, props: object) => {
  const model = ref(value);
  const screen = mountScreen(defineComponent(() => () => h(field as never, { ...props, modelValue: model.value, 'onUpdate:modelValue': (now: never) => (model.value = now) }))); // prettier-ignore
  return { screen, model, input: screen.find('input') };
};

describe('a number of a reader with other units', () => {
  it('is typed in the reader’s unit and kept in the stored one', async () => {
    setReading({ ...USUAL_READING, volume: 'fl oz' });
    const { input, model, screen } = held(NumberField, 295.7353, { label: 'Poured', unit: 'mL' });
    expect(input.element.value).toBe('10');
    expect(screen.text()).toContain('fl oz');
    await input.setValue('12,5');
    expect(model.value).toBeCloseTo(369.669, 2);
    await nextTick();
    expect(input.element.value).toBe('12,5');
  });
});

describe('a day field', () => {
  it('takes what people type, when it is left, and shows it as its reader writes days', async () => {
    setServerNow('2026-03-09T10:00:00Z');
    setTimeZone('Europe/Lisbon');
    const { input, model, screen } = held(DayField, '', { label: 'Until' });
    await input.setValue('24.12.');
    expect(model.value).toBe('');
    await input.trigger('blur');
    expect([model.value, input.element.value]).toEqual(['2026-12-24', '24 Dec 2026']);
    await input.setValue('soon');
    await input.trigger('blur');
    expect(screen.text()).toContain('A day, such as');
    expect(model.value).toBe('2026-12-24');
    await input.setValue('');
    expect(model.value).toBe('');
  });

  it('moves by keys and stays between its bounds', async () => {
    const { input, model } = held(DayField, '2026-03-09', { label: 'Until', min: '2026-03-08' });
    for (const name of ['keydown.up', 'keydown.down', 'keydown.down', 'keydown.down']) await input.trigger(name);
    expect(model.value).toBe('2026-03-08');
    setReading({ ...USUAL_READING, date: 'iso' });
    await input.trigger('keydown', { key: 'PageUp' });
    expect([model.value, input.element.value]).toEqual(['2026-03-15', '2026-03-15']);
  });
});

describe('the days of a month', () => {
  it('begin with the reader’s first day of the week, and are walked by keys', async () => {
    setReading({ ...USUAL_READING, weekBegins: 7 });
    const screen = mountScreen(MonthSheet, { props: { day: '2026-03-09', today: '2026-03-09', min: '2026-03-05' } });
    expect(screen.find('.name').text()).toBe('Sun');
    const at = () => screen.find('.grid [tabindex="0"]').attributes('aria-label');
    await screen.find('.grid').trigger('keydown', { key: 'ArrowDown' });
    expect(at()).toBe('16 Mar 2026');
    await screen.find('.grid').trigger('keydown', { key: 'PageDown' });
    expect(at()).toBe('16 Apr 2026');
    await screen.find('.grid [tabindex="0"]').trigger('click');
    expect(screen.emitted('pick')).toEqual([['2026-04-16']]);
  });
});

describe('a time field', () => {
  it('takes hours in any form and moves by whole quarters', async () => {
    const { input, model } = held(TimeField, '', { label: 'from' });
    await input.setValue('930');
    await input.trigger('blur');
    expect(model.value).toBe('09:30');
    await input.setValue('9:37');
    await input.trigger('keydown', { key: 'ArrowUp' });
    expect(model.value).toBe('09:45');
    setReading({ ...USUAL_READING, clock: '12' });
    await input.trigger('keydown', { key: 'ArrowDown' });
    expect([model.value, input.element.value]).toEqual(['09:30', '9:30 am']);
  });
});
