// @vitest-environment happy-dom
import { describe, expect, it } from 'vitest';
import { usualLoop } from '@core/machine/catalogue/testLoops.js';
import type { ElectricalSheet } from '@core/machine/electrical/sheet.js';
import { usualSheet } from '@core/machine/electrical/usual.js';
import { TestRun } from '../../../tests/bench/testRun.js';
import { fakeServer, mountScreen, settle, wordsOf, type Asked } from '../../../tests/screens/mountScreen.js';
import AlsoPulled from '../../bench/leak-testing/AlsoPulled.vue';
import ConnectorsView from '../../pages/ConnectorsView.vue';

const LOOP = { id: '11111111-1111-4111-8111-111111111111', name: 'Main', file: usualLoop() };
const usual = usualSheet([LOOP]);
let asked: Asked[] = [];

async function open(sheet: ElectricalSheet | null, refuse?: object) {
  const answer = (own: ElectricalSheet | null, version: number) => ({
    systemId: 's',
    systemName: 'Slate',
    sheet: own,
    version,
    loops: [LOOP],
  });
  asked = fakeServer(({ method, body }) =>
    method === 'PUT'
      ? refuse
        ? {
            status: 409,
            body: { error: { code: 'stale', message: 'Somebody saved it.', theirs: answer({ ...usual, supply: 'Theirs' }, 5) } },
          }
        : { status: 200, body: answer((body as { sheet: ElectricalSheet }).sheet, 1) }
      : { status: 200, body: answer(sheet, sheet ? 3 : 0) },
  );
  const screen = mountScreen(ConnectorsView, { props: { id: 's' } }, '/systems/s/connectors');
  await settle();
  return screen;
}
const button = (screen: Awaited<ReturnType<typeof open>>, words: string) => screen.findAll('button').find((each) => each.text() === words);

describe('the connectors of a machine', () => {
  it('begin with what is usual, and are kept once they are written down', async () => {
    const screen = await open(null);
    expect(wordsOf(screen)).toContain('Nobody wrote them down yet');
    await button(screen, 'Begin with what is usual')?.trigger('click');
    expect(wordsOf(screen)).toContain('4 connectors come off');
    await button(screen, 'Write it down')?.trigger('click');
    await settle();
    expect(asked.at(-1)).toMatchObject({ method: 'PUT', path: '/systems/s/connectors', body: { version: 0, sheet: usual } });
  });

  it('say at once what a change means at the bench', async () => {
    const screen = await open({
      ...usual,
      connectors: usual.connectors.map((each) => (each.kind === 'pump' ? { ...each, from: 'board' } : each)),
    });
    expect(wordsOf(screen)).toContain('Moved onto the supply: where it hangs is dead then');
    expect(wordsOf(screen)).toContain('5 connectors come off');
  });

  it('take one away with an undo, and what hung on it stays', async () => {
    const hub = { ...(usual.connectors[0] as ElectricalSheet['connectors'][number]), id: 'hub', kind: 'hub' as const, name: 'Hub' };
    const screen = await open({
      ...usual,
      connectors: [...usual.connectors.map((each) => (each.kind === 'fans' ? { ...each, from: 'hub' } : each)), hub],
    });
    await screen
      .findAll('.face')
      .find((each) => each.text().startsWith('Hub'))
      ?.trigger('click');
    await button(screen, 'It is not there any more')?.trigger('click');
    await button(screen, 'Write it down')?.trigger('click');
    await settle();
    const sent = (asked.at(-1)?.body as { sheet: ElectricalSheet }).sheet;
    expect(sent.connectors.some(({ id }) => id === 'hub')).toBe(false);
    expect(new Set(sent.connectors.filter(({ kind }) => kind === 'fans').map(({ from }) => from))).toEqual(new Set(['supply']));
  });

  it('show what somebody else wrote down meanwhile', async () => {
    const screen = await open(usual, {});
    await screen.find('input.supply').setValue('Mine');
    await button(screen, 'Write it down')?.trigger('click');
    await settle();
    expect(wordsOf(screen)).toContain('Somebody saved it.');
    await button(screen, 'Show theirs')?.trigger('click');
    expect((screen.find('input.supply').element as HTMLInputElement).value).toBe('Theirs');
  });
});

describe('what is pulled beside the list', () => {
  it('is written down by its name', async () => {
    const run = new TestRun().upTo('isolate');
    const screen = mountScreen(AlsoPulled, { props: { state: run.state, step: 'isolate', locked: false } });
    await screen.find('input').setValue(' Light strip, rear ');
    await screen.find('form').trigger('submit');
    expect(screen.emitted('send')?.[0]?.[0]).toMatchObject({ type: 'also-pulled', step: 'isolate', name: 'Light strip, rear' });
  });
});
