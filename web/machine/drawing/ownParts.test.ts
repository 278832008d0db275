// @vitest-environment happy-dom
import { usualLoop } from '@core/machine/catalogue/testLoops.js';
import { putBeside } from '@core/machine/catalogue/edit.js';
import { ownKey, type OwnPart, type OwnPartInput } from '@core/machine/catalogue/ownParts.js';
import type { LoopFile } from '@core/machine/loop-file/loopFile.js';
import { describe, expect, it } from 'vitest';
import { fakeServer, mountScreen, settle, wordsOf, type Asked } from '../../../tests/screens/mountScreen.js';
import ChainList from '../loop/ChainList.vue';
import PartPicker from './PartPicker.vue';
import SelectionPanel from './SelectionPanel.vue';

const deep: OwnPart = { id: 'p1', version: 1, label: 'Deep roof radiator', like: 'radiator-360-45', volumeMl: 330, volumeSdMl: 12, facts: {}, geometry: null }; // prettier-ignore
const shelf = (parts: OwnPart[]) =>
  fakeServer(({ method, body }) => ({
    status: 200,
    body: method === 'GET' ? { parts } : { ...(body as OwnPartInput), id: 'p2', version: 1 },
  }));
const sent = (asked: Asked[], method: string) => asked.find((each) => each.method === method);

describe('parts of the workshop’s own', () => {
  it('stand first in their group, and are laid out like any other', async () => {
    shelf([deep]);
    const screen = mountScreen(PartPicker, { props: { after: null } });
    await settle();
    await screen.findAll('.groups button').find((button) => button.text() === 'Radiators')?.trigger('click'); // prettier-ignore
    expect(wordsOf(screen.findAll('.picker li')[0] as never)).toContain('Deep roof radiator about 330 mL');
    await screen.find('button[aria-label="Add Deep roof radiator under the roof"]').trigger('click');
    expect((screen.emitted('add')?.[0] as [{ key: string }])[0].key).toBe(ownKey('p1'));
  });

  it('are kept from a drawn part, with its shape, and the part is then that one', async () => {
    const asked = shelf([]);
    const loop = usualLoop();
    const screen = mountScreen(SelectionPanel, { props: { loop, selected: 'roof' } });
    await settle();
    await screen.findAll('button').find((button) => button.text() === 'Keep it as a part of our own')?.trigger('click'); // prettier-ignore
    await settle();
    const body = sent(asked, 'POST')?.body as OwnPartInput;
    const roof = loop.components.find(({ id }) => id === 'roof');
    expect(body).toMatchObject({ like: roof?.catalogue, volumeMl: roof?.volume_ml, geometry: { place: 'roof', ports: roof?.ports } });
    const changed = screen.emitted('change')?.at(-1)?.[0] as LoopFile;
    expect(changed.components.find(({ id }) => id === 'roof')?.catalogue).toBe(ownKey('p2'));
  });
});

describe('branches in the list', () => {
  const list = (loop: LoopFile, selected: string) =>
    mountScreen(ChainList, { props: { loop, series: true, colour: null, at: () => [], selected } });
  const press = async (screen: ReturnType<typeof list>, text: string) => {
    await screen.findAll('.tools button').find((button) => button.text() === text)?.trigger('click'); // prettier-ignore
    return screen.emitted('change')?.at(-1)?.[0] as LoopFile;
  };

  it('are made and taken back by one press each, and said in front of their lines', async () => {
    const beside = await press(list(usualLoop(), 'processor'), 'Lay it beside the one before');
    expect(beside.components.filter(({ catalogue }) => catalogue === 'splitter-2')).toHaveLength(2);
    const screen = list(beside, 'processor');
    expect(screen.findAll('.branch').map((each) => each.text())).toEqual(['branch 1 of 2', 'branch 2 of 2']);
    const back = await press(screen, 'Lay it in line');
    expect(back.components.map(({ id }) => id)).toEqual(usualLoop().components.map(({ id }) => id));
  });

  it('shows every part and tube of a branched loop once', () => {
    const loop = putBeside(usualLoop(), 'processor');
    const screen = list(loop, 'none');
    expect(screen.findAll('li.link')).toHaveLength(loop.components.length + loop.tubes.length);
  });
});
