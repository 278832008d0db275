import type { PartKind, ReadPart } from '../../physics/diagnosis/sensors.js';

/** What a column of a log can hold, apart from the temperatures and powers of parts. */
export const LOG_CHANNELS = ['coolant', 'room', 'flow', 'pump', 'fan', 'hours'] as const;
export type LogChannel = (typeof LOG_CHANNELS)[number];

export const LOG_UNITS = ['C', 'F', 'W', 'rpm', 'percent', 'L/h', 'L/min', 'gal/min', 'h', 'min', 's'] as const;
export type LogUnit = (typeof LOG_UNITS)[number];

/** A column by what stands above it: programs move columns, but keep their headings. */
export interface LogColumn {
  readonly heading: string;
  /** which of the columns with that heading, from 0 */
  readonly nth: number;
  readonly unit: LogUnit;
}

/** What each column of a machine's log means; mapped once and remembered. */
export interface LogColumns {
  readonly time: Omit<LogColumn, 'unit'>;
  /** null: the time's own column holds the day */
  readonly date: Omit<LogColumn, 'unit'> | null;
  readonly channels: Readonly<Partial<Record<LogChannel, LogColumn>>>;
  readonly parts: readonly {
    /** a block of the loop, or the kind of part where the machine has none */
    readonly part: string;
    readonly temperature: LogColumn | null;
    readonly power: LogColumn | null;
  }[];
  /** °C of the room while it was logged, as somebody says, where no column has it; null: nobody does */
  readonly roomC: number | null;
  /** 1/min at full speed, where the log counts turns; null: the fastest of the log is taken for it */
  readonly fullPumpRpm: number | null;
  readonly fullFanRpm: number | null;
}

/** Units that a quantity can be written in; the first is the one that is taken where nothing says otherwise. */
export const UNITS_OF: Readonly<Record<LogChannel | 'temperature' | 'power', readonly [LogUnit, ...LogUnit[]]>> = {
  coolant: ['C', 'F'],
  room: ['C', 'F'],
  temperature: ['C', 'F'],
  flow: ['L/h', 'L/min', 'gal/min'],
  pump: ['rpm', 'percent'],
  fan: ['rpm', 'percent'],
  hours: ['h', 'min', 's'],
  power: ['W'],
};

/** litres of a US gallon (NIST SP 811) */
const GALLON_L = 3.785411784;
const INTO: Readonly<Record<LogUnit, (value: number) => number>> = {
  C: (value) => value,
  F: (value) => ((value - 32) * 5) / 9,
  W: (value) => value,
  rpm: (value) => value,
  percent: (value) => value / 100,
  'L/h': (value) => value,
  'L/min': (value) => value * 60,
  'gal/min': (value) => value * GALLON_L * 60,
  h: (value) => value,
  min: (value) => value / 60,
  s: (value) => value / 3600,
};

/** Nothing to turn into anything: most columns are, and a million lines ask for each. */
export const isOwnUnit = (unit: LogUnit): boolean => ['C', 'W', 'rpm', 'L/h', 'h'].includes(unit);
/** °C, W, 1/min or a share of full speed, L/h, h */
export const inOwnUnit = (value: number, unit: LogUnit): number => INTO[unit](value);

const UNIT_SIGNS: readonly (readonly [RegExp, LogUnit])[] = [
  [/gal\w*\/min|gpm/, 'gal/min'],
  [/l\/min|lpm/, 'L/min'],
  [/l\/h|lph/, 'L/h'],
  [/°\s?f\b|\[f\]|\(f\)/, 'F'],
  [/°\s?c\b|\[c\]|\(c\)|celsius/, 'C'],
  [/rpm|1\/min|u\/min|upm|min⁻¹/, 'rpm'],
  [/%|percent|prozent|duty/, 'percent'],
  [/\[w\]|\(w\)|watt|\bw\b/, 'W'],
  [/\[s\]|\(s\)|seconds|sekunden/, 's'],
  [/\[h\]|\(h\)|hours|stunden/, 'h'],
];

/** The unit that a heading names, if it is one of those asked for. */
export function unitIn(heading: string, among: readonly LogUnit[]): LogUnit | null {
  const text = heading.toLowerCase();
  for (const [sign, unit] of UNIT_SIGNS) if (among.includes(unit) && sign.test(text)) return unit;
  return null;
}

const NO_TEMPERATURE = /power|leistung|watt|rpm|speed|drehzahl|%|percent|prozent|duty|flow|durchfluss|level|clock|takt|mhz|ghz|volt|usage|load|auslastung|\[w\]|\(w\)|\bw\b|\bmb\b|\bgb\b|limit|target|soll/; // prettier-ignore
const POWER = /power|leistung|watt|\[w\]|\(w\)|\bw\b/;
const NO_POWER = /limit|target|soll|°|temp|percent|prozent|%/;

