import type { Liquid, Fluid } from '../../machine/liquids/fluids.js';
import { bleedModel } from '../../physics/air/airLeft.js';
import type { Tilt } from '../../machine/loop-file/orientation.js';
import type { OpeningSetup } from '../../physics/draining/openings.js';
import { frontDrive } from '../../physics/filling/frontMoves.js';
import { copyOf, LiquidTwin, type Wetted } from '../../physics/live-book/liquidTwin.js';
import { wettedInto } from '../../physics/live-book/passedOn.js';
import type { LoopComponent, LoopFile } from '../../machine/loop-file/loopFile.js';
import { STANDARD_ATMOSPHERE_KPA } from '../../base/units/physics.js';
import { SIMULATED } from './defaults.js';

/** Liquid in the loop of a simulated bench: what stands in the reservoir and on the way, and the gas between. mL throughout. */
export class LiquidInside {
  /** once the return was reached, liquid goes round; before, a front moves */
  circulating = false;
  spilledMl = 0;
  /** share of the file's speed at which the pump runs */
  slowed = 1;
  /** mL moved since the pump started */
  private movedMl = 0;
  looseGasMl = 0;
  /** mL that hang on walls after liquid ran out, and wait there to be washed down */
  filmMl = 0;
  private readonly at: Wetted;
  private twin: LiquidTwin;
  /** mL on the way with no gas left */
  private readonly pathMl: number;
  /** share by which gas shrinks while the pump runs */
  private readonly squeeze: number;
  private readonly stretchMl: number;
  private readonly brimMl: number;

  /** Before: a loop with one reservoir that has a box, and pumps with curves. */
  constructor(
    loop: LoopFile,
    reservoir: LoopComponent,
    private readonly fluid: Fluid,
    liquid: Liquid,
    wholeMl: number,
    public pocketMl: number,
    /** gas that stays where the front passes; missing: all of it above vessels' ports */
    drive = frontDrive(loop, fluid, reservoir),
  ) {
    // the truth is no estimate of its own: gas above a vessel's ports is let in, and bubbles come on top
    this.twin = new LiquidTwin(loop, fluid, reservoir, { drive, byCoreMl: 0 });
    this.at = this.twin.empty();
    this.pathMl = wholeMl - reservoir.volume_ml;
    this.brimMl = reservoir.volume_ml;
    const model = bleedModel(loop, liquid, 1);
    const squeezes = (model?.pockets ?? []).map(
      ({ runGaugeKpa, offGaugeKpa }) => (runGaugeKpa - offGaugeKpa) / (runGaugeKpa + STANDARD_ATMOSPHERE_KPA),
    );
    this.squeeze = squeezes.length > 0 ? Math.max(0, squeezes.reduce((sum, each) => sum + each, 0) / squeezes.length) : 0;
    this.stretchMl = model?.stretchMl ?? 0;
  }

  get gasMl(): number {
    return this.looseGasMl + this.pocketMl;
  }

  /** on the way, reservoir left out, film and all; at rest */
  get onTheWayMl(): number {
    return this.circulating ? this.pathMl - this.gasMl : this.twin.wayMl(this.at) + this.filmMl;
  }

  get reservoirMl(): number {
    return this.at.reservoirMl;
  }

  private set reservoirMl(ml: number) {
    this.at.reservoirMl = ml;
  }

  get insideMl(): number {
    return this.reservoirMl + this.onTheWayMl;
  }

  /** What stands in the reservoir as its scale shows: less while the pump squeezes gas and stretches tube. */
  shownMl(pumping: boolean): number {
    // the pressure goes with the square of the speed
    const pressed = this.slowed ** 2;
    return this.circulating && pumping ? this.reservoirMl - pressed * (this.squeeze * this.gasMl + this.stretchMl) : this.reservoirMl;
  }

  get lowMarkMl(): number {
    return this.twin.drive.lowMarkMl;
  }

  /** @param speed share of full speed; null: as the file says */
  setSpeed(speed: number | null): void {
    this.slowed = speed === null ? 1 : Math.min(1, speed / Math.max(1e-3, this.twin.drive.speed));
  }

  get steadyLph(): number {
    return this.twin.drive.steadyLph;
  }

  /** The same loop with what held its flow up put right: what stands where is as it was. */
  widened(loop: LoopFile, reservoirId: string): void {
    const reservoir = loop.components.find(({ id }) => id === reservoirId) as LoopComponent;
    this.twin = new LiquidTwin(loop, this.fluid, reservoir, { drive: frontDrive(loop, this.fluid, reservoir), byCoreMl: 0 });
  }

  pour(ml: number): void {
    this.washDown();
    if (!this.circulating) {
      this.spilledMl += this.twin.pour(this.at, ml);
      return;
    }
    this.reservoirMl += ml;
    const over = this.reservoirMl - this.brimMl;
    if (over > 0) this.spill(over);
  }

  private washDown(): void {
    if (this.filmMl <= 0) return;
    const film = this.filmMl;
    this.filmMl = 0;
    this.spilledMl += this.twin.pour(this.at, film);
  }

  /** Of so much that ran out, what hangs on the walls instead. @returns mL that stayed */
  hang(ranMl: number): number {
    const stays = Math.min(ranMl, Math.max(0, SIMULATED.filmShare * this.pathMl - this.filmMl));
    this.filmMl += stays;
    return stays;
  }

  /** Out of the reservoir and gone. */
  spill(ml: number): number {
    const gone = Math.min(ml, this.reservoirMl);
    this.reservoirMl -= gone;
    this.spilledMl += gone;
    return gone;
  }

