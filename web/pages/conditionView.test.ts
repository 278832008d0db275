import { defineComponent, h } from 'vue';
// @vitest-environment happy-dom
import { readFileSync } from 'node:fs';
import { beforeEach, describe, expect, it } from 'vitest';
import { addDays } from '@core/base/units/calendar.js';
import { readLoopFile } from '@core/machine/loop-file/loopFileSchema.js';
import { USUAL_LIMITS } from '@core/physics/condition/limits.js';
import type { DatedReading } from '@core/physics/condition/series.js';
import { readParts } from '@core/physics/diagnosis/sensors.js';
import type { ConditionPage } from '@core/workshop/logs/answers.js';
import { fakeServer, mountScreen, settle, wordsOf, type Asked } from '../../tests/screens/mountScreen.js';
import ItSays from '../machine/condition/ItSays.vue';
import { useSays } from '../machine/condition/useSays.js';
import ConditionView from './ConditionView.vue';

const file = readLoopFile(JSON.parse(readFileSync('examples/two-radiators.json', 'utf8')));
const parts = readParts([file]);
const TODAY = '2026-06-01';
const reading = (day: number, rise: number): DatedReading => ({
  id: `r${day}`,
  on: addDays('2026-03-01', day),
  source: 'log',
  reading: {
    roomC: 22,
    powersW: { cpu: 150, gpu: 300 },
    partsC: { cpu: 60 + rise, gpu: 66 },
    coolantC: 34,
    flowLph: 180,
    pumpSpeed: 0.7,
    fanSpeed: 0.6,
    minutes: 60,
  },
});
const page = (readings: readonly DatedReading[], more: Partial<ConditionPage> = {}): ConditionPage => ({
  system: { id: 's', name: 'Loft', ownerName: 'Ada Larch', retired: false },
  parts,
  readings,
  marks: [{ on: '2026-03-01', kind: 'filled', part: null }],
  limits: USUAL_LIMITS,
  columns: null,
  keptSetting: null,
  fanGroups: [],
  levels: [],
  confirmed: [],
  found: {},
  loops: [{ id: 'l', name: 'Loop', coolantProductId: null, file, breathing: { air: {}, caseHeatW: 0 } }],
  today: TODAY,
  zone: 'UTC',
  ...more,
});

let asked: Asked[];
let answer: ConditionPage;
beforeEach(() => {
  document.body.innerHTML = '';
  asked = fakeServer(({ method, path }) => {
    if (path.endsWith('/condition') || path.endsWith('/causes') || path.endsWith('/kept-setting')) return { status: 200, body: answer };
    if (method === 'POST') return { status: 201, body: { id: 'log', taken: 2, known: 0, moved: [{}] } };
    return { status: 200, body: { products: [], lots: [] } };
  });
});
async function open(of: ConditionPage) {
  answer = of;
  const screen = mountScreen(ConditionView, { props: { id: 's' } }, '/systems/s/condition');
  await settle();
  return screen;
}
const press = async (screen: Awaited<ReturnType<typeof open>>, words: RegExp): Promise<void> => {
  await screen.findAll('button').find((each) => words.test(each.text()))?.trigger('click'); // prettier-ignore
  await settle();
};
/** a file is looked at and read beside the page, piece by piece */
async function until(screen: Awaited<ReturnType<typeof open>>, words: RegExp): Promise<void> {
  for (let n = 0; n < 400 && !words.test(wordsOf(screen)); n += 1) await new Promise((resolve) => setTimeout(resolve, 10));
  expect(wordsOf(screen)).toMatch(words);
}

