// @vitest-environment happy-dom
import { describe, expect, it } from 'vitest';
import type { KeptFile } from '@core/workshop/files/kinds.js';
import type { FileInput } from '@core/workshop/files/schema.js';
import { fakeServer, mountScreen, settle, wordsOf } from '../../../tests/screens/mountScreen.js';
import { useNotices } from '../../base/shell/notices.js';
import FileList from './FileList.vue';

const invoice: KeptFile = { id: 'f1', name: 'invoice 17.pdf', kind: 'invoice', note: '', type: 'application/pdf', bytes: 240_300, by: 'Tess', at: '2026-03-10T09:00:00Z' }; // prettier-ignore
const shelf = (files: KeptFile[]) =>
  fakeServer(({ method, body }) => ({
    status: 200,
    body: { files: method === 'POST' && (body as FileInput).name ? [{ ...invoice, ...(body as FileInput) }, ...files] : files },
  }));
async function choose(screen: ReturnType<typeof mountScreen>, file: File): Promise<void> {
  const field = screen.find('input[type="file"]');
  Object.defineProperty(field.element, 'files', { value: [file], configurable: true });
  await field.trigger('change');
  await settle();
}
const list = () => mountScreen(FileList, { props: { owner: 'systems', ownerId: 's1', usual: 'invoice' } });

describe('papers', () => {
  it('are listed with what they are, and handed over as files', async () => {
    shelf([invoice]);
    const screen = list();
    await settle();
    expect(wordsOf(screen)).toContain('invoice, 240 kB, Tess');
    expect(screen.find('a').attributes()).toMatchObject({ href: '/api/files/f1', download: 'invoice 17.pdf' });
  });

  it('are sent whole, under their own name', async () => {
    const asked = shelf([]);
    const screen = list();
    await settle();
    await choose(screen, new File(['%PDF-1.7 x'], 'sheet.pdf', { type: 'application/pdf' }));
    const sent = asked.find(({ method }) => method === 'POST')?.body as FileInput;
    expect(sent).toMatchObject({ name: 'sheet.pdf', kind: 'invoice' });
    expect(atob(sent.content.split(',')[1] as string)).toBe('%PDF-1.7 x');
    expect(wordsOf(screen)).toContain('sheet.pdf');
  });

  it.each([
    ['a program', new File(['MZ'], 'setup.exe', { type: 'application/x-msdownload' }), 'is none of PDF'],
    ['nothing', new File([], 'empty.pdf', { type: 'application/pdf' }), 'is empty'],
    ['too much', new File([new Uint8Array(5_000_001)], 'big.pdf', { type: 'application/pdf' }), 'a file may have 5 MB'],
  ])('that are %s are refused before they are sent', async (_what, file, words) => {
    const asked = shelf([]);
    const screen = list();
    await settle();
    await choose(screen, file);
    expect(wordsOf(screen)).toContain(words);
    expect(asked.some(({ method }) => method === 'POST')).toBe(false);
  });

  it('go at one touch and come back by undo', async () => {
    const asked = shelf([invoice]);
    const screen = list();
    await settle();
    await screen.find('button[aria-label="Put invoice 17.pdf away"]').trigger('click');
    await settle();
    expect(wordsOf(screen)).not.toContain('invoice 17.pdf');
    await useNotices().current?.undo?.();
    await settle();
    expect(asked.some(({ path }) => path === '/files/f1/back')).toBe(true);
    expect(wordsOf(screen)).toContain('invoice 17.pdf');
  });
});
