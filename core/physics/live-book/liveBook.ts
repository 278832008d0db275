import { jugSdMl, MEASURED } from '../measuring/errors.js';
import type { Tilt } from '../../machine/loop-file/orientation.js';
import type { OpeningSetup } from '../draining/openings.js';
import { totalMl } from '../contents/contents.js';
import { copyOf, type LiquidTwin, type Wetted } from './liquidTwin.js';

/** Where what is inside stands: likely, from what was poured, pumped, read and drained. */
export interface Standing {
  /** mL in the reservoir, with its standard deviation */
  reservoirMl: number;
  reservoirSdMl: number;
  /** mL on the way, cell by cell of the front's path */
  wettedMl: number[];
}

/** What is inside one loop, as far as it can be told. Plain data: it is stored, copied and sent. */
export interface LoopContents {
  /** version of what the figures were carried with */
  readonly engine: number;
  /** mL inside, by what went in and came out; null: nobody knows */
  insideMl: number | null;
  insideSdMl: number;
  /** null: heights, curves or the contents are not known, so that only volumes are told */
  standing: Standing | null;
  /** the level was read, or poured up to the mark, and nothing moved since */
  isLevelRead: boolean;
  /** the running pump, carried up to this instant (ms); null: it stands */
  pump: { carriedMs: number; slowed: number } | null;
  /** mL that ran over by the twin's reckoning */
  overMl: number;
}

export const BOOK_ENGINE = 1;

/** What the twin's own figures are off by when liquid moves unseen (estimates). */
export const BOOK = {
  /** share of what a pump moves: its head by 15 %, losses and volumes on the way */
  pumpedSdShare: 0.2,
  /** share of what fills by itself or falls back: volumes of the parts */
  settledSdShare: 0.2,
  /** share of the way that keeps or gives gas once liquid goes round */
  gasSdShare: 0.03,
  /** mL and share by which the reservoir's rest after a drain is off */
  drainedSdMl: 8,
  drainedSdShare: 0.15,
  /** mL and share that may go unseen while a part is taken out or something leaks */
  lostSdShare: MEASURED.judgedSdShare,
} as const;

/** Nothing is inside, and that is known. */
export const dryContents = (twin: LiquidTwin | null): LoopContents => ({
  engine: BOOK_ENGINE,
  insideMl: 0,
  insideSdMl: 0,
  standing: twin && { reservoirMl: 0, reservoirSdMl: 0, wettedMl: Array.from(twin.empty().wettedMl) },
  isLevelRead: twin !== null,
  pump: null,
  overMl: 0,
});

/** A loop that stands at its mark, filled some day; null where nobody knows what is inside. */
export const filledContents = (
  twin: LiquidTwin | null,
  inside: { readonly volumeMl: number; readonly sdMl: number } | null,
): LoopContents => ({
  ...dryContents(null),
  insideMl: inside?.volumeMl ?? null,
  insideSdMl: inside?.sdMl ?? 0,
  standing:
    twin && inside
      ? { reservoirMl: twin.drive.fillMarkMl, reservoirSdMl: MEASURED.markSdMl, wettedMl: Array.from(twin.atMark().wettedMl) }
      : null,
});

/**
 * The one account of what is inside a loop, carried forward by what hands, pump and instruments do. Errors are carried
 * beside the figures; a level that is read corrects where the liquid stands, never how much went in.
 */
export class LiveBook {
  /**
   * @param twin null: only volumes are kept
   * @param own changed in place
   * @param wholeSdMl mL, standard deviation of what the loop's parts hold
   */
  constructor(
    private readonly twin: LiquidTwin | null,
    private readonly own: LoopContents,
    private readonly wholeSdMl: number,
  ) {}

  private get at(): { twin: LiquidTwin; standing: Standing; wetted: Wetted } | null {
    const { standing } = this.own;
    if (!this.twin || !standing || standing.wettedMl.length !== this.twin.drive.cells.length) return null;
    return { twin: this.twin, standing, wetted: { reservoirMl: standing.reservoirMl, wettedMl: Float64Array.from(standing.wettedMl) } };
  }

  private stand(wetted: Wetted, sdMl: number): void {
    this.own.standing = { reservoirMl: wetted.reservoirMl, reservoirSdMl: sdMl, wettedMl: Array.from(wetted.wettedMl) };
  }

  private addInside(ml: number, sdMl: number): void {
    if (this.own.insideMl === null) return;
    this.own.insideMl = Math.max(0, this.own.insideMl + ml);
    this.own.insideSdMl = Math.hypot(this.own.insideSdMl, sdMl);
  }

  /** Ran over: it is not inside. */
  private spilled(ml: number): void {
    if (ml <= 0) return;
    this.own.overMl += ml;
    this.addInside(-ml, ml / 2);
  }

