import type { DateReason } from '../../../core/workshop/due-dates/facts.js';
import type { RunEvent } from '../../../core/bench/runs/log.js';
import type { RunRecord } from '../../../core/edge/records/record.js';
import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Procedure } from '../../../core/bench/runs/procedure.js';
import { errorOf, TestBench, type Answer, type Visitor } from '../../../tests/integration/bench.js';

let bench: TestBench;
let tech: Visitor;
beforeAll(async () => {
  bench = await TestBench.open();
  tech = await bench.workshop('Bench');
});
afterAll(() => bench.close());

interface RunAnswer {
  run: { id: string; procedure: Procedure; state: string };
  events: RunEvent[];
}

/** A run at the bench, led through the interface that the screen uses. */
class Hands {
  constructor(
    readonly runId: string,
    readonly systemId: string,
    readonly loopId: string,
    readonly productId: string,
    readonly procedure: Procedure,
  ) {}

  static async begin(schools: Record<string, unknown> = {}, benchId: string | null = null): Promise<Hands> {
    const systemId = await tech.system(`Run ${randomUUID().slice(0, 4)}`);
    const productId = await tech.coolant();
    const loop = await tech.loop(systemId, productId);
    const { body } = await tech.run(loop.id, schools, benchId);
    return new Hands(body.run.id, systemId, loop.id, productId, body.run.procedure as Procedure);
  }

  async say(body: object): Promise<Answer<{ event: RunEvent }>> {
    bench.wait(20);
    const answer = await tech.entry<{ event: RunEvent }>(this.runId, body);
    if (answer.status !== 201) throw new Error(errorOf(answer).message);
    return answer;
  }

  async finish(stepId: string): Promise<void> {
    for (const { id } of this.procedure.steps.find((step) => step.id === stepId)?.checks ?? [])
      await this.say({ type: 'check', step: stepId, check: id, mark: 'done' });
    await this.say({ type: 'step-done', step: stepId });
  }

  async act(stepId: string): Promise<void> {
    if (stepId === 'dry')
      for (let n = 0; n <= 10; n += 1) {
        bench.wait(100);
        await this.say({ type: 'dry-reading', gaugeKpa: 50, tempC: 21 });
      }
    if (stepId === 'fill') {
      await this.say({ type: 'coolant', productId: this.productId, productName: 'made up by the device', lotId: null, lot: null });
      await this.say({ type: 'pour', volumeMl: Math.round(this.procedure.fillPlan.total.volumeMl) });
    }
    if (stepId === 'wet') {
      await this.say({ type: 'timer-started', step: 'wet', timer: 'wet-run' });
      bench.wait(600);
    }
    if (stepId === 'bleed')
      for (let n = 0; n < 3; n += 1) await this.say({ type: 'bleed-cycle', runningMm: 120, stoppedMm: 121, bubbles: false, noise: false });
    if (stepId === 'power') {
      await this.say({ type: 'timer-started', step: 'power', timer: 'firmware' });
      bench.wait(900);
    }
    if (stepId === 'baseline') {
      await this.say({
        type: 'baseline',
        reading: {
          setting: 'load, quiet',
          workload: 'render',
          durationMinutes: 45,
          powerW: 400,
          sensor: 'package',
          statistic: 'peak',
          panels: 'on',
          pumpPercent: 60,
          fanPercent: 40,
          roomC: 22,
          partC: 62,
          coolantC: 33,
          flowLph: 180,
          levelMm: 120,
        },
      });
    }
  }

  async upTo(stop: string): Promise<this> {
    for (const { id } of this.procedure.steps) {
      if (id === stop) break;
      await this.act(id);
      await this.finish(id);
    }
    return this;
  }

