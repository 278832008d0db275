import { jugSdMl, MEASURED, pourSdMl } from '../measuring/errors.js';
import type { Tilt } from '../../machine/loop-file/orientation.js';
import type { OpeningSetup } from '../draining/openings.js';
import { totalMl } from '../contents/contents.js';
import { copyOf, wettedOf, type LiquidTwin, type Wetted } from './liquidTwin.js';
import { BOOK, dryContents, laterContents, type LoopContents, type Standing } from './loopContents.js';

/** pulses that are reckoned with between two entries */
const MOST_UNSEEN_PULSES = 40;
/** standard deviations beyond which a level that was read shows that the book was wrong about its own error */
const LOST_TRACK_SD = 4;

/** How liquid came out: by which openings in which stand, and what was emptied over the jug by hand. */
export interface CameOutHow {
  readonly tilt: Tilt;
  readonly setup: OpeningSetup;
  readonly emptied?: readonly string[];
}

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
    const wetted = this.twin && wettedOf(this.twin, standing);
    return this.twin && standing && wetted ? { twin: this.twin, standing, wetted } : null;
  }

  private stand(wetted: Wetted, sdMl: number, isRound = this.own.standing?.isRound ?? false): void {
    this.own.standing = { reservoirMl: wetted.reservoirMl, reservoirSdMl: sdMl, wettedMl: Array.from(wetted.wettedMl), isRound };
  }

  private addInside(ml: number, sdMl: number): void {
    if (this.own.insideMl === null) return;
    this.own.insideMl += ml;
    this.own.insideSdMl = Math.hypot(this.own.insideSdMl, sdMl);
  }

  /** Would have run over, as the twin reckons: somebody would have seen it, so it counts only once it is entered. */
  private spilled(ml: number): void {
    this.own.overMl += Math.max(0, ml);
  }

  /**
   * Poured into the reservoir. What has no room there was poured between pulses that nobody entered.
   * @param toMark whether the hand stopped at the mark: then the level is read as well. Missing: nobody said
   */
  pour(ml: number, { toMark, sdMl = pourSdMl(ml) }: { readonly toMark?: boolean; readonly sdMl?: number } = {}): void {
    this.addInside(ml, sdMl);
    this.poured(ml, sdMl);
    const { at } = this;
    if (!at || this.own.pump !== null) return;
    const { fillMarkMl } = at.twin.drive;
    if (toMark) this.level(fillMarkMl, MEASURED.levelByEyeSdMm * this.mlPerMm);
    // said to stand below the mark, and the book has it there: something went on by itself
    else if (toMark === false && at.wetted.reservoirMl > fillMarkMl - BOOK.atMarkMl)
      this.stand(at.wetted, Math.hypot(at.standing.reservoirSdMl, BOOK.belowMarkSdMl));
  }

  private poured(ml: number, sdMl: number): void {
    const { at } = this;
    if (!at) return;
    const { twin, standing, wetted } = at;
    // what goes on into the outlet's side by itself counts as room
    const hasRoom = twin.pour(copyOf(wetted), ml) <= 2 * standing.reservoirSdMl + 1;
    if (this.own.pump === null && !standing.isRound && !hasRoom) return this.pouredBetweenPulses(ml, sdMl);
    const before = twin.wayMl(wetted);
    const over = standing.isRound
      ? this.pourRound(twin, wetted, ml)
      : this.own.pump
        ? this.pourRunning(twin, wetted, ml)
        : twin.pour(wetted, ml);
    this.stand(wetted, Math.hypot(standing.reservoirSdMl, sdMl, BOOK.settledSdShare * (twin.wayMl(wetted) - before)));
    this.own.isLevelRead = false;
    this.spilled(over);
  }

  /** Poured as the pump draws: a hand that watches the level lets none run over, so what has no room has gone on. */
  private pourRunning(twin: LiquidTwin, wetted: Wetted, ml: number): number {
    const stays = Math.min(ml, Math.max(0, twin.drive.fillMarkMl - wetted.reservoirMl));
    wetted.reservoirMl += stays;
    twin.setWay(wetted, twin.wayMl(wetted) + ml - stays);
    return 0;
  }

  /** The way is full: all of it stays in the reservoir. */
  private pourRound(twin: LiquidTwin, wetted: Wetted, ml: number): number {
    const over = Math.max(0, wetted.reservoirMl + ml - twin.brimMl);
    wetted.reservoirMl += ml - over;
    return over;
  }

  /** More than there was room for: pulses that nobody entered were run between. */
  private pouredBetweenPulses(ml: number, sdMl: number): void {
    let left = ml;
    let isFull = false;
    for (let n = 0; n < MOST_UNSEEN_PULSES && left > 0.5; n += 1) {
      const { twin, wetted, standing } = this.at as NonNullable<typeof this.at>;
      const room = Math.max(0, twin.drive.fillMarkMl - wetted.reservoirMl);
      const part = standing.isRound || isFull || n === MOST_UNSEEN_PULSES - 1 ? left : Math.min(left, room);
      this.spilled(twin.pour(wetted, part));
      left -= part;
      const before = wetted.reservoirMl;
      if (left > 0.5) isFull = this.pulseUnseen(twin, wetted) < 1;
      this.stand(wetted, Math.hypot(standing.reservoirSdMl, BOOK.pumpedSdShare * (before - wetted.reservoirMl)));
    }
    const { wetted, standing } = this.at as NonNullable<typeof this.at>;
    this.stand(wetted, Math.hypot(standing.reservoirSdMl, sdMl));
    this.own.isLevelRead = false;
  }

  /** @returns mL that it moved */
  private pulseUnseen(twin: LiquidTwin, wetted: Wetted): number {
    let moved = 0;
    for (let s = 0; s < 240 && wetted.reservoirMl > twin.drive.lowMarkMl; s += 1) {
      const { movedMl } = twin.run(wetted, 0.5);
      if (movedMl < 1e-3) break;
      moved += movedMl;
    }
    twin.stop(wetted, moved);
    return moved;
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
    const wayMl = twin.wayMl(wetted);
    if (standing.isRound) {
      // bubbles come home, a few millilitres a minute
      const gas = BOOK.gasSdShare * wayMl * (1 - Math.exp(-seconds / BOOK.gasTauS));
      // in all no more than the way can have kept
      const most = Math.hypot(this.levelSdMl(false), BOOK.gasSdShare * wayMl);
      this.stand(wetted, Math.max(standing.reservoirSdMl, Math.min(most, Math.hypot(standing.reservoirSdMl, gas))));
      if (seconds > 1) this.own.isLevelRead = false;
      return;
    }
    const { movedMl } = twin.run(wetted, seconds, pump.slowed);
    pump.movedMl += movedMl;
    // where the way ends is known as well as the parts' volumes are
    const end = twin.goesRound(wetted) ? Math.hypot(this.wholeSdMl, BOOK.gasSdShare * wayMl) : 0;
    this.stand(wetted, Math.hypot(standing.reservoirSdMl, BOOK.pumpedSdShare * movedMl, end));
    this.own.isLevelRead = false;
  }

  pumpOn(nowMs: number, slowed: number): void {
    this.passTo(nowMs);
    this.own.pump ??= { carriedMs: nowMs, slowed, movedMl: 0 };
  }

  pumpOff(nowMs: number): void {
    this.passTo(nowMs);
    if (!this.own.pump) return;
    const { movedMl } = this.own.pump;
    this.own.pump = null;
    const { at } = this;
    if (!at) return;
    const { twin, standing, wetted } = at;
    if (standing.isRound) return;
    const before = wetted.reservoirMl;
    const over = twin.stop(wetted, movedMl);
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
    const both = Math.hypot(standing.reservoirSdMl, sdMl);
    const gain = Math.abs(ml - standing.reservoirMl) > LOST_TRACK_SD * both ? 1 : standing.reservoirSdMl ** 2 / (both ** 2 || 1);
    wetted.reservoirMl = Math.max(0, standing.reservoirMl + gain * (ml - standing.reservoirMl));
    this.settleStale(ml - standing.reservoirMl, standing.reservoirSdMl, sdMl);
    // a way that is full stays full: less or more in the reservoir is then gas, or a volume that is not as its sheet says
    if (own.insideMl !== null && !standing.isRound) twin.setWay(wetted, own.insideMl - wetted.reservoirMl);
    this.stand(wetted, Math.sqrt(gain) * sdMl);
    own.isLevelRead = true;
  }

  /**
   * The first look after some time: what the reservoir has lost or gained since is so much inside, but for what the level
   * was not known to before that (gas came home) and is misread by.
   * @param byMl what was read above the book
   * @param reservoirSdMl of the book before the reading, what may have been lost in it
   */
  private settleStale(byMl: number, reservoirSdMl: number, levelSdMl: number): void {
    const { own } = this;
    if (own.staleSdMl <= 0 || own.insideMl === null || !own.standing?.isRound) return;
    const stale = own.staleSdMl ** 2;
    const other = Math.max(0, reservoirSdMl ** 2 - stale) + levelSdMl ** 2;
    own.insideMl += (byMl * stale) / (stale + other);
    own.insideSdMl = Math.sqrt(Math.max(0, own.insideSdMl ** 2 - stale) + (stale * other) / (stale + other));
    own.staleSdMl = 0;
  }

  /**
   * The loop is full and bled: its way holds what it held the last time it was. The first time it is only learned; later
   * it says as well how much is inside.
   */
  bled(): void {
    const { own } = this;
    const { standing, way, insideMl } = own;
    if (insideMl === null || !standing?.isRound) return;
    const { reservoirMl, reservoirSdMl } = standing;
    if (!way) {
      const found = { ml: insideMl - reservoirMl, sdMl: Math.hypot(own.insideSdMl, reservoirSdMl) };
      // far from what its parts hold it is no way of this loop: a pour was forgotten, or it came back before it was full
      if (this.fitsParts(found)) own.way = found;
      return;
    }
    const seenMl = way.ml + reservoirMl;
    const seenSd = Math.hypot(way.sdMl, reservoirSdMl, BOOK.refilledSdShare * way.ml);
    const both = Math.hypot(seenSd, own.insideSdMl);
    if (Math.abs(seenMl - insideMl) > LOST_TRACK_SD * both) return;
    this.correctInside(seenMl, seenSd);
  }

  private fitsParts({ ml, sdMl }: NonNullable<LoopContents['way']>): boolean {
    const { twin } = this;
    return twin === null || Math.abs(ml - twin.wayMl(twin.atMark())) <= LOST_TRACK_SD * Math.hypot(sdMl, this.wholeSdMl);
  }

  /**
   * What is inside was weighed: a measurement of its own, beside the jug's.
   * @param sdMl mL, of both weighings together
   */
  weighed(insideMl: number, sdMl: number): void {
    const { own } = this;
    if (own.insideMl === null) return;
    const isApart = Math.abs(insideMl - own.insideMl) > LOST_TRACK_SD * Math.hypot(own.insideSdMl, sdMl);
    // a pour was forgotten or misread: a scale forgets none
    if (isApart) Object.assign(own, { insideMl, insideSdMl: sdMl });
    else this.correctInside(insideMl, sdMl);
  }

  /** Two accounts of what is inside, each by its error. Before: the contents are known, and one of the two errs. */
  private correctInside(seenMl: number, seenSdMl: number): void {
    const { insideMl, insideSdMl } = this.own;
    const both = Math.hypot(insideSdMl, seenSdMl);
    this.own.insideMl = (insideMl ?? 0) + (insideSdMl ** 2 / both ** 2) * (seenMl - (insideMl ?? 0));
    this.own.insideSdMl = (insideSdMl * seenSdMl) / both;
  }

  /**
   * It stood somewhere, unwatched, and was carried: vapour and drops are lost by and by, and nobody has looked at the level.
   * @param days how long
   */
  stood(days: number): void {
    Object.assign(this.own, laterContents(this.own, days));
  }

  /** Drawn down and about to be undone: air gets in, the way is no longer full from end to end. */
  opened(): void {
    const { at } = this;
    if (at) this.stand(at.wetted, at.standing.reservoirSdMl, false);
  }

  /** Liquid was seen to come back: the way is full. */
  returned(): void {
    const { at } = this;
    if (!at) return;
    const { twin, standing, wetted } = at;
    wetted.wettedMl.set(twin.atMark().wettedMl);
    // what stands in the reservoir is then what is inside less what the way holds, each known so well
    this.stand(wetted, standing.isRound ? standing.reservoirSdMl : Math.hypot(standing.reservoirSdMl, this.wholeSdMl), true);
    if (!standing.isRound) this.own.isLevelRead = false;
  }

  /** A level in a loop of which nobody knew: taken as filled, with the level that was read. */
  private firstLevel(ml: number, sdMl: number): void {
    if (!this.twin) return;
    const wetted = this.twin.atMark();
    wetted.reservoirMl = ml;
    this.stand(wetted, sdMl, true);
    this.own.isLevelRead = true;
  }

  /**
   * Came out, measured. The twin says from where; the measure says how much.
   * @param how stand and openings, and the parts and tubes that were emptied over the jug as well; null: nobody said
   */
  cameOut(ml: number, how: CameOutHow | null, sdMl = jugSdMl(ml)): void {
    this.addInside(-ml, sdMl);
    // what the reservoir shows from now on says nothing any more of what was lost before anybody looked
    this.own.staleSdMl = 0;
    const { at } = this;
    if (!at) return;
    const { twin, wetted } = at;
    const ran = ml - (how ? twin.openUntil(wetted, how.tilt, how.setup, ml) : 0);
    const rest = ran - this.outOf(how?.emptied ?? [], ran, at);
    if (rest > 0) this.thin(wetted, rest);
    this.stand(wetted, Math.hypot(BOOK.drainedSdMl, BOOK.drainedSdShare * wetted.reservoirMl), false);
    this.own.isLevelRead = false;
  }

  /** Out of some parts and tubes, no more than `mostMl`. @returns mL that came */
  private outOf(ids: readonly string[], mostMl: number, { twin, wetted }: { twin: LiquidTwin; wetted: Wetted }): number {
    const { cells, network } = twin.drive;
    let came = 0;
    cells.forEach(({ node }, index) => {
      if (!ids.includes(network.partIds[network.part[node] as number] as string)) return;
      const here = Math.min(mostMl - came, wetted.wettedMl[index] as number);
      wetted.wettedMl[index] = (wetted.wettedMl[index] as number) - here;
      came += here;
    });
    return came;
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

  /** mL inside a part; 0 where heights are not known. */
  heldIn(partId: string): number {
    const { at } = this;
    const { cells, network } = at?.twin.drive ?? { cells: [], network: null };
    return cells.reduce(
      (sum, { node }, index) => (network?.partIds[network.part[node] as number] === partId ? sum + (at?.wetted.wettedMl[index] ?? 0) : sum),
      0,
    );
  }

  /** A part left with what was inside it; what the book had there above that has run out of it before, and stays inside. */
  leftWith(partId: string, ml: number): void {
    // measured in hand: the book erred where it says that less was inside
    this.addInside(-Math.min(ml, this.own.insideMl ?? ml), Math.max(BOOK.lostSdShare * ml, jugSdMl(ml)));
    const { at } = this;
    if (!at) return;
    const left = ml - this.outOf([partId], ml, at);
    if (left > 0) this.thin(at.wetted, left);
    this.stand(at.wetted, Math.hypot(at.standing.reservoirSdMl, BOOK.lostSdShare * ml), false);
  }

  /**
   * Parts and tubes left for good: what the book still has in them went along, and nobody measured it.
   * @param ids of parts and tubes
   */
  wentWith(ids: readonly string[]): void {
    const { at } = this;
    if (!at) return;
    const gone = this.outOf(ids, Infinity, at);
    this.addInside(-Math.min(gone, this.own.insideMl ?? gone), BOOK.lostSdShare * gone);
    this.stand(at.wetted, at.standing.reservoirSdMl, false);
  }

  /**
   * Taken out of the reservoir again, measured.
   * @param giveAir ports that stood open: what they let down has come into the reservoir first
   */
  drawnOff(ml: number, giveAir: { readonly tilt: Tilt; readonly open: readonly string[] } | null = null): void {
    this.addInside(-ml, jugSdMl(ml));
    const { at } = this;
    if (!at) return;
    const { twin, wetted, standing } = at;
    const before = wetted.reservoirMl;
    if (giveAir && giveAir.open.length > 0) twin.open(wetted, giveAir.tilt, { open: giveAir.open, drains: [], closed: [] });
    const settled = Math.abs(wetted.reservoirMl - before);
    const rest = Math.max(0, ml - wetted.reservoirMl);
    wetted.reservoirMl = Math.max(0, wetted.reservoirMl - ml);
    // more than stood there by the book came down from above
    if (rest > 0) this.thin(wetted, rest);
    this.stand(wetted, Math.hypot(standing.reservoirSdMl, jugSdMl(ml), BOOK.settledSdShare * settled));
    this.own.isLevelRead = false;
  }

  /** Ran over the lid, judged: the reservoir stands at its brim, as the twin may have reckoned already. */
  ranOver(ml: number): void {
    this.own.overMl = Math.max(0, this.own.overMl - ml);
    this.addInside(-ml, BOOK.lostSdShare * ml);
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
    const { overMl, way } = this.own;
    Object.assign(this.own, { ...dryContents(this.twin), overMl, way });
  }
}

/** How the contents would stand at an instant, with the pump carried on until then. */
export function contentsAt(twin: LiquidTwin | null, contents: LoopContents, wholeSdMl: number, nowMs: number): LoopContents {
  const copy = structuredClone(contents);
  new LiveBook(twin, copy, wholeSdMl).passTo(nowMs);
  return copy;
}
