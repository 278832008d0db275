import { randomUUID } from 'node:crypto';
import Joi from 'joi';
import type { RunAnswer } from '../../core/bench/benches/answers.js';
import { SOUND } from '../../core/bench/inspection/grade.js';
import type { ItemFindings } from '../../core/bench/inspection/grade.js';
import { expectedDrains, fillTotal } from '../../core/bench/runs/contents.js';
import { lacksOf, rinseLacks } from '../../core/bench/runs/criteria.js';
import { judgeDryTest } from '../../core/bench/runs/dryTest.js';
import { definitionOf, type RunEventBody } from '../../core/bench/runs/entries/all.js';
import { laterThan } from '../../core/bench/runs/laterChecks.js';
import type { Procedure, ProcedureStep } from '../../core/bench/runs/procedure.js';
import type { ServiceFacts } from '../../core/bench/runs/facts.js';
import { RunFold } from '../../core/bench/runs/replay.js';
import { refuseEntry } from '../../core/bench/runs/rules.js';
import type { RunState } from '../../core/bench/runs/state.js';
import { refusalWords, whyWords } from '../../core/edge/words/bench.js';
import type { BaselineReading } from '../../core/physics/diagnosis/reading.js';
import type { Lot } from '../integration/led.js';
import type { Answer, TestBench, Visitor } from '../integration/bench.js';

export const reading = (partC: number, more: Partial<BaselineReading> = {}): BaselineReading => ({
  setting: 'load, quiet',
  workload: 'render and graphics together',
  durationMinutes: 45,
  powerW: 400,
  sensor: 'processor package',
  statistic: 'mean of the last five minutes',
  panels: 'on',
  pumpPercent: 60,
  fanPercent: 40,
  roomC: 22,
  partC,
  coolantC: 33,
  flowLph: 160,
  levelMm: 120,
  ...more,
});

/** What a technician comes upon in one run; everything that is not named is sound and goes by the plan. */
export interface Story {
  /** °C of the part before anything is touched, and at the end */
  readonly beforeC?: number;
  readonly afterC?: number;
  readonly findings?: Readonly<Record<string, Partial<ItemFindings>>>;
  /** checks that are not needed in this job, with the reason */
  readonly notNeeded?: (check: string, text: string) => string | null;
  /** instead of what a step usually takes */
  readonly instead?: Readonly<Record<string, (hands: StoryHands, step: ProcedureStep) => void | Promise<void>>>;
}

/**
 * Somebody who leads a whole job: every entry meets the rules that the server has, before it is written into the log. A check is ticked
 * once it can be true, or is not needed for a reason that the story gives.
 */
export class StoryHands {
  private fold: RunFold;
  private written = 0;
  nowMs: number;
  procedure: Procedure;

  constructor(
    private readonly bench: TestBench,
    private readonly visitor: Visitor,
    readonly answer: Pick<RunAnswer, 'run' | 'events'>,
    private readonly lot: Lot,
    private readonly story: Story = {},
  ) {
    this.procedure = answer.run.procedure;
    this.fold = new RunFold(this.procedure).sync(answer.events);
    this.written = answer.events.length;
    this.nowMs = bench.nowMs;
  }

  get state(): RunState {
    return { ...this.fold.state };
  }

  get stepIds(): string[] {
    return this.procedure.steps.map(({ id }) => id);
  }

  checksOf = (step: string): readonly ProcedureStep['checks'][number][] => this.procedure.steps.find(({ id }) => id === step)?.checks ?? [];

  wait(seconds: number): this {
    this.nowMs += seconds * 1000;
    return this;
  }

  /** Words of the refusal; null: it was taken */
  try(body: RunEventBody): string | null {
    const { error } = Joi.object({ type: Joi.string(), ...definitionOf(body).schema }).validate(body);
    if (error) return error.message;
    const refusal = refuseEntry(this.procedure, this.state, this.fold.events, body, this.nowMs);
    if (refusal) return refusalWords(this.procedure, refusal);
    this.fold.push({ id: randomUUID(), seq: this.fold.events.length + 1, at: new Date(this.nowMs).toISOString(), by: 'Tess', body });
    return null;
  }

