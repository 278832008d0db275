// @vitest-environment happy-dom
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { readLoopFile } from '@core/machine/loop-file/loopFileSchema.js';
import { fakeServer, mountScreen, settle, wordsOf } from '../../../tests/screens/mountScreen.js';
import exampleText from '../../../examples/two-radiators.json?raw';
import LoopComputed from '../loop/LoopComputed.vue';

const file = readLoopFile(JSON.parse(exampleText));
const RECORDED = {
  setting: 'load',
  workload: 'render',
  durationMinutes: 45,
  powerW: 150,
  sensor: 'processor package',
  statistic: 'peak',
  panels: 'on',
  pumpPercent: 80,
  fanPercent: 50,
  roomC: 22,
  partC: 61,
  coolantC: 34,
  flowLph: 200,
  levelMm: null,
};

async function open(baselines: unknown[] = [{ reading: RECORDED }]) {
  fakeServer(() => ({ status: 200, body: { products: [], lots: [] } }));
  const saved = {
    id: 'l',
    name: 'Main',
    systemId: 's',
    systemName: 'Slate',
    coolantProductId: null,
    file,
    revisions: [],
    baselines,
    fans: [],
  };
  const screen = mountScreen(LoopComputed, {
    props: { saved: saved as never, file, coolantId: null, dirty: false, inside: null, show: 'cause' },
  });
  await settle();
  await settle();
  return screen;
}
type Screen = Awaited<ReturnType<typeof open>>;
const field = (screen: Screen, label: string) => screen.findAll('input').find((each) => each.attributes('aria-label') === label);
const type = async (screen: Screen, values: Record<string, string>): Promise<void> => {
  for (const [label, value] of Object.entries(values)) await field(screen, label)?.setValue(value);
  await settle();
  await settle();
};
const press = async (screen: Screen, words: string): Promise<void> => {
  await screen
    .findAll('button')
    .find((button) => button.text() === words)
    ?.trigger('click');
  await settle();
  await settle();
};

beforeEach(() => vi.stubGlobal('Worker', undefined));

describe('what makes a machine worse', () => {
  it('cannot be told before the reading of now is in', async () => {
    const screen = await open();
    expect(wordsOf(screen)).toContain('cannot tell yet');
    expect((field(screen, 'Coolant, sound days')?.element as HTMLInputElement).value).toBe('34');
  });

  it('is ranked, and what was seen ranks it anew, until it is taken back', async () => {
    const screen = await open();
    // the coolant stands higher over the room, part over coolant and flow are as they were
    await type(screen, { 'Room, now': '22', 'cpu, now': '63.5', 'Coolant, now': '36.5', 'Flow, now': '200' });
    const first = screen.find('.big-number').text();
    expect(first).toMatch(/dust on|fan at/);
    await press(screen, 'one is slow or still');
    expect(screen.find('.big-number').text()).toMatch(/a slow or still fan at/);
    expect(
      screen
        .findAll('.checks li')
        .map((each) => each.text())
        .join(),
    ).not.toContain('Look at every fan');
    await press(screen, 'one is slow or still ×');
    expect(screen.find('.big-number').text()).toBe(first);
  });
});
