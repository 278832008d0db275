// @vitest-environment happy-dom
import { usualLoop } from '@core/machine/catalogue/testLoops.js';
import { beforeEach, describe, expect, it } from 'vitest';
import { readLoopFile } from '@core/machine/loop-file/loopFileSchema.js';
import type { LoopFile } from '@core/machine/loop-file/loopFile.js';
import { caseInFile, CASES } from '@core/machine/drawing/cases.js';
import exampleText from '../../../examples/two-radiators.json?raw';
import { fakeServer, mountScreen, settle, wordsOf } from '../../../tests/screens/mountScreen.js';
import { bendsOnScreen, depthBetween, extentOf, nearestSegment, sceneEdges, sceneNodes, type PartData } from './scene.js';
import { useNotices } from '../../base/shell/notices.js';
import CasePanel from './CasePanel.vue';
import { useCases } from './caseStore.js';
import ExchangePart from './ExchangePart.vue';
import PartFacts from './PartFacts.vue';
import SelectionPanel from './SelectionPanel.vue';

// a workshop without parts of its own
beforeEach(() => fakeServer(() => ({ status: 200, body: { parts: [], templates: [] } })));

const loop = readLoopFile(JSON.parse(exampleText));
const component = (id: string, from: LoopFile = loop) => from.components.find((each) => each.id === id) as LoopFile['components'][number];

describe('the front view', () => {
  it('draws a vessel as its box and another part round its ports, heights upwards', () => {
    expect(extentOf(component('front'))).toEqual({ left: 400, top: -450, width: 30, height: 390 });
    const cpu = extentOf(component('cpu'));
    expect([cpu.left, cpu.top, cpu.width, cpu.height]).toEqual([134, -396, 62, 32]);
  });

  it('holds the case behind every part, and each port where it is', () => {
    const nodes = sceneNodes(loop, CASES['mid-tower'], null) as {
      id: string;
      type: string;
      zIndex: number;
      position: { x: number; y: number };
      data: PartData;
    }[];
    expect(nodes[0]).toMatchObject({ type: 'room', position: { x: 0, y: -500 } });
    expect(nodes.slice(1).every(({ zIndex }) => zIndex > (nodes[0]?.zIndex as number))).toBe(true);
    const top = nodes.find(({ id }) => id === 'top');
    const vent = top?.data.ports.find(({ port }) => port === 'vent');
    expect([(top?.position.x ?? 0) + (vent?.left ?? 0), -((top?.position.y ?? 0) + (vent?.top ?? 0))]).toEqual([50, 490]);
    expect(vent).toMatchObject({ used: false, closure: 'plug' });
    expect(top?.data.ports.find(({ port }) => port === 'a')?.used).toBe(true);
  });

  it('draws every tube from its port to its port over its bends', () => {
    const edges = sceneEdges(loop, 't3') as { id: string; sourceHandle: string; targetHandle: string; class: string }[];
    expect(edges.map(({ id }) => id)).toEqual(loop.tubes.map(({ id }) => id));
    expect(edges.find(({ id }) => id === 't3')).toMatchObject({
      source: 'cpu',
      sourceHandle: 'out',
      target: 'top',
      targetHandle: 'a',
      class: 'chosen',
    });
    expect(bendsOnScreen(loop.tubes[3] as LoopFile['tubes'][number])).toEqual([{ x: 150, y: -430 }, { x: 300, y: -430 }]); // prettier-ignore
  });

  it('puts a new bend into the nearest stretch, between its neighbours’ depths', () => {
    const line = [{ x: 0, y: 0 }, { x: 100, y: 0 }, { x: 100, y: 100 }]; // prettier-ignore
    expect(nearestSegment(line, { x: 40, y: 6 })).toBe(0);
    expect(nearestSegment(line, { x: 93, y: 70 })).toBe(1);
    expect(depthBetween([0, 0, 40], [0, 0, 111])).toBe(76);
  });
});

