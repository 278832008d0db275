import type { Random } from '../../base/random/random.js';
import type { BaselineReading } from '../../physics/diagnosis/reading.js';
import { rinseStandOf } from '../runs/facts.js';
import { lacksOf } from '../runs/criteria.js';
import type { RunEventBody } from '../runs/entries/all.js';
import { fillOrder, levelWatch, type FillOrder } from '../runs/fillOrder.js';
import type { Procedure, ProcedureStep } from '../runs/procedure.js';
import { RunFold } from '../runs/replay.js';
import { leftOpen } from '../runs/locks.js';
import { refuseEntry } from '../runs/rules.js';
import type { RunState } from '../runs/state.js';
import { openedFor } from '../../machine/loop-change/loopChange.js';
import { procedureAfterChange, rebuiltEntry } from '../services/changedLoop.js';
import { SOUND } from '../inspection/grade.js';
import { DrainHands } from './drainHands.js';
import { TRIAL, type TrialBench } from './trialBench.js';

/** What one run of the technician came to. */
export interface Played {
  readonly ended: boolean;
  /** where nothing went on, by step and order; null: nowhere */
  readonly deadEnd: string | null;
  /** orders that the next lock refused, by rule */
  readonly contradictions: readonly string[];
  /** the book against the truth at each step's end: off and its standard deviation, mL */
  readonly booked: readonly {
    readonly step: string;
    readonly kind: ProcedureStep['kind'];
    readonly offMl: number;
    readonly sdMl: number;
  }[];
  /** the record at the end against the truth */
  readonly recordOff: { readonly offMl: number; readonly sdMl: number } | null;
  readonly fold: RunFold;
  /** each entry with the truth behind it */
  readonly trace: readonly string[];
}

/** entries after which a run counts as one that does not end */
const MOST_ENTRIES = 600;
/** s that anybody goes on pouring beside a running pump */
const MOST_POUR_S = 300;
/** the same order in a row that leads nowhere */
const MOST_ALIKE = 3;

class DeadEnd extends Error {}

const READING: BaselineReading = {
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
  partC: 64,
  coolantC: 34,
  flowLph: 160,
  levelMm: 120,
};

/** what the technician pours */
export const TRIAL_COOLANT = '00000000-0000-4000-8000-0000000000c0';

/**
 * Does exactly what the screens' own logic says next, with hands that err, on a bench whose truth is hidden. Thinks
 * nothing: what goes wrong here was ordered.
 */
export class Technician {
  private fold: RunFold;
  private readonly drains: DrainHands;
  private readonly contradictions: string[] = [];
  private readonly booked: Played['booked'][number][] = [];
  private readonly trace: string[] = [];
  private alike = { key: '', times: 0 };

  constructor(
    private procedure: Procedure,
    private readonly bench: TrialBench,
    private readonly random: Random,
    /** the procedure for the loop that is wanted, once the run has changed it; null: it changes none */
    private readonly remade: (() => Procedure) | null = null,
  ) {
    this.fold = new RunFold(procedure);
    this.drains = new DrainHands(procedure, bench, random, (body) => this.say(body));
  }

  private get state(): RunState {
    return { ...this.fold.state };
  }

