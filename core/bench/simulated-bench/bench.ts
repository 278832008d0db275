import { SEEN_AT } from '../leak-finding/hiddenCauses.js';
import { liquidAt, type Liquid } from '../../machine/liquids/fluids.js';
import { pumpsWithoutCurve } from '../../physics/flow/network.js';
import { vesselsWithoutBox } from '../../physics/geometry/network.js';
import type { StandingName } from '../../machine/loop-file/orientation.js';
import { uncoverAngles, type UncoverAngle } from '../../physics/filling/outletAngle.js';
import { INSTRUMENT_KEYS, type InstrumentKind } from '../instruments/kinds.js';
import { MOST_GAUGE_KPA, WORKING_KPA } from '../../physics/leak-testing/defaults.js';
import { liquidMlPerDay } from '../../physics/leak-testing/decay.js';
import { partName, type LoopComponent, type LoopFile } from '../../machine/loop-file/loopFile.js';
import { reservoirMarks } from '../../machine/loop-file/marks.js';
import { loopVolume } from '../../machine/loop-file/volume.js';
import { seededRandom, type Random } from '../../base/random/random.js';
import { STANDARD_ATMOSPHERE_KPA } from '../../base/units/physics.js';
import { AirInside } from './airInside.js';
import { SIMULATED } from './defaults.js';
import type { HandMove } from './hands.js';
import { LiquidInside } from './liquidInside.js';
import type { BenchReport, Happening } from './report.js';
import { hiddenLoop, type HiddenTruth } from './truth.js';

type Sensing = Extract<HandMove, { do: 'brush' | 'look' | 'feel' }>;
/** moves that change nothing: they only tell */
const isSensing = (move: HandMove): move is Sensing => ['brush', 'look', 'feel'].includes(move.do);

/** What eyes and ears notice after a move, or null where there is nothing to tell. */
export type Seen = { readonly at: string; readonly text: string } | null;

/** Why a loop cannot be simulated, in words; null when it can. */
export function cannotSimulate(loop: LoopFile): string | null {
  const reservoirs = loop.components.filter(({ kind }) => kind === 'reservoir');
  if (reservoirs.length !== 1) return 'a simulated bench fills from exactly one reservoir; this file has ' + String(reservoirs.length);
  const open = vesselsWithoutBox(loop);
  if (open.length > 0) return `${open.map(partName).join(', ')}: outer measures are missing`;
  if (!loop.components.some(({ kind }) => kind === 'pump')) return 'there is no pump in this loop';
  const bare = pumpsWithoutCurve(loop);
  return bare.length > 0 ? `${bare.map(partName).join(', ')}: the pump’s curve is missing` : null;
}

/**
 * A bench that plays a loop from hidden parameters: volumes off by their uncertainty, a leak or none, a weak pump, a
 * stubborn pocket, a noisy gauge, an instrument that falls silent. Time moves by `advance` only; the same calls give
 * the same readings.
 */
export class SimulatedBench {
  private readonly air: AirInside;
  private readonly liquid: LiquidInside;
  private readonly random: Random;
  private readonly reservoir: LoopComponent;
  private readonly uncovers: readonly UncoverAngle[];
  private readonly densityKgL: number;
  private readonly areaMm2: number;
  private readonly fillMarkMl: number;
  private readonly happenings: Happening[] = [];
  private readonly openPorts = new Set<string>();
  private seconds = 0;
  private supplyOn = false;
  private stand: { to: StandingName; angleDeg: number; sinceS: number } = { to: 'upright', angleDeg: 0, sinceS: 0 };
  private coolantC: number = SIMULATED.roomC;
  private canG: number = SIMULATED.canG;
  private pouredMl = 0;
  private leakedMl = 0;
  private seenMl = 0;
  /** mL that a hand is still pouring while the pump runs */
  private pouringMl = 0;
  private leakMended = false;
  private narrowCleared = false;
  private pumpStarts = 0;
  private startsBeforeReturn = 0;
  private dryS = 0;
  private dryFrom: string | null = null;

