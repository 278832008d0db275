import { describe, expect, it } from 'vitest';
import { Gate } from './gate.js';

/** A piece of work that ends when it is told. */
function piece(): { readonly work: () => Promise<void>; end: () => void; begun: boolean } {
  const own = { begun: false, end: (): void => undefined, work: async (): Promise<void> => undefined };
  own.work = () =>
    new Promise((resolve) => {
      own.begun = true;
      own.end = resolve;
    });
  return own;
}
const turn = (): Promise<void> => new Promise((resolve) => setImmediate(resolve));

describe('a gate', () => {
  it('lets its number in, the others in their order, and another key at once', async () => {
    const gate = new Gate(2, 10);
    const pieces = [piece(), piece(), piece(), piece()];
    const all = pieces.map(({ work }) => gate.through('row', work));
    await turn();
    expect(pieces.map(({ begun }) => begun)).toEqual([true, true, false, false]);
    const other = piece();
    const free = gate.through('another row', other.work);
    expect(other.begun).toBe(true);
    pieces[1]?.end();
    await turn();
    expect(pieces.map(({ begun }) => begun)).toEqual([true, true, true, false]);
    pieces[0]?.end();
    pieces[2]?.end();
    await turn();
    pieces[3]?.end();
    other.end();
    await Promise.all([...all, free]);
  });

  it('gives its place on where work failed', async () => {
    const gate = new Gate(1, 10);
    await expect(gate.through('row', () => Promise.reject(new Error('no')))).rejects.toThrow('no');
    await expect(gate.through('row', async () => 'in')).resolves.toBe('in');
  });

  it('turns away what could not wait', async () => {
    const gate = new Gate(1, 1);
    const [first, second] = [piece(), piece()];
    const all = [gate.through('row', first.work), gate.through('row', second.work)];
    await expect(gate.through('row', async () => undefined)).rejects.toMatchObject({ code: 'busy' });
    first.end();
    await turn();
    second.end();
    await Promise.all(all);
  });
});