describe('the chosen part in numbers', () => {
  const mountPanel = (selected: string, of: LoopFile = loop) => mountScreen(SelectionPanel, { props: { loop: of, selected } });
  type Screen = ReturnType<typeof mountPanel>;
  const field = (screen: Screen, label: string, nth = 0) =>
    screen.findAll('.v-text-field').filter((each) => each.find('label').text() === label)[nth]?.find('input'); // prettier-ignore
  const last = (screen: Screen): LoopFile => screen.emitted('change')?.at(-1)?.[0] as LoopFile;

  it('moves by typing: the whole part by its corner, a port by its own fields', async () => {
    const screen = mountPanel('front');
    await field(screen, 'x')?.setValue('390');
    expect(component('front', last(screen)).box?.min[0]).toBe(390);
    expect(component('front', last(screen)).ports.a).toEqual([390, 440, 50]);
    await field(screen, 'y', 1)?.setValue('430');
    expect(component('front', last(screen)).ports.a).toEqual([400, 430, 50]);
    expect(component('front', last(screen)).box).toEqual(component('front').box);
  });

  it('changes the volume, and leaves it when the field holds no volume', async () => {
    const screen = mountPanel('front');
    await field(screen, 'Volume')?.setValue('200');
    expect(component('front', last(screen)).volume_ml).toBe(200);
    const before = screen.emitted('change')?.length;
    await field(screen, 'Volume')?.setValue('-5');
    expect(screen.emitted('change')?.length).toBe(before);
  });

  it('straightens a tube bend by bend, and takes a measured length', async () => {
    const screen = mountPanel('t3');
    expect(wordsOf(screen)).toContain('along the drawing');
    await screen.findAll('button').find((button) => button.text() === 'straighten')?.trigger('click'); // prettier-ignore
    expect(last(screen).tubes[3]?.path).toEqual([[300, 430, 50]]);
    await field(screen, 'Measured length, if any')?.setValue('333');
    expect(last(screen).tubes[3]?.length_mm).toBe(333);
  });

  it('takes out what is chosen', async () => {
    const screen = mountPanel('cpu');
    await screen.findAll('button').find((button) => button.text() === 'Take it out')?.trigger('click'); // prettier-ignore
    expect(screen.emitted('remove')).toEqual([['cpu']]);
  });
});

describe('exchanging a part on screen', () => {
  const usual = usualLoop();
  const mountIt = () => mountScreen(ExchangePart, { props: { loop: usual, part: component('roof', usual) } });

  it('offers parts of the same kind, says what reaches, and puts the chosen one in', async () => {
    const screen = mountIt();
    const select = screen.findComponent({ name: 'VSelect' });
    expect((select.props('items') as { value: string }[]).every(({ value }) => value.startsWith('radiator'))).toBe(true);
    await select.setValue('radiator-240-30');
    await settle();
    expect(screen.findAll('ul.figures li').length).toBe(2);
    expect(wordsOf(screen)).toMatch(/reaches|cut off|new piece/);
    await screen.findAll('button').find((button) => button.text() === 'Put it in')?.trigger('click'); // prettier-ignore
    const after = screen.emitted('change')?.at(-1)?.[0] as LoopFile;
    expect(component('roof', after).catalogue).toBe('radiator-240-30');
  });

  it('does not put in what the measured room does not take, and says by how much', async () => {
    const room = { radiators: { roof: { length_mm: 410, width_mm: 140, depth_mm: 60 } } };
    const measured = { ...usual, case: caseInFile({ ...CASES['mid-tower'], room }) };
    const screen = mountScreen(ExchangePart, { props: { loop: measured, part: component('roof', measured) } });
    await screen.findComponent({ name: 'VSelect' }).setValue('radiator-480-60');
    await settle();
    expect(wordsOf(screen)).toContain('does not fit 517 mm long, room for 410 mm.87 mm deep with its fans, room for 60 mm.');
    expect(screen.findAll('button').some((button) => button.text() === 'Put it in')).toBe(false);
    await screen.findComponent({ name: 'VSelect' }).setValue('radiator-280-30');
    await settle();
    expect(wordsOf(screen)).not.toContain('does not fit');
    expect(screen.findAll('button').some((button) => button.text() === 'Put it in')).toBe(true);
  });
});

