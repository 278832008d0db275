import { buildProcedure } from '../../core/bench/procedures/buildProcedure.js';
import { lacksOf } from '../../core/bench/runs/criteria.js';
import type { RunEventBody } from '../../core/bench/runs/entries/all.js';
import type { Refusal } from '../../core/bench/runs/entry.js';
import { laterThan } from '../../core/bench/runs/laterChecks.js';
import type { RunEvent } from '../../core/bench/runs/log.js';
import type { Procedure } from '../../core/bench/runs/procedure.js';
import { RunFold } from '../../core/bench/runs/replay.js';
import { refuseEntry } from '../../core/bench/runs/rules.js';
import type { RunState } from '../../core/bench/runs/state.js';
import { refusalWords, whyWords } from '../../core/edge/words/bench.js';
import { usualLoop } from '../../core/machine/catalogue/testLoops.js';
import { DEFAULT_SCHOOLS, type Schools } from '../../core/physics/leak-testing/schools.js';

/** What a step still lacks, in the words of the bench. */
export const lackWords = (procedure: Procedure, state: RunState, stepId: string, nowMs: number): string[] =>
  lacksOf(procedure, state, stepId, nowMs).map((lack) => whyWords(procedure, lack));

export const procedureOf = (schools: Partial<Schools> = {}): Procedure =>
  buildProcedure({
    loop: usualLoop(),
    schools: { ...DEFAULT_SCHOOLS, wet: 'ten-minutes', ...schools },
    order: { bottles: 2 },
    coolantName: 'Plain Clear',
  });

/** The coolant that a fill is begun with. */
export const COOLANT = {
  type: 'coolant',
  productId: '00000000-0000-4000-8000-00000000abcd',
  productName: 'Plain',
  lotId: null,
  lot: null,
} as const;

/** A run under the rules, for tests: entries are tried like the server tries them, time is moved by hand. */
export class TestRun {
  private readonly fold: RunFold;
  nowMs = Date.parse('2026-03-10T09:00:00Z');

  constructor(readonly procedure: Procedure = procedureOf()) {
    this.fold = new RunFold(procedure);
  }

  get events(): readonly RunEvent[] {
    return this.fold.events;
  }

  get state(): RunState {
    // a new outer object, as the screens get it
    return { ...this.fold.state };
  }

  wait(seconds: number): this {
    this.nowMs += seconds * 1000;
    return this;
  }

  /** null when the entry joined the log */
  try(body: RunEventBody): (Refusal & { message: string }) | null {
    const refusal = refuseEntry(this.procedure, this.state, this.events, body, this.nowMs);
    if (!refusal) {
      const seq = this.events.length + 1;
      this.fold.push({
        id: `00000000-0000-4000-8000-${String(seq).padStart(12, '0')}`,
        seq,
        at: new Date(this.nowMs).toISOString(),
        by: 'Tess',
        body,
      });
    }
    return refusal && { ...refusal, message: refusalWords(this.procedure, refusal) };
  }

  say(body: RunEventBody): this {
    const refusal = this.wait(20).try(body);
    if (refusal) throw new Error(`refused: ${refusal.message}`);
    return this;
  }

  /** Everything of a step that can be looked at by now. */
  tick(stepId: string): this {
    const marks = this.state.steps.find(({ id }) => id === stepId)?.checks ?? {};
    for (const check of this.procedure.steps.find(({ id }) => id === stepId)?.checks ?? [])
      if (marks[check.id]?.mark !== 'done' && laterThan(this.procedure, this.state, stepId, check, this.nowMs) === null)
        this.say({ type: 'check', step: stepId, check: check.id, mark: 'done' });
    return this;
  }

  finish(stepId: string): this {
    return this.tick(stepId).say({ type: 'step-done', step: stepId });
  }

  /** A tight loop, read every two minutes. */
  dryTest(minutes = 20): this {
    for (let minute = 0; minute <= minutes; minute += 2) this.wait(100).say({ type: 'dry-reading', gaugeKpa: 50, tempC: 21 });
    return this;
  }

  pourAll(): this {
    this.say({ type: 'coolant', productId: '00000000-0000-4000-8000-00000000abcd', productName: 'Plain Clear', lotId: null, lot: null });
    const plan = this.procedure.fillPlan;
    if (plan.kind !== 'pulses') throw new Error('this test loop has a reservoir');
    return [plan.firstPourMl, ...plan.pulses.map(({ pourMl }) => pourMl)].reduce<this>(
      (so, volumeMl) => so.say({ type: 'pour', volumeMl: Math.round(volumeMl) }),
      this,
    );
  }

  bleed(): this {
    for (let n = 0; n < 3; n += 1) this.say({ type: 'bleed-cycle', runningMm: 120, stoppedMm: 121, bubbles: false, noise: false });
    return this;
  }

  runTimer(step: string, timer: string, seconds: number): this {
    return this.say({ type: 'timer-started', step, timer }).wait(seconds);
  }

  measure(): this {
    return this.say({
      type: 'baseline',
      reading: {
        setting: 'load, quiet',
        workload: 'render',
        durationMinutes: 45,
        powerW: 400,
        sensor: 'processor package',
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

  /** Everything up to and without the named step. */
  upTo(stepId: string): this {
    const moves: Record<string, () => unknown> = {
      dry: () => this.dryTest(),
      fill: () => this.pourAll(),
      wet: () => this.runTimer('wet', 'wet-run', 600),
      bleed: () => this.bleed(),
      power: () => this.runTimer('power', 'firmware', 900),
      baseline: () => this.measure(),
    };
    for (const { id } of this.procedure.steps) {
      if (id === stepId) break;
      moves[id]?.();
      this.finish(id);
    }
    return this;
  }
}
