// @vitest-environment happy-dom
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { readLoopFile } from '@core/loops/loopFileSchema.js';
import { fakeServer, mountScreen, settle, wordsOf } from '../../tests/screens/mountScreen.js';
import exampleText from '../../examples/two-radiators.json?raw';
import ProfileView from '../profile/ProfileView.vue';
import { usualBlocks } from './usual.js';

const file = readLoopFile(JSON.parse(exampleText));

async function open(change: (loop: typeof file) => void = () => undefined) {
  const loop = structuredClone(file);
  change(loop);
  fakeServer(({ path }) => ({
    status: 200,
    body: path.includes('coolant')
      ? { products: [], batches: [] }
      : { name: 'Main', systemId: 's', systemName: 'Slate', coolantProductId: null, file: loop },
  }));
  const screen = mountScreen(ProfileView, { props: { id: 'l' } }, '/loops/l/profile?show=heat');
  await settle();
  await settle();
  return screen;
}
type Screen = Awaited<ReturnType<typeof open>>;
const hottest = (screen: Screen): number => Number.parseInt(screen.find('.big-number').text(), 10);
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

  it('shows what a change does against the variant that was kept', async () => {
    const screen = await open();
    await press(screen, /Keep this as variant A/);
    expect(wordsOf(screen)).toContain('no change');
    await set(screen, 'Fan speed', '1');
    expect(wordsOf(screen)).toMatch(/−\d+\.\d K/);
    await set(screen, 'Fan speed', '0.2');
    expect(wordsOf(screen)).toMatch(/\+\d+\.\d K/);
    await press(screen, /Forget variant A/);
    expect(wordsOf(screen)).not.toMatch(/[+−]\d+\.\d K/);
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