  say(body: RunEventBody, afterS = 20): this {
    const refused = this.wait(afterS).try(body);
    if (refused !== null) throw new Error(`${body.type} in ${this.state.current ?? 'nothing'}: ${refused}`);
    return this;
  }

  tick(step: ProcedureStep): void {
    for (const check of step.checks) {
      const marks = this.state.steps.find(({ id }) => id === step.id)?.checks ?? {};
      if ((marks[check.id]?.mark ?? 'open') !== 'open' || laterThan(this.procedure, this.state, step.id, check, this.nowMs)) continue;
      const reason = check.mayNotApply ? (this.story.notNeeded?.(check.id, check.text) ?? null) : null;
      if (reason === null) this.say({ type: 'check', step: step.id, check: check.id, mark: 'done' });
      else this.say({ type: 'check', step: step.id, check: check.id, mark: 'not-needed', reason });
    }
  }

  done(step: ProcedureStep): void {
    this.tick(step);
    const lacks = lacksOf(this.procedure, this.state, step.id, this.nowMs).map((lack) => whyWords(this.procedure, lack));
    if (lacks.length > 0) throw new Error(`${step.id}: ${lacks.join('; ')}`);
    this.say({ type: 'step-done', step: step.id });
  }

  /** Everything from where the run stands, up to and without the named step. */
  async upTo(stepId: string): Promise<this> {
    for (;;) {
      const step = this.procedure.steps.find(({ id }) => id === this.state.current);
      if (!step || step.id === stepId || step.kind === 'sign-off') return this;
      await this.act(step);
      if (this.state.current === step.id) this.done(step);
    }
  }

  /** Everything up to the sign-off, and that. */
  async sign(remark = ''): Promise<Answer<{ serviceDueOn: string | null; settlingDueOn: string | null }>> {
    await this.upTo('sign-off');
    const last = this.procedure.steps.at(-1);
    if (last) this.tick(last);
    await this.write();
    const signed = await this.visitor.post<{ serviceDueOn: string | null; settlingDueOn: string | null }>(`/runs/${this.answer.run.id}/sign-off`, { id: randomUUID(), remark }); // prettier-ignore
    if (signed.status !== 201) throw new Error(`sign-off: ${JSON.stringify(signed.body)}`);
    return signed;
  }

  /** What was said since reaches the server's log, as after an hour without network. */
  async write(): Promise<void> {
    const fresh = this.fold.events.slice(this.written);
    this.written = this.fold.events.length;
    this.bench.nowMs = Math.max(this.bench.nowMs, this.nowMs + 1000);
    await this.bench.pool.query(
      `insert into run_event (id, workshop_id, run_id, seq, happened_at, person_id, body, created_at)
        select e.id, p.workshop_id, $1, e.seq, e.at, p.id, e.body, e.at
        from person p, jsonb_to_recordset($2::jsonb) as e (id uuid, seq int, at timestamptz, body jsonb) where p.email = $3`,
      [this.answer.run.id, JSON.stringify(fresh), this.visitor.email],
    );
  }

  /** Something that has its own request: what the server has now is what goes on. */
  async ask(path: string, body: object = {}): Promise<void> {
    await this.write();
    const said = await this.visitor.post(`/runs/${this.answer.run.id}/${path}`, body);
    if (said.status !== 201) throw new Error(`${path}: ${JSON.stringify(said.body)}`);
    const now = (await this.visitor.get<RunAnswer>(`/runs/${this.answer.run.id}`)).body;
    this.procedure = now.run.procedure;
    this.fold = new RunFold(this.procedure).sync(now.events);
    this.written = now.events.length;
    this.nowMs = Math.max(this.nowMs, this.bench.nowMs);
  }

  private async act(step: ProcedureStep): Promise<void> {
    const own = this.story.instead?.[step.id];
    if (own) return own(this, step);
    if (step.does.includes('changes-loop')) return this.change(step);
    this.usual(step);
  }

