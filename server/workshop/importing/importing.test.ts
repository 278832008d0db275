import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { ImportAnswer, PastImport, UndoneImport } from '../../../core/workshop/importing/answers.js';
import { guessMapping, type ImportTableKind } from '../../../core/workshop/importing/fields.js';
import type { ImportInput } from '../../../core/workshop/importing/schema.js';
import type { SystemLine, SystemPage } from '../../../core/workshop/machines/answers.js';
import { DEFAULT_SCHOOLS } from '../../../core/physics/leak-testing/schools.js';
import { reasonWords } from '../../../core/edge/words/dates.js';
import { errorOf, TestBench, type Answer, type Visitor } from '../../../tests/integration/bench.js';
import { booked } from '../../../tests/integration/led.js';
import { WORKED_ON } from './undo.js';

let bench: TestBench;
beforeAll(async () => {
  bench = await TestBench.open();
});
afterAll(() => bench.close());

/** A table as a person would bring it. The tests' day is 10 March 2026. */
function table(kind: ImportTableKind, text: string, more: Partial<ImportInput> = {}): object {
  const [headings = [], ...rows] = text.trim().split('\n').map((line) => line.split(';').map((cell) => cell.trim())); // prettier-ignore
  return { kind, fileName: 'list.csv', rows, mapping: guessMapping(kind, headings), dayOrder: 'day-first', coolants: [], kinds: [], undated: 'due-now', dryRun: false, ...more }; // prettier-ignore
}
const bring = (who: Visitor, body: object, key?: string): Promise<Answer<ImportAnswer>> => who.post<ImportAnswer>('/imports', body, key);
const lines = async (who: Visitor): Promise<SystemLine[]> => (await who.get<{ systems: SystemLine[] }>('/systems')).body.systems;
const pageOf = async (who: Visitor, name: string): Promise<SystemPage> => {
  const line = (await lines(who)).find((each) => each.name === name);
  return (await who.get<SystemPage>(`/systems/${line?.id}`)).body;
};
const dueOn = ({ dues }: SystemLine) => dues.find(({ kind }) => kind === 'coolant-service')?.dueOn;
const wet = (page: SystemPage) => page.dues.filter(({ kind }) => kind === 'coolant-service');

const MACHINES = `
Owner; Phone; Machine; Tag; Last change; Coolant; Volume; Tube; Next due; Hours per day; Meter
Ada Fernwick; (0351) 55 1; Tower; FH-1; 15.4.2025; House Blue; 1,2 L; 10/16; ; 6 Std; 3.412 h
Ada Fernwick; (0351) 55 1; Small black; FH-2; 1.9.2025; House Blue; 800; ; 1.6.2026; ;
Bo Larch; ; Attic; ; ; ; ; ; 1.4.2026; ;
Bo Larch; ; Den; ; 2025-12-01; nobody knows; ; ; ; ;
Bo Larch; call me; Loft; ; ; ; ; ; ; ;
; ; Nobody’s; ; ; ; ; ; ; ;
`;
const BLUE = { coolants: [{ name: 'House Blue', as: { use: 'make', coolantClass: 'clear' } }] } as const;