  /**
   * Poured into the reservoir. What has no room there was poured between pulses that nobody entered.
   * @param toMark the hand stopped at the mark: then the level is read as well
   */
  pour(ml: number, { toMark = false, sdMl = jugSdMl(ml) }: { readonly toMark?: boolean; readonly sdMl?: number } = {}): void {
    this.addInside(ml, sdMl);
    const { at } = this;
    if (!at) return;
    const { twin, standing, wetted } = at;
    let sd = standing.reservoirSdMl;
    if (this.own.pump === null) sd = this.pulsesUnseen(twin, wetted, ml, sd);
    const before = twin.wayMl(wetted);
    const over = twin.pour(wetted, ml);
    this.stand(wetted, Math.hypot(sd, sdMl, BOOK.settledSdShare * (twin.wayMl(wetted) - before)));
    this.own.isLevelRead = false;
    this.spilled(over);
    if (toMark && this.own.pump === null) this.level(twin.drive.fillMarkMl, MEASURED.levelByEyeSdMm * this.mlPerMm);
  }

  /** Pulses that must have been run, so that a pour found room. */
  private pulsesUnseen(twin: LiquidTwin, wetted: Wetted, ml: number, sdMl: number): number {
    const { lowMarkMl } = twin.drive;
    let sd = sdMl;
    for (let n = 0; n < 8 && wetted.reservoirMl - 2 * sd + ml > twin.brimMl && !twin.goesRound(wetted); n += 1) {
      const most = copyOf(wetted);
      const start = most.reservoirMl;
      for (let s = 0; s < 240 && most.reservoirMl > lowMarkMl; s += 1) {
        const last = most.reservoirMl;
        twin.run(most, 0.5);
        if (last - most.reservoirMl < 1e-3) break;
      }
      if (start - most.reservoirMl < 1) break;
      twin.stop(most);
      sd = Math.hypot(sd, BOOK.pumpedSdShare * Math.abs(start - most.reservoirMl));
      wetted.reservoirMl = most.reservoirMl;
      wetted.wettedMl.set(most.wettedMl);
    }
    return sd;
  }

  private get mlPerMm(): number {
    const { box, volume_ml: ml } = this.twin?.reservoir ?? {};
    return box && ml !== undefined && box.max[1] > box.min[1] ? ml / (box.max[1] - box.min[1]) : 1;
  }

  /** mL that a level is misread by. */
  levelSdMl(byInstrument: boolean): number {
    return this.mlPerMm * (byInstrument ? MEASURED.levelBySensorSdMm : MEASURED.levelByEyeSdMm);
  }

  /** Moves on to an instant: a running pump has moved what it moves until then. */
  passTo(nowMs: number): void {
    const { pump } = this.own;
    if (!pump) return;
    const seconds = (nowMs - pump.carriedMs) / 1000;
    if (seconds <= 0) return;
    pump.carriedMs = nowMs;
    const { at } = this;
    if (!at) return;
    const { twin, standing, wetted } = at;
    const wasRound = twin.goesRound(wetted);
    const { movedMl } = twin.run(wetted, seconds, pump.slowed);
    const comesRound = !wasRound && twin.goesRound(wetted);
    const wayMl = twin.wayMl(wetted);
    // where the way ends is known as well as the parts' volumes are
    const round = comesRound ? Math.hypot(this.wholeSdMl, BOOK.gasSdShare * wayMl) : 0;
    this.stand(wetted, Math.hypot(standing.reservoirSdMl, BOOK.pumpedSdShare * movedMl, round));
    if (movedMl > 1) this.own.isLevelRead = false;
  }

  pumpOn(nowMs: number, slowed: number): void {
    this.passTo(nowMs);
    this.own.pump ??= { carriedMs: nowMs, slowed };
  }

  pumpOff(nowMs: number): void {
    this.passTo(nowMs);
    if (!this.own.pump) return;
    this.own.pump = null;
    const { at } = this;
    if (!at) return;
    const { twin, standing, wetted } = at;
    const before = wetted.reservoirMl;
    const over = twin.stop(wetted);
    const back = wetted.reservoirMl + over - before;
    this.stand(wetted, Math.hypot(standing.reservoirSdMl, BOOK.settledSdShare * back));
    if (Math.abs(back) > 1) this.own.isLevelRead = false;
    this.spilled(over);
  }

  /** The level was read: it says where the liquid stands. */
  level(ml: number, sdMl: number): void {
    const { at, own } = this;
    if (!at) {
      this.firstLevel(ml, sdMl);
      return;
    }
    const { twin, standing, wetted } = at;
    const gain = standing.reservoirSdMl ** 2 / (standing.reservoirSdMl ** 2 + sdMl ** 2 || 1);
    wetted.reservoirMl = Math.max(0, standing.reservoirMl + gain * (ml - standing.reservoirMl));
    // a way that is full stays full: less or more in the reservoir is then gas, or a volume that is not as its sheet says
    if (own.insideMl !== null) {
      const way = own.insideMl - wetted.reservoirMl;
      if (!twin.goesRound(wetted) || way < twin.wholeWayMl - 2 * Math.hypot(this.wholeSdMl, own.insideSdMl)) twin.setWay(wetted, way);
    }
    this.stand(wetted, Math.sqrt(gain) * sdMl);
    own.isLevelRead = true;
  }

