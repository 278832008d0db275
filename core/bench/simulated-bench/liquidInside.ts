import type { Liquid, Fluid } from '../../machine/liquids/fluids.js';
import { bleedModel } from '../../physics/air/airLeft.js';
import { fallBack } from '../../physics/filling/fallBack.js';
import { frontDrive, type FrontDrive } from '../../physics/filling/frontMoves.js';
import type { LoopComponent, LoopFile } from '../../machine/loop-file/loopFile.js';
import { STANDARD_ATMOSPHERE_KPA } from '../../base/units/physics.js';
import { SIMULATED } from './defaults.js';

/** Liquid in the loop of a simulated bench: what stands in the reservoir and on the way, and the gas between. mL throughout. */
export class LiquidInside {
  /** once the return was reached, liquid goes round; before, a front moves */
  circulating = false;
  reservoirMl = 0;
  spilledMl = 0;
  looseGasMl = 0;
  private wettedMl: Float64Array;
  private readonly drive: FrontDrive;
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
    fluid: Fluid,
    liquid: Liquid,
    wholeMl: number,
    public pocketMl: number,
  ) {
    this.drive = frontDrive(loop, fluid, reservoir);
    this.wettedMl = new Float64Array(this.drive.cells.length);
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

  /** on the way, reservoir left out; at rest */
  private get onTheWayMl(): number {
    return this.circulating ? this.pathMl - this.gasMl : this.wettedMl.reduce((sum, ml) => sum + ml, 0);
  }

  get insideMl(): number {
    return this.reservoirMl + this.onTheWayMl;
  }

  /** What stands in the reservoir as its scale shows: less while the pump squeezes gas and stretches tube. */
  shownMl(pumping: boolean): number {
    return this.circulating && pumping ? this.reservoirMl - this.squeeze * this.gasMl - this.stretchMl : this.reservoirMl;
  }

  get lowMarkMl(): number {
    return this.drive.lowMarkMl;
  }

  get steadyLph(): number {
    return this.drive.steadyLph;
  }

  pour(ml: number): void {
    this.reservoirMl += ml;
    this.settle();
    const over = this.reservoirMl - this.brimMl;
    if (over > 0) this.spill(over);
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

  /** Liquid finds its level by itself, up to the first crest above the surface. */
  private settle(): void {
    if (this.circulating) return;
    const { cells, surfaceMm } = this.drive;
    for (let index = 0; index < cells.length; index += 1) {
      const cell = cells[index] as (typeof cells)[number];
      const missing = cell.volumeMl - (this.wettedMl[index] as number);
      if (missing <= 1e-9) continue;
      if (cell.liftMm > surfaceMm(this.reservoirMl) || this.reservoirMl <= 0) return;
      const moved = Math.min(missing, this.reservoirMl);
      this.wettedMl[index] = (this.wettedMl[index] as number) + moved;
      this.reservoirMl -= moved;
    }
  }

  /** The pump runs for a while. @returns s in which it drew air */
  run(seconds: number): number {
    if (this.circulating) {
      this.free(1 - Math.exp(-seconds / SIMULATED.bleedTauS));
      return this.shownMl(true) <= 0 ? seconds : 0;
    }
    let left = seconds;
    const { cells, surfaceMm } = this.drive;
    for (let index = 0; index < cells.length; index += 1) {
      const cell = cells[index] as (typeof cells)[number];
      const missing = cell.volumeMl - (this.wettedMl[index] as number);
      if (missing <= 1e-9) continue;
      if (this.reservoirMl <= 1e-9) return left;
      const lph = this.drive.flowInto(cell, surfaceMm(this.reservoirMl));
      // the push is spent: the pump churns, but it is wet
      if (lph <= 1e-3) return 0;
      const moved = Math.min(missing, this.reservoirMl, (lph * left) / 3.6);
      this.wettedMl[index] = (this.wettedMl[index] as number) + moved;
      this.reservoirMl -= moved;
      left -= (3.6 * moved) / lph;
      if (left <= 1e-9) return 0;
    }
    this.reachReturn();
    return 0;
  }

  /** What the front left behind as bubbles keeps its room on the way, and liquid that moved there counts as moved. */
  private reachReturn(): void {
    const wetted = this.onTheWayMl;
    this.circulating = true;
    // a vessel's gas above its ports, and bubbles: the pocket comes on top, and its liquid goes back to the reservoir
    this.looseGasMl = Math.max(0, this.pathMl - wetted) + SIMULATED.looseGasShare * this.pathMl;
    const over = wetted - this.onTheWayMl;
    this.reservoirMl += over;
  }

  /** The pump stops: without a full column, liquid falls back. */
  stop(): void {
    if (this.circulating) return;
    const { fallsBackMl, stays } = fallBack(this.drive.cells, this.wettedMl, this.reservoirMl, this.drive.surfaceMm);
    this.wettedMl = stays;
    this.reservoirMl += fallsBackMl;
    this.settle();
    const over = this.reservoirMl - this.brimMl;
    if (over > 0) this.spill(over);
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
