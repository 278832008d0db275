import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { dataAddress } from './fields.js';
import { readInput } from './input.js';

const MOST_BYTES = 5_000_000;
const schema = dataAddress(['image/png', 'application/pdf'], MOST_BYTES, 'a picture or a PDF');
const read = (address: string) => readInput<string>(schema, address);
const png = (text: string) => `data:image/png;base64,${text}`;

describe('a file as a data address', () => {
  it('is read whatever its bytes are', () => {
    fc.assert(
      fc.property(fc.uint8Array({ minLength: 1, maxLength: 300 }), (bytes) => {
        const address = png(Buffer.from(bytes).toString('base64'));
        expect(read(address)).toBe(address);
      }),
    );
  });

  it('is read as large as it may be, and refused by its size above', () => {
    const largest = png(Buffer.alloc(MOST_BYTES, 7).toString('base64'));
    for (const _ of [1, 2, 3]) expect(read(largest) === largest).toBe(true);
    expect(() => read(png(Buffer.alloc(MOST_BYTES * 2).toString('base64')))).toThrow(/less than or equal|at most|longer|characters/);
    // the one that stands between good ones, at the very end of a large file
    expect(() => read(`${largest.slice(0, -6)}*AAAA=`)).toThrow('must be a picture or a PDF');
  });

  it.each([
    ['of another type', 'data:text/html;base64,AAAA'],
    ['of a type that begins like one of them', 'data:image/pngx;base64,AAAA'],
    ['not in base64', 'data:image/png,AAAA'],
    ['of nothing', png('')],
    ['of padding alone', png('==')],
    ['with padding inside', png('AA==AA')],
    ['with too much padding', png('A===')],
    ['with a line break', png('AA\nAA')],
    ['that is none', 'AAAA'],
  ])('%s is refused', (_what, address) => {
    expect(() => read(address)).toThrow('must be a picture or a PDF');
  });
});
