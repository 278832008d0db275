import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { isOutline, outlineLoop, outlineOf, UNSTATED_VOLUME } from '../../machine/loop-file/outline.js';
import { readLoopFile } from '../../machine/loop-file/loopFileSchema.js';
import { guessMapping, HISTORY_FIELDS, MACHINE_FIELDS, type HistoryKey, type MachineKey, type Mapping } from './fields.js';
import { HistoryTableReader, type KnownMachine } from './historyTable.js';
import { MachineTableReader, type KnownOwner } from './machineTable.js';
import { distinctWords, guessClass, guessColour, guessKind, guessUse, type CoolantUse } from './words.js';

const HEADINGS = ['Customer', 'Phone number', 'E-mail', 'Contact by', 'Machine', 'Tag', 'Last change', 'Coolant', 'Volume', 'Tube', 'Next due', 'Hours per day', 'Meter', 'Remarks']; // prettier-ignore
const mapping = guessMapping('machines', HEADINGS);
const ROW = ['Ada Fernwick', '(0351) 55 123', 'ada@x.example', 'phone', 'Tower', 'FH-1', '15.3.2026', 'Plain Clear', '1,2 L', '10/16', '2027-03-15', '6 Std', '3.412 h', 'on a shelf']; // prettier-ignore
const row = (more: Partial<Record<number, string>> = {}): string[] => ROW.map((cell, index) => more[index] ?? cell);
const CLEAR: CoolantUse = { use: 'known', productId: 'p' };

function read(rows: string[][], known: KnownOwner[] = [], more: { mapping?: Mapping<MachineKey>; tags?: string[] } = {}) {
  const reader = new MachineTableReader({
    mapping: more.mapping ?? mapping,
    dayOrder: 'day-first',
    today: '2026-11-28',
    coolants: new Map([
      ['plain clear', CLEAR],
      ['house blue', { use: 'make', coolantClass: 'clear' }],
      ['mystery', { use: 'unknown' }],
    ]),
    known,
    tags: more.tags ?? [],
  });
  rows.forEach((cells, index) => reader.row(index + 2, cells));
  return reader.result();
}
const problems = (found: { refused: readonly { line: number; problems: readonly { key: string; problem: { why: string } }[] }[] }) =>
  found.refused.map(({ line, problems: each }) => [line, ...each.map(({ key, problem }) => `${key} ${problem.why}`)]);

describe('the columns of a table', () => {
  it('are guessed from their headings', () => {
    expect(mapping).toMatchObject({ owner: 0, phone: 1, email: 2, channel: 3, system: 4, tag: 5, lastChange: 6, coolant: 7, volume: 8, tube: 9, promisedOn: 10, hoursPerDay: 11, reading: 12, note: 13 }); // prettier-ignore
    expect(guessMapping('machines', ['Kunde', 'Rechner', 'Letzter Wechsel', 'Kühlmittel', 'Füllmenge'])).toMatchObject({ owner: 0, system: 1, lastChange: 2, coolant: 3, volume: 4 }); // prettier-ignore
    expect(guessMapping('history', ['Serial', 'Date', 'What', 'Coolant', 'mL', 'By'])).toMatchObject({ tag: 0, on: 1, what: 2, coolant: 3, volume: 4, by: 5 }); // prettier-ignore
  });

  it('are never used twice, whatever the headings', () => {
    const heading = fc.constantFrom(...HEADINGS, 'name', 'mail', 'date', 'x', '', ...Object.values({ ...MACHINE_FIELDS, ...HISTORY_FIELDS }).flatMap(({ headings }) => [...headings])); // prettier-ignore
    fc.assert(
      fc.property(fc.constantFrom('machines' as const, 'history' as const), fc.array(heading, { maxLength: 14 }), (kind, headings) => {
        const used = Object.values(guessMapping(kind, headings)).filter((column) => column !== null);
        expect(new Set(used).size).toBe(used.length);
      }),
    );
  });
});