describe('a machine’s condition', () => {
  it('teaches what a log would bring where nothing was read', async () => {
    const words = wordsOf(await open(page([])));
    expect(words).toContain('Nobody has read Loft under load with its watts yet');
    expect(words).toContain('Choose the log');
    expect(words).not.toContain('What it may be');
  });

  it('puts first the part that is furthest from its best days, with the days on which it meets its limit', async () => {
    const screen = await open(page(Array.from({ length: 30 }, (_, n) => reading(3 * n, 0.08 * n * 3))));
    const headings = screen.findAll('.drift h2').map((each) => each.text());
    expect(headings[0]).toMatch(/cpu|processor/i);
    const [first, second] = screen.findAll('.drift').map((each) => wordsOf(each));
    expect(first).toMatch(/\+1\d % over its best days/);
    expect(first).toMatch(/Meets its limit of 0\.\d{3} K\/W \(30 % over its best days\) about \d/);
    expect(second).toContain('No trend');
    expect(screen.findAll('.drift svg .point')).toHaveLength(90);
    expect(screen.find('.drift svg').attributes('aria-label')).toContain('30 readings from 1 Mar 2026');
  });

  it('ranks what it may be on the loop’s own twin, and ends in the job that mends it', async () => {
    const screen = await open(page([...Array.from({ length: 6 }, (_, n) => reading(5 * n, 0)), reading(40, 9)]));
    await until(screen, /dry paste under/);
    expect(wordsOf(screen)).toContain('flow 180 L/h → 180 L/h');
    // what speaks for it, and what against the next
    expect(wordsOf(screen)).toMatch(/for it ?(cpu|processor) 69 °C, sound it would be 60 °C, with this 6\d °C/i);
    expect(wordsOf(screen)).toContain('against it');
    await press(screen, /It was this/);
    expect(asked.find(({ path }) => path === '/systems/s/causes')?.body).toMatchObject({ cause: 'paste', part: 'cpu' });
    expect(screen.find('.cause a.v-btn').attributes('href')).toBe('/systems/s/jobs/new?kind=closed-loop&loop=l');
  });
});

describe('flow and level', () => {
  it('are drawn beside what explains them: a resistance, and what the walls let through', async () => {
    const fell = Array.from({ length: 8 }, (_, n) => {
      const own = reading(5 * n, 0);
      return { ...own, reading: { ...own.reading, flowLph: n < 4 ? 180 : 140 } };
    });
    const read = [
      { on: addDays('2026-03-01', 5), mm: -1, source: 'settling' as const },
      { id: 'l1', on: addDays('2026-03-01', 60), mm: -19, source: 'hand' as const },
    ];
    const screen = await open(page(fell, { levels: [{ loopId: 'l', filledOn: '2026-03-01', coolantC: 34, read }] }));
    await until(screen, /A resistance of \d\.\d\d ± \d\.\d\d kPa/);
    expect(wordsOf(screen)).toContain('140 L/h now, 180 L/h on its best days at 70 % of the pump.');
    expect(wordsOf(screen)).toMatch(/Falls by 10\.0 ± 0\.8 mm a month; the walls take \d\.\d to \d\.\d mm a month\. Look for a leak\./);
    await press(screen, /strike out 30 Apr/);
    expect(asked.find(({ path }) => path === '/level-readings/l1')?.body).toEqual({ struck: true });
  });

  it('are written down, as is new paste', async () => {
    const screen = await open(page([reading(1, 0)], { levels: [{ loopId: 'l', filledOn: '2026-03-01', coolantC: null, read: [] }] }));
    expect(wordsOf(screen)).toContain('Cannot tell yet: read it once in the first days');
    await screen.find('.shows input').setValue('-3');
    await screen.find('.shows form').trigger('submit');
    await settle();
    expect(asked.find(({ path }) => path === '/systems/s/levels')?.body).toEqual({ loopId: 'l', on: TODAY, mm: -3 });
    await press(screen, /Something was done to it/);
    (document.querySelector('.v-overlay form') as HTMLFormElement).dispatchEvent(new Event('submit', { cancelable: true }));
    await settle();
    expect(asked.find(({ path }) => path === '/systems/s/marks')?.body).toEqual({ kind: 'paste', part: null, on: TODAY });
  });
});

describe('two settings', () => {
  it('stand against every part’s limit on a hot day; the quiet one that holds is proposed, one is kept', async () => {
    const loud = reading(40, 0);
    const quiet = { ...reading(41, 6), source: 'hand' as const };
    const screen = await open(page([loud, { ...quiet, reading: { ...quiet.reading, fanSpeed: 0.3, noiseDba: 29 } }]));
    const [first, second] = screen.findAll('.settings article').map((each) => wordsOf(each));
    expect(first).toMatch(/fans 30 %, pump 70 %.*29 dB\(A\).*the quietest that holds/);
    // 44 K over its room at 300 W, in one of 32 °C
    expect(second).toMatch(/gpu ?76 °C ± \d of 85 °C ?holds/);
    await press(screen, /^This one is kept$/);
    expect(asked.find(({ path }) => path === '/systems/s/kept-setting')?.body).toEqual({ pumpSpeed: 0.7, fanSpeed: 0.3, profile: null });
  });
});

