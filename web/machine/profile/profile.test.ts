// @vitest-environment happy-dom
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { readLoopFile } from '@core/machine/loop-file/loopFileSchema.js';
import { fakeServer, mountScreen, settle, wordsOf } from '../../../tests/screens/mountScreen.js';
import type { ComputedTab } from '../loop/loopTabs.js';
import exampleText from '../../../examples/two-radiators.json?raw';
import LoopComputed from '../loop/LoopComputed.vue';

const file = readLoopFile(JSON.parse(exampleText));
const answer = { name: 'Main loop', systemId: 's', systemName: 'Slate tower', coolantProductId: null, file };

async function open(show: ComputedTab) {
  fakeServer(({ path }) => ({ status: 200, body: path.includes('coolant') ? { products: [], lots: [] } : answer }));
  const screen = mountScreen(LoopComputed, {
    props: {
      saved: { ...answer, id: 'l', baselines: [], revisions: [], fans: [] } as never,
      file,
      coolantId: null,
      dirty: false,
      inside: null,
      show,
    },
  });
  await settle();
  await settle();
  return screen;
}
type Screen = Awaited<ReturnType<typeof open>>;
const big = (screen: Screen): string => screen.find('.big-number').text().replace(/\s+/g, ' ');
const handle = (screen: Screen, label: RegExp) =>
  screen.findAll('[role="button"]').find((each) => label.test(each.attributes('aria-label') ?? ''));

beforeEach(() => vi.stubGlobal('Worker', undefined));

describe('the loop profile, draining', () => {
  it('opens with the advised plan’s first stand: what comes from the mark, and what stays', async () => {
    const screen = await open('drain');
    expect(big(screen)).toBe('302 mL come as it stands');
    expect(wordsOf(screen)).toMatch(/\d+ mL then stay in the loop/);
    expect(wordsOf(screen)).toContain('Leave it upright. Open top, vent for air. Jug under gpu, low, open it.');
    expect(handle(screen, /gpu, low/)?.attributes('aria-label')).toContain('open over the jug');
  });

  it('answers as a handle is turned, and as the case is', async () => {
    const screen = await open('drain');
    await handle(screen, /top, vent/)?.trigger('click');
    await settle();
    expect(handle(screen, /top, vent/)?.attributes('aria-label')).toContain('open over the jug');
    await handle(screen, /top, vent/)?.trigger('keydown', { key: 'Enter' });
    await settle();
    const closed = big(screen);
    expect(closed).not.toBe('302 mL come as it stands');
    await screen.findAll('.way')[1]?.trigger('click');
    await settle();
    expect(big(screen)).not.toBe(closed);
  });

  it('undoes a joint where it is asked to: both sides open there', async () => {
    const screen = await open('drain');
    expect(handle(screen, /^Joint of/)).toBeUndefined();
    await screen.find('input[type="checkbox"]').setValue(true);
    await settle();
    const joint = handle(screen, /Joint of pump → gpu, first end/);
    await joint?.trigger('click');
    await joint?.trigger('click');
    await settle();
    expect(handle(screen, /Joint of pump → gpu, first end/)?.attributes('aria-label')).toContain('open over the jug');
    // the pump's outlet lies at the bottom: nearly everything above it runs out
    expect(Number.parseInt(big(screen), 10)).toBeGreaterThan(600);
  });

  it('steps through the plan and shows what is left', async () => {
    const screen = await open('drain');
    await screen.findAll('.stage')[1]?.trigger('click');
    await settle();
    expect(big(screen)).toMatch(/mL more in this stand$/);
    expect(wordsOf(screen)).toContain('then stay in the loop');
  });
});

describe('the loop profile, filling', () => {
  it('walks pulse by pulse: seconds to run, then millilitres to pour', async () => {
    const screen = await open('fill');
    expect(big(screen)).toContain('mL to the fill mark');
    const next = () => screen.findAll('button').find((each) => /Next pulse|Pump off/.test(each.text()));
    await next()?.trigger('click');
    expect(big(screen)).toMatch(/s of pump moves 150 mL/);
    await next()?.trigger('click');
    expect(big(screen)).toMatch(/mL at most now/);
    expect(wordsOf(screen)).toContain('fell back into the reservoir');
  });
});

describe('the loop profile, gas and flow', () => {
  it('shows what may stay, and less flow at a slower pump', async () => {
    const screen = await open('air');
    expect(big(screen)).toContain('of air stay');
    const flow = (): number => Number(/(\d+) L\/h/.exec(screen.text())?.[1]);
    const fast = flow();
    expect(fast).toBeGreaterThan(200);
    await screen.find('input[aria-label="Pump speed"]').setValue('0.5');
    await settle();
    expect(flow()).toBeLessThan(fast);
  });
});