  /** Out of the loop through a leak: the reservoir stands for it. */
  lose(ml: number): number {
    const gone = Math.min(ml, this.reservoirMl);
    this.reservoirMl -= gone;
    return gone;
  }

  /** The pump runs for a while. @returns s in which it drew air */
  run(seconds: number): number {
    if (this.circulating) {
      this.free(1 - Math.exp(-seconds / SIMULATED.bleedTauS));
      return this.shownMl(true) <= 0 ? seconds : 0;
    }
    const { dryS, movedMl } = this.twin.run(this.at, seconds, this.slowed);
    this.movedMl += movedMl;
    if (this.twin.goesRound(this.at)) this.reachReturn();
    return dryS;
  }

  /** What the front left behind as bubbles keeps its room on the way, and liquid that moved there counts as moved. */
  private reachReturn(): void {
    const wetted = this.twin.wayMl(this.at);
    this.circulating = true;
    // a vessel's gas above its ports, and bubbles: the pocket comes on top, and its liquid goes back to the reservoir
    this.looseGasMl = Math.max(this.pathMl - wetted, SIMULATED.looseGasShare * this.pathMl);
    const over = wetted - this.onTheWayMl;
    this.reservoirMl += over;
  }

  /** The pump stops: without a full column, liquid falls back. */
  stop(): void {
    if (!this.circulating) this.spilledMl += this.twin.stop(this.at, this.movedMl);
    this.movedMl = 0;
  }

  /** A loop that was filled and bled: everything wetted, the reservoir so far below its mark, pockets where they hide. */
  fillToMark(belowMl: number): void {
    const full = this.twin.atMark();
    this.at.wettedMl.set(full.wettedMl);
    this.at.reservoirMl = Math.max(0, full.reservoirMl - belowMl);
    this.circulating = true;
    this.looseGasMl = 0;
  }

  /** As `open`, where at least so much would leave; null where less would, and nothing moves. */
  openWhereItRuns(tilt: Tilt, setup: OpeningSetup, leastMl: number): ((opening: string) => number) | null {
    const tried = copyOf(this.at);
    const { drainedMl, at } = this.twin.open(tried, tilt, setup, this.restContents());
    if (drainedMl < leastMl) return null;
    this.comeToRest();
    this.at.reservoirMl = tried.reservoirMl;
    this.at.wettedMl.set(tried.wettedMl);
    return at;
  }

  /** Opened in a stand with the pump off. @returns mL that leave by each opening */
  open(tilt: Tilt, setup: OpeningSetup): (opening: string) => number {
    return this.twin.open(this.at, tilt, setup, this.comeToRest()).at;
  }

  /** Opened until so much has come, then shut. @returns mL that came */
  openUntil(tilt: Tilt, setup: OpeningSetup, ml: number): number {
    return this.twin.openUntil(this.at, tilt, setup, ml, this.comeToRest());
  }

  /** A part goes out with what stands in it. @returns mL in it */
  takeOut(part: string): number {
    const contents = this.comeToRest();
    const { network } = this.twin.drive;
    const own = contents.reduce((sum, ml, node) => (network.partIds[network.part[node] as number] === part ? sum + ml : sum), 0);
    const rest = contents.map((ml, node) => (network.partIds[network.part[node] as number] === part ? 0 : ml));
    this.twin.take(this.at, rest);
    return own;
  }

  /** The loop was changed: what is gone took its own along; the rest of the old one stands in what stayed of it. */
  carryFrom(old: LiquidInside, gone: readonly string[]): void {
    for (const id of gone) old.takeOut(id);
    const at = wettedInto(old.twin, old.at, this.twin, new Map());
    this.at.reservoirMl = at.reservoirMl;
    this.at.wettedMl.set(at.wettedMl);
    this.spilledMl = old.spilledMl;
    this.filmMl = old.filmMl;
  }

  /** Liquid that went round stands everywhere on the way once it is opened, bubbles and pockets among it. */
  private comeToRest(): Float64Array {
    const contents = this.restContents();
    this.circulating = false;
    this.looseGasMl = 0;
    return contents;
  }

  private restContents(): Float64Array {
    if (!this.circulating) return this.twin.contents(this.at);
    const { network, reservoirNode } = this.twin.drive;
    const share = this.onTheWayMl / this.pathMl;
    return Float64Array.from(network.volumeMl, (ml, node) => (node === reservoirNode ? this.reservoirMl : share * ml));
  }

  /** So much of what ran hangs on walls after all: it runs to the low points later. */
  cling(ml: number): void {
    const onTheWay = this.twin.wayMl(this.at) + ml;
    this.twin.setWay(this.at, onTheWay);
    this.at.reservoirMl += onTheWay - this.twin.wayMl(this.at);
  }

  /** Blown, wiped and taken apart: nothing stays. */
  empty(): void {
    this.circulating = false;
    this.looseGasMl = 0;
    this.filmMl = 0;
    this.at.reservoirMl = 0;
    this.at.wettedMl.fill(0);
  }

  /** A share of the bubbles finds its way up; liquid of the reservoir takes its room. */
  free(share: number): void {
    const freed = this.circulating ? Math.min(share * this.looseGasMl, this.reservoirMl) : 0;
    this.looseGasMl -= freed;
    this.reservoirMl -= freed;
  }

  freePocket(): void {
    const freed = Math.min(this.pocketMl, this.circulating ? this.reservoirMl : this.pocketMl);
    this.pocketMl -= freed;
    if (this.circulating) this.reservoirMl -= freed;
  }
}
