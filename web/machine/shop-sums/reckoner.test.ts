// @vitest-environment happy-dom
import { describe, expect, it } from 'vitest';
import { mountScreen, settle } from '../../../tests/screens/mountScreen.js';
import ReckonerDialog from './ReckonerDialog.vue';
import { missingOf, SUMS, type Entered, type Sum } from './sums.js';

const sum = (title: string): Sum => SUMS.find((each) => each.title.startsWith(title)) as Sum;
const startOf = ({ fields }: Sum): Record<string, number | string | null> => Object.fromEntries(fields.map(({ id, start }) => [id, start]));
const answer = (title: string, entered: Entered) => sum(title).answer({ ...startOf(sum(title)), ...entered });

describe('sums for the bench', () => {
  it('tells air from swelling tube in one rise', () => {
    const { big, unit, lines } = answer('Air left', { rise: 6 });
    // 15 mL pressed, 2.6 mL of it tube
    expect([Number(big), unit]).toEqual([75, 'mL of air']);
    expect(lines[0]).toMatch(/^16 mL of the reading is tube/);
  });

  it('picks the screws that hold and do not reach the tubes', () => {
    expect(answer('Fan screws', {})).toMatchObject({ big: '30', unit: 'mm fit' });
    expect(answer('Fan screws', { stock: '20 50' })).toMatchObject({ big: 'none' });
  });

  it('cuts with the least waste, and takes commas as decimals', () => {
    expect(answer('Cut list', { pieces: '600 400,5 399,5' })).toMatchObject({ big: '2', unit: 'stock lengths' });
    expect(() => answer('Cut list', { pieces: '600 x' })).toThrow(/spaces between/);
  });

  it('says what would make an impossible mix possible', () => {
    expect(answer('Concentrate', { loop: 700, left: 100, target: 25 })).toMatchObject({ big: '175', unit: 'mL concentrate' });
    expect(answer('Concentrate', { loop: 700, left: 650, target: 25 }).lines[0]).toMatch(/more has to come out first/);
  });

  it('counts rinses, minutes and the loss through the walls', () => {
    expect(answer('Rinses', { left: 80 })).toMatchObject({ big: '3', unit: 'rinses' });
    expect(answer('How long', {})).toMatchObject({ big: '10' });
    expect(answer('Water lost', {}).unit).toBe('mL a month');
    expect(answer('Level at', { level: 120, temp: 45 })).toMatchObject({ big: '118.1', unit: 'mm at 25 °C' });
  });

  it('asks for what is missing before it answers', () => {
    expect(missingOf(sum('Rinses'), startOf(sum('Rinses')))).toBe('Stays after a drain?');
    expect(missingOf(sum('Rinses'), { left: -1, rinse: 600, target: 1 })).toMatch(/at least 0/);
  });
});

describe('the dialog', () => {
  it('opens a sum with one digit, and answers while a number is typed', async () => {
    mountScreen(ReckonerDialog, { props: { modelValue: true } });
    await settle();
    window.dispatchEvent(new KeyboardEvent('keydown', { key: '6' }));
    await settle();
    const dialog = document.querySelector('.reckoner') as HTMLElement;
    expect(dialog.querySelector('h2')?.textContent).toBe('Rinses');
    const input = dialog.querySelector('input') as HTMLInputElement;
    input.value = '80';
    input.dispatchEvent(new Event('input'));
    await settle();
    expect(dialog.querySelector('.big-number')?.textContent?.replace(/\s+/g, ' ').trim()).toBe('3 rinses');
  });
});