  /** Before: `cannotSimulate` has nothing against the loop. */
  constructor(
    private readonly loop: LoopFile,
    private readonly truth: HiddenTruth,
    coolant: Liquid,
    private nowMs: number,
    seed: number,
  ) {
    const real = hiddenLoop(loop, truth);
    this.reservoir = real.components.find(({ kind }) => kind === 'reservoir') as LoopComponent;
    const fluid = liquidAt(coolant, SIMULATED.roomC);
    this.densityKgL = fluid.densityKgM3 / 1000;
    const wholeMl = loopVolume(real).volumeMl;
    this.liquid = new LiquidInside(real, this.reservoir, fluid, coolant, wholeMl, truth.pocket?.ml ?? 0);
    this.air = new AirInside(() => wholeMl - this.liquid.insideMl);
    this.random = seededRandom(seed ^ 0x5eed);
    const box = this.reservoir.box as NonNullable<LoopComponent['box']>;
    this.areaMm2 = (this.reservoir.volume_ml * 1000) / (box.max[1] - box.min[1]);
    const marks = reservoirMarks(this.reservoir);
    this.fillMarkMl = marks.fillMarkMl;
    this.uncovers = uncoverAngles(this.reservoir, marks.lowMarkMl);
  }

  get now(): string {
    return new Date(this.nowMs).toISOString();
  }

  private get roomC(): number {
    return SIMULATED.roomC + SIMULATED.roomSwingK * Math.sin((2 * Math.PI * this.seconds) / SIMULATED.roomPeriodS);
  }

  /** Runs the supply's switch. */
  switchSupply(on: boolean): void {
    if (on === this.supplyOn) return;
    this.supplyOn = on;
    if (on) {
      this.pumpStarts += 1;
      if (!this.liquid.circulating) this.startsBeforeReturn += 1;
    } else {
      this.pouringMl = 0;
      const before = this.liquid.spilledMl;
      this.liquid.stop();
      this.noteSpill(before, 'overflow');
      this.endDry();
    }
  }

  get pumping(): boolean {
    return this.supplyOn;
  }

  /** Lets time pass. Fine steps while a front moves or air is drawn, coarse ones otherwise. */
  advance(seconds: number): void {
    let left = seconds;
    while (left > 1e-9) {
      const fine = this.pouringMl > 0 || (this.supplyOn && (!this.liquid.circulating || this.dryFrom !== null));
      const step = Math.min(left, fine ? SIMULATED.stepS : SIMULATED.slowStepS);
      this.pass(step);
      left -= step;
    }
  }

  private pass(step: number): void {
    this.seconds += step;
    this.nowMs += step * 1000;
    const leak = this.truth.leak && !this.leakMended ? this.truth.leak : null;
    this.air.advance(step, leak?.mbarLs ?? 0);
    // a hand that pours beside a running pump pours as it draws, and never above the mark
    if (this.pouringMl > 0) {
      const room = this.supplyOn ? Math.max(0, this.fillMarkMl - this.liquid.shownMl(true)) : this.pouringMl;
      this.pourNow(Math.min(this.pouringMl, SIMULATED.pourMlPerS * step, room));
    }
    if (leak && this.liquid.insideMl > 0) this.weep(step, leak.mbarLs);
    if (this.supplyOn) {
      const tilted = this.drawsAirTurned();
      const before = this.liquid.circulating;
      const dry = tilted ? step : this.liquid.run(step);
      if (this.liquid.circulating && !before) this.happenings.push({ at: this.now, what: 'circulating' });
      if (dry > 0) {
        this.dryFrom ??= this.now;
        this.dryS += dry;
      } else this.endDry();
    }
    const heatingW = this.supplyOn ? SIMULATED.pumpHeatW : 0;
    const tauS = (4180 * Math.max(0.2, this.liquid.insideMl / 1000)) / SIMULATED.coolingWPerK;
    const target = this.roomC + heatingW / SIMULATED.coolingWPerK;
    this.coolantC += (target - this.coolantC) * (1 - Math.exp(-step / tauS));
    this.releaseByTurn();
  }

  /** A laminar path lets liquid out with the pressure that stands on it; standing, about a tenth of running. */
  private weep(step: number, mbarLs: number): void {
    const perDay = liquidMlPerDay(
      mbarLs,
      50 + STANDARD_ATMOSPHERE_KPA,
      STANDARD_ATMOSPHERE_KPA,
      this.supplyOn ? WORKING_KPA : WORKING_KPA / 10,
    );
    const gone = this.liquid.lose((perDay * step) / 86_400);
    this.leakedMl += gone;
    this.seenMl += gone;
  }

  private drawsAirTurned(): boolean {
    const uncover = this.uncovers.find(({ towards }) => towards === this.stand.to)?.angleDeg ?? null;
    return uncover !== null && this.stand.angleDeg >= uncover;
  }

