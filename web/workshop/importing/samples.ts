import { say } from '@core/base/words/say.js';
import { formatDay } from '@core/base/units/dates.js';
import { formatMl, formatTube } from '@core/base/units/display.js';
import { cellProblemWords } from '@core/edge/words/importing.js';
import { dayIn, type DayOrder } from '@core/workshop/importing/days.js';
import type { ImportKey } from '@core/workshop/importing/fields.js';
import { coolantC, hoursADay, meterHours, tubeIn, volumeMlIn, type Read } from '@core/workshop/importing/figures.js';

const shown =
  <T>(reader: (text: string) => Read<T>, words: (value: T) => string) =>
  (text: string): string => {
    const found = reader(text);
    return 'value' in found ? words(found.value) : cellProblemWords(found.problem, '');
  };

/** How a cell is read, beside how it stands; null where it is taken as it stands. */
export function readAs(key: ImportKey, text: string, order: DayOrder): string | null {
  const day = shown((cell) => dayIn(cell, order), formatDay);
  const reading: Partial<Record<ImportKey, (cell: string) => string>> = {
    lastChange: day,
    promisedOn: day,
    readOn: day,
    on: day,
    volume: shown(volumeMlIn, formatMl),
    tube: shown(tubeIn, ({ boreMm, outerMm }) => formatTube({ boreMm, outerMm })),
    hoursPerDay: shown(hoursADay, (hours) => say('{hours} h a day', { hours })),
    reading: shown(meterHours, (hours) => `${hours} h`),
    coolantC: shown(coolantC, (celsius) => `${celsius} °C`),
  };
  return reading[key]?.(text) ?? null;
}

/** Columns that hold days. */
export const DAY_KEYS: readonly ImportKey[] = ['lastChange', 'promisedOn', 'readOn', 'on'];
