// @vitest-environment happy-dom
import { sumUp, line } from '@core/workshop/prices/lines.js';
import { DEFAULT_RATES, type PriceList } from '@core/workshop/prices/rates.js';
import { describe, expect, it } from 'vitest';
import { fakeServer, mountScreen, settle, wordsOf } from '../../../tests/screens/mountScreen.js';
import { blankForm, priceOfForm } from '../jobs/jobForm.js';
import ConsentBox from '../jobs/ConsentBox.vue';
import MoneyField from './MoneyField.vue';
import PartLines, { type TypedPart } from './PartLines.vue';
import PriceLines from './PriceLines.vue';
import { usePriceList } from './priceStore.js';

const LIST: PriceList = {
  rates: { ...DEFAULT_RATES, hourMinor: 6000, taxPercent: 20 },
  items: [{ id: 'ring', name: 'O-ring 11 × 2', unit: 'pcs', priceMinor: 40 }],
  coolants: [{ id: 'red', name: 'Plain Red', litreMinor: 3000, targetFraction: null }],
};
const priced = sumUp(LIST.rates, [line('labour', 'flush-refill', 2, 'h', 6000), line('part', 'paste', 4, 'g', null)]);

describe('an estimate', () => {
  it('stands line by line, with its tax, and says that it is no whole price yet', () => {
    const words = wordsOf(mountScreen(PriceLines, { props: { priced, title: 'Estimate' } }));
    expect(words).toContain('Work: flush and refill 2 h €60.00 an hour €120.00');
    expect(words).toContain('Paste 4 g no price yet –');
    expect(words).toContain('with 20 % tax, €20.00 at least €120.00');
  });

  it('is reckoned while it is typed; without hours there is none', () => {
    const form = { ...blankForm(), kind: 'flush-refill' as const, hours: 1.5, coolantMl: 1000 };
    expect(priceOfForm(LIST, form.kind, 'red', form)?.totalMinor).toBe(12_000);
    expect(priceOfForm(LIST, form.kind, 'red', { ...form, hours: null })).toBeNull();
    expect(priceOfForm({ ...LIST, rates: DEFAULT_RATES }, form.kind, 'red', form)).toBeNull();
  });

  it('asks the owner again where the work passes what was agreed', () => {
    const estimate = { hours: 2, partsText: '', coolantMl: 0, priceText: '', parts: [], priced };
    const bill = { used: sumUp(LIST.rates, [line('labour', 'flush-refill', 4, 'h', 6000)]), agreed: priced, passes: true };
    const job = { id: 'j', version: 1, kind: 'flush-refill' as const, estimate, consented: true, asked: null, consents: [], bill };
    const words = wordsOf(mountScreen(ConsentBox, { props: { job, phone: null, reached: false, open: false } }));
    expect(words).toContain('It took €240.00 so far; at least €120.00 is agreed. Ask the owner');
  });
});

describe('parts of an estimate', () => {
  async function typed(what: string): Promise<TypedPart[]> {
    fakeServer(() => ({ status: 200, body: {} }), () => LIST); // prettier-ignore
    let parts: TypedPart[] = [{ itemId: null, what: '', amount: 1, unit: 'pcs', eachMinor: null }];
    const screen = mountScreen(PartLines, { props: { modelValue: parts, at: () => [], 'onUpdate:modelValue': (next: TypedPart[]) => (parts = next) } }); // prettier-ignore
    await usePriceList().load();
    await settle();
    screen.findComponent({ name: 'VCombobox' }).vm.$emit('update:modelValue', what);
    await settle();
    return parts;
  }
  it('take unit and price from the store where it knows the name, and are written where it does not', async () => {
    expect(await typed('O-ring 11 × 2')).toEqual([{ itemId: 'ring', what: 'O-ring 11 × 2', amount: 1, unit: 'pcs', eachMinor: 40 }]);
    expect(await typed('Card block')).toMatchObject([{ itemId: null, what: 'Card block' }]);
  });
});

describe('a price', () => {
  it('is typed as people write it, and kept in whole minor units', async () => {
    let value: number | null = 1250;
    const screen = mountScreen(MoneyField, { props: { modelValue: value, label: 'An hour', currency: 'EUR', 'onUpdate:modelValue': (next: number | null) => (value = next) } }); // prettier-ignore
    expect(screen.find('input').element.value).toBe('12.5');
    await screen.find('input').setValue('64,05');
    expect(value).toBe(6405);
  });
});