  private endDry(): void {
    if (this.dryFrom === null) return;
    this.happenings.push({ at: this.dryFrom, what: 'ran-dry', seconds: this.dryS });
    this.dryFrom = null;
    this.dryS = 0;
  }

  private releaseByTurn(): void {
    const { pocket } = this.truth;
    if (!pocket || this.liquid.pocketMl <= 0 || !this.liquid.circulating) return;
    const held = this.seconds - this.stand.sinceS >= SIMULATED.turnHoldS;
    if (this.stand.to !== pocket.to || this.stand.angleDeg < SIMULATED.turnDeg || !held) return;
    const ml = this.liquid.pocketMl;
    this.liquid.freePocket();
    this.happenings.push({ at: this.now, what: 'pocket-freed', ml });
  }

  private noteSpill(beforeMl: number, by: 'overflow' | 'turn' | 'open-port'): void {
    const ml = this.liquid.spilledMl - beforeMl;
    if (ml > 0.05) this.happenings.push({ at: this.now, what: 'spilled', ml, by });
  }

  /** Hands move. What can be noticed comes back in words. */
  act(move: HandMove): Seen {
    const tell = (text: string): Seen => ({ at: this.now, text });
    if (isSensing(move)) return tell(this.sense(move));
    switch (move.do) {
      case 'pump-up': {
        if (this.openPorts.size > 0) return tell('Air comes out again: something is open.');
        this.air.pumpUp(move.gaugeKpa, this.roomC);
        if (move.gaugeKpa > MOST_GAUGE_KPA) this.happenings.push({ at: this.now, what: 'too-much-pressure', gaugeKpa: move.gaugeKpa });
        return null;
      }
      case 'let-out':
        this.air.letOut();
        return null;
      case 'pour': {
        this.air.letOut();
        this.pouringMl = move.ml;
        // with the pump running the bottle empties at a hand's pace; otherwise nothing moves meanwhile
        if (this.supplyOn) return null;
        return this.pourStanding(move.ml, move.toMark === true) ? tell('It runs over the fill port.') : null;
      }
      case 'knock':
        this.liquid.free(0.15);
        return null;
      case 'turn':
        return this.turn(move.to, move.angleDeg) ? tell('Liquid runs out of an open port.') : null;
      case 'port':
        if (move.open) {
          this.openPorts.add(move.port);
          this.air.letOut();
        } else this.openPorts.delete(move.port);
        return null;
      case 'mend':
      case 'clear':
        this.putRight(move);
        return null;
      case 'speed':
      case 'draw':
        this.setOrDraw(move);
        return null;
      case 'skip':
        this.advance(move.seconds);
        return null;
    }
  }

  private putRight(move: Extract<HandMove, { do: 'mend' | 'clear' }>): void {
    if (move.do === 'mend') this.mend(move.at);
    else this.clear(move.why);
  }

  private sense(move: Sensing): string {
    if (move.do === 'look') return this.look();
    return move.do === 'brush' ? this.brush(move.joint) : this.feel(move.at);
  }

  private setOrDraw(move: Extract<HandMove, { do: 'speed' | 'draw' }>): void {
    if (move.do === 'speed') this.liquid.setSpeed(move.speed);
    else this.liquid.lose(move.ml);
  }

  private mend(at: string): void {
    if (this.truth.leak?.place === at && !this.leakMended) {
      this.leakMended = true;
      this.seenMl = 0;
      this.happenings.push({ at: this.now, what: 'leak-mended' });
    }
    this.air.letOut();
  }

  /** The pump stands: in small gulps, with an eye on the mark where it counts. @returns whether it ran over */
  private pourStanding(ml: number, toMark: boolean): boolean {
    if (!toMark) return this.pourNow(ml);
    while (this.pouringMl > 0 && this.liquid.reservoirMl < this.fillMarkMl) this.pourNow(Math.min(this.pouringMl, SIMULATED.gulpMl));
    this.pouringMl = 0;
    return false;
  }

  /** @returns whether it ran over */
  private pourNow(ml: number): boolean {
    const before = this.liquid.spilledMl;
    this.liquid.pour(ml);
    this.pouredMl += ml;
    this.pouringMl = Math.max(0, this.pouringMl - ml);
    this.canG -= ml * this.densityKgL;
    this.noteSpill(before, 'overflow');
    return this.liquid.spilledMl > before + 0.05;
  }

