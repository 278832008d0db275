// @vitest-environment happy-dom
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { readLoopFile } from '@core/machine/loop-file/loopFileSchema.js';
import { fakeServer, mountScreen, settle, wordsOf, type Asked } from '../../../tests/screens/mountScreen.js';
import type { ComputedTab } from '../loop/loopTabs.js';
import exampleText from '../../../examples/two-radiators.json?raw';
import LoopComputed from '../loop/LoopComputed.vue';
import { usualBlocks } from '@core/physics/heat/usual.js';

const file = readLoopFile(JSON.parse(exampleText));

const MEASURED = { setting: 'load', workload: 'render', durationMinutes: 45, powerW: 150, sensor: 'processor package', statistic: 'peak', panels: 'on', pumpPercent: 80, fanPercent: 50, roomC: 22, partC: 61, coolantC: 34, flowLph: 200, levelMm: null }; // prettier-ignore

async function open(change: (loop: typeof file) => void = () => undefined, more: object = {}, show: ComputedTab = 'heat') {
  const loop = structuredClone(file);
  change(loop);
  const saved = {
    id: 'l',
    name: 'Main',
    systemId: 's',
    systemName: 'Slate',
    coolantProductId: null,
    file: loop,
    revisions: [
      { number: 2, kind: 'change' },
      { number: 1, kind: 'planned' },
    ],
    baselines: [],
    fans: [],
    ...more,
  };
  asked = fakeServer(({ path }) => ({
    status: 200,
    body: path.includes('coolant') ? { products: [], lots: [] } : path.includes('own-parts') ? { parts: [] } : saved,
  }));
  const screen = mountScreen(LoopComputed, {
    props: { saved: saved as never, file: loop, coolantId: null, dirty: false, inside: null, show },
  });
  await settle();
  await settle();
  return screen;
}
let asked: Asked[] = [];
type Screen = Awaited<ReturnType<typeof open>>;
const hottest = (screen: Screen): number =>
  Math.max(...screen.findAll('.parts li').map((row) => Number.parseFloat(/([\d.]+) °C/.exec(row.text())?.[1] ?? '0')));
const set = async (screen: Screen, label: string, value: string): Promise<void> => {
  await screen.find(`input[aria-label="${label}"]`).setValue(value);
  await settle();
};
const press = async (screen: Screen, words: RegExp): Promise<void> => {
  await screen.findAll('button').find((button) => words.test(button.text()))?.trigger('click'); // prettier-ignore
  await settle();
};

beforeEach(() => vi.stubGlobal('Worker', undefined));

describe('usual loads', () => {
  it('follow what a block is for', () => {
    expect(usualBlocks(file).map(({ id, loadW }) => [id, loadW])).toEqual([['cpu', 150], ['gpu', 340]]); // prettier-ignore
  });
});

