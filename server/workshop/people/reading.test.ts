import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { USUAL_READING } from '../../../core/base/units/reading.js';
import type { SessionAnswer } from '../../../core/workshop/people/answers.js';
import { errorOf, TestBench, type Visitor } from '../../../tests/integration/bench.js';

let bench: TestBench;
let lead: Visitor;
beforeAll(async () => {
  bench = await TestBench.open();
  lead = await bench.workshop('Ounces');
});
afterAll(() => bench.close());

const account = async (who: Visitor) => {
  const { body } = await who.get<SessionAnswer>('/session');
  if (!body.signedIn) throw new Error('signed out');
  return body.account;
};

describe('how numbers, dates and words are read', () => {
  it('is the workshop’s way, with one’s own over it', async () => {
    const tess = await lead.colleague('technician');
    const way = { ...USUAL_READING, volume: 'fl oz', date: 'month-first' } as const;
    expect((await lead.put('/workshop/reading', { ...way, version: 1 })).status).toBe(200);
    expect((await tess.put('/own-reading', { date: 'iso' })).status).toBe(200);
    expect(await account(lead)).toMatchObject({ reading: way, ownReading: {}, workshopReading: way });
    expect((await account(tess)).reading).toEqual({ ...way, date: 'iso' });
    expect((await tess.put('/own-reading', {})).status).toBe(200);
    expect((await account(tess)).reading).toEqual(way);
  });

  it('is set for all by the lead only, and is one of those there are', async () => {
    const tess = await lead.colleague('technician');
    expect((await tess.put('/workshop/reading', { ...USUAL_READING, version: 2 })).status).toBe(403);
    expect(errorOf(await tess.put('/own-reading', { volume: 'pint' })).fields?.[0]?.path).toBe('volume');
    expect((await lead.put('/workshop/reading', { ...USUAL_READING, version: 1 })).status).toBe(409);
  });
});
