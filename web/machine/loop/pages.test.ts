// @vitest-environment happy-dom
import { beforeEach, describe, expect, it } from 'vitest';
import { readLoopFile } from '@core/machine/loop-file/loopFileSchema.js';
import { fakeServer, mountScreen, settle, wordsOf, type Asked } from '../../../tests/screens/mountScreen.js';
import rigidText from '../../../examples/rigid-loop.json?raw';
import StartRunDialog from '../../bench/runs/StartRunDialog.vue';
import { fittingWords } from '@core/edge/words/fittings.js';
import LoopView from '../../pages/LoopView.vue';
import PartsSheet from '../../pages/PartsSheet.vue';

const file = readLoopFile(JSON.parse(rigidText));
const red = {
  id: 'p',
  name: 'Emberlow Red',
  form: 'ready-mix',
  coolantClass: 'clear',
  bottleMl: 1000,
  colour: '#b3393f',
  targetFraction: null,
  sheetLifeMonths: null,
};
const loopAnswer = {
  id: 'l',
  name: 'Rigid loop',
  systemId: 's',
  systemName: 'Small black',
  coolantProductId: 'p',
  version: 3,
  heatSetup: null,
  baselines: [],
  fans: [],
  fanStacks: null,
  file,
  inside: { by: 'never-filled', volume: { volumeMl: 0, sdMl: 0 }, shares: {}, standing: null },
  activeRunId: null,
  revisions: [
    { id: 'r', number: 2, kind: 'as-built', reason: '', at: '2026-03-01T10:00:00Z', by: 'Ilse Darrow', volumeMl: 780, volumeSdMl: 60 },
  ],
};
let asked: Asked[] = [];
function serve(more: (asked: Asked) => object | null = () => null): void {
  asked = fakeServer((asking) => {
    const special = more(asking);
    if (special) return { status: 200, body: special };
    if (asking.path.includes('coolant')) return { status: 200, body: { products: [red], lots: [] } };
    if (asking.path === '/layouts') return { status: 200, body: { layouts: [] } };
    if (asking.path === '/own-parts') return { status: 200, body: { parts: [] } };
    if (asking.path === '/learned-volumes') return { status: 200, body: { items: [], fills: 0 } };
    return { status: 200, body: loopAnswer };
  });
}
/** A server that answers one path only when told to. */
function holdBack(path: string): () => void {
  let release: () => void = () => undefined;
  const before = globalThis.fetch;
  const held = new Promise<void>((resolve) => (release = resolve));
  globalThis.fetch = (async (url: string, init?: RequestInit) => {
    if (url.endsWith(path)) await held;
    return before(url, init);
  }) as typeof fetch;
  return release;
}

beforeEach(() => localStorage.clear());

describe('the parts and cuts sheet', () => {
  async function open() {
    serve();
    const screen = mountScreen(PartsSheet, { props: { id: 'l' } });
    await settle();
    return screen;
  }

  it('lists every run with its cut, the longest first, and how they come out of the bars', async () => {
    const screen = await open();
    const rows = screen.findAll('tbody tr').map((row) => row.findAll('td').map((cell) => cell.text()));
    expect(rows.length).toBe(file.tubes.length);
    const cuts = rows.map(([, , cut]) => Number(cut));
    expect(cuts).toEqual([...cuts].sort((a, b) => b - a));
    for (const [, laid, cut] of rows) expect(Number(cut) - Number(laid)).toBeGreaterThanOrEqual(11);
    const bars = screen.findAll('.stock').map((bar) => bar.findAll('i').map((piece) => Number(piece.text())));
    expect(bars.flat().sort((a, b) => b - a)).toEqual(cuts);
    for (const bar of bars) expect(bar.reduce((sum, piece) => sum + piece, 0)).toBeLessThanOrEqual(1000);
  });

  it('counts fittings, coolant and screws, and cuts longer when told to', async () => {
    const screen = await open();
    expect(wordsOf(screen)).toContain('14 compression fittings');
    expect(wordsOf(screen)).toContain('1 cap');
    expect(wordsOf(screen)).toMatch(/\d × 1.000 mL Emberlow Red/);
    // the same answer as the quick sum, and said to be nobody's measure
    expect(wordsOf(screen)).toMatch(/radiator\b.{0,20} 30 mm 29 to 30.5 under the head/);
    expect(wordsOf(screen)).toContain('Usual figures, nobody measured this one');
    const longest = (): number => Number(screen.find('tbody tr b').text());
    const before = longest();
    await screen.findAll('.v-text-field').find((each) => each.find('label').text() === 'Cut longer by')?.find('input').setValue('22'); // prettier-ignore
    expect(longest()).toBe(before + 10);
  });

  it('keeps what was measured of a radiator’s screws, and says so', async () => {
    const screen = await open();
    const [front] = screen.findAll('article');
    const fields = front?.findAll('input') ?? [];
    await fields[1]?.setValue('0');
    expect(wordsOf(front as NonNullable<typeof front>)).toContain('28 mm');
    await front?.find('button').trigger('click');
    await settle();
    const put = asked.find(({ path }) => path === '/loops/l/fan-stacks');
    expect((put?.body as { stacks: Record<string, object> }).stacks.floor).toMatchObject({ washersMm: 0, fanMm: 25 });
    expect(wordsOf(front as NonNullable<typeof front>)).toContain('As measured.');
  });

  it('says that there is no such loop', async () => {
    fakeServer(({ path }) => (path.includes('coolant') ? { status: 200, body: { products: [], lots: [] } } : { status: 404, body: { error: { code: 'not-found', message: 'no' } } })); // prettier-ignore
    const screen = mountScreen(PartsSheet, { props: { id: 'x' } });
    await settle();
    expect(wordsOf(screen)).toContain('There is no such loop in this workshop.');
  });
});