  signOff = (id = randomUUID(), remark = 'all well'): Promise<Answer<{ serviceDueOn: string; settlingDueOn: string }>> =>
    tech.post(`/runs/${this.runId}/sign-off`, { id, remark });
  read = async (): Promise<RunAnswer> => (await tech.get<RunAnswer>(`/runs/${this.runId}`)).body;
  page = async () =>
    (
      await tech.get<{
        system: { state: string };
        dues: { kind: string; dueOn: string; reason: DateReason }[];
        loops: { revision: { number: number; kind: string } }[];
      }>(`/systems/${this.systemId}`)
    ).body;
}

describe('a commissioning from plan to sign-off', () => {
  it('leaves a record, an "as built" revision, measured rows and two dates', async () => {
    const hands = await (await Hands.begin()).upTo('sign-off');
    expect((await hands.page()).system.state).toBe('on-bench');
    const day = new Date(bench.nowMs).toISOString().slice(0, 10);
    const signed = await hands.signOff();
    expect(signed.status).toBe(201);
    const page = await hands.page();
    expect(page.system.state).toBe('in-service');
    expect(page.loops[0]?.revision).toMatchObject({ number: 2, kind: 'as-built' });
    expect(page.dues.map(({ kind }) => kind)).toEqual(['settling-check', 'dust-clean', 'coolant-service']);
    expect(page.dues[2]).toMatchObject({ dueOn: signed.body.serviceDueOn, reason: { why: 'policy' } });
    expect(signed.body.serviceDueOn.slice(4)).toBe(day.slice(4));
    expect((await tech.history(hands.systemId)).map(({ title }) => title)).toContain('Commissioning');

    const { record } = (await tech.get<{ record: RunRecord }>(`/runs/${hands.runId}/record`)).body;
    expect(record).toMatchObject({ remark: 'all well', dryTest: { verdict: 'pass' }, bleeding: { bled: true }, loop: { revision: 2 } });
    expect(record.coolant?.productName).not.toBe('made up by the device');
    const { rows } = await bench.pool.query<{ quantity: string; n: string }>(
      'select quantity, count(*) as n from reading where run_id = $1 group by 1 order by 1',
      [hands.runId],
    );
    expect(Object.fromEntries(rows.map(({ quantity, n }) => [quantity, Number(n)]))).toMatchObject({
      'gauge pressure': 11,
      'poured volume': 1,
      'level, pump running': 3,
    });
    const filled = await bench.pool.query<{ poured_ml: number }>('select poured_ml from fill where run_id = $1', [hands.runId]);
    expect(filled.rows[0]?.poured_ml).toBe(record.volumes.pouredMl);
    expect((await bench.pool.query('select 1 from baseline where run_id = $1', [hands.runId])).rowCount).toBe(1);
  });

  it('is signed off once, however often the button is pressed', async () => {
    const hands = await (await Hands.begin()).upTo('sign-off');
    const id = randomUUID();
    const answers = await Promise.all([hands.signOff(id), hands.signOff(id), hands.signOff(id)]);
    expect(answers.map(({ status }) => status)).toEqual([201, 201, 201]);
    expect((await bench.pool.query('select 1 from run_record where run_id = $1', [hands.runId])).rowCount).toBe(1);
    expect((await hands.page()).dues).toHaveLength(3);
    expect((await hands.signOff()).status).toBe(409);
  });

  it('is not signed off before its steps are done, and nothing is half written', async () => {
    const hands = await (await Hands.begin()).upTo('fill');
    const answer = await hands.signOff();
    expect(answer.status).toBe(409);
    expect(errorOf(answer).message).toContain('comes first');
    expect((await hands.read()).run.state).toBe('active');
    expect((await bench.pool.query('select 1 from run_record where run_id = $1', [hands.runId])).rowCount).toBe(0);
    expect((await hands.page()).dues).toEqual([]);
  });

  it('takes from the lot that was chosen, and gives a pour that is taken back to that lot, never more than it gave', async () => {
    const hands = await (await Hands.begin({ leak: 'wet-only' })).upTo('fill');
    const lotOf = async (lot: string, stockMl: number): Promise<string> => {
      const made = await tech.post<{ id: string }>('/coolant-lots', { productId: hands.productId, lot, openedOn: null });
      await tech.put(`/coolant-lots/${made.body.id}`, { openedOn: null, keepsUntil: null, stockMl, samplePlace: '', version: 1 });
      return made.body.id;
    };
    const [first, second] = [await lotOf('A1', 300), await lotOf('A2', 2000)];
    const stock = async (): Promise<number[]> => {
      const { rows } = await bench.pool.query<{ id: string; stock_ml: number }>('select id, stock_ml from coolant_lot');
      return [first, second].map((lotId) => rows.find(({ id }) => id === lotId)?.stock_ml as number);
    };
    const choose = (lotId: string) => hands.say({ type: 'coolant', productId: hands.productId, productName: 'x', lotId, lot: null });
    await choose(first);
    // 200 mL more than anybody counted there
    const pour = await hands.say({ type: 'pour', volumeMl: 500 });
    expect(await stock()).toEqual([0, 2000]);
    await choose(second);
    await hands.say({ type: 'pour', volumeMl: 100 });
    await hands.say({ type: 'withdrawn', event: pour.body.event.id });
    expect(await stock()).toEqual([300, 1900]);
  });

  it('cannot be signed off through the log', async () => {
    const hands = await Hands.begin();
    expect((await tech.entry(hands.runId, { type: 'signed-off', remark: '' })).status).toBe(409);
  });

  it('takes corrections beside the record, which itself stays', async () => {
    const hands = await (await Hands.begin({ leak: 'wet-only' })).upTo('sign-off');
    await hands.signOff();
    const before = (await tech.get<{ record: RunRecord }>(`/runs/${hands.runId}/record`)).body.record;
    expect((await tech.entry(hands.runId, { type: 'correction', about: null, text: 'it was lot 9' })).status).toBe(201);
    const after = (await tech.get<{ record: RunRecord; corrections: RunEvent[] }>(`/runs/${hands.runId}/record`)).body;
    expect(after.record).toEqual(before);
    expect(after.corrections.map(({ body }) => body)).toEqual([{ type: 'correction', about: null, text: 'it was lot 9' }]);
    expect((await tech.entry(hands.runId, { type: 'note', step: 'kit', text: 'late' })).status).toBe(409);
  });
});

