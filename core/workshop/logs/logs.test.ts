import { readFileSync } from 'node:fs';
import fc from 'fast-check';
import Papa from 'papaparse';
import { describe, expect, it } from 'vitest';
import { readInput } from '../../base/checking/input.js';
import { readLoopFile } from '../../machine/loop-file/loopFileSchema.js';
import { conditionOf } from '../../physics/condition/series.js';
import { USUAL_LIMITS } from '../../physics/condition/limits.js';
import { readParts } from '../../physics/diagnosis/sensors.js';
import { fitsColumns, inOwnUnit, proposeColumns } from './columns.js';
import { InstantReader, styleOf } from './instants.js';
import { layoutOf, separatorOf } from './layout.js';
import { LogReader, type LogReport } from './reader.js';
import { demandWhole, logSchema } from './schema.js';
import { hiddenFaultOf, simulatedLog } from './simulatedLogger.js';

const loop = readLoopFile(JSON.parse(readFileSync('examples/two-radiators.json', 'utf8')));
const PARTS = [
  { part: 'cpu', kind: 'processor', name: 'processor' },
  { part: 'gpu', kind: 'graphics', name: 'graphics' },
] as const;

/** A text read as the worker reads it. */
function readText(
  text: string,
  { roomC = null as number | null, zone = 'Europe/Berlin', beginsOn = null as string | null } = {},
): LogReport | null {
  const rows = Papa.parse<string[]>(text, { delimiter: separatorOf(text) }).data;
  const layout = layoutOf(rows);
  if (!layout) return null;
  const columns = { ...proposeColumns(layout.headings, layout.time, layout.date, PARTS), roomC };
  const reader = new LogReader(layout, columns, zone, beginsOn);
  for (const row of rows) reader.take(row);
  return reader.end();
}
const T0 = Date.parse('2026-03-01T10:00:00Z');
const iso = (ms: number): string => new Date(ms).toISOString();
/** one line a minute */
const lines = (count: number, cells: (n: number) => (string | number)[], from = T0): string =>
  Array.from({ length: count }, (_, n) => [iso(from + n * 60_000), ...cells(n)].join(',')).join('\n');

