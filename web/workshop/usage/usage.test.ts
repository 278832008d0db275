// @vitest-environment happy-dom
import { beforeEach, describe, expect, it } from 'vitest';
import { usageOf, type UsageReading } from '@core/workshop/usage/usage.js';
import { fakeServer, mountScreen, settle, wordsOf, type Asked } from '../../../tests/screens/mountScreen.js';
import { useNotices } from '../../base/shell/notices.js';
import UsageCard from './UsageCard.vue';

let asked: Asked[];
beforeEach(() => {
  document.body.innerHTML = '';
  asked = fakeServer(() => ({ status: 201, body: { id: 'new', moved: [{}] } }));
});
const reading = (on: string, hours: number): UsageReading & { note: string } => ({ id: on, source: 'meter', fromOn: null, on, hours, meanCoolantC: 34, note: 'told on the phone' }); // prettier-ignore
function card(readings: readonly (UsageReading & { note: string })[], ownerHoursPerDay: number | null = null) {
  const usage = usageOf({ readings, ownerHoursPerDay, ownerCoolantC: null, since: '2026-01-01' });
  return mountScreen(UsageCard, { props: { systemId: 's', page: { usage, readings }, today: '2026-03-10', retired: false } });
}
const press = async (screen: ReturnType<typeof card>, words: RegExp): Promise<void> => {
  await screen.findAll('button').find((each) => words.test(each.text()))?.trigger('click'); // prettier-ignore
  await settle();
};
const dialog = (): HTMLElement => document.querySelector('.v-dialog') as HTMLElement;
const field = (label: string): HTMLInputElement =>
  [...dialog().querySelectorAll('.v-text-field')]
    .find((each) => each.querySelector('label')?.textContent === label)
    ?.querySelector('input') as HTMLInputElement;
async function type(label: string, value: string): Promise<void> {
  const input = field(label);
  input.value = value;
  input.dispatchEvent(new Event('input'));
  await settle();
}
async function submit(): Promise<void> {
  dialog()
    .querySelector('form')
    ?.dispatchEvent(new Event('submit', { cancelable: true, bubbles: true }));
  await settle();
}
describe('how a machine is used', () => {
  it('never lets an assumption look measured', () => {
    const words = wordsOf(card([]));
    expect(words).toContain('≈ 4.0 h a day assumed');
    expect(words).toContain('lives are taken as at 35 °C');
  });

  it('puts the best source first, with the days it rests on, the others beside it', () => {
    const words = wordsOf(card([reading('2026-02-01', 100), reading('2026-03-01', 170)], 8));
    expect(words).toMatch(/2\.5 h a day by its meter, 1 Feb 2026 to 1 Mar 2026 ?8\.0 h a day by its owner ?≈ 4\.0 h a day assumed/);
    expect(words).toContain('Coolant 34 °C on average by its meter');
  });

  it('strikes a wrong reading out, and brings it back', async () => {
    const screen = card([reading('2026-02-01', 100), reading('2026-03-01', 170)]);
    await press(screen, /2 readings/);
    await press(screen, /strike out/);
    expect(asked.at(-1)).toMatchObject({ path: '/usage-readings/2026-02-01', body: { struck: true } });
    await useNotices().current?.undo?.();
    expect(asked.at(-1)?.body).toEqual({ struck: false });
    expect(screen.emitted('reload')).toHaveLength(2);
  });
});

describe('a new reading', () => {
  it('of a meter is one day and one count', async () => {
    const screen = card([]);
    await press(screen, /Read its meter/);
    await type('The meter shows', '1204');
    await submit();
    expect(asked.at(-1)).toMatchObject({
      path: '/systems/s/usage',
      body: { source: 'meter', fromOn: null, on: '2026-03-10', hours: 1204, meanCoolantC: null },
    });
    expect(useNotices().current?.text).toBe('Kept; its date moves.');
  });
});
