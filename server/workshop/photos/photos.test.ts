import { randomUUID } from 'node:crypto';
import sharp from 'sharp';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { errorOf, TestBench, type Visitor } from '../../../tests/integration/bench.js';
import { PHOTO } from './reencode.js';

let bench: TestBench;
let lead: Visitor;
let systemId: string;
beforeAll(async () => {
  bench = await TestBench.open();
  lead = await bench.workshop('Photos');
  systemId = await lead.system('Owl');
});
afterAll(() => bench.close());

const plain = (width: number, height: number) => sharp({ create: { width, height, channels: 3, background: '#2277aa' } });
const address = (type: string, bytes: Buffer): string => `data:image/${type};base64,${bytes.toString('base64')}`;
const send = (image: string, id: string = randomUUID(), who = lead, system = systemId) =>
  who.post(`/systems/${system}/photos`, { id, caption: 'front', jobId: null, image });
const kept = async (id: string) => {
  const answer = await fetch(`${bench.url}/api/photos/${id}`, { headers: { cookie: lead.cookie } });
  return { headers: answer.headers, image: sharp(Buffer.from(await answer.arrayBuffer())) };
};

describe('a photograph', () => {
  it('is written anew: upright, small, without what the device wrote beside the pixels', async () => {
    const taken = await plain(3000, 1000)
      .jpeg()
      .withExif({ IFD0: { Copyright: 'somebody at 38.7 N, 9.1 W' } })
      .withMetadata({ orientation: 6 })
      .toBuffer();
    const id = randomUUID();
    expect((await send(address('jpeg', taken), id)).status).toBe(201);
    const { headers, image } = await kept(id);
    const { width, height, exif, orientation, format } = await image.metadata();
    expect([format, width, height, exif, orientation]).toEqual(['jpeg', 683, PHOTO.mostSidePx, undefined, undefined]);
    expect(headers.get('content-type')).toBe('image/jpeg');
    // and no browser keeps it
    expect(headers.get('cache-control')).toBe('no-store');
  });

  it('is taken as PNG and WebP too, and kept once however often it is sent', async () => {
    const id = randomUUID();
    for (const _ of [1, 2]) expect((await send(address('png', await plain(20, 10).png().toBuffer()), id)).status).toBe(201);
    expect((await send(address('webp', await plain(20, 10).webp().toBuffer()))).status).toBe(201);
    expect((await bench.pool.query('select 1 from photo where id = $1', [id])).rowCount).toBe(1);
  });

  it('that unpacks to too many pixels is refused, whatever it weighs', async () => {
    const bomb = await plain(8000, 8000).png({ compressionLevel: 9 }).toBuffer();
    expect(bomb.length).toBeLessThan(300_000);
    expect(errorOf(await send(address('png', bomb)))).toMatchObject({
      code: 'invalid-input',
      path: 'image',
      message: expect.stringContaining('24 megapixels') as string,
    });
  });

  it.each([
    ['text', Buffer.from('<script>alert(1)</script>')],
    ['half a picture', Buffer.alloc(0)],
    ['a drawing with a script', Buffer.from('<svg xmlns="http://www.w3.org/2000/svg"><script/></svg>')],
  ])('that is %s is refused, and the server goes on', async (what, bytes) => {
    const half = (await plain(900, 700).jpeg().toBuffer()).subarray(0, 900);
    const refused = await send(address('jpeg', what === 'half a picture' ? half : bytes));
    expect([refused.status, errorOf(refused).path]).toEqual([422, 'image']);
    expect((await lead.get('/systems')).status).toBe(200);
  });

  it('of a foreign machine is refused, and seen by nobody else', async () => {
    const other = await bench.workshop('Elsewhere');
    const id = randomUUID();
    const image = address('png', await plain(9, 9).png().toBuffer());
    expect((await send(image, id, other)).status).toBe(404);
    await send(image, id);
    expect((await other.get(`/photos/${id}`)).status).toBe(404);
  });

  it('fits the workshop’s share of the disk, or is refused in words', async () => {
    const small = await TestBench.open({ photoQuotaBytes: 40_000 });
    try {
      const who = await small.workshop('Full');
      const system = await who.system('Owl');
      const noise = await sharp({
        create: { width: 120, height: 120, channels: 3, background: '#000000', noise: { type: 'gaussian', mean: 128, sigma: 60 } },
      })
        .png()
        .toBuffer();
      const statuses: number[] = [];
      for (let n = 0; n < 8; n += 1) statuses.push((await send(address('png', noise), randomUUID(), who, system)).status);
      expect(statuses[0]).toBe(201);
      expect(statuses.at(-1)).toBe(409);
    } finally {
      await small.close();
    }
  });
});
