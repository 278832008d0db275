import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { TestBench, type Visitor } from '../../../tests/integration/bench.js';

let bench: TestBench;
let tech: Visitor;
beforeAll(async () => {
  bench = await TestBench.open();
  tech = await bench.workshop('Drillers');
});
afterAll(() => bench.close());

const row = { title: 'Roof', paper: 'a4', fans: { fanMm: 120, count: 3, gapMm: 0 } };
const pages = async (of: unknown): Promise<{ status: number; text: string }> => {
  const answer = await fetch(`${bench.url}/api${asked(of)}`, { headers: { cookie: tech.cookie } });
  return { status: answer.status, text: Buffer.from(await answer.arrayBuffer()).toString('latin1') };
};
const asked = (of: unknown): string => `/hole-template.pdf?of=${encodeURIComponent(typeof of === 'string' ? of : JSON.stringify(of))}`;

describe('a template to drill by', () => {
  it('comes as a PDF, true to the size of its paper, on as many sheets as it takes', async () => {
    const { status, text } = await pages(row);
    expect(status).toBe(200);
    expect(text.startsWith('%PDF-')).toBe(true);
    expect(text.match(/\/Type \/Page\b/g)).toHaveLength(2);
    // A4 in points
    expect(text).toMatch(/\/MediaBox \[0 0 595\.27\d* 841\.88\d*\]/);
    expect(text).toContain('/Lang (en)');
    const foot = await pages({ title: 'Foot', paper: 'letter', holes: [[0, 0, 4], [50, 40, 20]] }); // prettier-ignore
    expect(foot.text.match(/\/Type \/Page\b/g)).toHaveLength(1);
  });

  it('is refused with its field where nothing can be drilled by it, and to nobody who is not signed in', async () => {
    for (const wrong of [
      'no json',
      {},
      { ...row, fans: { ...row.fans, fanMm: 130 } },
      { ...row, holes: [[0, 0, 4]] },
      { title: 'x', paper: 'a4', holes: [] },
    ])
      expect((await tech.get(asked(wrong))).status, JSON.stringify(wrong)).toBe(422);
    expect((await fetch(`${bench.url}/api${asked(row)}`)).status).toBe(401);
  });
});
