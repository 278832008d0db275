// @vitest-environment happy-dom
import { createPinia, setActivePinia } from 'pinia';
import { beforeEach, describe, expect, it } from 'vitest';
import { findCataloguePart, type CataloguePart } from '@core/machine/catalogue/parts.js';
import type { AskedFill, LearnedAnswer } from '@core/physics/learning/answers.js';
import type { LearnedItem } from '@core/physics/learning/catalogueVolumes.js';
import { fakeServer, mountScreen, settle, wordsOf } from '../../../tests/screens/mountScreen.js';
import PartPicker from '../drawing/PartPicker.vue';
import { useLearned } from './learnedStore.js';
import LearnedVolumes from './LearnedVolumes.vue';

const roof: LearnedItem = {
  key: 'radiator-360-30',
  label: '360 × 30 radiator, copper',
  prior: { volumeMl: 180, sdMl: 36 },
  learned: { volumeMl: 171.6, sdMl: 7.23 },
  fills: 10,
};
const pump: LearnedItem = { ...roof, key: 'pump-large', label: 'centrifugal pump, large', learned: { volumeMl: 24, sdMl: 4.4 }, fills: 1 };
const answer = (items: LearnedItem[], surprising: AskedFill[] = []): LearnedAnswer => ({
  items,
  fills: items.length > 0 ? 43 : 0,
  gas: items.length > 0 ? [{ place: 'flat', prior: { mean: 0.03, sd: 0.03 }, learned: { mean: 0.052, sd: 0.011 } }] : [],
  wider: 1,
  surprising,
});
const serve = (items: LearnedItem[]): void =>
  void fakeServer(({ path }) => ({ status: 200, body: path === '/own-parts' ? { parts: [] } : answer(items) }));
const part = (key: string): CataloguePart => findCataloguePart(key) as CataloguePart;

beforeEach(() => setActivePinia(createPinia()));

describe('learned volumes', () => {
  it('take the place of the estimate in a new part, and leave other parts as they are', async () => {
    serve([roof]);
    const learned = useLearned();
    await learned.load();
    const taken = learned.withLearned(part('radiator-360-30'));
    expect(taken.volumeMl).toBe(172);
    expect(taken.fixed.volume_sd_ml).toBe(7.2);
    expect(taken.fixed.closures).toEqual(part('radiator-360-30').fixed.closures);
    expect(learned.withLearned(part('radiator-240-30'))).toBe(part('radiator-240-30'));
  });

  it('are listed with what they were and from how many fills', async () => {
    serve([roof, pump]);
    const screen = mountScreen(LearnedVolumes);
    await settle();
    expect(wordsOf(screen)).toContain('Volumes learned from 43 signed-off first fills');
    expect(screen.findAll('li').map((row) => wordsOf(row))).toEqual([
      '360 × 30 radiator, copper 172 ± 7.2 mL was 180 ± 36 10 fills',
      'centrifugal pump, large 24 ± 4.4 mL was 180 ± 36 1 fill',
    ]);
  });

  it('are drawn on one scale: the learned bar inside its estimate, and narrower', async () => {
    serve([roof]);
    const screen = mountScreen(LearnedVolumes);
    await settle();
    const span = (name: string): [number, number] => {
      const style = screen.find(`.${name}`).attributes('style') ?? '';
      const [left, width] = ['left', 'width'].map((each) => Number(new RegExp(`${each}: ([\\d.]+)%`).exec(style)?.[1])) as [number, number];
      return [left, left + width];
    };
    const [[priorFrom, priorTo], [nowFrom, nowTo]] = [span('prior'), span('now')];
    expect(nowFrom).toBeGreaterThan(priorFrom);
    expect(nowTo).toBeLessThan(priorTo);
    expect(priorTo).toBeCloseTo(100, 6);
  });

  it('say how much gas stays, by the way a radiator stands', async () => {
    serve([roof]);
    const screen = mountScreen(LearnedVolumes);
    await settle();
    expect(wordsOf(screen)).toContain('radiators lying flat 5.2 ± 1.1 %');
  });

  it('ask about a fill that is far off; the lead’s answer goes to the server and is shown', async () => {
    const odd: AskedFill = {
      ...{ id: 'f1', byMl: 412, sds: 9, verdict: null, runId: 'r1', filledOn: '2026-03-04' },
      system: { id: 's1', name: 'Edit suite 9' },
    };
    const asked = fakeServer(({ method, body }) => ({
      status: 200,
      body: answer([roof], [method === 'PUT' ? { ...odd, verdict: (body as { verdict: 'left-out' }).verdict } : odd]),
    }));
    const watching = mountScreen(LearnedVolumes, { props: { isLead: false } });
    await settle();
    expect(wordsOf(watching)).toContain('412 mL more than its parts hold');
    expect(watching.findAll('button')).toHaveLength(0);
    const screen = mountScreen(LearnedVolumes, { props: { isLead: true } });
    await settle();
    await screen
      .findAll('button')
      .find((button) => button.text() === 'Leave it out')
      ?.trigger('click');
    await settle();
    expect(asked.at(-1)).toMatchObject({ method: 'PUT', path: '/fills/f1/verdict', body: { verdict: 'left-out' } });
    expect(wordsOf(screen)).toContain('left out');
  });

  it('teach how they come about while there are none, and say when the server is away', async () => {
    serve([]);
    const empty = mountScreen(LearnedVolumes);
    await settle();
    expect(wordsOf(empty)).toContain('Every commissioning of a dry loop that is signed off');
    fakeServer(() => 'unreachable');
    const away = mountScreen(LearnedVolumes);
    await settle();
    expect(away.find('[role="alert"]').exists()).toBe(true);
  });

  it('stand beside the parts of the catalogue', async () => {
    serve([pump]);
    const screen = mountScreen(PartPicker, { props: { after: null } });
    await useLearned().load();
    await screen.findAll('.groups button').find((button) => button.text() === 'Pumps')?.trigger('click'); // prettier-ignore
    await settle();
    const lines = screen.findAll('li').map((row) => wordsOf(row));
    expect(lines[0]).toMatch(/large 24 mL, learned from 1 fill/);
    expect(lines[1]).toMatch(/compact about 25 mL/);
  });
});
