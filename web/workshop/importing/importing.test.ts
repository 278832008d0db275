import type { SystemLine } from '@core/workshop/machines/answers.js';
// @vitest-environment happy-dom
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { fakeServer, mountScreen, settle, wordsOf, type Asked } from '../../../tests/screens/mountScreen.js';
import { listRows } from '../machines/listFile.js';
import ImportView from '../../pages/ImportView.vue';

let asked: Asked[];
const COUNTS = {
  owners: 1,
  systems: 2,
  refused: [{ line: 3, field: 'E-mail', message: 'must be a valid email', cells: ['Bo', 'x', 'PC'] }],
};
beforeEach(() => {
  asked = fakeServer(() => ({ status: 201, body: COUNTS }));
});
afterEach(() => {
  document.body.innerHTML = '';
});

async function withFile(text: string, name = 'list.csv') {
  const screen = mountScreen(ImportView);
  const input = screen.find('input[type="file"]');
  Object.defineProperty(input.element, 'files', { value: [new File([text], name)] });
  await input.trigger('change');
  await new Promise((resolve) => setTimeout(resolve, 60));
  await settle();
  return screen;
}
const press = async (screen: Awaited<ReturnType<typeof withFile>>, words: RegExp): Promise<void> => {
  await screen.findAll('button').find((each) => words.test(each.text()))?.trigger('click'); // prettier-ignore
  await settle();
};

describe('systems from a table', () => {
  it('are tried first: what would come in, and which row would not, with its line', async () => {
    const screen = await withFile('Owner;E-mail;Machine\nAda;ada@x.example;Tower\nBo;x;PC\nAda;;Loft\n');
    expect(wordsOf(screen)).toContain('list.csv, 3 rows');
    await screen.find('form').trigger('submit');
    await settle();
    expect(asked[0]?.body).toMatchObject({ dryRun: true, mapping: { owner: 0, email: 1, system: 2, phone: null } });
    expect(wordsOf(screen)).toContain('2 machines would come in');
    expect(wordsOf(screen)).toContain('line 3 E-mail: must be a valid email');
    await press(screen, /^Bring in 2 machines/);
    expect(asked[1]?.body).toMatchObject({ dryRun: false });
    expect(wordsOf(screen)).toContain('2 machines brought in');
  });

  it('need an owner and a machine: without such a column nothing is sent', async () => {
    const screen = await withFile('Colour,Size\nred,1\n');
    expect(wordsOf(screen)).toContain('Say which column holds: Owner.');
    expect(asked).toEqual([]);
  });

  it('from something that is no table are refused with what would be right', async () => {
    const screen = await withFile('hello', 'letter.txt');
    expect(wordsOf(screen)).toContain('letter.txt is no table with a heading and rows');
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
