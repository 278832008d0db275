import { readRunEvent, readStoredEntry } from './log.js';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { InputProblem } from '../../base/checking/input.js';
import { often } from '../../../tests/often.js';

const id = '6f1f0d5e-0000-4000-8000-000000000001';

function refusal(input: unknown): InputProblem {
  try {
    readRunEvent(input);
  } catch (error) {
    if (error instanceof InputProblem) return error;
    throw error;
  }
  throw new Error('was accepted');
}

describe('an entry as a device sends it', () => {
  it('is taken with its own id and instant', () => {
    const entry = { id, at: '2026-03-10T09:00:00Z', body: { type: 'pour', volumeMl: 120 } };
    expect(readRunEvent(entry)).toEqual(entry);
  });

  it('is read as today’s when an older program wrote it', () => {
    const chosen = { type: 'coolant', productId: id, productName: 'Plain Clear', lot: 'L7' };
    const [old, now] = [
      { ...chosen, batchId: id },
      { ...chosen, lotId: id },
    ];
    expect(readStoredEntry(old)).toEqual(now);
    expect(readStoredEntry(now)).toEqual(now);
    expect(readRunEvent({ id, body: old }).body).toEqual(now);
  });

  it.each<[string, unknown, string]>([
    ['a pour of nothing', { type: 'pour', volumeMl: 0 }, 'body.volumeMl'],
    ['a negative pour', { type: 'pour', volumeMl: -50 }, 'body.volumeMl'],
    ['an absurd pour', { type: 'pour', volumeMl: 90_000 }, 'body.volumeMl'],
    ['a pour in words', { type: 'pour', volumeMl: 'a cup' }, 'body.volumeMl'],
    ['a gauge in bar where kPa is meant', { type: 'dry-reading', gaugeKpa: 50_000, tempC: 20 }, 'body.gaugeKpa'],
    ['a reading without temperature', { type: 'dry-reading', gaugeKpa: 50 }, 'body.tempC'],
    ['"not needed" without a reason', { type: 'check', step: 'flush', check: 'x', mark: 'not-needed' }, 'body.reason'],
    ['an unknown mark', { type: 'check', step: 'flush', check: 'x', mark: 'perhaps' }, 'body.mark'],
    ['an empty note', { type: 'note', step: 'kit', text: '' }, 'body.text'],
    ['a note of a megabyte', { type: 'note', step: 'kit', text: 'x'.repeat(1_000_000) }, 'body.text'],
    ['a field too many', { type: 'step-done', step: 'kit', force: true }, 'body.force'],
    ['an unknown kind of entry', { type: 'abracadabra' }, 'body.type'],
    ['a kind inherited from elsewhere', { type: 'toString' }, 'body.type'],
    ['a reason of one letter', { type: 'deviation', step: 'kit', reason: 'x' }, 'body.reason'],
    ['a baseline without conditions', { type: 'baseline', reading: { partC: 60 } }, 'body.reading.setting'],
  ])('is refused with %s', (_name, body, path) => {
    expect(refusal({ id, body }).path).toBe(path);
  });

  it('is refused without an id, with a wrong one, and with an instant that has no zone', () => {
    const body = { type: 'step-done', step: 'kit' };
    expect(refusal({ body }).path).toBe('id');
    expect(refusal({ id: '12', body }).path).toBe('id');
    expect(refusal({ id, at: '2026-03-10T09:00:00', body }).path).toBe('at');
  });

  it('names the kinds it knows', () => {
    expect(refusal({ id, body: { type: 'pur' } }).message).toContain(
      '"pur" is not a kind of entry; known are also-pulled, baseline, bleed-cycle',
    );
  });

  it('never fails in another way', () => {
    fc.assert(
      fc.property(fc.anything(), (body) => {
        try {
          readRunEvent({ id, body });
        } catch (error) {
          expect(error).toBeInstanceOf(InputProblem);
        }
      }),
      { numRuns: often(500) },
    );
  });
});