/** What each kind of part is called, and which of several sensors tells most: an earlier sign goes before a later one. */
const PART_SIGNS: Readonly<Record<PartKind, { readonly own: RegExp; readonly not: RegExp; readonly best: readonly RegExp[] }>> = {
  processor: {
    own: /cpu|processor|prozessor|package/,
    not: /gpu|graphic|grafik|memory|ram\b|board|vrm/,
    best: [/package|gehäuse/, /\bdie\b/, /^(?!.*(core|kern|max|avg|average|mittel)).*$/, /max/],
  },
  graphics: {
    own: /gpu|graphic|grafik/,
    not: /memory|vram|speicher|vrm/,
    best: [/total|board/, /^(?!.*(hot|spot|junction|max|core)).*$/, /core|kern/],
  },
  memory: { own: /memory|vram|speicher|dimm/, not: /usage|load|size/, best: [/gpu|graphic|grafik|vram/, /./] },
};

interface Heading {
  readonly heading: string;
  readonly nth: number;
  readonly text: string;
}

const withoutUnit = ({ heading, nth }: Heading): Omit<LogColumn, 'unit'> => ({ heading, nth });

/** Headings with which of the same it is. */
export function headingsOf(cells: readonly string[]): readonly Heading[] {
  const seen = new Map<string, number>();
  return cells.map((cell) => {
    const heading = cell.trim();
    const nth = seen.get(heading) ?? 0;
    seen.set(heading, nth + 1);
    return { heading, nth, text: heading.toLowerCase() };
  });
}

const CHANNEL_SIGNS: Readonly<Record<LogChannel, { readonly own: RegExp; readonly not: RegExp }>> = {
  coolant: { own: /coolant|liquid|water|loop temp|kühlmittel|wasser|flüssig/, not: new RegExp(`${NO_TEMPERATURE.source}|block|pump`) },
  room: { own: /room|ambient|intake|raum|umgebung|zuluft|air temp/, not: NO_TEMPERATURE },
  flow: { own: /flow|durchfluss|l\/h\b|lph\b/, not: /air ?flow|temp|°|alarm/ },
  pump: { own: /pump/, not: /temp|°|power|leistung|watt|volt|flow/ },
  fan: { own: /fan|lüfter/, not: /temp|°|power|leistung|watt|volt|gpu|graphic|grafik|pump/ },
  hours: { own: /operating hours|running hours|hour meter|betriebsstunden|uptime/, not: /^$/ },
};

/**
 * What each column seems to hold, by its heading alone (English and German). Somebody looks at it before it counts.
 * @param time index of the time's column, @param date of the day's own column or null
 */
export function proposeColumns(cells: readonly string[], time: number, date: number | null, parts: readonly ReadPart[]): LogColumns {
  const headings = headingsOf(cells);
  const taken = new Set<number>([time, ...(date === null ? [] : [date])]);
  const free = (test: (text: string) => boolean): number =>
    headings.findIndex(({ text }, index) => !taken.has(index) && text !== '' && test(text));
  const take = (index: number, units: readonly [LogUnit, ...LogUnit[]]): LogColumn | null => {
    const found = headings[index];
    if (!found) return null;
    taken.add(index);
    return { ...withoutUnit(found), unit: unitIn(found.text, units) ?? units[0] };
  };
  const channels: Partial<Record<LogChannel, LogColumn>> = {};
  for (const channel of LOG_CHANNELS) {
    const { own, not } = CHANNEL_SIGNS[channel];
    const found = take(free((text) => own.test(text) && !not.test(text)), UNITS_OF[channel]); // prettier-ignore
    if (found) channels[channel] = found;
  }
  const best = (kind: PartKind, test: (text: string) => boolean): number => {
    const { own, not, best: signs } = PART_SIGNS[kind];
    const among = headings.flatMap(({ text }, index) =>
      !taken.has(index) && own.test(text) && !not.test(text) && test(text) ? [index] : [],
    );
    for (const sign of signs) {
      const found = among.find((index) => sign.test(headings[index]?.text ?? ''));
      if (found !== undefined) return found;
    }
    return among[0] ?? -1;
  };
  const mapped = parts.flatMap(({ part, kind }) => {
    if (kind === null) return [];
    const temperature = take(best(kind, (text) => !NO_TEMPERATURE.test(text)), UNITS_OF.temperature); // prettier-ignore
    const power = take(best(kind, (text) => POWER.test(text) && !NO_POWER.test(text)), UNITS_OF.power); // prettier-ignore
    return temperature || power ? [{ part, temperature, power }] : [];
  });
  return {
    time: withoutUnit(headings[time] as Heading),
    date: date === null ? null : withoutUnit(headings[date] as Heading),
    channels,
    parts: mapped,
    roomC: null,
    fullPumpRpm: null,
    fullFanRpm: null,
  };
}

/** Where a column stands in a file; -1: it has none. */
export const indexOfColumn = (headings: readonly Heading[], column: Omit<LogColumn, 'unit'> | null | undefined): number =>
  column ? headings.findIndex(({ heading, nth }) => heading === column.heading && nth === column.nth) : -1;

/** What was mapped before still stands above the columns of this file. */
export const fitsColumns = (columns: LogColumns, cells: readonly string[]): boolean => {
  const headings = headingsOf(cells);
  const all = [columns.time, columns.date, ...Object.values(columns.channels), ...columns.parts.flatMap(({ temperature, power }) => [temperature, power])]; // prettier-ignore
  return all.every((column) => !column || indexOfColumn(headings, column) >= 0);
};
