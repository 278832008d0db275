// @vitest-environment happy-dom
import { usualLoop } from '@core/machine/catalogue/testLoops.js';
import { beforeEach, describe, expect, it } from 'vitest';
import { nextTick } from 'vue';
import { loopVolume } from '@core/machine/loop-file/volume.js';
import { fakeServer, mountScreen, settle, wordsOf } from '../../../tests/screens/mountScreen.js';
import ChainList from './ChainList.vue';
import { insideNow } from '@core/physics/live-book/insideNow.js';
import LoopFigures from './LoopFigures.vue';
import LoopProfile from '../profile/LoopProfile.vue';
import { readDroppedLoop } from './loopTransfer.js';
import PartPicker from '../drawing/PartPicker.vue';
import { useLoopDraft } from './useLoopDraft.js';

beforeEach(() => {
  localStorage.clear();
  // a workshop without parts of its own
  fakeServer(() => ({ status: 200, body: { parts: [] } }));
});

describe('the loop profile', () => {
  const levels = (screen: ReturnType<typeof mountScreen>, fate: string) => screen.findAll(`.level[data-fate="${fate}"]`);

  it('draws liquid in its own colour and none where the loop is dry', () => {
    const wet = mountScreen(LoopProfile, { props: { loop: usualLoop(), colour: '#7fb8c9' } });
    // the reservoir at its mark, never to the brim
    expect(levels(wet, 'gas')).toHaveLength(1);
    expect(levels(wet, 'liquid').map((level) => level.attributes('fill'))).toEqual(['#7fb8c9', '#7fb8c9', '#7fb8c9']);
    const dry = mountScreen(LoopProfile, { props: { loop: usualLoop(), colour: '#7fb8c9', filled: new Map() } });
    expect(levels(dry, 'liquid')).toHaveLength(0);
    expect(dry.html()).not.toContain('#7fb8c9;');
  });

  it('fills a vessel from below, as far as is known', () => {
    const half = mountScreen(LoopProfile, { props: { loop: usualLoop(), filled: new Map([['front', 0.5]]) } });
    const [liquid] = levels(half, 'liquid');
    const [top, height] = ['y', 'height'].map((name) => Number(liquid?.attributes(name)));
    const gas = levels(half, 'gas').find((level) => Math.abs(Number(level.attributes('y')) + Number(level.attributes('height')) - (top as number)) < 0.01); // prettier-ignore
    expect(height).toBeCloseTo(Number(gas?.attributes('height')), 3);
  });

  it('never draws a negative size, however narrow the page, nor for a loop of nothing', () => {
    for (const loop of [usualLoop(), { ...usualLoop(), components: [], tubes: [] }])
      for (const bare of [true, false]) {
        const screen = mountScreen(LoopProfile, { props: { loop, bare, height: 30 } });
        for (const box of screen.findAll('rect')) for (const side of ['width', 'height']) expect(Number(box.attributes(side))).toBeGreaterThanOrEqual(0); // prettier-ignore
      }
  });

  it('shows a second circuit, and a part whose outer measures nobody gave', () => {
    const loop = usualLoop();
    const apart = { ...loop.components[4], id: 'apart', label: 'Second block' };
    const unmeasured = loop.components.map((each) => (each.id === 'roof' ? { ...each, box: undefined } : each));
    const screen = mountScreen(LoopProfile, { props: { loop: { ...loop, components: [...unmeasured, apart as never] } } });
    expect(wordsOf(screen)).toContain('Second block');
    expect(wordsOf(screen)).toContain('roof');
    expect(levels(screen, 'liquid')).toHaveLength(2);
  });

  it('tells which part was touched', async () => {
    const screen = mountScreen(LoopProfile, { props: { loop: usualLoop() } });
    const titled = screen.findAll('.part').find((each) => /pump/i.test(each.find('title').text())); // prettier-ignore
    await titled?.trigger('click');
    expect(screen.emitted('select')).toEqual([['pump']]);
  });
});

describe('the chain of parts', () => {
  const chain = (selected: string | null = null) =>
    mountScreen(ChainList, { props: { loop: usualLoop(), series: true, colour: null, at: () => [], selected } });

  it('lists parts in flow order with the tube after each', () => {
    const rows = chain().findAll('li.link');
    expect(rows).toHaveLength(14);
    expect(rows[0]?.text()).toContain('260 mL reservoir');
    expect(rows[1]?.text()).toContain('mm');
  });

  it('opens a part, takes a new volume, and refuses a negative one', async () => {
    const screen = chain('roof');
    const volume = screen.findAll('.fields input')[1];
    await volume?.setValue('290');
    const changed = screen.emitted('change')?.at(-1)?.[0] as ReturnType<typeof usualLoop>;
    expect(changed.components.find(({ id }) => id === 'roof')?.volume_ml).toBe(290);
    const count = screen.emitted('change')?.length;
    await volume?.setValue('-5');
    expect(screen.emitted('change')?.length).toBe(count);
  });

  it('moves and removes by buttons that say what they do', async () => {
    const screen = chain('processor');
    await screen.find('button[aria-label="Move processor block up"]').trigger('click');
    const moved = screen.emitted('change')?.at(-1)?.[0] as ReturnType<typeof usualLoop>;
    expect(moved.components.map(({ id }) => id).slice(3, 5)).toEqual(['processor', 'graphics']);
    await screen.findAll('.tools button').at(-1)?.trigger('click');
    expect((screen.emitted('change')?.at(-1)?.[0] as ReturnType<typeof usualLoop>).components).toHaveLength(6);
  });

  it('adds from the catalogue in the place that was pressed', async () => {
    const screen = mountScreen(PartPicker, { props: { after: null } });
    await screen
      .findAll('.groups button')
      .find((button) => button.text() === 'Radiators')
      ?.trigger('click');
    await screen.find('button[aria-label="Add 360 × 45 radiator, copper behind the front panel"]').trigger('click');
    expect((screen.emitted('add')?.[0] as [{ key: string }, string]).map((each) => (typeof each === 'string' ? each : each.key))).toEqual([
      'radiator-360-45',
      'front',
    ]);
  });
});

