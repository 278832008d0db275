// @vitest-environment happy-dom
import { describe, expect, it } from 'vitest';
import { COOLANT, TestRun } from '../../../tests/bench/testRun.js';
import { mountScreen, settle } from '../../../tests/screens/mountScreen.js';
import ColourDialog from '../../workshop/colour/ColourDialog.vue';
import DyeForm from './DyeForm.vue';

describe('dye at the bench', () => {
  const run = new TestRun().upTo('fill').say(COOLANT).say({ type: 'pour', volumeMl: 200 });
  it('is reckoned from its sheet, and written down', async () => {
    const screen = mountScreen(DyeForm, { props: { procedure: run.procedure, state: run.state, locked: false } });
    const [name, perL] = screen.findAll('input');
    await name?.setValue('Reed green');
    await perL?.setValue('20');
    await screen.find('form').trigger('submit');
    const [[sent]] = screen.emitted('send') as [[{ drops: number }]];
    expect(sent).toMatchObject({ type: 'dyed', name: 'Reed green' });
    expect(sent.drops).toBeGreaterThan(0);
    expect(screen.find('[type=submit]').attributes('disabled')).toBeUndefined();
  });

  it('keeps the sample of the lot from being taken for a reference', async () => {
    const props = { systemId: 's', jobId: null };
    const dyed = mountScreen(ColourDialog, { props: { ...props, dyes: [{ name: 'Reed green', drops: 6 }] } });
    await settle();
    expect(document.body.textContent).toContain('6 drops of Reed green');
    dyed.unmount();
    mountScreen(ColourDialog, { props });
    await settle();
    expect(document.body.textContent).not.toContain('It was dyed');
  });
});