describe('words for fittings', () => {
  it('go with their number', () => {
    expect([1, 2].map((count) => fittingWords('barb', count))).toEqual(['barb', 'barbs']);
    expect(fittingWords('tee-through', 1)).toBe('tee, straight through');
    expect(fittingWords('swivel', 3)).toBe('swivel');
  });
});

describe('the one page of a loop', () => {
  it('has parts, drawing and what is computed in one row, and opens what its address says', async () => {
    serve();
    const screen = mountScreen(LoopView, { props: { id: 'l' } }, '/loops/l?show=fill');
    await settle();
    await settle();
    const tabs = screen.find('nav[aria-label="What to look at"]').findAll('button');
    expect(tabs.map((tab) => tab.text())).toEqual(['Parts', 'Drawing', 'Drain', 'Fill', 'Air and flow', 'Heat', 'Cause', 'Compare']);
    expect(tabs.find((tab) => tab.attributes('aria-current') === 'page')?.text()).toBe('Fill');
    await tabs[0]?.trigger('click');
    await settle();
    expect(screen.find('[aria-label="Loop volume"]').exists()).toBe(true);
    expect(screen.find('a[href="/loops/l/parts"]').text()).toBe('Parts and cuts to print');
  });

  it('of a new loop is laid out before anything is computed of it', async () => {
    serve();
    const screen = mountScreen(LoopView, { props: { systemId: 's' } }, '/systems/s/loops/new');
    await settle();
    const tabs = screen.find('nav[aria-label="What to look at"]').findAll('button');
    expect(tabs.filter((tab) => tab.attributes('disabled') !== undefined)).toHaveLength(6);
  });
});

describe('nothing is typed before what it would overwrite is there', () => {
  it('the loop page shows no field until its loop has come', async () => {
    serve();
    const release = holdBack('/loops/l');
    const screen = mountScreen(LoopView, { props: { id: 'l' } });
    await settle();
    expect(screen.find('input').exists()).toBe(false);
    release();
    await settle();
    expect((screen.find('.loop-name').element as HTMLInputElement).value).toBe('Rigid loop');
  });

  it('nor does it wait for learned volumes, which only new parts need', async () => {
    serve();
    const release = holdBack('/learned-volumes');
    const screen = mountScreen(LoopView, { props: { id: 'l' } });
    await settle();
    expect(screen.find('.loop-name').exists()).toBe(true);
    release();
    await settle();
  });

  it('the start of a run shows its choices once the workshop’s own schools are known', async () => {
    const workshop = {
      workshop: { schools: { leak: 'dry-then-wet', wet: 'day', limit: 'thorough', gaugeResolutionKpa: 0.5 } },
      benches: [{ id: 'b1', name: 'Window bench' }],
    };
    serve(({ path }) => (path === '/workshop' ? workshop : path === '/benches' ? { runs: [] } : null));
    const release = holdBack('/workshop');
    mountScreen(StartRunDialog, { props: { loopId: 'l', loopName: 'Main loop', systemName: 'Small black' } });
    await settle();
    expect(document.querySelector('form')).toBeNull();
    release();
    await settle();
    // the workshop's own way is one line; who wants another one opens it
    expect(document.querySelector('form')?.textContent).toMatch(/As the workshop does: .*thorough.*24 hours/is);
    expect(document.querySelector('[role="radio"][aria-checked="true"]')?.textContent).toContain('Window bench');
    [...document.querySelectorAll<HTMLElement>('form button')].find(({ textContent }) => textContent === 'change')?.click();
    await settle();
    const chosen = [...document.querySelectorAll<HTMLInputElement>('form input[type="radio"]')].filter(({ checked }) => checked);
    expect(chosen.map(({ value }) => value)).toEqual(['dry-then-wet', 'thorough', 'day']);
  });

  it('the start of a run says what the loop’s own twin holds against it', async () => {
    document.body.innerHTML = '';
    const workshop = { workshop: { schools: { leak: 'wet-only', wet: 'day', limit: 'screen', gaugeResolutionKpa: 0.5 } }, benches: [] };
    // a pump that cannot lift half a metre
    const weak = { ...file, components: file.components.map((part) => (part.kind === 'pump' ? { ...part, curve: [[0, 1], [500, 0]] } : part)) }; // prettier-ignore
    serve(({ path }) => (path === '/workshop' ? workshop : path === '/benches' ? { runs: [] } : path === '/loops/l' ? { file: weak, coolantProductId: null } : null)); // prettier-ignore
    mountScreen(StartRunDialog, { props: { loopId: 'l', loopName: 'Main loop', systemName: 'Small black' } });
    await settle();
    expect(document.querySelector('form')?.textContent).toMatch(/Does not prime: the front has to rise \d+ mm, the pump pushes \d+ mm/);
  });

  it('the start of a run says when the workshop cannot be reached', async () => {
    document.body.innerHTML = '';
    fakeServer(() => 'unreachable');
    mountScreen(StartRunDialog, { props: { loopId: 'l', loopName: 'Main loop', systemName: 'Small black' } });
    await settle();
    expect(document.querySelector('[role="alert"]')?.textContent).toBeTruthy();
    expect(document.querySelector('form')).toBeNull();
  });
});