describe('the heat view', () => {
  it('names the hottest part, cooler with faster fans', async () => {
    const screen = await open();
    expect(wordsOf(screen)).toMatch(/°C gpu/);
    const at50 = hottest(screen);
    await set(screen, 'Fan speed', '1');
    expect(hottest(screen)).toBeLessThan(at50);
  });

  it('says first by how much a part is over its limit, and which, and its temperature where all hold', async () => {
    const screen = await open();
    expect(screen.find('.big-number').text()).toMatch(/^\d+\s*°C gpu$/);
    await set(screen, 'Fan speed', '0.15');
    const gpu = hottest(screen);
    expect(screen.find('.big-number').text()).toMatch(/^\d+\s*K over its limit, gpu$/);
    expect(Math.abs(Number(/gpu at (\d+) °C\./.exec(wordsOf(screen))?.[1]) - gpu)).toBeLessThan(0.6);
  });

  it('says where a larger radiator fits and what it gives, or that nobody measured the case', async () => {
    expect(wordsOf(await open())).toContain('Nobody measured this case');
    const screen = await open((loop) => {
      const place = { length_mm: 420, width_mm: 142, depth_mm: 90 };
      loop.case = { name: 'Oak', depth_mm: 500, height_mm: 520, width_mm: 220, room: { radiators: { roof: place, floor: place } } };
      for (const part of loop.components) if (part.id === 'top') part.place = 'roof';
    });
    const rows = screen.findAll('.room-for li').map((row) => row.text().replaceAll(/\s+/g, ' '));
    expect(rows).toHaveLength(2);
    // one more radiator cools the part that is warmest, in kelvin
    expect(rows.find((row) => row.startsWith('on the floor'))).toMatch(/free ?360 × 60 radiator, copper ?−\d+\.\d K gpu/);
    expect(rows.find((row) => row.startsWith('under the roof'))).toContain('now top');
  });

  it('lists what each radiator gives off: together what the parts take in', async () => {
    const screen = await open();
    const watts = [...wordsOf(screen).matchAll(/(\d+) W air/g)].map(([, text]) => Number(text));
    expect(watts.length).toBe(2);
    expect(watts.reduce((sum, each) => sum + each, 0)).toBeCloseTo(490, -1);
  });

  it('sets the quiet point, which keeps every limit', async () => {
    const screen = await open();
    expect(wordsOf(screen)).toMatch(/Quiet point: fans \d+ %, pump \d+ %/);
    await press(screen, /^Set it$/);
    const temperatures = [...wordsOf(screen).matchAll(/(\d+\.\d) °C/g)].map(([, text]) => Number(text));
    expect(Math.max(...temperatures)).toBeLessThanOrEqual(80.5);
  });

  it('gets warmer behind a blocked front, and with air the case has warmed', async () => {
    const screen = await open();
    const before = hottest(screen);
    await set(screen, 'Airflow blocked at front', '0.8');
    const blocked = hottest(screen);
    expect(blocked).toBeGreaterThan(before);
    await screen.find('select[aria-label="Air of front"]').setValue('case out');
    await settle();
    expect(hottest(screen)).toBeGreaterThan(blocked);
  });

  it('takes a block’s resistance from the recorded baseline, and says so', async () => {
    const screen = await open(() => undefined, { baselines: [{ reading: MEASURED }] });
    expect(wordsOf(screen)).toContain('cpu from the recorded baseline, ± 2 K');
    expect(wordsOf(screen)).toMatch(/°C ± 2/);
  });

  it('says when it cannot tell: no curve, no radiator', async () => {
    const curveless = await open((loop) => {
      delete loop.components[1]?.curve;
    });
    expect(wordsOf(curveless)).toContain('give the pump its curve');
    const bare = await open((loop) => {
      for (const part of loop.components) if (part.kind === 'radiator') part.kind = 'block';
    });
    expect(wordsOf(bare)).toContain('no radiator to give the heat off');
  });
});