describe('the figures of a loop', () => {
  it('show volume with uncertainty, order and fittings', () => {
    const product = {
      id: 'p',
      name: 'Plain Clear',
      coolantClass: 'clear',
      colour: '#7fb8c9',
      form: 'concentrate',
      targetFraction: 0.25,
      bottleMl: 500,
      sheetLifeMonths: null,
      sheetLifeHours: null,
      glycol: null,
      glycolFraction: null,
      inhibitor: '',
      leastFraction: null,
      reorderBottles: 0,
      version: 1,
      lots: [],
    } as const;
    const screen = mountScreen(LoopFigures, { props: { loop: usualLoop(), product } });
    const volume = loopVolume(usualLoop());
    expect(screen.find('.big-number').text().replace(/\s+/g, ' ')).toBe(`${Math.round(volume.volumeMl)} ± ${Math.round(volume.sdMl)} mL`);
    expect(wordsOf(screen)).toContain('1 × 500 mL of Plain Clear concentrate');
    expect(screen.text()).toContain('14 compression fittings');
  });

  it('forecast the fill from what is inside now: at least, likely, at most, and what is still to go', async () => {
    const dry = mountScreen(LoopFigures, { props: { loop: usualLoop(), product: null } });
    await settle();
    expect(wordsOf(dry)).toMatch(/First fill.*0 mL inside; likely full at \d+ mL, at least \d+ mL, at most \d+ mL/);
    const full = mountScreen(LoopFigures, { props: { loop: usualLoop(), product: null, inside: insideNow(usualLoop(), null, true) } });
    await settle();
    expect(wordsOf(full)).toContain('Nothing more goes in');
    expect(wordsOf(full)).toContain('inside, if it stands at its mark');
  });

  it('ask for the coolant before they order any', () => {
    expect(mountScreen(LoopFigures, { props: { loop: usualLoop(), product: null } }).text()).toContain('Choose the coolant above');
  });
});

describe('a draft', () => {
  const saved = { name: 'Main', coolantProductId: null, file: usualLoop() };
  const drafted = () => {
    const editor = useLoopDraft(() => 'test.loop');
    editor.begin(saved, 3);
    return editor;
  };

  it('undoes and redoes step by step, and a new change ends the redo', () => {
    const editor = drafted();
    editor.change({ name: 'A' });
    editor.change({ name: 'B' });
    editor.undo();
    expect([editor.draft.value.name, editor.canRedo.value]).toEqual(['A', true]);
    editor.undo();
    editor.undo();
    expect([editor.draft.value.name, editor.canUndo.value, editor.dirty.value]).toEqual(['Main', false, false]);
    editor.redo();
    editor.change({ name: 'C' });
    expect([editor.draft.value.name, editor.canRedo.value]).toEqual(['C', false]);
  });

  it('survives a reload until it is saved', async () => {
    const editor = drafted();
    editor.change({ name: 'Unsaved' });
    await nextTick();
    const again = drafted();
    expect([again.draft.value.name, again.restored.value]).toEqual(['Unsaved', true]);
    again.forget();
    await nextTick();
    expect(drafted().draft.value.name).toBe('Main');
  });

  it('made from an older version is not put over a newer loop', async () => {
    drafted().change({ name: 'Old' });
    await nextTick();
    const editor = useLoopDraft(() => 'test.loop');
    editor.begin({ ...saved, name: 'Newer' }, 4);
    expect([editor.draft.value.name, editor.restored.value]).toEqual(['Newer', false]);
  });
});

describe('a dropped file', () => {
  const drop = (text: string) => readDroppedLoop(new File([text], 'loop.json'));

  it('is laid out when it is a loop', async () => {
    expect(await drop(JSON.stringify(usualLoop()))).toEqual({ loop: usualLoop() });
  });

  it.each([
    ['{"format":', 'is not JSON'],
    ['{"format":"other"}', 'At format'],
    [JSON.stringify({ ...usualLoop(), tubes: [{ ...usualLoop().tubes[0], to: ['moon', 'in'] }] }), 'At tubes[0].to'],
  ])('is refused with the place of its fault', async (text, words) => {
    expect(await drop(text)).toMatchObject({ problem: expect.stringContaining(words) as string });
  });

  it('of megabytes is refused before it is read', async () => {
    expect(await drop('x'.repeat(2_100_000))).toMatchObject({ problem: expect.stringContaining('2.1 MB') as string });
  });
});