  /** A level in a loop of which nobody knew: taken as filled, with the level that was read. */
  private firstLevel(ml: number, sdMl: number): void {
    if (!this.twin) return;
    const wetted = this.twin.atMark();
    wetted.reservoirMl = ml;
    this.stand(wetted, sdMl);
    this.own.isLevelRead = true;
  }

  /**
   * Came out, measured. The twin says from where; the measure says how much.
   * @param how stand and openings; null: nobody said
   */
  cameOut(ml: number, how: { readonly tilt: Tilt; readonly setup: OpeningSetup } | null, sdMl = jugSdMl(ml)): void {
    this.addInside(-ml, sdMl);
    const { at } = this;
    if (!at) return;
    const { twin, wetted } = at;
    const after = copyOf(wetted);
    const predicted = how ? twin.open(after, how.tilt, how.setup).drainedMl : 0;
    if (predicted > 0) this.between(wetted, after, Math.min(1, ml / predicted));
    const rest = ml - Math.min(ml, Math.max(0, predicted));
    if (rest > 0) this.thin(wetted, rest);
    this.stand(wetted, Math.hypot(BOOK.drainedSdMl, BOOK.drainedSdShare * wetted.reservoirMl));
    this.own.isLevelRead = false;
  }

  private between(wetted: Wetted, after: Wetted, share: number): void {
    wetted.reservoirMl += share * (after.reservoirMl - wetted.reservoirMl);
    wetted.wettedMl.forEach((ml, index) => (wetted.wettedMl[index] = ml + share * ((after.wettedMl[index] as number) - ml)));
  }

  /** Less everywhere, in the same proportions: nobody knows from where. */
  private thin(wetted: Wetted, ml: number): void {
    const whole = wetted.reservoirMl + totalMl(wetted.wettedMl);
    const keeps = whole > 0 ? Math.max(0, 1 - ml / whole) : 0;
    wetted.reservoirMl *= keeps;
    wetted.wettedMl.forEach((each, index) => (wetted.wettedMl[index] = each * keeps));
  }

  /** A part came in wet: it holds so much already. */
  broughtIn(partId: string, ml: number): void {
    if (ml <= 0) return;
    this.addInside(ml, BOOK.lostSdShare * ml);
    const { at } = this;
    if (!at) return;
    const { cells, network } = at.twin.drive;
    let left = ml;
    cells.forEach(({ node, volumeMl }, index) => {
      if (network.partIds[network.part[node] as number] !== partId) return;
      const here = Math.min(left, Math.max(0, volumeMl - (at.wetted.wettedMl[index] as number)));
      at.wetted.wettedMl[index] = (at.wetted.wettedMl[index] as number) + here;
      left -= here;
    });
    this.stand(at.wetted, at.standing.reservoirSdMl);
  }

  /** Leaked, spilled or evaporated: the reservoir stands for it first. */
  lost(ml: number): void {
    this.addInside(-ml, BOOK.lostSdShare * ml);
    const { at } = this;
    if (!at) return;
    const gone = Math.min(ml, at.wetted.reservoirMl);
    at.wetted.reservoirMl -= gone;
    if (ml > gone) this.thin(at.wetted, ml - gone);
    this.stand(at.wetted, Math.hypot(at.standing.reservoirSdMl, BOOK.lostSdShare * ml));
    this.own.isLevelRead = false;
  }

  /** Taken apart: nothing is inside any more. */
  emptied(): void {
    Object.assign(this.own, { ...dryContents(this.twin), overMl: this.own.overMl });
  }

  /** Filled by pulses that nobody enters one by one, as rinses are. */
  filledBy(ml: number): void {
    const { at } = this;
    if (!at) return this.addInside(ml, jugSdMl(ml));
    const { twin } = at;
    let left = ml;
    for (let n = 0; n < 24 && left > 0.5; n += 1) {
      const now = this.at as NonNullable<typeof at>;
      const room = Math.max(0, twin.drive.fillMarkMl - now.wetted.reservoirMl);
      const part = n === 23 || twin.goesRound(now.wetted) ? left : Math.min(left, Math.max(room, 0));
      if (part > 0.5) this.pour(part, { sdMl: 0 });
      left -= Math.max(0, part);
      if (left <= 0.5) break;
      const wetted = (this.at as NonNullable<typeof at>).wetted;
      for (let s = 0; s < 120 && wetted.reservoirMl > twin.drive.lowMarkMl && !twin.goesRound(wetted); s += 1) twin.run(wetted, 0.5);
      twin.stop(wetted);
      this.stand(wetted, Math.hypot((this.own.standing as Standing).reservoirSdMl, BOOK.pumpedSdShare * 20));
    }
    this.own.insideSdMl = Math.hypot(this.own.insideSdMl, jugSdMl(ml));
    this.own.isLevelRead = false;
  }
}

/** How the contents would stand at an instant, with the pump carried on until then. */
export function contentsAt(twin: LiquidTwin | null, contents: LoopContents, wholeSdMl: number, nowMs: number): LoopContents {
  const copy = structuredClone(contents);
  new LiveBook(twin, copy, wholeSdMl).passTo(nowMs);
  return copy;
}
