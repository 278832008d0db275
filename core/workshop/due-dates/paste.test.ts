import { describe, expect, it } from 'vitest';
import { reasonWords } from '../../edge/words/dates.js';
import { pasteRenewal, renewed } from './paste.js';

const layer = (item: string, since: string, medium: 'paste' | 'pad' = 'paste') => ({ item, name: item, medium, product: '', since });

describe('what lies under the blocks', () => {
  it('is renewed block by block, and gone with its block', () => {
    const before = [layer('cpu', '2024-01-10'), layer('card', '2024-06-01')];
    expect(renewed(before, [layer('card', '2026-11-29')])).toEqual([layer('cpu', '2024-01-10'), layer('card', '2026-11-29')]);
    expect(renewed(before, [], ['cpu'])).toEqual([layer('card', '2024-06-01')]);
  });

  it('falls due with the layer that ends first, whatever it is made of', () => {
    expect(pasteRenewal([])).toBeNull();
    expect(pasteRenewal([layer('cpu', '2026-01-10'), layer('card', '2024-06-01', 'pad')])?.dueOn).toBe('2029-01-10');
    const due = pasteRenewal([layer('cpu', '2026-01-10'), layer('card', '2024-06-01')]);
    expect(due?.dueOn).toBe('2027-06-01');
    expect(due && reasonWords(due.reason)).toBe(
      'paste under card since 1 Jun 2024: 36 months; its readings say more; cpu since 10 Jan 2026',
    );
  });
});