describe('what is said of air and load', () => {
  const KEPT = { roomC: 29, caseHeatW: 20, pumpSpeed: 0.6, fanSpeed: 0.8, loadsW: { cpu: 90, gpu: 340, gone: 10 }, limitsC: { cpu: 80, gpu: 65 }, air: { front: { from: 'case', to: 'out', blockage: 0.3 } } }; // prettier-ignore
  const field = (screen: Screen, label: string): string => screen.findAllComponents({ name: 'NumberField' }).find((each) => each.props('label') === label)?.find('input').element.value ?? ''; // prettier-ignore

  it('stays with the loop: it stands there again, in the comparison as well, and what a part left with it is gone', async () => {
    const screen = await open(() => undefined, { heatSetup: KEPT });
    expect([field(screen, 'Room'), field(screen, 'Air-cooled parts'), field(screen, 'load')]).toEqual(['29', '20', '90']);
    expect(wordsOf(screen)).toMatch(/Fans 80 %/);
    expect(screen.find<HTMLSelectElement>('select[aria-label="Air of front"]').element.value).toBe('case out');
    const hot = await open(() => undefined, { heatSetup: { ...KEPT, roomC: 40 } }, 'compare');
    const cool = await open(() => undefined, { heatSetup: KEPT }, 'compare');
    const gpu = (of: Screen): number => Number(/gpu the part ([\d.]+)/.exec(wordsOf(of))?.[1]);
    expect(gpu(hot) - gpu(cool)).toBeCloseTo(11, 0);
  });

  it('is kept once the hand rests', async () => {
    const screen = await open();
    await set(screen, 'Fan speed', '0.9');
    await new Promise((resolve) => setTimeout(resolve, 800));
    const put = asked.find(({ path }) => path === '/loops/l/heat-setup');
    expect(put?.body).toMatchObject({ fanSpeed: 0.9, loadsW: { cpu: 150, gpu: 340 }, air: {} });
  });

  it('says of a radiator without a place that its air is taken for the room’s, until somebody says', async () => {
    const screen = await open((loop) => {
      for (const part of loop.components) if (part.kind === 'radiator') delete (part as { place?: string }).place;
    });
    expect(wordsOf(screen).match(/taken to breathe room air/g)).toHaveLength(2);
    await screen.find('select[aria-label="Air of front"]').setValue('case out');
    await settle();
    expect(wordsOf(screen).match(/taken to breathe room air/g)).toHaveLength(1);
  });
});

describe('two variants side by side', () => {
  const compare = () => open(() => undefined, {}, 'compare');

  it('show what swapping the blocks changes, part by part', async () => {
    const screen = await compare();
    const words = wordsOf(screen);
    expect(words).toContain('A as drawn');
    expect(words).toContain('B first two blocks swapped');
    expect(words).toMatch(/gpu the part [\d.]+ → [\d.]+ °C \+\d/);
    expect(words).toMatch(/cpu the part [\d.]+ → [\d.]+ °C −\d/);
  });

  it('keep speeds of their own: a slower pump in B lets less through', async () => {
    const screen = await compare();
    await press(screen, /^Flow$/);
    expect(wordsOf(screen)).toMatch(/gpu \d+ → \d+ L\/h −1 L\/h/);
    await set(screen, 'Pump speed of B', '0.4');
    expect(wordsOf(screen)).toMatch(/gpu \d+ → \d+ L\/h −\d\d+ L\/h/);
    await press(screen, /^Pressure lost$/);
    expect(wordsOf(screen)).toMatch(/kPa −[\d.]+ kPa/);
  });
});

describe('what there is to spare, and fans that follow', () => {
  it('says of each part what it may draw, and of the curve whether every limit holds', async () => {
    const screen = await open();
    expect(wordsOf(screen)).toMatch(/\d+ W (to spare|too much)/);
    expect(wordsOf(screen)).toContain('Fans that follow the coolant');
    expect(wordsOf(screen)).toMatch(/25 % up to \d+ °C, rising to 60 % at \d+ °C/);
  });

  it('counts the fans that the machine has, group by group', async () => {
    const fans = [{ id: 'g', name: 'Front', of: { loopId: 'l', part: 'front' }, fans: { count: 2, sizeMm: 120 }, openWhy: null }];
    const screen = await open(undefined, { fans });
    expect(wordsOf(screen)).toContain('Front: 2 × 120 mm');
    const [all] = [await open()];
    const hot = hottest;
    expect(hot(screen)).toBeGreaterThanOrEqual(hot(all));
  });

  it('holds one more radiator and a hungrier part against the loop, unsaved', async () => {
    const screen = await open(undefined, {}, 'compare');
    const choose = async (words: string): Promise<void> => {
      await screen.findComponent({ name: 'VSelect' }).vm.$emit('update:modelValue', words);
      await settle();
      await settle();
    };
    await choose('radiator');
    expect(wordsOf(screen)).toMatch(/− ?\d+\.\d K|−\d+\.\d K/);
    await choose('hungrier');
    expect(wordsOf(screen)).toMatch(/\+\d+\.\d K/);
    expect(asked.every(({ method }) => method === 'GET')).toBe(true);
  });
});
