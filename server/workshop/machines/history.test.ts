import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { HistoryEntry, HistoryPiece } from '../../../core/workshop/machines/answers.js';
import { errorOf, TestBench, type Visitor } from '../../../tests/integration/bench.js';

let bench: TestBench;
let desk: Visitor;
let systemId: string;
beforeAll(async () => {
  bench = await TestBench.open();
  desk = await bench.workshop('Chronicle');
  systemId = await desk.system('Old tower');
  const { id: loopId } = await desk.loop(systemId, await desk.coolant());
  const rows = (sql: string) => bench.pool.query(sql, [systemId]);
  const own = "select workshop_id, id as system_id, (select id from person p where p.workshop_id = system.workshop_id) as person_id from system where id = $1"; // prettier-ignore
  // works of days, findings of instants, several of them at once, dates that tell something and dates that do not
  await rows(`insert into job (workshop_id, system_id, kind, state, done_on, person_id)
    select workshop_id, system_id, 'top-up', 'done', date '2024-01-01' + 3 * (n / 2), person_id from (${own}) s, generate_series(1, 90) n`);
  await rows(`insert into finding (workshop_id, system_id, fact, text, found_at)
    select workshop_id, system_id, '{"what": "said", "text": "film"}', 'film', timestamptz '2024-01-01 12:00:00.1239Z' + interval '5 days' * (n / 3) from (${own}) s, generate_series(1, 90) n`);
  await bench.pool.query(
    `insert into due_item (workshop_id, system_id, loop_id, kind, due_on, reason, clocks, state, closed_at, outcome)
     select workshop_id, system_id, id, kind, '2024-02-01', '{"why": "said", "text": ""}', '[]', 'closed', timestamptz '2024-02-01Z' + interval '2 days' * n, outcome::jsonb
     from loop, generate_series(1, 20) n, (values ('coolant-service', null), ('settling-check', '{"why": "filled-anew"}'), ('dust-clean', '{"why": "done"}')) k (kind, outcome) where id = $1`,
    [loopId],
  );
});
afterAll(() => bench.close());

const pieceBefore = async (before: string, who = desk): Promise<HistoryPiece> =>
  (await who.get<HistoryPiece>(`/systems/${systemId}/history?${new URLSearchParams({ before })}`)).body;

describe('the history of a machine comes in pieces', () => {
  it('each entry once, the newest first, whatever it is', async () => {
    const entries: HistoryEntry[] = [];
    let piece = (await desk.get<HistoryPiece>(`/systems/${systemId}/history`)).body;
    let pieces = 1;
    for (; ; pieces += 1) {
      entries.push(...piece.entries);
      if (piece.before === null) break;
      piece = await pieceBefore(piece.before);
    }
    // ninety works, ninety findings, twenty cleanings, the loop's plan; no date that something else tells of
    expect(entries).toHaveLength(201);
    expect(new Set(entries.map(({ id }) => id)).size).toBe(201);
    expect(pieces).toBe(4);
    const at = entries.map((entry) => entry.at);
    expect(at).toEqual([...at].sort().reverse());
  });

  it('a place that is none is refused, and a machine of somebody else has no history', async () => {
    for (const before of ['yesterday', '2024-01-01 not-an-id']) {
      const answer = await desk.get(`/systems/${systemId}/history?${new URLSearchParams({ before })}`);
      expect([answer.status, errorOf(answer).path]).toEqual([422, 'before']);
    }
    const other = await bench.workshop('Stranger');
    expect((await pieceBefore('2099-01-01 6f1f0d5e-0000-4000-8000-000000000001', other)).entries).toEqual([]);
  });
});
