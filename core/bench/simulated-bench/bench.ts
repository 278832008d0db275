import { say } from '../../base/words/say.js';
import { liquidAt, type Liquid } from '../../machine/liquids/fluids.js';
import { pumpsWithoutCurve } from '../../physics/flow/network.js';
import { vesselsWithoutBox } from '../../physics/geometry/network.js';
import type { JobKind } from '../../workshop/job-kinds/kinds.js';
import { STANDING, type StandingName } from '../../machine/loop-file/orientation.js';
import { uncoverAngles, type UncoverAngle } from '../../physics/filling/outletAngle.js';
import type { InstrumentKind } from '../instruments/kinds.js';
import { MOST_GAUGE_KPA, WORKING_KPA } from '../../physics/leak-testing/defaults.js';
import { liquidMlPerDay } from '../../physics/leak-testing/decay.js';
import { partName, type LoopComponent, type LoopFile } from '../../machine/loop-file/loopFile.js';
import { reservoirMarks } from '../../machine/loop-file/marks.js';
import { loopVolume } from '../../machine/loop-file/volume.js';
import { seededRandom, type Random } from '../../base/random/random.js';
import { STANDARD_ATMOSPHERE_KPA } from '../../base/units/physics.js';
import { AirInside } from './airInside.js';
import { SIMULATED } from './defaults.js';
import { HeatInside } from './heatInside.js';
import { isServiceMove, type HandMove, type ServiceMove } from './hands.js';
import { LiquidInside } from './liquidInside.js';
import { OldInside } from './oldInside.js';
import { OpenPlaces } from './openPlaces.js';
import { ServiceHands } from './serviceHands.js';
import type { BenchReport, Happening } from './report.js';
import { instrumentsWith, readInstruments } from './instruments.js';
import { brushed, felt, lookedAround } from './senses.js';
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
  private readonly places: OpenPlaces;
  private readonly hands: ServiceHands;
  /** null: nothing was inside when it began */
  private readonly old: OldInside | null;
  private readonly startMl: number;
  /** mL that left with parts and onto towels, where a loop was taken apart */
  private takenMl = 0;
  /** mL drawn off and put aside */
  private drawnMl = 0;
  private seconds = 0;
  private supplyOn = false;
  private stand: { to: StandingName; angleDeg: number; sinceS: number } = { to: 'upright', angleDeg: 0, sinceS: 0 };
  private readonly heat: HeatInside;
  private canG: number = SIMULATED.canG;
  private pouredMl = 0;
  private leakedMl = 0;
  private seenMl = 0;
  /** mL that a hand is still pouring while the pump runs */
  private pouringMl = 0;
  /** what is poured comes out of a jug, and the can on its scale keeps its weight */
  private byJug = false;
  /** hands have poured something that no entry says yet */
  private isUnsaid = false;
  private leakMended = false;
  /** it does not leak yet: nobody has opened a joint */
  private leakRests: boolean;
  private narrowCleared = false;
  private pumpStarts = 0;
  private startsBeforeReturn = 0;
  private dryS = 0;
  private dryFrom: string | null = null;

  /**
   * Before: `cannotSimulate` has nothing against the loop.
   * @param job the service that it came for: it is filled and bled then, a little below its mark. null: dry
   */
  constructor(
    private readonly loop: LoopFile,
    private readonly truth: HiddenTruth,
    coolant: Liquid,
    private nowMs: number,
    seed: number,
    job: JobKind | null = null,
  ) {
    const real = hiddenLoop(loop, truth);
    this.reservoir = real.components.find(({ kind }) => kind === 'reservoir') as LoopComponent;
    const fluid = liquidAt(coolant, SIMULATED.roomC);
    this.densityKgL = fluid.densityKgM3 / 1000;
    const wholeMl = loopVolume(real).volumeMl;
    this.liquid = new LiquidInside(real, this.reservoir, fluid, coolant, wholeMl, truth.pocket?.ml ?? 0);
    this.heat = new HeatInside(real, fluid);
    this.air = new AirInside(() => wholeMl - this.liquid.insideMl);
    this.random = seededRandom(seed ^ 0x5eed);
    const box = this.reservoir.box as NonNullable<LoopComponent['box']>;
    this.areaMm2 = (this.reservoir.volume_ml * 1000) / (box.max[1] - box.min[1]);
    const marks = reservoirMarks(this.reservoir);
    this.fillMarkMl = marks.fillMarkMl;
    this.uncovers = uncoverAngles(this.reservoir, marks.lowMarkMl);
    if (job !== null) this.liquid.fillToMark(truth.lowMl ?? 0);
    this.startMl = this.liquid.insideMl;
    this.old = job === null ? null : new OldInside(this.standing);
    this.places = new OpenPlaces(this.liquid);
    this.hands = new ServiceHands(real, truth, this.liquid, this.places, this.old, this.random);
    // a repair is for what drips on arrival; any other leak comes of what was opened
    this.leakRests = job !== null && job !== 'leak-repair';
    if (job === 'leak-repair') this.seenMl = SIMULATED.seenFromMl;
  }

  private get standing(): { reservoirMl: number; wayMl: number } {
    return { reservoirMl: this.liquid.reservoirMl, wayMl: this.liquid.onTheWayMl };
  }

  get now(): string {
    return new Date(this.nowMs).toISOString();
  }

  private get roomC(): number {
    return SIMULATED.roomC + SIMULATED.roomSwingK * Math.sin((2 * Math.PI * this.seconds) / SIMULATED.roomPeriodS);
  }

  private get flows(): boolean {
    // a machine under load runs its own pump
    return (this.supplyOn || this.heat.isLoaded) && this.liquid.circulating && this.dryFrom === null;
  }

  /** Instruments that speak here: a machine says nothing of parts that it does not have. */
  get instruments(): readonly InstrumentKind[] {
    return instrumentsWith(this.heat.parts);
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
      this.old?.follow(this.standing);
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
    const leak = this.truth.leak && !this.leakMended && !this.leakRests ? this.truth.leak : null;
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
      this.old?.follow(this.standing);
      if (this.liquid.circulating) this.old?.mix();
    }
    this.heat.advance(step, {
      roomC: this.roomC,
      insideMl: this.liquid.insideMl,
      pumping: this.supplyOn || this.heat.isLoaded,
      flows: this.flows,
      slowed: this.liquid.slowed,
    });
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
    this.old?.follow(this.standing);
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
    if (isServiceMove(move)) return this.serve(move);
    switch (move.do) {
      case 'pump-up':
        return this.pumpUp(move.gaugeKpa);
      case 'pour': {
        if (this.isOnlySaid(move)) return null;
        this.air.letOut();
        this.pouringMl = move.ml;
        // with the pump running the bottle empties at a hand's pace; otherwise nothing moves meanwhile
        if (this.supplyOn) return null;
        return this.pourStanding(move.ml, move.toMark === true) ? tell(say('It runs over the fill port.')) : this.letRun('open-port');
      }
      case 'turn':
        this.stand = { to: move.angleDeg > 0 ? move.to : 'upright', angleDeg: move.angleDeg, sinceS: this.seconds };
        return this.letRun('turn');
      case 'port':
        if (!move.open) return this.serve({ do: 'shut', openings: [move.port] });
        return this.openUp([move.port], false);
      case 'open':
        return this.openUp(move.openings, move.jug);
      default:
        this.adjust(move);
        return null;
    }
  }

  /** An entry about what hands poured before it moves nothing; what they pour else is not written down yet. */
  private isOnlySaid({ said }: Extract<HandMove, { do: 'pour' }>): boolean {
    const isOnly = said === true && this.isUnsaid;
    this.isUnsaid = said !== true;
    this.byJug = said === true;
    return isOnly;
  }

  /** Moves of which nothing is noticed at once. */
  private adjust(move: Extract<HandMove, { do: 'let-out' | 'knock' | 'mend' | 'clear' | 'speed' | 'draw' | 'load' | 'skip' }>): void {
    switch (move.do) {
      case 'let-out':
        return this.air.letOut();
      case 'knock':
        return this.liquid.free(0.15);
      case 'mend':
        return this.mend(move.at);
      case 'clear':
        return this.clear(move.why);
      case 'speed':
        return this.liquid.setSpeed(move.speed);
      case 'draw':
        return this.draw(move);
      case 'load':
        return this.heat.load(move.on);
      case 'skip':
        return this.advance(move.seconds);
    }
  }

  private pumpUp(gaugeKpa: number): Seen {
    if (!this.places.none) return { at: this.now, text: say('Air comes out again: something is open.') };
    this.air.pumpUp(gaugeKpa, this.roomC);
    if (gaugeKpa > MOST_GAUGE_KPA) this.happenings.push({ at: this.now, what: 'too-much-pressure', gaugeKpa });
    return null;
  }

  private serve(move: ServiceMove): Seen {
    const before = this.liquid.insideMl;
    const text = this.hands.act(move);
    const gone = before - this.liquid.insideMl;
    if (move.do === 'take-apart') this.takenMl += gone;
    if (move.do === 'take-apart' || (move.do === 'shut' && move.openings?.some((each) => /\.(from|to)$/.test(each))))
      this.leakRests = false;
    this.old?.follow(this.standing);
    return text === null ? null : { at: this.now, text };
  }

  private openUp(openings: readonly string[], jug: boolean): Seen {
    this.air.letOut();
    for (const each of openings) this.places.openUp(each, jug);
    return this.letRun('open-port');
  }

  /** What can leave by what stands open, leaves; a running pump is left alone until the case lies. */
  private letRun(by: 'turn' | 'open-port'): Seen {
    if (this.supplyOn && by !== 'turn') return null;
    const { intoJugMl, besideMl } = this.places.run(this.stand);
    this.liquid.spilledMl += besideMl;
    if (besideMl > 0.05) this.happenings.push({ at: this.now, what: 'spilled', ml: besideMl, by });
    this.old?.follow(this.standing);
    if (intoJugMl > 0) this.hands.rinsed();
    if (besideMl > 0.05) return { at: this.now, text: say('Liquid runs out of an open port.') };
    return intoJugMl > 0 ? { at: this.now, text: say('It ran into the jug, and has stopped.') } : null;
  }

  private sense(move: Sensing): string {
    const leak = this.leakMended ? null : this.truth.leak;
    if (move.do === 'brush') return brushed(leak, this.air.closed, move.joint);
    if (move.do === 'feel') return felt(this.narrowCleared ? null : this.truth.narrow, move.at);
    const dropAt = leak && this.seenMl >= SIMULATED.seenFromMl ? leak.place : null;
    const bubblesMl = this.liquid.circulating && this.supplyOn ? this.liquid.looseGasMl : 0;
    return lookedAround(dropAt, bubblesMl, this.supplyOn && this.dryFrom !== null);
  }

  private draw({ ml, at, jug }: Extract<HandMove, { do: 'draw' }>): void {
    const came =
      at === undefined
        ? this.liquid.lose(ml)
        : this.liquid.openUntil(STANDING.upright, { open: this.places.names, drains: [at], closed: [] }, ml);
    if (jug) this.places.catch(came);
    else this.drawnMl += came;
    this.old?.follow(this.standing);
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
    this.old?.follow(this.standing, ml);
    this.pouredMl += ml;
    this.pouringMl = Math.max(0, this.pouringMl - ml);
    if (!this.byJug) this.canG -= ml * this.densityKgL;
    this.noteSpill(before, 'overflow');
    return this.liquid.spilledMl > before + 0.05;
  }

  /** The cause that was named is put right, if it was that one: the flow is as it should be. */
  private clear(why: 'kink' | 'choked'): void {
    if (this.truth.narrow?.why !== why || this.narrowCleared) return;
    this.narrowCleared = true;
    const wide = hiddenLoop(this.loop, { ...this.truth, narrow: null });
    this.liquid.widened(wide, this.reservoir.id);
    this.heat.widened(wide);
    this.happenings.push({ at: this.now, what: 'cleared' });
  }

  /** Readings of this moment; null for an instrument that is silent. */
  readings(): Record<InstrumentKind, number | null> {
    const shownMl = Math.max(0, this.liquid.shownMl(this.supplyOn));
    const now = {
      gaugeKpa: this.air.gaugeKpa(this.roomC),
      closed: this.air.closed,
      levelMm: (shownMl * 1000) / this.areaMm2,
      flowLph: this.flows ? this.liquid.steadyLph * this.liquid.slowed : 0,
      coolantC: this.heat.coolantC,
      roomC: this.roomC,
      canG: this.canG,
      supplyOn: this.supplyOn,
      parts: this.heat.shown(),
    };
    return readInstruments(now, this.truth, this.seconds, this.random);
  }

  report(): BenchReport {
    this.endDry();
    return {
      truth: this.truth,
      pouredMl: this.pouredMl,
      insideMl: this.liquid.insideMl,
      spilledMl: this.liquid.spilledMl,
      leakedMl: this.leakedMl,
      startMl: this.startMl,
      caughtMl: this.places.caughtMl,
      takenMl: this.takenMl,
      drawnMl: this.drawnMl,
      oldMl: this.old?.oldMl ?? 0,
      soaks: this.hands.soaks,
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
