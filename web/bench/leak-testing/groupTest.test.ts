// @vitest-environment happy-dom
import { describe, expect, it } from 'vitest';
import { procedureOf, TestRun } from '../../../tests/bench/testRun.js';
import { mountScreen, settle, wordsOf } from '../../../tests/screens/mountScreen.js';
import GroupTest from './GroupTest.vue';

const procedure = procedureOf({ leak: 'dry-then-wet' });
const GROUP = ['roof', 'front'];
const mounted = (run: TestRun) => mountScreen(GroupTest, { props: { procedure, state: run.state, locked: false } });
const press = async (screen: ReturnType<typeof mounted>, text: RegExp): Promise<void> => {
  await screen.findAll('button').find((button) => text.test(button.text()))?.trigger('click'); // prettier-ignore
  await settle();
};
const field = (screen: ReturnType<typeof mounted>, label: string) => screen.findAll('.v-text-field').find((each) => each.text().includes(label))?.find('input'); // prettier-ignore

describe('parts joined outside the case, on the bench', () => {
  it('are chosen, read with the room beside them, and nothing is sent without it', async () => {
    const screen = mounted(new TestRun(procedure));
    await screen.findComponent({ name: 'VSelect' }).setValue(GROUP);
    await field(screen, 'Gauge of the group')?.setValue('50');
    await press(screen, /Write it down/);
    expect(screen.emitted('send')).toBeUndefined();
    expect(wordsOf(screen)).toContain('a warm hand looks like a leak');
    await field(screen, 'Room beside it')?.setValue('22');
    await press(screen, /Write it down/);
    expect(screen.emitted('send')).toEqual([[{ type: 'group-reading', parts: GROUP, gaugeKpa: 50, tempC: 22 }]]);
  });

  it('that held air are told of one by one with what was read; before that there is nothing to press', async () => {
    const run = new TestRun(procedure);
    run.say({ type: 'group-reading', parts: GROUP, gaugeKpa: 50, tempC: 22 });
    expect(wordsOf(mounted(run))).toContain('Cannot tell yet');
    expect(
      mounted(run)
        .findAll('button')
        .some((button) => /They are tight/.test(button.text())),
    ).toBe(false);
    for (let minute = 0; minute < 90; minute += 1) run.wait(60).say({ type: 'group-reading', parts: GROUP, gaugeKpa: 50, tempC: 22 });
    const screen = mounted(run);
    await press(screen, /They are tight/);
    const sent = (screen.emitted('send') ?? []).map(([body]) => body as { type: string; part: string; tight: boolean; how: string });
    expect(sent.map(({ type, part, tight }) => [type, part, tight])).toEqual(GROUP.map((part) => ['part-test', part, true]));
    expect(sent[0]?.how).toMatch(/air, joined outside: 50\.0 kPa to 50\.0 kPa in/);
  });
});