  /** One entry under the same rules as on the server. @returns whether it was taken */
  private say(body: RunEventBody): boolean {
    const { events } = this.fold;
    if (events.length >= MOST_ENTRIES) throw new DeadEnd('too many entries');
    this.bench.advance(0.5);
    const refusal = refuseEntry(this.procedure, this.state, events, body, this.bench.nowMs);
    if (this.drains.hasForgotten) {
      // the lock has to answer what a hand forgot, before liquid meets it
      if (refusal) {
        this.drains.shutForgotten();
        return this.say(body);
      }
      const { ports, joints } = leftOpen(this.procedure, this.state);
      if (['pump', 'pour', 'rinse', 'timer-started'].includes(body.type) && ports.length + joints.length > 0)
        this.contradictions.push(`${body.type}: taken with an opening left open`);
    }
    if (refusal) {
      this.contradictions.push(`${body.type}: ${refusal.rule ?? refusal.code}`);
      return false;
    }
    const seq = events.length + 1;
    const at = new Date(this.bench.nowMs).toISOString();
    this.fold.push({ id: `00000000-0000-4000-8000-${String(seq).padStart(12, '0')}`, seq, at, by: 'trial', body });
    const { standing, insideMl, insideSdMl } = this.state.contents;
    const { liquid } = this.bench;
    this.trace.push(
      `${JSON.stringify(body)} truth ${liquid.reservoirMl.toFixed(0)} of ${liquid.insideMl.toFixed(0)}${liquid.circulating ? ' round' : ''}, over ${liquid.spilledMl.toFixed(0)} unwarned ${this.bench.unwarnedMl.toFixed(0)} dry ${this.bench.dryWorstS.toFixed(2)}, book ${standing?.reservoirMl.toFixed(0)} ± ${standing?.reservoirSdMl.toFixed(0)} of ${insideMl?.toFixed(0)} ± ${insideSdMl.toFixed(0)}`,
    );
    return true;
  }

  /** The same order again and again is a dead end. */
  private follow(order: FillOrder): void {
    const key = JSON.stringify(order, (_key, value: unknown) => (typeof value === 'number' ? Math.round(value) : value));
    this.alike = { key, times: this.alike.key === key ? this.alike.times + 1 : 1 };
    if (this.alike.times > MOST_ALIKE) throw new DeadEnd(`${this.state.current ?? ''}: ${key}`);
  }

  play(): Played {
    let deadEnd: string | null = null;
    try {
      // a change puts other steps in the place of those to come, in the same order
      for (let nth = 0; nth < this.procedure.steps.length; nth += 1) {
        const step = this.procedure.steps[nth] as ProcedureStep;
        this.step(step);
        this.judgeBook(step);
      }
    } catch (error) {
      if (!(error instanceof DeadEnd)) throw error;
      deadEnd = error.message;
    }
    if (this.bench.pumping) this.bench.switchPump(false);
    const { insideMl, insideSdMl } = this.state.contents;
    return {
      ended: deadEnd === null,
      deadEnd,
      contradictions: this.contradictions,
      booked: this.booked,
      recordOff: insideMl === null ? null : { offMl: insideMl - this.bench.liquid.insideMl, sdMl: insideSdMl },
      fold: this.fold,
      trace: this.trace,
    };
  }

  private judgeBook({ id, kind }: ProcedureStep): void {
    const { insideMl, insideSdMl } = this.state.contents;
    if (insideMl !== null) this.booked.push({ step: id, kind, offMl: insideMl - this.bench.liquid.insideMl, sdMl: insideSdMl });
  }

  private tick(step: ProcedureStep): void {
    for (const { id } of step.checks)
      if ((this.state.steps.find((each) => each.id === step.id)?.checks[id]?.mark ?? 'open') === 'open')
        this.say({ type: 'check', step: step.id, check: id, mark: 'done' });
  }

  private step(step: ProcedureStep): void {
    switch (step.kind) {
      case 'dry-test':
        this.dryTest();
        break;
      case 'fill':
        this.say({ type: 'coolant', productId: TRIAL_COOLANT, productName: 'Plain', lotId: null, lot: null });
        this.fill((volumeMl, toMark) => ({ type: 'pour', volumeMl, toMark }));
        break;
      case 'wet-run':
        this.wetRun(step);
        break;
      case 'bleed':
        this.bleed();
        break;
      case 'power':
        this.lookAgain();
        this.timers(step);
        break;
      case 'baseline':
        this.say({ type: 'baseline', reading: READING, ...(step.does.includes('measures-before') ? { before: true } : {}) });
        break;
      case 'drain':
        this.drains.drain(this.state);
        break;
      case 'rinse':
        this.rinse();
        break;
      case 'repair':
        this.findLeak();
        break;
      case 'swap':
        this.mend();
        if (step.does.includes('puts-away')) this.putAway(step);
        if (step.does.includes('changes-loop')) this.change(step);
        break;
      case 'inspect':
        this.inspect(step);
        break;
      case 'part-test':
        this.letOut();
        break;
      default:
    }
    if (step.does.includes('empties')) this.bench.liquid.empty();
    this.tick(step);
    if (step.kind === 'sign-off') {
      this.fold.push({ id: '00000000-0000-4000-8000-999999999999', seq: this.fold.events.length + 1, at: new Date(this.bench.nowMs).toISOString(), by: 'trial', body: { type: 'signed-off', remark: '' } as never }); // prettier-ignore
      return;
    }
    if (!this.say({ type: 'step-done', step: step.id })) {
      const lacks = lacksOf(this.procedure, this.state, step.id, this.bench.nowMs).map(({ why }) => why);
      throw new DeadEnd(`${step.id}: not done, ${lacks.join(', ')}`);
    }
  }