describe('how a log is written', () => {
  it.each([
    ['points and commas', 'Time,CPU °C,CPU W\n2026-03-01 10:00:00,61.5,100\n2026-03-01 10:00:20,61.7,101', ',', 'ymd', false],
    [
      'a German one',
      'Datum;Zeit;Prozessor [°C];Leistung [W]\n01.03.2026;10:00:00;61,5;100,1\n01.03.2026;10:00:20;61,7;101,2',
      ';',
      'dmy',
      true,
    ],
    ['tabs and seconds since 1970', 'timestamp\tcpu temp\n1772359200\t61.5\n1772359220\t61.6', '\t', 'seconds', false],
    ['lines above its heading and units below it', 'Monitor of a friend\n\nMachine: loft\nTime,CPU,CPU Power\n,[°C],[W]\n2026-03-01T10:00:00Z,60,90\n2026-03-01T10:01:00Z,60,90', ',', 'ymd', false], // prettier-ignore
    ['month first', 'Time,CPU\n03/29/2026 9:59:00 PM,60\n03/29/2026 10:00:00 PM,61', ',', 'mdy', false],
    ['names of months', 'Time,CPU\n3 Mar 2026 10:00:00,60\n3 Mar 2026 10:00:30,61', ',', 'dmy', false],
    ['days of a spreadsheet', 'Time;CPU\n46082,4167;60,5\n46082,4174;60,6', ';', 'serial', true],
  ])('is seen: %s', (_, text, separator, style, decimalComma) => {
    expect(separatorOf(text)).toBe(separator);
    const layout = layoutOf(Papa.parse<string[]>(text, { delimiter: separator }).data);
    expect(layout).toMatchObject({ style, decimalComma, isUnsure: false });
  });

  it('joins a row of units to the headings', () => {
    const rows = [
      ['Time', 'CPU', 'CPU Power'],
      ['', '[°F]', '[W]'],
      ['2026-03-01T10:00:00Z', '140', '90'],
      ['2026-03-01T10:01:00Z', '141', '90'],
    ];
    const layout = layoutOf(rows);
    expect(layout).toMatchObject({ firstRow: 2, headings: ['Time', 'CPU [°F]', 'CPU Power [W]'] });
    expect(proposeColumns(layout?.headings ?? [], 0, null, PARTS).parts).toEqual([
      { part: 'cpu', temperature: { heading: 'CPU [°F]', nth: 0, unit: 'F' }, power: { heading: 'CPU Power [W]', nth: 0, unit: 'W' } },
    ]);
  });

  it('asks where a day can be read both ways, and not where its lines decide', () => {
    expect(styleOf(['03/04/2026 10:00', '03/04/2026 10:01'])).toEqual({ style: 'dmy', isUnsure: true });
    expect(styleOf(['03/31/2026 23:59', '04/01/2026 00:01'])).toEqual({ style: 'mdy', isUnsure: false });
    expect(styleOf(['03/04/2026', '03/05/2026', '03/06/2026'])).toEqual({ style: 'mdy', isUnsure: false });
    expect(styleOf(['hot', 'cold'])).toBeNull();
  });

  it('knows its columns by their headings, in English and German, and leaves alone what it does not know', () => {
    const english = ['Time', 'CPU Package [°C]', 'Core 1 [°C]', 'CPU Package Power [W]', 'GPU Temperature [°C]', 'GPU Hot Spot [°C]', 'GPU Power [W]', 'Memory [°C]', 'Coolant [°C]', 'Flow [L/min]', 'Pump [RPM]', 'Fan 1 [%]', 'Ambient [°C]', 'Fan duty target']; // prettier-ignore
    expect(proposeColumns(english, 0, null, PARTS)).toMatchObject({
      channels: {
        coolant: { heading: 'Coolant [°C]', unit: 'C' },
        room: { heading: 'Ambient [°C]' },
        flow: { heading: 'Flow [L/min]', unit: 'L/min' },
        pump: { heading: 'Pump [RPM]', unit: 'rpm' },
        fan: { heading: 'Fan 1 [%]', unit: 'percent' },
      },
      parts: [
        { part: 'cpu', temperature: { heading: 'CPU Package [°C]' }, power: { heading: 'CPU Package Power [W]' } },
        { part: 'gpu', temperature: { heading: 'GPU Temperature [°C]' }, power: { heading: 'GPU Power [W]' } },
      ],
    });
    const german = ['Zeit', 'Prozessor °C', 'Prozessor Leistung W', 'Grafik °C', 'Kühlmittel °C', 'Durchfluss L/h', 'Pumpe Drehzahl', 'Raum °C', 'Betriebsstunden']; // prettier-ignore
    const found = proposeColumns(german, 0, null, PARTS);
    expect(Object.keys(found.channels).sort()).toEqual(['coolant', 'flow', 'hours', 'pump', 'room']);
    expect(found.parts).toMatchObject([
      { part: 'cpu', power: { heading: 'Prozessor Leistung W' } },
      { part: 'gpu', power: null },
    ]);
    expect(fitsColumns(found, [...german].reverse())).toBe(true);
    expect(fitsColumns(found, german.slice(1))).toBe(false);
  });

  it('turns every unit into the one it is kept in', () => {
    expect([inOwnUnit(212, 'F'), inOwnUnit(3, 'L/min'), inOwnUnit(60, 'percent'), inOwnUnit(90, 'min')]).toEqual([100, 180, 0.6, 1.5]);
    expect(inOwnUnit(1, 'gal/min')).toBeCloseTo(227.12, 2);
  });
});

describe('instants of a log', () => {
  const read = (texts: readonly string[], zone = 'Europe/Berlin'): (string | null)[] => {
    const reader = new InstantReader('ymd', zone, null);
    return texts.map((text) => reader.read(text)).map((ms) => (ms === null ? null : iso(ms)));
  };

  it('follow the machine’s own clock, or the zone that a line names', () => {
    expect(
      read([
        '2026-03-01 10:00:00',
        '2026-07-01 10:00:00.5',
        '2026-07-01T10:00:00Z',
        '2026-07-01T10:00:00-05:30',
        'nothing',
        '2026-02-30 10:00',
      ]),
    ).toEqual(['2026-03-01T09:00:00.000Z', '2026-07-01T08:00:00.500Z', '2026-07-01T10:00:00.000Z', '2026-07-01T15:30:00.000Z', null, null]);
  });

  it('know an hour that comes twice, and one that does not come', () => {
    const autumn = read(['2026-10-25 01:59:00', '2026-10-25 02:30:00', '2026-10-25 02:59:00', '2026-10-25 02:00:00', '2026-10-25 02:59:00', '2026-10-25 03:00:00']); // prettier-ignore
    expect(autumn).toEqual([
      '2026-10-24T23:59:00.000Z',
      '2026-10-25T00:30:00.000Z',
      '2026-10-25T00:59:00.000Z',
      '2026-10-25T01:00:00.000Z',
      '2026-10-25T01:59:00.000Z',
      '2026-10-25T02:00:00.000Z',
    ]);
    expect(read(['2026-03-29 01:59:00', '2026-03-29 03:00:00'])).toEqual(['2026-03-29T00:59:00.000Z', '2026-03-29T01:00:00.000Z']);
  });

  it('rise with the clock in every zone, set back or not', () => {
    const zones = ['Europe/Berlin', 'America/New_York', 'Australia/Sydney', 'Asia/Kolkata', 'UTC'];
    fc.assert(
      fc.property(fc.constantFrom(...zones), fc.integer({ min: 0, max: 700 }), fc.integer({ min: 5, max: 40 }), (zone, day, minutes) => {
        const start = Date.parse('2026-01-01T00:00:00Z') + day * 86_400_000;
        const show = new Intl.DateTimeFormat('sv-SE', { timeZone: zone, dateStyle: 'short', timeStyle: 'medium' });
        const reader = new InstantReader('ymd', zone, null);
        for (let at = start; at < start + 86_400_000; at += minutes * 60_000) expect(reader.read(show.format(new Date(at)))).toBe(at);
      }),
      { numRuns: 20 },
    );
  });

  it('of a time of day alone begin on a day that somebody says, and go over midnight', () => {
    const reader = new InstantReader('clock', 'UTC', '2026-03-01');
    expect(['23:59:30', '00:00:30', '12:00:00'].map((text) => iso(reader.read(text) ?? 0))).toEqual([
      '2026-03-01T23:59:30.000Z',
      '2026-03-02T00:00:30.000Z',
      '2026-03-02T12:00:00.000Z',
    ]);
  });
});

