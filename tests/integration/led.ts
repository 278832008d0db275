import type { RunEventBody } from '../../core/bench/runs/entries/all.js';
import type { RunEvent } from '../../core/bench/runs/log.js';
import { randomUUID } from 'node:crypto';
import type { Procedure } from '../../core/bench/runs/procedure.js';
import type { JobKind } from '../../core/workshop/job-kinds/kinds.js';
import { seededRandom } from '../../core/base/random/random.js';
import { playRun } from '../../demo/technician.js';
import type { ServiceScript } from '../../demo/serviceHands.js';
import type { Answer, TestBench, Visitor } from './bench.js';

/** A coolant of the shelf with its lot, as a run's entries name it. */
export interface Lot {
  readonly productId: string;
  readonly productName: string;
  readonly lotId: string;
  readonly lot: string;
}

export async function lotOf(visitor: Visitor, lot: string, more: Record<string, unknown> = {}): Promise<Lot> {
  const name = `Clear ${lot} ${randomUUID().slice(0, 4)}`;
  const productId = await visitor.coolant({ name, ...more });
  const made = await visitor.post<{ id: string }>('/coolant-lots', { productId, lot, openedOn: null });
  return { productId, productName: name, lotId: made.body.id, lot };
}

interface Led {
  readonly id: string;
  readonly procedure: Procedure;
}

interface Hands {
  readonly service?: ServiceScript | undefined;
  /** stop inside this step */
  readonly stopIn?: string;
  /** what somebody enters instead of an entry */
  readonly instead?: (body: RunEventBody) => readonly RunEventBody[];
  /** what happens before an entry */
  readonly before?: (body: RunEventBody) => Promise<void>;
}

/** The entries of a practised technician, from the bench's hour on. */
function played(bench: TestBench, run: Led, coolant: Lot, { service, stopIn }: Pick<Hands, 'service' | 'stopIn'>): RunEvent[] {
  const events = playRun({
    procedure: run.procedure,
    startMs: bench.nowMs,
    random: seededRandom(bench.nowMs % 100_000),
    coolant,
    by: 'Tess',
    ...(service ? { service } : {}),
    ...(stopIn === undefined ? {} : { stopIn }),
  });
  // ids of a seeded technician would meet those of another run
  const ids = new Map(events.map(({ id }) => [id, randomUUID()]));
  return JSON.parse([...ids].reduce((text, [from, to]) => text.replaceAll(from, to), JSON.stringify(events))) as RunEvent[];
}

/** Makes the entries of a practised technician over HTTP, one by one, up to a step or to the sign-off. */
export async function leadTo(
  bench: TestBench,
  visitor: Visitor,
  run: Led,
  coolant: Lot,
  { service, stopIn, instead = (body) => [body], before }: Hands = {},
): Promise<void> {
  let lateMs = 0;
  for (const { id, at, body } of played(bench, run, coolant, { service, stopIn })) {
    const waitedMs = bench.nowMs;
    await before?.(body);
    lateMs += bench.nowMs - waitedMs;
    const madeMs = Date.parse(at) + lateMs;
    bench.nowMs = Math.max(bench.nowMs, madeMs + 1000);
    for (const [nth, entry] of instead(body).entries()) {
      const answer = await visitor.entry(run.id, entry, nth === 0 ? id : randomUUID(), new Date(madeMs).toISOString());
      if (answer.status !== 201) throw new Error(`${entry.type}: ${JSON.stringify(answer.body)}`);
    }
  }
  bench.wait(60);
}

/** Leads a run to its sign-off. */
export async function leadRun(
  bench: TestBench,
  visitor: Visitor,
  run: Led,
  coolant: Lot,
  service?: ServiceScript,
  instead?: Hands['instead'],
  before?: Hands['before'],
): Promise<Answer<{ serviceDueOn: string | null; settlingDueOn: string | null; mates?: { systemName: string }[] }>> {
  await leadTo(bench, visitor, run, coolant, { service, ...(instead ? { instead } : {}), ...(before ? { before } : {}) });
  return visitor.post(`/runs/${run.id}/sign-off`, { id: randomUUID(), remark: 'done' });
}

/** The log of a whole run at once, as it stands after a day at the bench: what the tests of that day lead one by one. */
async function writeLog(
  bench: TestBench,
  visitor: Visitor,
  run: Led,
  coolant: Lot,
  { service, instead = (body) => [body] }: Hands = {},
): Promise<void> {
  const events = played(bench, run, coolant, { service })
    .flatMap((event) => instead(event.body).map((body, nth) => ({ ...event, id: nth === 0 ? event.id : randomUUID(), body })))
    .map((event, at) => ({ ...event, seq: at + 1 }));
  await bench.pool.query(
    `insert into run_event (id, workshop_id, run_id, seq, happened_at, person_id, body, created_at)
      select e.id, p.workshop_id, $1, e.seq, e.at, p.id, e.body, e.at
      from person p, jsonb_to_recordset($2::jsonb) as e (id uuid, seq int, at timestamptz, body jsonb) where p.email = $3`,
    [run.id, JSON.stringify(events), visitor.email],
  );
  bench.nowMs = Math.max(bench.nowMs, Date.parse(events.at(-1)?.at ?? '') + 60_000);
}

/** A run whose log was written at once, and its sign-off: for what comes after the bench. */
export async function writtenRun(bench: TestBench, visitor: Visitor, run: Led, coolant: Lot, hands?: Hands): ReturnType<typeof leadRun> {
  await writeLog(bench, visitor, run, coolant, hands);
  return visitor.post(`/runs/${run.id}/sign-off`, { id: randomUUID(), remark: 'done' });
}

/** A machine whose loop was commissioned with one lot. */
export async function commissioned(
  bench: TestBench,
  visitor: Visitor,
  name: string,
  lot: Lot,
): Promise<{ systemId: string; loopId: string }> {
  const systemId = await visitor.system(name);
  const loop = await visitor.loop(systemId, lot.productId);
  const started = await visitor.run(loop.id, { leak: 'wet-only' });
  await writeLog(bench, visitor, started.body.run, lot);
  const signed = await visitor.post(`/runs/${started.body.run.id}/sign-off`, { id: randomUUID(), remark: 'done' });
  if (signed.status !== 201) throw new Error(JSON.stringify(signed.body));
  return { systemId, loopId: loop.id };
}

/** A service that is booked for a loop; what is not said is as plain as it can be. */
export async function booked(
  visitor: Visitor,
  { systemId, loopId }: { readonly systemId: string; readonly loopId: string },
  kind: JobKind,
  more: object = {},
): Promise<{ id: string; version: number }> {
  const { body } = await visitor.post<{ id: string; version: number }>(`/systems/${systemId}/jobs`, {
    loopId,
    kind,
    partId: null,
    intake: { symptom: '', condition: '', signs: [], dataSafe: 'yes', signsIn: '', flowLph: null },
    estimate: { hours: 2, partsText: '', coolantMl: 0, priceText: '', parts: [] },
    neededBy: null,
    note: '',
    ...more,
  });
  return body;
}
