// @vitest-environment happy-dom
import { describe, expect, it } from 'vitest';
import { lookAtLog, readLogFile, withOrder, type LogLook } from './readLogFile.js';

const PARTS = [{ part: 'cpu', kind: 'processor', name: 'processor' }] as const;
const look = async (file: Blob): Promise<LogLook> => {
  const found = await lookAtLog(file, PARTS, null);
  if ('problem' in found) throw new Error(found.problem);
  return found;
};
const read = async (file: Blob, way: Partial<LogLook> = {}) =>
  readLogFile(file, { ...(await look(file)), ...way, zone: 'UTC', beginsOn: null });
const HEAD = 'Time;Prozessor °C;Leistung Prozessor W;Kühlmittel °C;Raum °C\n';
const at = (n: number): string => new Date(Date.parse('2026-03-01T10:00:00Z') + n * 20_000).toISOString().slice(0, 19).replace('T', ' ');
const line = (n: number): string => `${at(n)};61,5;180,0;33,0;21,5`;
const lines = (count: number): string[] => Array.from({ length: count }, (_, n) => line(n));
const utf16 = (text: string): Uint8Array => {
  const bytes = new Uint8Array(2 + 2 * text.length);
  bytes.set([0xff, 0xfe]);
  [...text].forEach((letter, index) => bytes.set([letter.charCodeAt(0) & 255, letter.charCodeAt(0) >> 8], 2 + 2 * index));
  return bytes;
};
const latin1 = (text: string): Uint8Array => Uint8Array.from([...text].map((letter) => letter.charCodeAt(0)));

describe('a log in its file', () => {
  it('of many pieces comes to the same as in one: no line is lost at a seam, and lines are counted as in the file', async () => {
    const all = lines(40_000);
    all[30_000] = 'broken;1;2;3;4';
    const file = new Blob([HEAD + all.join('\n')]);
    expect(file.size).toBeGreaterThan(1_500_000);
    const found = await read(file);
    expect(found).toMatchObject({ lines: 39_999, left: { unreadable: 1, firstUnreadable: [30_002], repeated: 0 } });
    expect(found?.hours).toBeCloseTo((39_999 * 20) / 3600, 6);
    const shares: number[] = [];
    await readLogFile(file, { ...(await look(file)), zone: 'UTC', beginsOn: null }, (share) => void shares.push(share));
    expect(shares.length).toBeGreaterThan(2);
    expect([...shares].sort((a, b) => a - b)).toEqual(shares);
    expect(shares.at(-1)).toBe(1);
  });

  it.each([
    ['UTF-8 with a mark', (text: string) => new Blob(['\ufeff', text])],
    ['UTF-16', (text: string) => new Blob([utf16(text) as Uint8Array<ArrayBuffer>])],
    ['a western single-byte set', (text: string) => new Blob([latin1(text) as Uint8Array<ArrayBuffer>])],
    ['lines that end as on a desk machine', (text: string) => new Blob([text.replaceAll('\n', '\r\n')])],
  ])('is read in %s', async (_, write) => {
    const file = write(`${HEAD}${lines(9000).join('\n')}\n`);
    const found = await read(file);
    expect(found).toMatchObject({ lines: 9000, left: { unreadable: 0 } });
    expect(found?.meanCoolantC).toBeCloseTo(33, 9);
    expect(found?.days[0]?.reading).toMatchObject({ roomC: 21.5, partsC: { cpu: 61.5 } });
  });

  it('with cells in quotes, lines within them included, is one log', async () => {
    const quoted = lines(9000).map((each, n) => (n === 4000 ? `${at(n)};"61,5";"180,0";"33,0";"21,5\n"` : each));
    expect(await read(new Blob([HEAD + quoted.join('\n')]))).toMatchObject({ lines: 9000, left: { unreadable: 0 } });
  });

  it('says what keeps it from being one', async () => {
    const problem = async (content: BlobPart): Promise<unknown> => lookAtLog(new Blob([content]), PARTS, null);
    expect(await problem('')).toEqual({ problem: 'This file is empty.' });
    expect(await problem('PK\u0003\u0004 more')).toMatchObject({ problem: expect.stringContaining('workbook') as string });
    expect(await problem('a,b\n1,2')).toMatchObject({
      problem: expect.stringContaining('No column of this file tells the time') as string,
    });
  });

  it('takes the days as somebody says where they can be read both ways', async () => {
    const file = new Blob([
      `Time,CPU °C\n${Array.from({ length: 30 }, (_, n) => `03/04/2026 10:${String(n).padStart(2, '0')}:00,60`).join('\n')}`,
    ]);
    const found = await look(file);
    expect(found.layout.isUnsure).toBe(true);
    const month = async (order: 'dmy' | 'mdy') =>
      new Date((await read(file, { layout: withOrder(found.layout, order) }))?.fromMs ?? 0).getUTCMonth();
    expect([await month('dmy'), await month('mdy')]).toEqual([3, 2]);
  });

  it('is read as last time where its headings still stand', async () => {
    const file = new Blob([HEAD + lines(50).join('\n')]);
    const { columns } = await look(file);
    const known = { ...columns, roomC: 19 };
    expect(await lookAtLog(file, PARTS, known)).toMatchObject({ isKnown: true, columns: { roomC: 19 } });
    expect(await lookAtLog(new Blob([`Time;Other\n${at(0)};1\n${at(1)};1`]), PARTS, known)).toMatchObject({ isKnown: false });
  });
});