  private putAway(step: ProcedureStep): void {
    for (const { id } of this.procedure.facts?.parts ?? [])
      this.say({ type: 'swapped', step: step.id, item: id, action: 'removed', text: 'box 4', heldMl: 0 });
  }

  /** What comes out is emptied over the jug, what is wanted goes in, and the run goes on with the loop as it is now. */
  private change(step: ProcedureStep): void {
    const change = this.procedure.service?.change;
    if (!change || !this.remade) return;
    const out = change.out.map(({ id }) => id);
    const opened = openedFor(change);
    const ran = opened.length > 0 ? this.bench.takeOut(out, opened, []) : 0;
    const volumeMl = this.bench.jugMl(ran);
    if (ran > 1 && volumeMl > 0) this.say({ type: 'drained', step: step.id, volumeMl, how: 'jug', wasteId: null });
    for (const id of out) this.say({ type: 'swapped', step: step.id, item: id, action: 'removed', text: 'box 4', heldMl: 0 });
    this.tick(step);
    const entry = rebuiltEntry(this.procedure, step.id);
    const gone = [...entry.outParts, ...entry.outTubes];
    const { events } = this.fold;
    const seq = events.length + 1;
    this.bench.rebuild(change.wanted, gone);
    this.procedure = procedureAfterChange(this.procedure, this.remade(), this.state, gone);
    const at = new Date(this.bench.nowMs).toISOString();
    const made = { id: `00000000-0000-4000-8000-${String(seq).padStart(12, '0')}`, seq, at, by: 'trial', body: entry };
    this.fold = new RunFold(this.procedure).sync([...events, made]);
    this.drains.goOnWith(this.procedure);
  }

  /** A unit out of its case: over the jug until nothing comes, and what it was found to be. */
  private letOut(): void {
    const { unit } = this.procedure;
    if (!unit) return;
    const cameMl = this.bench.liquid.insideMl;
    this.bench.liquid.empty();
    this.say({ type: 'outflow', way: 'drawn-off', volumeMl: Math.max(1, this.bench.jugMl(cameMl)) });
    for (const part of [unit.pump, unit.reservoir])
      this.say({ type: 'part-test', part, tight: true, how: 'ten minutes on its own', leftMl: 0 });
  }

  private inspect(step: ProcedureStep): void {
    for (const { id } of this.procedure.service?.items ?? []) this.say({ type: 'inspected', step: step.id, item: id, findings: SOUND });
  }

  private dryTest(): void {
    const start = 50 + this.random.between(-1, 1);
    for (let minute = 0; minute <= (this.procedure.dry?.holdMinutes ?? 10) + 16; minute += 2) {
      const gauge = start - 1.2 * (1 - Math.exp((-minute * 60) / 150));
      this.say({ type: 'dry-reading', gaugeKpa: Math.round(gauge * 10) / 10, tempC: 21.4 });
      this.bench.advance(120);
    }
  }

  /** A joint drips, somewhere on the way. */
  private findLeak(): void {
    const at = this.random.pick(this.procedure.facts?.joints ?? [])?.id;
    if (at) this.say({ type: 'leak', at, when: 'after-hours', amount: 'drip', text: '' });
  }

  private mend(): void {
    for (const { eventId, mended } of this.state.leaks)
      if (mended === null) this.say({ type: 'leak-mended', leak: eventId, cause: 'tube-not-seated', fix: 'cut square, new ring, seated' });
  }