describe('rows of machines', () => {
  it('bring owner, machine, loop as stated, last change, coolant, promise and meter', () => {
    const { owners, refused, leftOut } = read([row(), row({ 4: 'Small black', 2: '', 5: '', 7: 'House Blue' })]);
    expect([refused, leftOut]).toEqual([[], []]);
    expect(owners).toHaveLength(1);
    expect(owners[0]?.input).toMatchObject({ name: 'Ada Fernwick', phone: '(0351) 55 123', channel: 'phone' });
    expect(owners[0]?.machines.map(({ machine, coolant }) => [machine.name, coolant?.use])).toEqual([['Tower', 'known'], ['Small black', 'make']]); // prettier-ignore
    expect(owners[0]?.machines[0]).toMatchObject({
      machine: { tag: 'FH-1', hoursPerDay: 6, note: 'on a shelf' },
      outline: { volumeMl: 1200, tube: { boreMm: 10, outerMm: 16, material: null } },
      lastChange: '2026-03-15',
      promisedOn: '2027-03-15',
      reading: { hours: 3412, on: '2026-11-28' },
    });
  });

  it('come in without the cells that cannot be read, each told with its line', () => {
    const { owners, refused, leftOut } = read([row({ 1: 'call me', 2: 'nowhere', 6: 'last year', 8: 'some', 9: 'thick', 10: '2024', 11: 'all day', 7: 'Green stuff', 3: 'pigeon' })]); // prettier-ignore
    expect(refused).toEqual([]);
    expect(leftOut.map(({ line, key, problem }) => `${line} ${key} ${problem.why}`).sort()).toEqual([
      '2 channel no-channel',
      '2 coolant coolant-not-known',
      '2 email not-an-email',
      '2 hoursPerDay not-hours',
      '2 lastChange not-a-day',
      '2 phone not-a-phone',
      '2 promisedOn a-year-alone',
      '2 tube not-a-tube',
      '2 volume not-a-volume',
    ]);
    expect(owners[0]?.input).toMatchObject({ phone: null, email: null, channel: 'email' });
    expect(owners[0]?.machines[0]).toMatchObject({ lastChange: null, coolant: null, coolantName: 'Green stuff', outline: { volumeMl: null, tube: null } }); // prettier-ignore
  });

  it('say a remark once, and nothing of a coolant that the person called unknown', () => {
    expect(read([row({ 3: 'pigeon', 1: 'call', 2: 'no' }), row({ 4: 'B', 5: '', 7: 'Mystery' })]).leftOut).toHaveLength(3);
  });

  it('have no change in the future', () => {
    expect(read([row({ 6: '2027-01-01' })]).leftOut.map(({ problem }) => problem.why)).toEqual(['in-the-future']);
  });

  it('are refused with every reason at once where owner or machine are missing or there', () => {
    const known = [{ id: 'k', name: 'ada fernwick', phone: '0351 55 123', email: null, systems: ['tower'] }];
    const found = read([row({ 0: ' ', 4: '' }), row(), row({ 4: 'Attic', 5: 'FH-9' }), row({ 4: 'Attic', 5: 'fh-9' }), row({ 0: 'x'.repeat(130), 5: '' })], known); // prettier-ignore
    expect(problems(found)).toEqual([
      [2, 'owner missing', 'system missing'],
      [3, 'system machine-there-already'],
      [5, 'system machine-there-already', 'tag tag-there-already'],
      [6, 'owner too-long'],
    ]);
    expect(found.owners).toMatchObject([{ knownId: 'k', machines: [{ machine: { name: 'Attic' } }] }]);
    expect(problems(read([row()], [], { tags: ['FH-1'] }))).toEqual([[2, 'tag tag-there-already']]);
  });

  it('of two people with one name stay apart where their contacts differ', () => {
    expect(read([row(), row({ 1: '+351 555 999', 2: 'other@x.example', 5: '' })]).owners).toHaveLength(2);
  });

  it('are all accounted for: taken, refused or empty', () => {
    const cell = fc.oneof(fc.constantFrom('', 'Ada', 'Tower', '5', 'x@y.example', '+351 555', '2024-01-02', '10/16'), fc.string({ maxLength: 12 })); // prettier-ignore
    fc.assert(
      fc.property(fc.array(fc.array(cell, { maxLength: 14 }), { maxLength: 12 }), (rows) => {
        const { owners, refused } = read(rows);
        const empty = rows.filter((cells) => cells.every((each) => each.trim() === '')).length;
        expect(owners.reduce((sum, { machines }) => sum + machines.length, 0) + refused.length + empty).toBe(rows.length);
        expect(refused.every(({ problems: each }) => each.length > 0)).toBe(true);
      }),
    );
  });
});

