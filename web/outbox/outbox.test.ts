import 'fake-indexeddb/auto';
import { describe, expect, it } from 'vitest';
import { dropEntry, entriesOf, forgetAnswers, keepEntry, refuseEntry, rememberAnswer, rememberedAnswer, waitingInAll } from './outbox.js';

const entry = (text: string) => ({
  id: crypto.randomUUID(),
  at: '2026-03-10T09:00:00Z',
  body: { type: 'note', step: 'kit', text } as const,
});

describe('the outbox of a device', () => {
  it('keeps entries of each run in the order they were made', async () => {
    const [a, b, other] = [entry('a'), entry('b'), entry('other')];
    await keepEntry('run 1', a);
    await keepEntry('run 2', other);
    await keepEntry('run 1', b);
    expect((await entriesOf('run 1')).waiting).toEqual([a, b]);
    expect((await entriesOf('run 2')).waiting).toEqual([other]);
    expect(await waitingInAll()).toBe(3);
    await dropEntry(a.id);
    await dropEntry(a.id);
    expect((await entriesOf('run 1')).waiting).toEqual([b]);
  });

  it('does not take an entry twice', async () => {
    const one = entry('once');
    await keepEntry('run 3', one);
    await expect(keepEntry('run 3', one)).rejects.toThrow();
    expect((await entriesOf('run 3')).waiting).toEqual([one]);
  });

  it('keeps what the server refused, with its words, apart from what waits', async () => {
    const one = entry('late');
    await keepEntry('run 4', one);
    await refuseEntry(one.id, 'This run was abandoned.');
    expect(await entriesOf('run 4')).toEqual({ waiting: [], refused: [{ ...one, why: 'This run was abandoned.' }] });
  });

  it('remembers what was last read, until somebody signs out', async () => {
    expect(await rememberedAnswer('run r')).toBeNull();
    await rememberAnswer('run r', { steps: [1, 2] });
    await rememberAnswer('run r', { steps: [1, 2, 3] });
    expect(await rememberedAnswer('run r')).toEqual({ steps: [1, 2, 3] });
    await forgetAnswers();
    expect(await rememberedAnswer('run r')).toBeNull();
  });
});