describe('the log', () => {
  it('keeps an entry once that was sent twice, and answers the same', async () => {
    const hands = await Hands.begin();
    const id = randomUUID();
    const send = () => tech.entry(hands.runId, { type: 'note', step: 'kit', text: 'once' }, id);
    const answers = await Promise.all([send(), send(), send(), send()]);
    expect(new Set(answers.map(({ body }) => body.event.seq))).toEqual(new Set([1]));
    expect((await hands.read()).events).toHaveLength(1);
  });

  it('numbers entries of two devices one after the other, without a gap', async () => {
    const hands = await Hands.begin();
    await Promise.all(Array.from({ length: 12 }, (_, n) => tech.entry(hands.runId, { type: 'note', step: 'kit', text: `note ${n}` })));
    expect((await hands.read()).events.map(({ seq }) => seq)).toEqual(Array.from({ length: 12 }, (_, n) => n + 1));
  });

  it('is never rewritten, not even by the owner of the database', async () => {
    const hands = await (await Hands.begin({ leak: 'wet-only' })).upTo('sign-off');
    await hands.signOff();
    for (const statement of [
      'update run_event set seq = 99',
      'delete from run_event',
      "update run_record set record = '{}'",
      'delete from run_record',
      'update loop_revision set number = 9',
    ]) {
      await expect(bench.pool.query(statement), statement).rejects.toMatchObject({ code: 'LC001' });
    }
  });

  it('refuses what comes too early, in words, and writes nothing', async () => {
    const hands = await Hands.begin();
    const answer = await tech.entry(hands.runId, { type: 'pour', volumeMl: 100 });
    expect(answer.status).toBe(409);
    expect(errorOf(answer)).toMatchObject({
      code: 'refused',
      reason: 'too-early',
      message: '"Lay out the kit" comes first; finish it before "Fill".',
    });
    expect((await hands.read()).events).toEqual([]);
  });

  it.each<[string, object, string]>([
    ['a negative pour', { type: 'pour', volumeMl: -5 }, 'body.volumeMl'],
    ['an unknown entry', { type: 'dance' }, 'body.type'],
    ['an unknown field', { type: 'note', step: 'kit', text: 'x', loud: true }, 'body.loud'],
  ])('refuses %s with its place', async (_name, body, path) => {
    const hands = await Hands.begin();
    const answer = await tech.entry(hands.runId, body);
    expect(answer.status).toBe(422);
    expect(errorOf(answer).path).toBe(path);
  });

  it('takes an entry that happened earlier, but not before the run nor in the future', async () => {
    const hands = await Hands.begin();
    const note = { type: 'note', step: 'kit', text: 'x' };
    const at = (ms: number): string => new Date(bench.nowMs + ms).toISOString();
    bench.wait(600);
    expect((await tech.entry<{ event: RunEvent }>(hands.runId, note, randomUUID(), at(-300_000))).body.event.at).toBe(at(-300_000));
    expect(errorOf(await tech.entry(hands.runId, note, randomUUID(), at(3_600_000))).path).toBe('at');
    expect(errorOf(await tech.entry(hands.runId, note, randomUUID(), at(-86_400_000))).path).toBe('at');
  });

  it('has its own ids: one used by another workshop is refused without telling', async () => {
    const hands = await Hands.begin();
    const id = randomUUID();
    await tech.entry(hands.runId, { type: 'note', step: 'kit', text: 'mine' }, id);
    const other = await bench.workshop('Ids');
    const loop = await other.loop(await other.system());
    const { body } = await other.run(loop.id);
    const answer = await other.entry(body.run.id, { type: 'note', step: 'kit', text: 'theirs' }, id);
    expect(answer.status).toBe(409);
    expect(JSON.stringify(answer.body)).not.toContain('mine');
  });
});

