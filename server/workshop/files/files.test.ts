import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { OwnPart } from '../../../core/machine/catalogue/ownParts.js';
import type { FileOwner, KeptFile } from '../../../core/workshop/files/kinds.js';
import { errorOf, TestBench, type Visitor } from '../../../tests/integration/bench.js';

let bench: TestBench;
let lead: Visitor;
let systemId: string;
beforeAll(async () => {
  bench = await TestBench.open();
  lead = await bench.workshop('Papers');
  systemId = await lead.system('Owl');
});
afterAll(() => bench.close());

const pdf = Buffer.from('%PDF-1.7\n1 0 obj\n');
const address = (type: string, bytes: Buffer): string => `data:${type};base64,${bytes.toString('base64')}`;
const paper = (more: object = {}) => ({ id: randomUUID(), name: 'invoice 17.pdf', kind: 'invoice', note: '', content: address('application/pdf', pdf), ...more }); // prettier-ignore
const keep = (more: object = {}, owner: FileOwner = 'systems', id: string = systemId, who = lead) =>
  who.post<{ files: KeptFile[] }>(`/${owner}/${id}/files`, paper(more));
const list = async (owner: FileOwner, id: string, who = lead): Promise<KeptFile[]> =>
  (await who.get<{ files: KeptFile[] }>(`/${owner}/${id}/files`)).body.files;

describe('papers', () => {
  it('stand at machines, coolants and parts, and come back byte for byte as a file', async () => {
    const coolant = await lead.coolant({ name: 'Clear with sheet' });
    const part = (await lead.post<OwnPart>('/own-parts', { label: 'Deep', like: 'radiator-360-45', volumeMl: 330, volumeSdMl: 12, facts: {}, geometry: null })).body; // prettier-ignore
    for (const [owner, id] of [
      ['systems', systemId],
      ['coolants', coolant],
      ['own-parts', part.id],
    ] as const) {
      const kept = await keep({}, owner, id);
      expect(kept.status, owner).toBe(201);
      expect(kept.body.files).toMatchObject([{ name: 'invoice 17.pdf', kind: 'invoice', bytes: pdf.length, type: 'application/pdf' }]);
      const answer = await fetch(`${bench.url}/api/files/${kept.body.files[0]?.id}`, { headers: { cookie: lead.cookie } });
      expect(Buffer.from(await answer.arrayBuffer())).toEqual(pdf);
      expect(answer.headers.get('content-disposition')).toBe('attachment; filename="invoice 17.pdf"');
      expect(answer.headers.get('content-security-policy')).toContain('sandbox');
    }
  });

  it('are kept once however often they are sent, go, and come back', async () => {
    const owl = await lead.system('Once');
    const body = paper();
    for (const _ of [1, 2]) await lead.post(`/systems/${owl}/files`, body);
    expect(await list('systems', owl)).toHaveLength(1);
    await lead.delete(`/files/${body.id}`);
    expect(await list('systems', owl)).toEqual([]);
    await lead.post(`/files/${body.id}/back`, {});
    expect(await list('systems', owl)).toHaveLength(1);
  });

  it.each([
    ['a program that is called a PDF', { content: address('application/pdf', Buffer.from('MZ\x90')) }, 'is no PDF'],
    ['a page with a script', { content: address('text/html', Buffer.from('<script>')) }, 'a PDF, picture, text or table'],
    ['bytes that are called a text', { content: address('text/plain', Buffer.from([0xff, 0xfe, 0x00])) }, 'is no text'],
    ['a name with a way into a folder', { name: '../../etc/passwd' }, 'a plain file name'],
    ['more than it may be', { content: address('application/pdf', Buffer.concat([pdf, Buffer.alloc(5_000_000)])) }, 'is larger than 5 MB'],
  ])('that are %s are refused', async (_what, more, words) => {
    const refused = await keep(more);
    expect(refused.status).toBe(422);
    expect(errorOf(refused).message).toContain(words);
  });

  it('are seen by nobody else, and stand at nothing foreign', async () => {
    const other = await bench.workshop('Elsewhere');
    const { files } = (await keep()).body;
    expect((await keep({}, 'systems', systemId, other)).status).toBe(404);
    expect((await other.get(`/files/${files[0]?.id}`)).status).toBe(404);
    expect((await other.delete(`/files/${files[0]?.id}`)).status).toBe(404);
    expect((await other.get(`/systems/${systemId}/files`)).status).toBe(404);
  });
});