describe('a table of machines', () => {
  it('is tried without anything being written, and says how the due list would stand', async () => {
    const lead = await bench.workshop('Trial');
    const { status, body } = await bring(lead, table('machines', MACHINES, { ...BLUE, dryRun: true }));
    expect(status).toBe(201);
    // Tower in April 2025: a year later; Small black as promised; Attic as promised; Den by its age; Loft now
    expect(body).toMatchObject({ importId: null, owners: 2, systems: 5, coolants: 1, dates: { overdue: 0, soon: 2, later: 3, none: 0 } });
    expect(body.refused.map(({ line, problems }) => [line, problems.map(({ key }) => key)])).toEqual([[7, ['owner']]]);
    expect(body.leftOut.map(({ line, key }) => [line, key]).sort()).toEqual([[5, 'coolant'], [6, 'phone']]); // prettier-ignore
    expect([await lines(lead), (await lead.get<{ coolants: unknown[] }>('/coolants')).body]).toMatchObject([[], { products: [] }]);
  });

  it('gives every machine its date, by the clocks that count for all, and what was promised stands', async () => {
    const lead = await bench.workshop('Moves in');
    const { body } = await bring(lead, table('machines', MACHINES, BLUE));
    expect(body).toMatchObject({ owners: 2, systems: 5, coolants: 1, dates: { soon: 2, later: 3 } });
    const due = new Map((await lines(lead)).map((line) => [line.name, [dueOn(line), line.coolant?.name ?? null, line.state]]));
    expect(Object.fromEntries(due)).toEqual({
      Tower: ['2026-04-15', 'House Blue', 'in-service'],
      'Small black': ['2026-06-01', 'House Blue', 'in-service'],
      Attic: ['2026-04-01', null, 'in-service'],
      Den: ['2026-12-01', null, 'in-service'],
      Loft: ['2026-03-10', null, 'in-service'],
    });
    const tower = await pageOf(lead, 'Tower');
    expect(tower.system).toMatchObject({ tag: 'FH-1', hoursPerDay: 6 });
    expect(tower.loops[0]).toMatchObject({ revision: { kind: 'stated', volumeMl: 1200 }, cameFilled: null, inside: { by: 'fill' } });
    expect(tower.usage.readings).toMatchObject([{ hours: 3412, on: '2026-03-10' }]);
    expect((await lead.history(tower.system.id)).find(({ kind }) => kind === 'job')).toMatchObject({ title: 'Drain and refill', by: null });
    expect(wet(await pageOf(lead, 'Small black')).map(({ reason }) => reasonWords(reason))).toEqual(['promised to the owner']);
    const den = await pageOf(lead, 'Den');
    expect(den.loops[0]?.cameFilled).toMatchObject({ productId: null, since: '2025-12-01' });
    expect(wet(den).map(({ reason }) => reasonWords(reason))).toEqual(['unknown coolant, it mixes with nothing: find out or flush; since about 1 Dec 2025']); // prettier-ignore
  });

  it('moves with policy and sheet afterwards like any other, but not what was promised', async () => {
    const lead = await bench.workshop('Moves on');
    await bring(lead, table('machines', MACHINES, BLUE));
    const { products } = (await lead.get<{ products: { id: string; name: string; version: number }[] }>('/coolants')).body;
    const blue = products.find(({ name }) => name === 'House Blue');
    const moved = await lead.put(`/coolants/${blue?.id}/limit`, { version: blue?.version, sheetLifeMonths: 6, sheetLifeHours: null });
    expect(moved.status).toBe(200);
    const due = new Map((await lines(lead)).map((line) => [line.name, dueOn(line)]));
    expect([due.get('Tower'), due.get('Small black')]).toEqual(['2025-10-15', '2026-06-01']);
    expect(wet(await pageOf(lead, 'Small black')).map(({ reason }) => reasonWords(reason))[0]).toContain(
      'by its clocks it would be 1 Mar 2026',
    );
  });

  it('is written once, even when sent twice with one key, and brings nothing a second time', async () => {
    const lead = await bench.workshop('Twice');
    const [key, body] = [randomUUID(), table('machines', MACHINES, BLUE)];
    const answers = await Promise.all([bring(lead, body, key), bring(lead, body, key)]);
    expect(answers.map(({ body: { systems } }) => systems)).toEqual([5, 5]);
    const again = (await bring(lead, body)).body;
    expect([again.systems, again.refused.map(({ line }) => line)]).toEqual([0, [2, 3, 4, 5, 6, 7]]);
    expect(await lines(lead)).toHaveLength(5);
  });

  it('without a column for the owner, or with a coolant of elsewhere, is refused and says so', async () => {
    const lead = await bench.workshop('Refused');
    const other = await bench.workshop('Elsewhere');
    const body = table('machines', MACHINES, { dryRun: true }) as ImportInput;
    expect(errorOf(await bring(lead, { ...body, mapping: { ...body.mapping, owner: null } })).message).toBe(
      'Say which column holds: Owner.',
    );
    const foreign = [{ name: 'House Blue', as: { use: 'known', productId: await other.coolant() } }];
    expect(errorOf(await bring(lead, { ...body, coolants: foreign })).path).toBe('coolants[0].as.productId');
    expect(errorOf(await bring(lead, { ...body, rows: [[1]] })).message).toContain('rows[0]');
  });

  it('lets a machine be booked at once, and asks for its loop before it comes onto a bench', async () => {
    const lead = await bench.workshop('Books');
    await bring(lead, table('machines', MACHINES, BLUE));
    const { system, loops } = await pageOf(lead, 'Tower');
    const job = await booked(lead, { systemId: system.id, loopId: loops[0]?.id ?? '' }, 'drain-refill');
    await lead.post(`/jobs/${job.id}/consent`, { how: 'phone', words: 'yes', version: job.version });
    const refused = await lead.post(`/jobs/${job.id}/start`, { benchId: null, schools: { ...DEFAULT_SCHOOLS, leak: 'wet-only' } });
    expect([refused.status, errorOf(refused).message]).toMatchObject([expect.any(Number), expect.stringContaining('Lay it out first')]);
    expect(errorOf(await lead.run(loops[0]?.id ?? '')).message).toContain('Lay it out first');
  });
});