describe('benches', () => {
  it('hold one machine; a second is sent to another bench', async () => {
    const lead = await bench.workshop('Shelf');
    const benchId = (await lead.post<{ id: string }>('/benches', { name: 'Only' })).body.id;
    const loop = async (): Promise<string> => (await lead.loop(await lead.system())).id;
    expect((await lead.run(await loop(), {}, benchId)).status).toBe(201);
    const second = await lead.run(await loop(), {}, benchId);
    expect(second.status).toBe(409);
    expect(errorOf(second).message).toMatch(/^Only is taken by Tower/);
  });

  it('hold two loops of one machine at once', async () => {
    const lead = await bench.workshop('Double');
    const benchId = (await lead.post<{ id: string }>('/benches', { name: 'Only' })).body.id;
    const systemId = await lead.system();
    for (let n = 0; n < 2; n += 1) expect((await lead.run((await lead.loop(systemId)).id, {}, benchId)).status).toBe(201);
  });

  it('do not start one loop twice: the answer names the run in progress', async () => {
    const hands = await Hands.begin();
    const again = await tech.run(hands.loopId);
    expect(again.status).toBe(409);
    expect(errorOf(again).runId).toBe(hands.runId);
  });

  it('keep who made an entry when somebody else’s sign-in delivers it, and refuse a maker of another workshop', async () => {
    const hands = await Hands.begin();
    const me = (await tech.get<{ account: { personId: string; personName: string } }>('/session')).body.account;
    const colleague = await tech.colleague('technician');
    const [step] = hands.procedure.steps;
    const entry = (madeBy: string) => ({ id: randomUUID(), madeBy, body: { type: 'note', step: step?.id, text: 'drop under the card' } });
    expect((await colleague.post(`/runs/${hands.runId}/events`, entry(me.personId))).status).toBe(201);
    expect((await hands.read()).events.at(-1)).toMatchObject({ by: me.personName, deliveredBy: 'Tess' });
    const stranger = await bench.workshop('Elsewhere');
    const foreign = (await stranger.get<{ account: { personId: string } }>('/session')).body.account;
    const refused = await colleague.post(`/runs/${hands.runId}/events`, entry(foreign.personId));
    expect(errorOf(refused).path).toBe('madeBy');
    expect((await hands.read()).events).toHaveLength(1);
  });

  it('are left with a reason; the log stays, no date is set, and the loop can start again', async () => {
    const hands = await Hands.begin();
    await tech.entry(hands.runId, { type: 'note', step: 'kit', text: 'wrong block delivered' });
    expect((await tech.post(`/runs/${hands.runId}/abandon`, { reason: '' })).status).toBe(422);
    expect((await tech.post(`/runs/${hands.runId}/abandon`, { reason: 'wrong block' })).status).toBe(201);
    expect((await tech.post(`/runs/${hands.runId}/abandon`, { reason: 'again' })).status).toBe(409);
    expect((await hands.page()).system.state).toBe('planned');
    expect((await hands.read()).events).toHaveLength(1);
    expect((await tech.entry(hands.runId, { type: 'note', step: 'kit', text: 'x' })).status).toBe(409);
    expect((await tech.run(hands.loopId)).status).toBe(201);
  });

  it('are not left while their pump runs', async () => {
    const hands = await (await Hands.begin()).upTo('wet');
    await hands.say({ type: 'timer-started', step: 'wet', timer: 'wet-run' });
    expect(errorOf(await tech.post(`/runs/${hands.runId}/abandon`, { reason: 'called away' })).message).toContain('The pump runs');
    await hands.say({ type: 'pump', on: false });
    expect((await tech.post(`/runs/${hands.runId}/abandon`, { reason: 'called away' })).status).toBe(201);
  });

  it('show every run with its step and its clock on the Today screen', async () => {
    const hands = await (await Hands.begin()).upTo('wet');
    await hands.say({ type: 'timer-started', step: 'wet', timer: 'wet-run' });
    const today = (
      await tech.get<{
        runs: {
          id: string;
          stepTitle: string;
          inside: Record<string, number> | null;
          timers: { id: string; seconds: number; finished: boolean }[];
        }[];
      }>('/benches')
    ).body;
    expect(today.runs.find(({ id }) => id === hands.runId)).toMatchObject({
      stepTitle: 'Wet test',
      timers: [{ id: 'wet-run', seconds: 600, finished: false }],
    });
    // drawn as the book has it: filled to its mark
    expect(today.runs.find(({ id }) => id === hands.runId)?.inside?.reservoir).toBeGreaterThan(0.5);
    bench.wait(700);
    const later = (await tech.get<typeof today>('/benches')).body;
    expect(later.runs.find(({ id }) => id === hands.runId)?.timers[0]?.finished).toBe(true);
  });
});

describe('a run keeps what it was planned with', () => {
  it('even when the loop is revised meanwhile', async () => {
    const hands = await Hands.begin();
    const loop = (await tech.get<{ file: { components: { id: string; volume_ml: number }[] }; version: number }>(`/loops/${hands.loopId}`))
      .body;
    loop.file.components[0]!.volume_ml = 999;
    const revised = await tech.post(`/loops/${hands.loopId}/revisions`, {
      kind: 'change',
      reason: 'bigger reservoir',
      name: 'Main loop',
      coolantProductId: null,
      version: loop.version,
      file: loop.file,
    });
    expect(revised.status).toBe(201);
    const { run } = await hands.read();
    expect(run.procedure.volume.volumeMl).toBe(hands.procedure.volume.volumeMl);
  });
});