describe('what a log comes to', () => {
  it('counts the hours that it ran, and leaves out the time it was off', () => {
    const found = readText(`Time,Coolant\n${lines(11, () => [31])}\n${lines(11, () => [33], T0 + 600 * 60_000)}`);
    expect(found).toMatchObject({ lines: 22, off: { times: 1, longestMinutes: 590 } });
    expect(found?.hours).toBeCloseTo(20 / 60, 9);
    expect(found?.meanCoolantC).toBeCloseTo(32, 9);
  });

  it('gives the mean over time, not over lines', () => {
    const text = ['Time,Coolant', ...[[0, 30], [10, 30], [10.1, 60], [10.5, 60], [11.1, 60]].map(([minute, c]) => `${iso(T0 + (minute ?? 0) * 60_000)},${c}`)]; // prettier-ignore
    expect(readText(text.join('\n'))?.meanCoolantC).toBeCloseTo((10 * 30 + 0.1 * 45 + 60) / 11.1, 9);
  });

  it('tells what it left out: lines without a time, twice the same, sensors that fell off, a heading again', () => {
    const text = `Time,CPU °C,CPU W,Room\n${lines(5, (n) => [n === 2 ? -127 : 60, 100, 21])}\nyesterday,1,2,3\nTime,CPU °C,CPU W,Room\n${lines(8, () => [60, 100, 21])}`;
    expect(readText(text)).toMatchObject({
      lines: 13,
      restarts: 1,
      left: { unreadable: 1, firstUnreadable: [7], repeated: 5, insane: 1 },
      noReadings: 'no-load',
    });
    expect(readText('Time,CPU °C\n2026-03-01 10:00:00,60')).toBeNull();
    expect(readText('a,b\n1,2')).toBeNull();
  });

  /** minutes under load, of a machine with these figures at the end */
  const loaded = (minutes: number, { watts = 200, partC = 62, room = 22, from = T0, drift = 0 } = {}): string =>
    lines(minutes, (n) => [partC + drift * n - 20 * Math.exp(-n / 5), watts, 32 - 8 * Math.exp(-n / 5), room, 3200, 1000], from);
  const HEAD = 'Time,CPU °C,CPU W,Coolant °C,Room °C,Pump rpm,Fans rpm\n';

  it('finds the end of a steady load, a reading a day', () => {
    const found = readText(`${HEAD}${loaded(60)}\n${loaded(50, { from: T0 + 86_400_000, watts: 150 })}`);
    expect(found?.days.map(({ on }) => on)).toEqual(['2026-03-01', '2026-03-02']);
    const [first] = found?.days ?? [];
    expect(first?.reading).toMatchObject({ roomC: 22, powersW: { cpu: 200 }, minutes: 59, pumpSpeed: 1, fanSpeed: 1 });
    expect(first?.reading.partsC.cpu).toBeCloseTo(62, 1);
    expect(first?.reading.coolantC).toBeCloseTo(32, 1);
  });

  it('takes nothing from a load that is short, light, moving or still warming', () => {
    expect(readText(HEAD + loaded(15))).toMatchObject({ days: [], noReadings: 'no-load' });
    expect(readText(HEAD + loaded(60, { watts: 30 }))?.days).toEqual([]);
    expect(readText(HEAD + loaded(60, { drift: 0.2 }))?.days).toEqual([]);
    const moving = lines(60, (n) => [62, n % 10 < 5 ? 200 : 120, 32, 22, 3200, 1000]);
    expect(readText(HEAD + moving)?.days).toEqual([]);
    expect(readText(`Time,CPU °C\n${lines(60, () => [62])}`)?.noReadings).toBe('no-power');
  });

  it('asks for the room where no column has it, and takes it as it was said', () => {
    const text = `Time,CPU °C,CPU W\n${lines(60, () => [62, 200])}`;
    expect(readText(text)?.noReadings).toBe('no-room');
    expect(readText(text, { roomC: 21 })?.days[0]?.reading).toMatchObject({ roomC: 21, minutes: 59 });
  });

  it('reads a load that runs over midnight on both its days', () => {
    const late = Date.parse('2026-03-01T22:00:00Z');
    expect(readText(HEAD + loaded(150, { from: late }))?.days.map(({ on }) => on)).toEqual(['2026-03-01', '2026-03-02']);
  });

  it('sees a part that holds its temperature by giving power away', () => {
    const text = HEAD + lines(40, (n) => [n < 10 ? 70 + 2 * n : 90, n < 10 ? 220 : 220 - 4 * Math.min(20, n - 10), 38, 24, 3200, 1000]);
    expect(readText(text)?.throttled).toMatchObject([{ on: '2026-03-01', part: 'cpu' }]);
    expect(readText(HEAD + loaded(60))?.throttled).toEqual([]);
  });

  it('comes to the same whatever the file is called and however its columns stand', () => {
    const rows = (HEAD + loaded(60)).split('\n').map((line) => line.split(','));
    const turned = rows.map((cells) => [cells[0], ...cells.slice(1).reverse()].join(',')).join('\n');
    expect(readText(turned)?.days).toEqual(readText(HEAD + loaded(60))?.days);
  });
});

