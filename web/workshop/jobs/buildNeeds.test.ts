// @vitest-environment happy-dom
import { describe, expect, it } from 'vitest';
import { usualLoop } from '@core/machine/catalogue/testLoops.js';
import { mountScreen, settle, wordsOf } from '../../../tests/screens/mountScreen.js';
import BuildNeeds from './BuildNeeds.vue';
import type { JobForm } from './jobForm.js';

const LINE: JobForm['parts'][number] = { what: '360 × 30 radiator, copper', amount: 1, unit: 'pcs', itemId: null, eachMinor: 9900 };

describe('what a build takes', () => {
  it('stands part by part with its verdict, and goes into the estimate by one touch', async () => {
    const screen = mountScreen(BuildNeeds, { props: { file: usualLoop(), modelValue: [] } });
    expect(wordsOf(screen)).toContain('7 parts, 7 tubes');
    expect(wordsOf(screen)).toContain('Before it is ordered');
    await screen.find('button').trigger('click');
    await settle();
    const [taken] = (screen.emitted('update:modelValue') ?? [[]])[0] as [JobForm['parts']];
    expect(taken.find(({ what }) => what === LINE.what)).toMatchObject({ amount: 2, unit: 'pcs' });
    expect(taken.some(({ unit }) => unit === 'm')).toBe(true);
  });

  it('leaves what a hand has entered as it is', async () => {
    const screen = mountScreen(BuildNeeds, { props: { file: usualLoop(), modelValue: [LINE] } });
    await screen.find('button').trigger('click');
    const [taken] = (screen.emitted('update:modelValue') ?? [[]])[0] as [JobForm['parts']];
    expect(taken.filter(({ what }) => what === LINE.what)).toEqual([LINE]);
  });
});
