import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { guessMapping, IMPORT_KEYS, type ImportMapping } from './fields.js';
import { readImport, type KnownOwner } from './rows.js';

const HEADINGS = ['Customer', 'Phone number', 'E-mail', 'Contact by', 'Machine', 'Case', 'Builder', 'Hours per day', 'Remarks'];
const mapping = guessMapping(HEADINGS);
const row = (more: Partial<Record<number, string>> = {}): string[] =>
  ['Ada Fernwick', '+351 555 123', 'ada@x.example', 'phone', 'Tower', 'Mid tower', 'Us', '5,5', 'on a shelf'].map(
    (cell, index) => more[index] ?? cell,
  );

describe('the columns of a table', () => {
  it('are guessed from their headings, each once', () => {
    expect(Object.values(mapping)).toEqual([0, 1, 2, 3, 4, 5, 6, 7, 8]);
    expect(guessMapping(['owner_name', 'PC', 'something'])).toMatchObject({ owner: 0, system: 1, phone: null });
  });

  it('are never used twice, whatever the headings', () => {
    fc.assert(
      fc.property(fc.array(fc.constantFrom(...HEADINGS, 'name', 'mail', 'x', ''), { maxLength: 12 }), (headings) => {
        const used = Object.values(guessMapping(headings)).filter((column) => column !== null);
        expect(new Set(used).size).toBe(used.length);
      }),
    );
  });
});

describe('rows of a table', () => {
  const read = (rows: string[][], known: KnownOwner[] = []) => readImport({ rows, mapping }, known);

  it('become owners with their machines; rows of one owner come together', () => {
    const { owners, refused } = read([row(), row({ 4: 'Small black', 2: '' }), row({ 0: 'Bo Larch', 1: '', 2: 'bo@x.example', 3: '' })]);
    expect(refused).toEqual([]);
    expect(owners.map(({ input, systems }) => [input.name, input.channel, systems.map(({ name }) => name)])).toEqual([
      ['Ada Fernwick', 'phone', ['Tower', 'Small black']],
      ['Bo Larch', 'email', ['Tower']],
    ]);
    expect(owners[0]?.systems[0]).toMatchObject({ hoursPerDay: 5.5, caseText: 'Mid tower', note: 'on a shelf' });
  });

  it('of two people with one name stay apart where their contacts differ', () => {
    expect(read([row(), row({ 1: '+351 555 999', 2: 'other@x.example' })]).owners).toHaveLength(2);
  });

  it('give machines to owners who are there, and refuse machines that are', () => {
    const known = [{ id: 'k', name: 'ada fernwick', phone: '+351555123', email: null, systems: ['tower'] }];
    const { owners, refused } = read([row(), row({ 4: 'Attic' })], known);
    expect(owners).toMatchObject([{ knownId: 'k', systems: [{ name: 'Attic' }] }]);
    expect(refused).toMatchObject([{ line: 2, field: 'System', message: '"Tower" of Ada Fernwick is there already' }]);
  });

  it.each([
    [{ 0: ' ' }, 'Owner', /not allowed to be empty|empty/],
    [{ 2: 'nowhere' }, 'E-mail', /valid email/],
    [{ 1: 'call me' }, 'Phone', /^must be a phone number of digits/],
    [{ 3: 'pigeon' }, 'Preferred channel', /"pigeon" is no channel/],
    [{ 7: 'all day' }, 'Hours a day', /"all day" is not a number of hours/],
    [{ 7: '30' }, 'Hours a day', /less than or equal to 24/],
  ])('with %j are refused by line and column, and the others go in', (more, field, message) => {
    const { owners, refused } = read([row({ 4: 'First' }), row(more), row({ 4: 'Third' })]);
    expect(refused).toMatchObject([{ line: 3, field }]);
    expect(refused[0]?.message).toMatch(message);
    expect(owners.flatMap(({ systems }) => systems.map(({ name }) => name))).toEqual(['First', 'Third']);
  });

  it('are all accounted for: taken, refused or empty', () => {
    const cell = fc.oneof(fc.constantFrom('', 'Ada', 'Tower', '5', 'x@y.example', '+351 555'), fc.string({ maxLength: 12 }));
    fc.assert(
      fc.property(fc.array(fc.array(cell, { maxLength: 9 }), { maxLength: 12 }), (rows) => {
        const { owners, refused } = readImport({ rows, mapping: mapping as ImportMapping }, []);
        const empty = rows.filter((cells) => cells.every((each) => each.trim() === '')).length;
        expect(owners.reduce((sum, { systems }) => sum + systems.length, 0) + refused.length + empty).toBe(rows.length);
      }),
    );
    expect(IMPORT_KEYS).toContain('owner');
  });
});