  /** What a step of its kind usually takes, its checks apart. */
  usual(step: ProcedureStep): void {
    const { service } = this.procedure;
    switch (step.kind) {
      case 'dry-test':
        return this.airTest();
      case 'fill':
        return this.pour();
      case 'wet-run':
      case 'power':
        this.tick(step);
        for (const { id, seconds } of step.timers) {
          this.say({ type: 'timer-started', step: step.id, timer: id });
          this.tick(step);
          this.wait(seconds + 5);
          if (step.kind === 'wet-run') this.say({ type: 'timer-stopped', step: step.id, timer: id });
        }
        return;
      case 'bleed':
        for (let n = 0; n < 3; n += 1) this.say({ type: 'bleed-cycle', runningMm: 120, stoppedMm: 121, bubbles: false, noise: false }, 400);
        return;
      case 'baseline': {
        const before = step.does.includes('measures-before');
        const partC = (before ? this.story.beforeC : this.story.afterC) ?? 62;
        this.say({ type: 'baseline', reading: reading(partC), ...(before ? { before: true } : {}) }, 2700);
        return;
      }
      default:
        if (service) this.inService(step, service);
    }
  }

  /** What a step takes that only a service has. */
  private inService(step: ProcedureStep, service: ServiceFacts): void {
    switch (step.kind) {
      case 'drain':
        for (const ml of expectedDrains(service))
          this.say({ type: 'drained', step: step.id, volumeMl: Math.max(1, Math.round(ml)), how: 'jug', wasteId: null }, 240);
        return;
      case 'rinse':
        return this.rinse(step);
      case 'inspect':
        for (const { id } of service.items)
          this.say({ type: 'inspected', step: step.id, item: id, findings: { ...SOUND, ...this.story.findings?.[id] } });
        return;
      case 'clean':
        for (const [id, seen] of Object.entries(this.story.findings ?? {}))
          if (seen.deposit !== undefined && seen.deposit !== 'none')
            this.say({ type: 'inspected', step: step.id, item: id, findings: { ...SOUND, ...seen, touch: 'smooth' } }, 600);
        return;
      case 'swap':
        if (step.does.includes('puts-away')) this.putAway(step, this.procedure.facts?.parts ?? []);
        return;
      default:
    }
  }

  private airTest(): void {
    for (let n = 0; n < 90 && judgeDryTest(this.procedure, this.state)?.verdict !== 'pass'; n += 1)
      this.say({ type: 'dry-reading', gaugeKpa: 50, tempC: 21 }, 120);
  }

  pour(): void {
    if (!this.procedure.unit) this.say({ type: 'coolant', ...this.lot });
    const { volumeMl } = fillTotal(this.procedure, this.state);
    const missingMl = volumeMl - (this.procedure.service ? 0 : Math.max(0, this.state.contents.insideMl ?? 0));
    if (missingMl >= 1) this.say({ type: 'pour', volumeMl: Math.round(missingMl) }, 300);
    if (this.state.outflows.some(({ kept }) => kept)) this.say({ type: 'returned' });
  }

  private rinse(step: ProcedureStep): void {
    const { service } = this.procedure;
    for (
      let n = 0;
      service && n < 20 && (n === 0 || rinseLacks(service, this.state.service).some(({ why }) => why === 'old-left'));
      n += 1
    ) {
      this.say({ type: 'rinse', step: step.id, liquid: 'distilled', volumeMl: 600 }, 200);
      this.say({ type: 'drained', step: step.id, volumeMl: 600, how: 'jug', wasteId: null }, 200);
    }
    this.say({ type: 'water', step: step.id, ph: 6.9, clarity: 'clear' });
  }

  putAway(step: ProcedureStep, parts: readonly { readonly id: string }[]): void {
    for (const { id } of parts)
      this.say({ type: 'swapped', step: step.id, item: id, action: 'removed', text: 'shelf 2, box 4', heldMl: 0 });
  }

  /** The loop becomes the one that its job wants. */
  async change(step: ProcedureStep): Promise<void> {
    this.tick(step);
    this.putAway(step, this.procedure.service?.change?.out ?? []);
    await this.ask('rebuilt');
  }
}
