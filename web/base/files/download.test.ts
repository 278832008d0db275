// @vitest-environment happy-dom
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { downloadTable } from './download.js';

let text = '';
beforeEach(() => {
  vi.spyOn(URL, 'createObjectURL').mockImplementation((blob) => {
    void (blob as Blob).text().then((all) => (text = all));
    return 'blob:x';
  });
  vi.spyOn(URL, 'revokeObjectURL').mockImplementation(() => undefined);
  vi.spyOn(HTMLAnchorElement.prototype, 'click').mockImplementation(() => undefined);
});
afterEach(() => vi.restoreAllMocks());

describe('a table that leaves', () => {
  it.each(['=1+1', '+351 555', '-2+3', '@sum', '\tx', '\r=1', '=HYPERLINK("http://x")'])('never starts a formula: %j', async (name) => {
    await downloadTable([{ name, litres: -3.5 }], 'list');
    await vi.waitFor(() => expect(text).toContain('litres'), { timeout: 120_000 });
    const cell = text.split('\r\n')[1] ?? '';
    expect(cell.replace(/^"/, '')).toMatch(/^'/);
    // a number stays one
    expect(text).toContain('-3.5');
  });
});