const HISTORY = `
Tag; Owner; Machine; Date; What; Coolant; mL; By
FH-1; ; ; 2024-02-01; first fill; House Blue; 1150; Rui
FH-1; ; ; 2025-10-01; Flush; House Blue; 1100; Rui
; Bo Larch; Attic; 2025-11-05; Refill; House Blue; ; 
; Bo Larch; Attic; 2025-12-05; topped up; ; 60 ml; 
; ; Barn; 2025-12-05; topped up; ; ; 
`;

describe('a table of what was done before', () => {
  it('stands in the history, and the last refill starts the clock', async () => {
    const lead = await bench.workshop('History');
    await bring(lead, table('machines', MACHINES, BLUE));
    const trial = (await bring(lead, table('history', HISTORY, { dryRun: true }))).body;
    expect(trial).toMatchObject({ importId: null, works: 4, systems: 0, coolants: 0 });
    expect(trial.refused.map(({ line, problems }) => [line, problems[0]?.problem.why])).toEqual([[6, 'no-such-machine']]);
    expect((await pageOf(lead, 'Tower')).dues.map(({ dueOn }) => dueOn)).toContain('2026-04-15');

    const { body } = await bring(lead, table('history', HISTORY));
    expect(body.works).toBe(4);
    const tower = await pageOf(lead, 'Tower');
    expect(wet(tower).map(({ dueOn }) => dueOn)).toEqual(['2026-10-01']);
    const told = (await lead.history(tower.system.id)).filter(({ kind }) => kind === 'job').map(({ title, text, by }) => [title, text, by]);
    expect(told).toEqual([
      ['Flush and refill', expect.stringContaining('of House Blue in'), 'Rui'],
      ['Drain and refill', '', null],
      ['Commissioning', expect.stringContaining('of House Blue in'), 'Rui'],
    ]);
    // a promise that nobody knew the fill of belongs to the fill that is known now
    const attic = await pageOf(lead, 'Attic');
    expect(wet(attic).map(({ dueOn, reason }) => [dueOn, reason.why])).toEqual([['2026-04-01', 'promised']]);
    expect([attic.loops[0]?.coolantProductId !== null, attic.loops[0]?.cameFilled]).toEqual([true, null]);
    // the same again brings the refills of those days no second time
    expect((await bring(lead, table('history', HISTORY, { dryRun: true }))).body.refused.map(({ line }) => line)).toEqual([2, 3, 4, 6]);
  });
});