describe('a log that comes in', () => {
  const LOG = `Time,CPU °C,CPU Power W,Coolant °C,Room °C\n${Array.from({ length: 60 }, (_, n) => `2026-05-0${1 + (n > 200 ? 1 : 0)} 18:${String(n).padStart(2, '0')}:00,60,150,34,22`).join('\n')}\nlater,1,2,3,4\n`;
  async function drop(screen: Awaited<ReturnType<typeof open>>, text: string): Promise<void> {
    const input = screen.find('input[type="file"]');
    Object.defineProperty(input.element, 'files', { value: [new File([text], 'loft.csv')], configurable: true });
    await input.trigger('change');
  }

  it('is shown with what was taken and left out before it is kept', async () => {
    const screen = await open(page([]));
    await drop(screen, LOG);
    await until(screen, /what its columns are/);
    expect(asked.filter(({ method }) => method === 'POST')).toEqual([]);
    await press(screen, /^Read it$/);
    await until(screen, /one day of 1 with a steady load/);
    expect(wordsOf(screen)).toContain('one line without a time: 62');
    // it already stands in the picture
    expect(screen.findAll('.drift svg .point')).toHaveLength(1);
    await press(screen, /^Keep this log$/);
    const body = asked.find(({ path }) => path === '/systems/s/logs')?.body as {
      days: unknown[];
      hours: number;
      columns: { parts: unknown[] };
    };
    expect(body).toMatchObject({ name: 'loft.csv', fromOn: '2026-05-01', on: '2026-05-01', meanCoolantC: 34 });
    expect([body.days.length, body.columns.parts.length]).toEqual([1, 1]);
  });

  it('that is no log says what would be one', async () => {
    const screen = await open(page([]));
    await drop(screen, 'a,b\n1,2\n');
    await until(screen, /No column of this file tells the time/);
    expect(screen.find('input[type="file"]').exists()).toBe(true);
  });

  it('is read at once where its columns are known', async () => {
    const first = await open(page([]));
    await drop(first, LOG);
    await until(first, /what its columns are/);
    await press(first, /^Read it$/);
    await until(first, /one day of 1/);
    await press(first, /^Keep this log$/);
    const { columns } = asked.find(({ path }) => path === '/systems/s/logs')?.body as Pick<ConditionPage, 'columns'>;
    const again = await open(page([], { columns }));
    await drop(again, LOG);
    await until(again, /one day of 1/);
  });

  it('is written by the stand-in, where there is no other', async () => {
    const screen = await open(page([]));
    await press(screen, /logger stand-in writes one/i);
    await until(screen, /Logger stand-in, 120 days: what its columns are/);
  });
});

describe('at the take-in', () => {
  const says = async (of: ConditionPage): Promise<string> => {
    answer = of;
    const Page = defineComponent(() => {
      const { lines } = useSays(() => 's');
      return () => h(ItSays, { systemId: 's', lines: lines.value });
    });
    const screen = mountScreen(Page, {});
    await settle();
    return wordsOf(screen);
  };
  it('stands beside the owner’s words what the machine says by itself; nothing where it was never read', async () => {
    const words = await says(page(Array.from({ length: 30 }, (_, n) => reading(3 * n, 0.08 * n * 3))));
    expect(words).toMatch(/cpu ?\+1\d % ?Meets its limit of/);
    expect(words).toMatch(/gpu ?±0 % ?No trend/);
    expect(await says(page([]))).toBe('');
  });
});

describe('a reading by hand', () => {
  it('shows the difference to the last one while it is typed', async () => {
    const screen = await open(page([reading(0, 0)]));
    await press(screen, /Read it by hand/);
    const dialog = document.querySelector('.v-dialog') as HTMLElement;
    const field = (label: string) =>
      [...dialog.querySelectorAll('.v-text-field')].find((each) => each.querySelector('label')?.textContent === label)?.querySelector('input') as HTMLInputElement; // prettier-ignore
    const type = async (label: string, value: string): Promise<void> => {
      field(label).value = value;
      field(label).dispatchEvent(new Event('input'));
      await settle();
    };
    const [cpu] = parts;
    await type('Room', '22');
    await type(cpu?.name ?? '', '68');
    expect(field(`Power into ${cpu?.name ?? ''}`).value).toBe('150');
    await type('Coolant, if measured', '34');
    expect(dialog.textContent).toMatch(/8\.\d ± \d\.\d K hotter than before/);
  });
});