describe('the logger that ships with the application', () => {
  const machine = { loop, fluid: { densityKgM3: 995, viscosityMPaS: 0.8 }, parts: PARTS, fromOn: '2026-01-05', days: 90, seed: 3 };

  it('writes what is read back: a reading on most days, and a condition that goes the way of its fault', () => {
    const ails = { ...machine, fault: { cause: 'paste', part: 'cpu' } as const };
    const found = readText([...simulatedLog(ails)].join(''), { zone: 'UTC' });
    expect(found?.days.length).toBeGreaterThan(50);
    expect(found?.left).toMatchObject({ unreadable: 0, repeated: 0, insane: 0 });
    const readings = (found?.days ?? []).map(({ on, reading }) => ({ id: on, on, source: 'log' as const, reading }));
    const [cpu, gpu] = conditionOf(PARTS, readings, [], USUAL_LIMITS);
    expect(cpu?.trend?.low?.perYear).toBeGreaterThan(0);
    expect(cpu?.trend?.perYear).toBeGreaterThan(4 * Math.abs(gpu?.trend?.perYear ?? 0));
  });

  it('hides another fault behind another seed, and writes the same twice', () => {
    const kinds = new Set(Array.from({ length: 40 }, (_, seed) => hiddenFaultOf({ ...machine, seed }).cause));
    expect(kinds.size).toBeGreaterThan(5);
    const short = { ...machine, days: 3 };
    expect([...simulatedLog(short)].join('')).toBe([...simulatedLog(short)].join(''));
  });

  it('names its columns so that they are known', () => {
    const head = [...simulatedLog({ ...machine, parts: readParts([loop]), days: 1 })][0] ?? '';
    const columns = proposeColumns(head.trim().split(','), 0, null, readParts([loop]));
    expect(Object.keys(columns.channels).sort()).toEqual(['coolant', 'fan', 'flow', 'pump', 'room']);
  });
});

describe('a log as it is kept', () => {
  const column = { heading: 'CPU', nth: 0 };
  const log = {
    name: 'loft.csv',
    fromOn: '2026-03-01',
    on: '2026-03-02',
    hours: 5,
    meanCoolantC: 31,
    meterHours: null,
    columns: {
      time: { heading: 'Time', nth: 0 },
      date: null,
      channels: {},
      parts: [{ part: 'cpu', temperature: { ...column, unit: 'C' }, power: null }],
      roomC: null,
      fullPumpRpm: null,
      fullFanRpm: null,
    },
    days: [{ on: '2026-03-01', at: '2026-03-01T12:00:00Z', reading: { roomC: 21, powersW: { cpu: 100 }, partsC: { cpu: 60 } } }],
  };
  it('is taken whole or refused with the place', () => {
    expect(() => demandWhole(readInput(logSchema, log))).not.toThrow();
    expect(() => readInput(logSchema, { ...log, days: [...log.days, ...log.days] })).toThrow();
    expect(() => demandWhole(readInput(logSchema, { ...log, hours: 60 }))).toThrow(/48 hours in all/);
    expect(() => demandWhole(readInput(logSchema, { ...log, fromOn: '2026-03-02' }))).toThrow(/lies outside the log/);
    expect(() => demandWhole(readInput(logSchema, { ...log, fromOn: '2026-03-09' }))).toThrow(/first day or later/);
  });
});