  /** What was mended is looked at once the pump has run. */
  private lookAgain(): void {
    for (const { eventId, retested } of this.state.leaks)
      if (retested === null) this.say({ type: 'leak-retested', leak: eventId, dry: true });
  }

  private timers(step: ProcedureStep): void {
    for (const { id, seconds } of step.timers) {
      this.say({ type: 'timer-started', step: step.id, timer: id });
      this.bench.advance(seconds + 20);
    }
  }

  /** Follows the fill's orders until it says that nothing more goes in. */
  private fill(entry: (volumeMl: number, toMark: boolean) => RunEventBody): void {
    for (;;) {
      const order = fillOrder(this.procedure, this.state, this.bench.nowMs);
      if (!order) throw new DeadEnd('no order without heights');
      if (order.do === 'finish') return;
      this.follow(order);
      this.obey(order, entry);
    }
  }

  private obey(order: FillOrder, entry: (volumeMl: number, toMark: boolean) => RunEventBody): void {
    switch (order.do) {
      case 'pour': {
        const before = this.bench.liquid.spilledMl;
        const { ml, toMark } = this.bench.pour(order.mostMl * this.ownShare(), order.upToMl);
        this.bench.advance(ml / 20 + 4);
        const typed = this.bench.jugMl(ml);
        if (typed > 0) this.say(entry(typed, toMark));
        // nothing had room: the level stands at the mark
        else this.say({ type: 'level', levelMl: this.bench.readLevelMl() });
        this.sayRanOver(before);
        return;
      }
      case 'shut':
        this.drains.shutForgotten();
        return;
      case 'read-level':
        this.bench.advance(5);
        this.say({ type: 'level', levelMl: this.bench.readLevelMl() });
        return;
      case 'draw-off':
        this.bench.drawOff(order.ml);
        this.say({ type: 'outflow', way: 'drawn-off', volumeMl: Math.max(1, this.bench.jugMl(order.ml)) });
        return;
      case 'pump-on':
        this.pulse(order, entry);
        return;
      case 'pump-off':
        this.pumpOff();
        return;
      default:
        throw new DeadEnd(`${this.state.current ?? ''}: ${order.do}`);
    }
  }

  private pumpOff(): void {
    const before = this.bench.liquid.spilledMl;
    this.bench.switchPump(false);
    this.say({ type: 'pump', on: false });
    this.sayRanOver(before);
  }

  /** What ran over the lid is seen, and judged by the towel. */
  private sayRanOver(beforeMl: number): void {
    const ml = this.bench.liquid.spilledMl - beforeMl;
    if (ml > 1) this.say({ type: 'outflow', way: 'ran-over', volumeMl: Math.max(1, Math.round(ml * this.random.between(0.6, 1.4))) });
  }

  /** Now and then a hand does less than it was told: a bottle is empty, somebody calls. */
  private ownShare(): number {
    return this.random.next() < TRIAL.ownIdeaShare ? this.random.between(...TRIAL.doesShare) : 1;
  }

  private pulse(order: FillOrder & { do: 'pump-on' }, entry: (volumeMl: number, toMark: boolean) => RunEventBody): void {
    const body: RunEventBody = { type: 'pump', on: true, ...(order.speed === null ? {} : { speed: order.speed }) };
    const isTaken = this.say(body);
    if (!isTaken) throw new DeadEnd(`${this.state.current ?? ''}: pump refused, ${this.contradictions.at(-1)}`);
    this.bench.setSpeed(order.speed);
    this.bench.switchPump(true);
    if (order.pour === null) {
      // eyes stay on the level: at the low mark a hand goes to the switch
      const runS = order.runS * this.ownShare();
      for (let ran = 0; ran < runS; ran += TRIAL.stepS) {
        this.bench.advance(TRIAL.stepS);
        if (this.bench.liquid.shownMl(true) <= order.offAtMl) break;
      }
      this.bench.advance(TRIAL.lateS * this.random.next());
    } else {
      let poured = 0;
      for (let ran = 0; ran < MOST_POUR_S && !this.bench.liquid.circulating; ran += 1) {
        this.bench.advance(1);
        poured += this.bench.pour(TRIAL.pourMlPerS, order.pour.upToMl).ml;
        if (this.bench.liquid.shownMl(true) <= this.bench.lowMarkMl) break;
      }
      const typed = this.bench.jugMl(poured);
      if (typed > 0) this.say(entry(typed, true));
    }
    const cameBack = this.bench.liquid.circulating;
    this.pumpOff();
    if (cameBack) this.sayReturned();
  }

