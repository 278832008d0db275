import type { Reading } from '../../base/units/reading.js';

/** How an owner reads: a language, and one of two ways of measuring; null: as the workshop does. */
export interface OwnersWay {
  readonly language: Reading['language'] | null;
  readonly units: 'metric' | 'us' | null;
}

const UNITS: Readonly<Record<'metric' | 'us', Partial<Reading>>> = {
  metric: { volume: 'mL', pressure: 'bar', temperature: '°C', length: 'mm', flow: 'L/h' },
  us: { volume: 'fl oz', pressure: 'psi', temperature: '°F', length: 'in', flow: 'gal/h', date: 'month-first', clock: '12' },
};

export const asOwnReading = ({ language, units }: OwnersWay): Partial<Reading> => ({
  ...(language === null ? {} : { language }),
  ...(units === null ? {} : UNITS[units]),
});

export const asOwnersWay = ({ language, volume }: Partial<Reading>): OwnersWay => ({
  language: language ?? null,
  units: volume === undefined ? null : volume === 'mL' ? 'metric' : 'us',
});