  private brush(joint: string): string {
    const { leak } = this.truth;
    if (!this.air.closed) return 'No bubbles: there is no pressure in the loop.';
    if (!leak || this.leakMended || leak.place !== joint) return `No bubbles at ${joint}.`;
    return `Bubbles at ${joint}. ${SEEN_AT[leak.cause]}`;
  }

  private feel(at: string): string {
    const narrow = this.narrowCleared ? null : this.truth.narrow;
    if (narrow?.place !== at) return `Nothing out of the way at ${at}.`;
    return narrow.why === 'kink' ? `Pinched flat at ${at}.` : `Hardly anything comes through at ${at}.`;
  }

  /** The cause that was named is put right, if it was that one: the flow is as it should be. */
  private clear(why: 'kink' | 'choked'): void {
    if (this.truth.narrow?.why !== why || this.narrowCleared) return;
    this.narrowCleared = true;
    this.liquid.widened(hiddenLoop(this.loop, { ...this.truth, narrow: null }), this.reservoir.id);
    this.happenings.push({ at: this.now, what: 'cleared' });
  }

  private look(): string {
    const { leak } = this.truth;
    const drops = leak && !this.leakMended && this.seenMl >= SIMULATED.seenFromMl;
    const gas = this.liquid.circulating && this.supplyOn ? this.liquid.looseGasMl : 0;
    return [
      drops ? `A drop on the towel under ${leak.place}.` : 'Every towel is dry.',
      ...(gas > 3 ? ['Bubbles come back at the return.'] : []),
      ...(this.supplyOn && this.dryFrom !== null ? ['The pump rattles.'] : []),
    ].join(' ');
  }

  /** @returns whether something ran out */
  private turn(to: StandingName, angleDeg: number): boolean {
    this.stand = { to: angleDeg > 0 ? to : 'upright', angleDeg, sinceS: this.seconds };
    if (angleDeg < 20 || this.openPorts.size === 0 || this.liquid.insideMl <= 0) return false;
    const before = this.liquid.spilledMl;
    this.liquid.spill(0.5 * this.liquid.reservoirMl);
    this.noteSpill(before, 'turn');
    return this.liquid.spilledMl > before;
  }

  /** Readings of this moment; null for an instrument that is silent. */
  readings(): Record<InstrumentKind, number | null> {
    const noisy = (value: number, sd: number, step: number): number => Math.round((value + sd * this.random.normal()) / step) * step;
    const { dropout } = this.truth;
    const shown = Math.max(0, this.liquid.shownMl(this.supplyOn));
    const flow = this.supplyOn && this.liquid.circulating && this.dryFrom === null ? this.liquid.steadyLph * this.liquid.slowed : 0;
    const all: Record<InstrumentKind, number> = {
      gauge: noisy(this.air.gaugeKpa(this.roomC), this.air.closed ? SIMULATED.gaugeNoiseKpa : 0, this.truth.gaugeStepKpa),
      level: noisy((shown * 1000) / this.areaMm2, shown > 0 ? SIMULATED.levelNoiseMm : 0, 0.1),
      flow: Math.max(0, noisy(flow, flow * SIMULATED.flowNoiseShare, 1)),
      'coolant-temp': noisy(this.coolantC, SIMULATED.tempNoiseK, 0.1),
      'room-temp': noisy(this.roomC, SIMULATED.tempNoiseK, 0.1),
      scale: noisy(this.canG, SIMULATED.scaleNoiseG, 1),
      supply: this.supplyOn ? 1 : 0,
    };
    const silent = (kind: InstrumentKind): boolean =>
      dropout?.kind === kind && this.seconds >= dropout.fromS && this.seconds < dropout.fromS + dropout.forS;
    return Object.fromEntries(INSTRUMENT_KEYS.map((kind) => [kind, silent(kind) ? null : Number(all[kind].toFixed(2))])) as Record<
      InstrumentKind,
      number | null
    >;
  }

  report(): BenchReport {
    this.endDry();
    return {
      truth: this.truth,
      pouredMl: this.pouredMl,
      insideMl: this.liquid.insideMl,
      spilledMl: this.liquid.spilledMl,
      leakedMl: this.leakedMl,
      gasMl: this.liquid.gasMl,
      pocketMl: this.liquid.pocketMl,
      leakMended: this.leakMended,
      narrowCleared: this.narrowCleared,
      pumpStarts: this.pumpStarts,
      startsBeforeReturn: this.startsBeforeReturn,
      happenings: this.happenings,
    };
  }
}