describe('the case', () => {
  const big = { id: 'c1', label: 'Tall oak', depthMm: 500, heightMm: 700, widthMm: 230, mounts: {}, version: 3 };
  const open = async (answers: Parameters<typeof fakeServer>[0], of: LoopFile = loop) => {
    fakeServer(answers);
    const screen = mountScreen(CasePanel, { props: { loop: of } });
    await settle();
    return screen;
  };
  const field = (screen: Awaited<ReturnType<typeof open>>, label: string) =>
    screen.findAll('.v-text-field').find((each) => each.find('label').text() === label)?.find('input'); // prettier-ignore

  it('takes sizes of its own, which the file then carries', async () => {
    const screen = await open(() => ({ status: 200, body: { templates: [] } }));
    await field(screen, 'Height')?.setValue('640');
    const [changed] = screen.emitted<[LoopFile]>('change')?.at(-1) ?? [];
    expect(changed?.case).toMatchObject({ name: 'mid tower, changed', height_mm: 640, depth_mm: 450 });
    expect(readLoopFile(changed)).toEqual(changed);
  });

  it('is kept as one of the workshop’s own, with where the drawing mounts its parts', async () => {
    let sent: unknown = null;
    const screen = await open(({ method, body }) => {
      if (method === 'POST') sent = body;
      return method === 'POST' ? { status: 201, body: { ...big, ...(body as object) } } : { status: 200, body: { templates: [] } };
    });
    await screen.findAll('button').find((button) => /Keep as/.test(button.text()))?.trigger('click'); // prettier-ignore
    await field(screen, 'Name of the case')?.setValue('Tall oak');
    await screen.find('form').trigger('submit');
    await settle();
    expect(sent).toMatchObject({ label: 'Tall oak', heightMm: 500 });
    expect((screen.emitted<[LoopFile]>('change')?.at(-1)?.[0].case as { name: string }).name).toBe('Tall oak');
  });

  it('that is no longer offered can be put back', async () => {
    const calls: string[] = [];
    const screen = await open(
      ({ method }) => {
        calls.push(method);
        return method === 'GET' ? { status: 200, body: { templates: [big] } } : { status: 200, body: { ...big, removed: 'c1' } };
      },
      { ...loop, case: caseInFile(big) },
    );
    await screen.findAll('button').find((button) => /No longer/.test(button.text()))?.trigger('click'); // prettier-ignore
    await settle();
    expect(calls).toContain('DELETE');
    await useNotices().current?.undo?.();
    expect(calls.at(-1)).toBe('POST');
    expect(useCases().templates.map(({ label }) => label)).toEqual(['Tall oak']);
  });
});

describe('a part’s own sheet on screen', () => {
  const loop = usualLoop();
  const of = (kind: string) => loop.components.find((each) => each.kind === kind) as (typeof loop.components)[number];
  const changed = (screen: ReturnType<typeof mountScreen>, id: string) => {
    const [[after]] = screen.emitted('change') as [[typeof loop]];
    return after.components.find((each) => each.id === id);
  };
  const type = async (screen: ReturnType<typeof mountScreen>, label: string, value: string): Promise<void> => {
    const field = screen.findAll('.v-text-field').find((each) => each.text().includes(label));
    await field?.find('input').setValue(value);
  };

  it('takes a rating, and a resistance as sheets give it', async () => {
    const radiator = of('radiator');
    const rated = mountScreen(PartFacts, { props: { loop, part: radiator } });
    await type(rated, 'Most pressure', '80');
    expect(changed(rated, radiator.id)?.pressure_rating_kpa).toBe(80);
    const resisting = mountScreen(PartFacts, { props: { loop, part: radiator } });
    await type(resisting, 'Resistance', '5,73');
    // Δp = b·Q² with Q = 3.785 L/min
    expect(changed(resisting, radiator.id)?.resistance).toEqual({ linear_kpa_per_lpm: 0, quadratic_kpa_per_lpm2: 0.4 });
  });

  it('takes a pump’s speed and its curve, point by point, in rising flow', async () => {
    const pump = { ...of('pump'), curve: [[0, 40], [1000, 10]] as [number, number][] }; // prettier-ignore
    const slowed = mountScreen(PartFacts, { props: { loop, part: pump } });
    await type(slowed, 'Set to', '60');
    expect(changed(slowed, pump.id)?.speed).toBe(0.6);
    const bent = mountScreen(PartFacts, { props: { loop, part: pump } });
    await bent.findAll('li')[0]?.find('input').setValue('1200');
    expect(changed(bent, pump.id)?.curve).toEqual([[1000, 10], [1200, 40]]); // prettier-ignore
    expect(bent.findAll('button').map((each) => each.text())).toContain('Another point');
  });
});
