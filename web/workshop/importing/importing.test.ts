// @vitest-environment happy-dom
import type { SystemLine } from '@core/workshop/machines/answers.js';
import type { ImportAnswer, PastImport } from '@core/workshop/importing/answers.js';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { fakeServer, mountScreen, settle, wordsOf, type Asked } from '../../../tests/screens/mountScreen.js';
import { listRows } from '../machines/listFile.js';
import ImportView from '../../pages/ImportView.vue';
import { decodeTable } from './decode.js';

let asked: Asked[];
let past: PastImport[] = [];
const ANSWER: ImportAnswer = {
  importId: null,
  owners: 1,
  systems: 2,
  works: 0,
  coolants: 1,
  dates: { overdue: 1, soon: 0, later: 1, none: 0 },
  refused: [{ line: 3, problems: [{ key: 'owner', value: '', problem: { why: 'missing' } }, { key: 'system', value: '', problem: { why: 'missing' } }], cells: ['', 'x', ''] }], // prettier-ignore
  leftOut: [{ line: 4, key: 'email', value: 'nowhere', problem: { why: 'not-an-email' } }],
};
const SHELF = { products: [{ id: 'p1', name: 'Plain Clear', colour: '#7fb8c9', coolantClass: 'clear', lots: [] }], lots: [] };
beforeEach(() => {
  past = [];
  asked = fakeServer(({ path, method }) => {
    if (path.startsWith('/coolants')) return { status: 200, body: SHELF };
    if (path.endsWith('/undo'))
      return { status: 201, body: { removed: { owners: 1, systems: 1, works: 0, coolants: 0 }, kept: ['Tower (Ada)'] } };
    if (path === '/imports' && method === 'GET') return { status: 200, body: { imports: past } };
    return { status: 201, body: ANSWER };
  });
});
afterEach(() => {
  document.body.innerHTML = '';
});
const sent = () => asked.filter(({ method }) => method === 'POST');

async function withFile(content: string | Uint8Array<ArrayBuffer>, name = 'list.csv') {
  const screen = mountScreen(ImportView);
  await settle();
  const input = screen.find('input[type="file"]');
  Object.defineProperty(input.element, 'files', { value: [new File([content], name)] });
  await input.trigger('change');
  await new Promise((resolve) => setTimeout(resolve, 60));
  await settle();
  return screen;
}
const press = async (screen: Awaited<ReturnType<typeof withFile>>, words: RegExp): Promise<void> => {
  await screen.findAll('button').find((each) => words.test(each.text()))?.trigger('click'); // prettier-ignore
  await settle();
};