describe('rows of a history', () => {
  const machine = (systemId: string, name: string, more: Partial<KnownMachine> = {}): KnownMachine => ({ systemId, name, tag: '', owner: 'Ada', filledOn: [], inRun: false, ...more }); // prettier-ignore
  const machines = [
    machine('a', 'Tower', { tag: 'FH-1', filledOn: ['2025-01-10'] }),
    machine('b', 'Tower', { owner: 'Bo' }),
    machine('c', 'Den', { inRun: true }),
  ];
  const columns = guessMapping('history', ['Tag', 'Owner', 'Machine', 'Date', 'What', 'Coolant', 'mL', 'By', 'Note']);
  function history(rows: string[][]) {
    const reader = new HistoryTableReader({
      mapping: columns as Mapping<HistoryKey>,
      dayOrder: 'day-first',
      today: '2026-11-28',
      coolants: new Map([['clear', CLEAR]]),
      kinds: new Map([['big clean', 'strip-clean']]),
      machines,
    });
    rows.forEach((cells, index) => reader.row(index + 2, cells));
    return reader.result();
  }

  it('belong to a machine by tag, by owner and name, and say what was done', () => {
    const { works, refused, leftOut } = history([
      ['FH-1', '', '', '3.4.2025', 'Flush', 'Clear', '900', 'Rui', 'cloudy'],
      ['', 'Bo', 'tower', '2025-06-01', 'big clean', 'clear', '', '', ''],
      ['', 'bo', 'Tower', '2025-07-01', 'topped up', '', '120 ml', '', ''],
      ['FH-1', '', '', '2025-08-01', 'new coolant', 'who knows', '', '', ''],
    ]);
    expect(refused).toEqual([]);
    expect(works).toMatchObject([
      { systemId: 'a', kind: 'flush-refill', on: '2025-04-03', fill: { pouredMl: 900 }, by: 'Rui', note: 'Flush · cloudy' },
      { systemId: 'b', kind: 'strip-clean', fill: { pouredMl: null } },
      { systemId: 'b', kind: 'top-up', fill: null, note: 'topped up · 120 ml' },
      { systemId: 'a', kind: 'drain-refill', fill: null, note: 'new coolant · who knows' },
    ]);
    expect(leftOut.map(({ line, problem }) => [line, problem.why])).toEqual([[5, 'no-clock-without-coolant']]);
  });

  it('are refused where nobody can say which machine or which day, or it is there', () => {
    expect(
      problems(
        history([
          ['', '', 'Tower', '2025-01-01', 'flush', 'clear', '', '', ''],
          ['', '', 'Loft', 'then', 'flush', '', '', '', ''],
          ['', '', '', '2025-01-01', '', '', '', '', ''],
          ['FH-1', '', '', '10.1.2025', 'refill', 'clear', '', '', ''],
          ['', '', 'Den', '2030-01-01', 'flush', 'clear', '', '', ''],
        ]),
      ),
    ).toEqual([
      [2, 'system which-machine'],
      [3, 'system no-such-machine', 'on not-a-day'],
      [4, 'system missing', 'what missing'],
      [5, 'on filled-that-day'],
      [6, 'system in-a-run', 'on in-the-future'],
    ]);
  });
});

describe('words of a table', () => {
  it('are guessed: classes and colours of coolants, kinds of work', () => {
    expect(['Pearl White', 'Pastel Mint', 'Destilliertes Wasser', 'House Blue'].map(guessClass)).toEqual(['show', 'opaque', 'biocide', 'clear']); // prettier-ignore
    expect(['unbekannt', '?', 'Unknown red'].map((name) => guessUse(name).use)).toEqual(['unknown', 'unknown', 'make']);
    expect([guessColour('Ruby red'), guessColour('House')]).toEqual(['#b5524a', '#c3d0d3']);
    const kinds = ['Flush + refill', 'Leak at GPU', 'nachgefüllt', 'new pump', 'Built', 'dusted', 'Wechsel', 'odd'].map((word) => guessKind(word, false)); // prettier-ignore
    expect(kinds).toEqual(['flush-refill', 'leak-repair', 'top-up', 'part-replacement', 'commissioning', 'closed-loop', 'drain-refill', 'closed-loop']); // prettier-ignore
    expect(guessKind('odd', true)).toBe('drain-refill');
    expect(distinctWords(['A', 'a ', '', 'b', 'A'])).toEqual([{ word: 'A', rows: 3 }, { word: 'b', rows: 1 }]); // prettier-ignore
  });
});

describe('a loop that was only stated', () => {
  it('is a loop file of its volume, and keeps what was said', () => {
    const tube = { boreMm: 10, outerMm: 16, material: 'epdm' };
    const file = readLoopFile(JSON.parse(JSON.stringify(outlineLoop('Tower', { volumeMl: 1200, tube }))));
    expect([isOutline(file), outlineOf(file), file.components[0]?.volume_ml]).toEqual([true, { volumeMl: 1200, tube }, 1200]);
    const unstated = outlineLoop('Tower', { volumeMl: null, tube: null });
    expect([unstated.components[0]?.volume_ml, outlineOf(unstated)?.volumeMl]).toEqual([UNSTATED_VOLUME.volumeMl, null]);
    expect(outlineOf({ ...file, components: [] })).toBe(null);
  });
});
