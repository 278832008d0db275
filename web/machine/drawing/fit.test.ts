// @vitest-environment happy-dom
import { beforeEach, describe, expect, it } from 'vitest';
import { caseInFile, caseOf } from '@core/machine/drawing/cases.js';
import { usualLoop } from '@core/machine/catalogue/testLoops.js';
import { readLoopFile } from '@core/machine/loop-file/loopFileSchema.js';
import type { FitSheet, LoopComponent, LoopFile } from '@core/machine/loop-file/loopFile.js';
import { fakeServer, mountScreen, settle, wordsOf } from '../../../tests/screens/mountScreen.js';
import PartPicker from './PartPicker.vue';
import CaseRoom from './CaseRoom.vue';
import HoleDialog from './HoleDialog.vue';
import PartFacts from './PartFacts.vue';
import PartFit from './PartFit.vue';
import PortFit from './PortFit.vue';
import SelectionPanel from './SelectionPanel.vue';

beforeEach(() => fakeServer(() => ({ status: 200, body: { parts: [], templates: [] } })));

const loop = usualLoop();
type Screen = ReturnType<typeof mountScreen>;
const partOf = (of: LoopFile, id: string): LoopComponent => of.components.find((each) => each.id === id) as LoopComponent;
const card = loop.components.find(({ place }) => place === 'card') as LoopComponent;
const last = (screen: Screen): LoopFile => screen.emitted('change')?.at(-1)?.[0] as LoopFile;
const field = (screen: Screen, label: string) => screen.findAll('.v-text-field').find((each) => each.find('label').text() === label)?.find('input'); // prettier-ignore
const press = async (screen: Screen, text: string): Promise<void> => {
  await screen.findAll('button').find((button) => button.text() === text)?.trigger('click'); // prettier-ignore
};

describe('whether a block fits, on screen', () => {
  const open = (fit: FitSheet) => {
    const part = { ...card, fit };
    return mountScreen(PartFit, { props: { loop: { ...loop, components: loop.components.map((each) => (each.id === card.id ? part : each)) }, part } }); // prettier-ignore
  };

  it('is not known before its list is entered, and says what to do', () => {
    const screen = open({});
    expect(wordsOf(screen)).toContain('not known yet The list of what it fits is not entered.');
  });

  it('takes list and card as they are read, and the file carries both', async () => {
    const screen = open({});
    await field(screen, 'Its list names')?.setValue('Heron 40');
    await field(screen, 'revision')?.setValue('B');
    await press(screen, 'Add');
    expect(partOf(last(screen), card.id).fit).toEqual({ listed: [{ model: 'Heron 40', revision: 'B' }] });
    const read = open({ listed: [{ model: 'Heron 40', revision: 'B' }], sits_on: { model: 'Heron 40' } });
    expect(wordsOf(read)).toContain('read this one off its sticker');
    const revision = field(read, 'its revision');
    await revision?.setValue('C');
    await revision?.trigger('change');
    expect(partOf(last(read), card.id).fit?.sits_on).toEqual({ model: 'Heron 40', revision: 'C' });
    expect(() => readLoopFile(last(read))).not.toThrow();
    const wrong = open({ listed: [{ model: 'Heron 40', revision: 'B' }], sits_on: { model: 'Heron 40', revision: 'C' } });
    expect(wordsOf(wrong)).toContain('does not fit Its list names that model, not this revision: Heron 40 C.');
  });

  it('takes what the card needs, whole numbers only', async () => {
    const screen = open({});
    await field(screen, 'slots')?.setValue('2,5');
    expect(screen.emitted('change')).toBeUndefined();
    await field(screen, 'slots')?.setValue('3');
    expect(partOf(last(screen), card.id).fit).toEqual({ slots: 3 });
  });
});

