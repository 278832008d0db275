// @vitest-environment happy-dom
import { usualLoop } from '@core/machine/catalogue/testLoops.js';
import { beforeEach, describe, expect, it } from 'vitest';
import { nextTick } from 'vue';
import { unrollLoop } from '@core/physics/profile/chainProfile.js';
import { loopVolume } from '@core/machine/loop-file/volume.js';
import { mountScreen, wordsOf } from '../../../tests/screens/mountScreen.js';
import ChainList from './ChainList.vue';
import LoopFigures from './LoopFigures.vue';
import LoopProfile from '../profile/LoopProfile.vue';
import { readDroppedLoop } from './loopTransfer.js';
import PartPicker from './PartPicker.vue';
import { frameFor, liquidRect, placeLabels, rulerMarks } from '../profile/profileLayout.js';
import { useLoopDraft } from './useLoopDraft.js';

beforeEach(() => localStorage.clear());

describe('the loop profile', () => {
  const profile = unrollLoop(usualLoop());
  const frame = frameFor(profile, 1000, 260, false);

  it('puts higher points higher, and everything inside the frame', () => {
    expect(frame.y(490)).toBeLessThan(frame.y(0));
    for (const item of profile.items) {
      if (item.shape === 'run') continue;
      expect(frame.x(item.x0)).toBeGreaterThanOrEqual(0);
      expect(frame.x(item.x1)).toBeLessThanOrEqual(1000);
      expect(frame.y(item.topMm)).toBeGreaterThanOrEqual(0);
    }
  });

  it('marks round heights', () => {
    expect(rulerMarks(profile, frame)).toEqual([0, 100, 200, 300, 400]);
  });

  it('lets no two labels overlap', () => {
    const labels = placeLabels(profile.items, frame);
    for (const a of labels) {
      for (const b of labels) {
        if (a.id >= b.id) continue;
        const apart = Math.abs(a.x - b.x) > ((a.text.length + b.text.length) / 2) * 6 || Math.abs(a.y - b.y) >= 13;
        expect(apart, `${a.text} and ${b.text}`).toBe(true);
      }
    }
  });

  it('fills a vessel from below', () => {
    const roof = profile.items.find(({ id }) => id === 'roof');
    if (!roof || roof.shape === 'run') throw new Error('no roof radiator');
    const half = liquidRect(roof, frame, 0.5);
    expect(half.y + half.height).toBeCloseTo(frame.y(roof.bottomMm), 6);
    expect(half.height).toBeCloseTo((frame.y(roof.bottomMm) - frame.y(roof.topMm)) / 2, 6);
    expect(liquidRect(roof, frame, 7).height).toBeCloseTo(liquidRect(roof, frame, 1).height, 6);
  });

  it('draws liquid in its own colour and none where the loop is dry', () => {
    const wet = mountScreen(LoopProfile, { props: { loop: usualLoop(), colour: '#7fb8c9' } });
    expect(wet.findAll('.level').every((level) => level.attributes('fill') === '#7fb8c9')).toBe(true);
    const dry = mountScreen(LoopProfile, { props: { loop: usualLoop(), colour: '#7fb8c9', filled: new Map() } });
    expect(dry.findAll('.level').every((level) => Number(level.attributes('height')) === 0)).toBe(true);
    expect(dry.findAll('path[pathLength]')).toHaveLength(0);
  });

  it('tells which part was touched', async () => {
    const screen = mountScreen(LoopProfile, { props: { loop: usualLoop() } });
    await screen.findAll('.part')[1]?.trigger('click');
    expect(screen.emitted('select')).toEqual([['pump']]);
  });
});

describe('the chain of parts', () => {
  const chain = (selected: string | null = null) =>
    mountScreen(ChainList, { props: { loop: usualLoop(), series: true, colour: null, at: () => [], selected } });

  it('lists parts in flow order with the run after each', () => {
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
      batches: [],
    } as const;
    const screen = mountScreen(LoopFigures, { props: { loop: usualLoop(), product } });
    const volume = loopVolume(usualLoop());
    expect(screen.find('.big-number').text().replace(/\s+/g, ' ')).toBe(`${Math.round(volume.volumeMl)} ± ${Math.round(volume.sdMl)} mL`);
    expect(wordsOf(screen)).toContain('1 × 500 mL of Plain Clear concentrate');
    expect(screen.text()).toContain('14 compression fittings');
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