  private sayReturned(): void {
    if (this.state.contents.standing?.isRound !== true) this.say({ type: 'returned' });
  }

  /** Only the pump runs; the level is looked at as often as the screen says, and topped up in time. */
  private wetRun(step: ProcedureStep): void {
    for (const { id, seconds } of step.timers) {
      let left = seconds;
      for (let stops = 0; left > 0; stops += 1) {
        if (stops > 40) throw new DeadEnd(`${step.id}: the level never stays`);
        if (!this.say({ type: 'timer-started', step: step.id, timer: id })) throw new DeadEnd(`${step.id}: ${this.contradictions.at(-1)}`);
        this.bench.setSpeed(null);
        this.bench.switchPump(true);
        left = seconds + 5;
        while (left > 0) {
          // as often as the screen says
          const look = Math.min(levelWatch(this.procedure, this.state, this.bench.nowMs)?.everyS ?? left, left);
          this.bench.advance(look);
          left -= look;
          if (this.bench.liquid.shownMl(true) < (this.bench.lowMarkMl + this.bench.fillMarkMl) / 2) break;
        }
        if (left <= 0) break;
        this.bench.switchPump(false);
        this.say({ type: 'timer-stopped', step: step.id, timer: id });
        this.topUp();
      }
      // the pump goes on into the bleeding
      if (this.bench.pumping) this.bench.switchPump(false);
      this.say({ type: 'pump', on: false });
    }
  }

  private topUp(): void {
    this.say({ type: 'level', levelMl: this.bench.readLevelMl() });
    for (let n = 0; n < 6; n += 1) {
      const order = fillOrder(this.procedure, this.state, this.bench.nowMs);
      if (!order || !['shut', 'pour', 'read-level', 'draw-off'].includes(order.do)) return;
      this.follow(order);
      this.obey(order, (volumeMl, toMark) => ({ type: 'pour', volumeMl, toMark }));
    }
  }

  private bleed(): void {
    for (let cycle = 0; cycle < 40; cycle += 1) {
      if (!this.say({ type: 'pump', on: true })) throw new DeadEnd(`bleed: ${this.contradictions.at(-1)}`);
      this.bench.setSpeed(null);
      this.bench.switchPump(true);
      // as long as the level may be left alone
      this.bench.advance(Math.min(300, levelWatch(this.procedure, this.state, this.bench.nowMs)?.everyS ?? 300));
      const runningMm = Math.round(this.bench.levelMm * 2) / 2;
      this.pumpOff();
      this.bench.advance(20);
      const stoppedMm = Math.round(this.bench.levelMm * 2) / 2;
      this.say({ type: 'bleed-cycle', runningMm, stoppedMm, bubbles: this.bench.liquid.looseGasMl > 6, noise: false });
      if (this.bench.liquid.reservoirMl < this.bench.fillMarkMl - 30) this.topUp();
      if (lacksOf(this.procedure, this.state, 'bleed', this.bench.nowMs).every(({ why }) => why === 'checks-open')) return;
    }
    throw new DeadEnd('bleed: never bled');
  }

  private rinse(): void {
    const first = this.procedure.service && rinseStandOf(this.procedure.service);
    if (!first) return;
    for (let n = 0; n < 30; n += 1) {
      this.fill((volumeMl, toMark) => ({ type: 'rinse', step: 'rinse', liquid: 'distilled', volumeMl, toMark }));
      this.drains.openAndDrain(first, true, 'rinse');
      this.say({ type: 'water', step: 'rinse', ph: 6.9, clarity: 'clear' });
      if (lacksOf(this.procedure, this.state, 'rinse', this.bench.nowMs).every(({ why }) => why === 'checks-open')) return;
    }
    throw new DeadEnd('rinse: never thin enough');
  }
}
