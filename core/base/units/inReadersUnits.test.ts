import { describe, expect, it } from 'vitest';
import { inReadersUnits } from './inReadersUnits.js';
import { readingAs, USUAL_READING, type Reading } from './reading.js';

const AMERICAN: Reading = { ...USUAL_READING, volume: 'fl oz', pressure: 'psi', temperature: '°F', length: 'in', flow: 'gal/h' };
const read = (text: string, way: Reading = AMERICAN): string => readingAs(way, () => inReadersUnits(text));

describe('a kept sentence in the units of whoever reads it', () => {
  it.each([
    ['Raise to 50 kPa, let it settle, then read about every minute.', 'Raise to 7.3 psi, let it settle, then read about every minute.'],
    [
      'Never above the lowest rating in the loop, 170 kPa here: glass bursts.',
      'Never above the lowest rating in the loop, 24.6 psi here: glass bursts.',
    ],
    ['about 1\u202f035 mL come', 'about 35.0 fl oz come'],
    ['over a jug: up to 5 mL come here', 'over a jug: up to 0.2 fl oz come here'],
    ['at 40 °C, 180 L/h', 'at 104 °F, 47.6 gal/h'],
    ['New piece of 286 mm, 10/16: pump → radiator', 'New piece of 11.26 in, 10/16: pump → radiator'],
  ])('%s', (text, said) => {
    expect(read(text)).toBe(said);
    expect(read(text, USUAL_READING)).toBe(text);
  });

  it.each([
    'tube of 10/16 mm on a fitting for soft 10/13 mm',
    'front radiator: 3 × 120 mm fans',
    'Screws of 30 or 35 mm, held against the stack, by hand, crosswise: roof radiator',
    'Screws of 30 mm, held against the stack, by hand, crosswise: roof radiator',
    'bottle AB50 kPax, lot L420 mLx',
  ])('leaves what is named by its size, and what is no figure: %s', (text) => {
    expect(read(text)).toBe(text);
  });

  it('reads a decimal comma, and a pressure in bar', () => {
    const german: Reading = { ...USUAL_READING, language: 'de', pressure: 'bar' };
    expect(read('Auf 50 kPa bringen, 0,5 kPa genau', german)).toBe('Auf 0,50 bar bringen, 0,005 bar genau');
  });
});