describe('an import that is taken back', () => {
  const undo = (who: Visitor, id: string | null) => who.post<UndoneImport>(`/imports/${id}/undo`, {});
  const tables = ['owner', 'system', 'loop', 'loop_revision', 'component', 'job', 'fill', 'due_item', 'usage_reading', 'coolant_product'];
  const rowsOf = async (workshopId: string): Promise<number[]> =>
    Promise.all(tables.map(async (name) => Number((await bench.pool.query<{ n: string }>(`select count(*) as n from ${name} where workshop_id = $1`, [workshopId])).rows[0]?.n))); // prettier-ignore
  const workshopOf = async (who: Visitor): Promise<string> =>
    (await bench.pool.query<{ workshop_id: string }>('select workshop_id from person where email = $1', [who.email])).rows[0]?.workshop_id ?? ''; // prettier-ignore

  it('leaves nothing behind, history first or machines alone', async () => {
    const lead = await bench.workshop('Undo');
    const workshopId = await workshopOf(lead);
    const before = await rowsOf(workshopId);
    const machines = (await bring(lead, table('machines', MACHINES, BLUE))).body;
    const between = await rowsOf(workshopId);
    const dues = wet(await pageOf(lead, 'Tower'));
    bench.wait(60);
    const history = (await bring(lead, table('history', HISTORY))).body;
    expect((await undo(lead, history.importId)).body).toEqual({ removed: { owners: 0, systems: 0, works: 4, coolants: 0 }, kept: [] });
    expect(await rowsOf(workshopId)).toEqual(between);
    expect(wet(await pageOf(lead, 'Tower')).map(({ dueOn, reason }) => [dueOn, reason])).toEqual(
      dues.map(({ dueOn, reason }) => [dueOn, reason]),
    );
    expect(wet(await pageOf(lead, 'Attic')).map(({ dueOn }) => dueOn)).toEqual(['2026-04-01']);
    expect((await undo(lead, machines.importId)).body).toEqual({ removed: { owners: 2, systems: 5, works: 0, coolants: 1 }, kept: [] });
    expect(await rowsOf(workshopId)).toEqual(before);
    expect(errorOf(await undo(lead, machines.importId)).message).toContain('undone already');
    const { imports } = (await lead.get<{ imports: PastImport[] }>('/imports')).body;
    expect(imports.map(({ kind, counts, undoneAt }) => [kind, counts.systems, undoneAt !== null])).toEqual([['history', 0, true], ['machines', 5, true]]); // prettier-ignore
  });

  it('keeps what was worked with since, and names it', async () => {
    const lead = await bench.workshop('Worked with');
    const { importId } = (await bring(lead, table('machines', MACHINES, BLUE))).body;
    const { system, loops } = await pageOf(lead, 'Tower');
    await booked(lead, { systemId: system.id, loopId: loops[0]?.id ?? '' }, 'drain-refill');
    const { body } = await undo(lead, importId);
    expect(body).toMatchObject({ removed: { owners: 1, systems: 4, coolants: 0 }, kept: ['Tower (Ada Fernwick)'] });
    expect((await lines(lead)).map(({ name }) => name)).toEqual(['Tower']);
  });

  it('is nobody else’s, and not the technician’s', async () => {
    const lead = await bench.workshop('Mine');
    const { importId } = (await bring(lead, table('machines', MACHINES, BLUE))).body;
    const other = await bench.workshop('Theirs');
    expect((await undo(other, importId)).status).toBe(404);
    expect((await other.get<{ imports: unknown[] }>('/imports')).body.imports).toEqual([]);
    expect((await undo(await lead.colleague('technician'), importId)).status).toBe(403);
    expect(await lines(lead)).toHaveLength(5);
  });

  it('asks every table of the database that may refer to what it takes away', async () => {
    const { rows } = await bench.pool.query<{ to: string; from: string; column: string }>(`
      select c.confrelid::regclass::text as to, c.conrelid::regclass::text as from,
        (select a.attname from pg_attribute a where a.attrelid = c.conrelid and a.attnum = c.conkey[array_length(c.conkey, 1)]) as column
      from pg_constraint c where c.contype = 'f'`);
    const refers = (to: string): string[] => rows.filter((row) => row.to === to).map((row) => row.from).sort(); // prettier-ignore
    // its line goes with a machine by itself
    const made = ['machine_line', 'due_item', 'fill', 'job', 'loop', 'loop_revision', 'usage_reading', 'component', 'tube'];
    const others = (to: string): string[] => [...new Set(refers(to))].filter((name) => !made.includes(name));
    expect(others('system')).toEqual([...WORKED_ON.system]);
    expect(others('loop')).toEqual([...WORKED_ON.loop]);
    expect(others('job')).toEqual([...WORKED_ON.job]);
    expect(others('coolant_product')).toEqual([...WORKED_ON.product]);
  });
});