describe('room in a case, on screen', () => {
  it('counts once all three figures are there, names the largest that fits, and goes with an emptied one', async () => {
    let now = loop;
    let screen = mountScreen(CaseRoom, { props: { loop: now } });
    await field(screen, 'length')?.setValue('300');
    await field(screen, 'width')?.setValue('125');
    expect(screen.emitted('change')).toBeUndefined();
    await field(screen, 'with fans')?.setValue('60');
    now = last(screen);
    expect(caseOf(now).room?.radiators).toEqual({ roof: { length_mm: 300, width_mm: 125, depth_mm: 60 } });
    expect(() => readLoopFile(now)).not.toThrow();
    screen = mountScreen(CaseRoom, { props: { loop: now } });
    expect(wordsOf(screen)).toContain('The largest that fits there: 240 × 30 radiator, copper');
    await field(screen, 'width')?.setValue('');
    expect(caseOf(last(screen)).room?.radiators).toEqual({});
  });

  it('is told beside the places that a radiator is laid into', async () => {
    const room = { radiators: { roof: { length_mm: 300, width_mm: 125, depth_mm: 60 } } };
    const screen = mountScreen(PartPicker, { props: { after: null, free: true, loop: { ...loop, case: caseInFile({ ...caseOf(loop), room }) } } }); // prettier-ignore
    await press(screen, 'Radiators');
    const labels = screen.findAll('.places button').map((button) => button.attributes('aria-label'));
    expect(labels).toContain('Add 360 × 30 radiator, copper under the roof: 397 mm long, room for 300 mm.');
    expect(labels).toContain('Add 240 × 30 radiator, copper under the roof');
  });
});

describe('ports, stands and bodies, on screen', () => {
  it('a port takes the tube that its fitting is for, and a thread of its own', async () => {
    const screen = mountScreen(PortFit, { props: { loop, part: card, port: 'in' } });
    await screen.findComponent({ name: 'VSelect' }).setValue('12/16 rigid');
    expect(partOf(last(screen), card.id).port_fits).toEqual({ in: { bore_mm: 12, outer_mm: 16, soft: false } });
    const thread = field(screen, 'thread');
    await thread?.setValue('G 3/8');
    await thread?.trigger('change');
    expect(partOf(last(screen), card.id).fit).toEqual({ threads: { in: 'G 3/8' } });
  });

  it('a pump takes the stands that its sheet allows; all of them is nothing to keep', async () => {
    const pump = loop.components.find(({ kind }) => kind === 'pump') as LoopComponent;
    const screen = mountScreen(PartFacts, { props: { loop, part: pump, open: true } });
    const select = screen.findAllComponents({ name: 'VSelect' }).find((each) => each.props('label') === 'May run with the case');
    await select?.setValue(['on-back', 'upright']);
    expect(partOf(last(screen), pump.id).may_stand).toEqual(['upright', 'on-back']);
    await select?.setValue(['upright', 'on-back', 'on-face', 'on-window-side', 'on-blind-side', 'upside-down']);
    expect(partOf(last(screen), pump.id).may_stand).toBeUndefined();
  });

  it('a tube takes what sits between it and its port', async () => {
    const tube = loop.tubes[2] as LoopFile['tubes'][number];
    const screen = mountScreen(SelectionPanel, { props: { loop, selected: tube.id } });
    const select = screen.findAllComponents({ name: 'VSelect' }).filter((each) => String(each.props('label')).startsWith('Between'));
    expect(select).toHaveLength(2);
    await select[0]?.setValue(['angle-90']);
    expect(last(screen).tubes[2]).toMatchObject({ bodies: { from: ['angle-90'] }, fittings: expect.arrayContaining(['90']) });
  });
});

describe('a template to drill by, on screen', () => {
  it('of a radiator follows from its fans, with as many sheets as it takes', async () => {
    const radiator = loop.components.find(({ kind }) => kind === 'radiator') as LoopComponent;
    const screen = mountScreen(HoleDialog, { props: { part: radiator }, attachTo: document.body });
    await settle();
    const link = document.querySelector<HTMLAnchorElement>('a[href*="hole-template"]');
    expect(link?.textContent).toContain('PDF, 2 sheets');
    expect(JSON.parse(new URL(link?.href ?? '').searchParams.get('of') ?? '')).toMatchObject({ paper: 'a4', fans: { fanMm: 120, count: 3, gapMm: 0 } }); // prettier-ignore
    expect(document.querySelector('img.picture')?.getAttribute('src')).toContain('data:image/svg+xml');
    screen.unmount();
  });

  it('of a foot begins empty, says what to measure, and keeps the holes with the part', async () => {
    const pump = loop.components.find(({ kind }) => kind === 'pump') as LoopComponent;
    const screen = mountScreen(HoleDialog, { props: { part: pump }, attachTo: document.body });
    await settle();
    expect(document.body.textContent).toContain('Measure the foot from one corner');
    expect(document.querySelector('a[href*="hole-template"]')).toBeNull();
    const add = [...document.querySelectorAll('button')].find((button) => button.textContent.includes('Add the hole'));
    add?.click();
    await settle();
    expect(screen.emitted('holes')).toEqual([[[[0, 0, 4.5]]]]);
    expect(document.querySelector('a[href*="hole-template"]')).not.toBeNull();
    screen.unmount();
  });
});