describe('machines from a table', () => {
  it('are tried first: what would come in, every reason of a row that would not, and what is left out', async () => {
    const screen = await withFile(
      'Owner;E-mail;Machine;Last change;Coolant\nAda;ada@x.example;Tower;3.4.2025;House Blue\n;x;;;\nAda;nowhere;Loft;;Plain Clear\n',
    );
    expect(wordsOf(screen)).toContain('list.csv, 3 rows');
    expect(wordsOf(screen)).toContain('3.4.2025 → 3 Apr 2025');
    // the shelf knows one coolant by its name; the other is asked about, with a guess
    expect(wordsOf(screen)).toContain('House Blue 1 row');
    expect(wordsOf(screen)).not.toContain('Plain Clear 1 row');
    await screen.find('form').trigger('submit');
    await settle();
    expect(sent()[0]?.body).toMatchObject({
      kind: 'machines',
      dryRun: true,
      mapping: { owner: 0, email: 1, system: 2, lastChange: 3, coolant: 4, phone: null },
      coolants: [{ name: 'House Blue', as: { use: 'make', coolantClass: 'clear' } }],
    });
    expect(wordsOf(screen)).toContain('2 machines would come in');
    expect(wordsOf(screen)).toMatch(/line 3 Owner: is empty\s*Machine: is empty/);
    expect(wordsOf(screen)).toContain('E-mail: “nowhere” is no e-mail address line 4');
    expect(screen.find('.bar').attributes('aria-label')).toBe('1 over, 1 later');
    await press(screen, /^Bring in 2 machines/);
    expect(sent()[1]?.body).toMatchObject({ dryRun: false });
    expect(wordsOf(screen)).toContain('2 machines brought in');
  });

  it('need an owner and a machine: without such a column nothing is sent', async () => {
    const screen = await withFile('Colour,Size\nred,1\n');
    expect(wordsOf(screen)).toContain('Say which column holds: Owner.');
    expect(sent()).toEqual([]);
  });

  it('are asked about where a date can be read in two ways, or none stands', async () => {
    const screen = await withFile('Owner,Machine,Last change\nAda,Tower,3/4/2025\nBo,Den,\n');
    expect(wordsOf(screen)).toContain('3/4/2026 is');
    expect(wordsOf(screen)).toContain('1 machine has neither a last change nor a promise');
    await press(screen, /^4 March$/);
    expect(wordsOf(screen)).toContain('3/4/2025 → 4 Mar 2025');
  });

  it('from something that is no table are refused with what would be right', async () => {
    expect(wordsOf(await withFile('hello', 'letter.txt'))).toContain('letter.txt is no table with a heading and rows');
    expect(wordsOf(await withFile(Uint8Array.from([0x50, 0x4b, 3, 4]), 'list.xlsx'))).toContain('list.xlsx: This is a workbook');
  });

  it('can be taken back, and what stays is named', async () => {
    past = [{ id: 'i1', kind: 'machines', fileName: 'list.csv', at: '2026-03-01T09:00:00Z', by: 'Tess', counts: { owners: 1, systems: 2, works: 0, coolants: 0 }, undoneAt: null }]; // prettier-ignore
    const screen = mountScreen(ImportView);
    await settle();
    expect(wordsOf(screen)).toContain('2 machines, 1 owner');
    await press(screen, /^Take back/);
    expect(sent().map(({ path }) => path)).toEqual(['/imports/i1/undo']);
  });
});

describe('the letters of a table', () => {
  const TEXT = 'Müller;Straße;1 °C';
  const latin = Uint8Array.from(TEXT, (letter) => letter.charCodeAt(0));
  const utf16 = Uint8Array.from([0xff, 0xfe, ...[...TEXT].flatMap((letter) => [letter.charCodeAt(0) & 0xff, letter.charCodeAt(0) >> 8])]);
  it.each([
    ['UTF-8', new TextEncoder().encode(TEXT)],
    ['a western single-byte set', latin],
    ['UTF-16 with its mark', utf16],
    ['UTF-16 without', utf16.subarray(2)],
  ])('are read from %s', (_, bytes) => expect(decodeTable(bytes)).toEqual({ text: TEXT }));

  it('that another program garbled are put right, or the file is refused', () => {
    expect(decodeTable(new TextEncoder().encode('MÃ¼ller'))).toEqual({ text: 'Müller' });
    expect(decodeTable(new TextEncoder().encode('Ãlteste, wie es steht'))).toEqual({ text: 'Ãlteste, wie es steht' });
    expect(decodeTable(new TextEncoder().encode('M\ufffdller'))).toMatchObject({ problem: expect.stringContaining('lost before') });
    expect(decodeTable(Uint8Array.from([0x4d, 0x81, 0xff]))).toMatchObject({ problem: expect.stringContaining('not clear') });
  });
});

describe('the list of systems as a file', () => {
  it('says what is shown, with days that sort', () => {
    const line = { name: 'Tower', ownerName: 'Ada', ownerPhone: null, state: 'in-service', coolant: { name: 'Clear', colour: '#fff' }, filledOn: '2026-01-02', nextDueOn: '2027-01-02', nextReason: { why: 'said', text: 'policy' } }; // prettier-ignore
    expect(listRows([line as unknown as SystemLine])).toEqual([
      {
        system: 'Tower',
        owner: 'Ada',
        phone: '',
        state: 'in-service',
        coolant: 'Clear',
        filled_on: '2026-01-02',
        next_due_on: '2027-01-02',
        why: 'policy',
      },
    ]);
  });
});
