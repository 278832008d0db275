/** How much stands where, mL. */
export interface Standing {
  readonly reservoirMl: number;
  readonly wayMl: number;
}

/**
 * How much of what is inside is still the liquid that was there when a service began. Two vessels: the reservoir and the
 * way. What is poured stays above until a front carries it on or the pump mixes both; each holds one even mixture.
 */
export class OldInside {
  private reservoirOldMl: number;
  private wayOldMl: number;
  /** share of old liquid in what left last; 1 before anything left */
  lastOutShare = 1;

  constructor(private now: Standing) {
    this.reservoirOldMl = now.reservoirMl;
    this.wayOldMl = now.wayMl;
  }

  get oldMl(): number {
    return this.reservoirOldMl + this.wayOldMl;
  }

  /**
   * Liquid has moved: what is missing has left.
   * @param pouredMl what came in meanwhile, above
   */
  follow(to: Standing, pouredMl = 0): void {
    const { reservoirMl, wayMl } = this.now;
    const above = reservoirMl + pouredMl;
    const outMl = Math.max(0, above + wayMl - to.reservoirMl - to.wayMl);
    const outOldMl = to.wayMl >= wayMl ? this.carried(to.wayMl - wayMl, above, outMl) : this.fellBack(wayMl - to.wayMl, above, outMl);
    if (outMl > 1e-9) this.lastOutShare = Math.min(1, outOldMl / outMl);
    this.now = to;
  }

  /** From the reservoir onto the way; what leaves, leaves the reservoir. @returns mL of old liquid that left */
  private carried(movedMl: number, aboveMl: number, outMl: number): number {
    const share = aboveMl > 0 ? this.reservoirOldMl / aboveMl : 0;
    const moved = Math.min(this.reservoirOldMl, share * movedMl);
    const out = Math.min(this.reservoirOldMl - moved, share * outMl);
    this.reservoirOldMl -= moved + out;
    this.wayOldMl += moved;
    return out;
  }

  /** From the way: first what left, the rest into the reservoir. @returns mL of old liquid that left */
  private fellBack(backMl: number, aboveMl: number, outMl: number): number {
    const wayShare = this.now.wayMl > 0 ? this.wayOldMl / this.now.wayMl : 0;
    const back = Math.min(this.wayOldMl, wayShare * backMl);
    const outOfWayMl = Math.min(outMl, backMl);
    const outOfWay = wayShare * outOfWayMl;
    const share = aboveMl > 0 ? this.reservoirOldMl / aboveMl : 0;
    const outAbove = Math.min(this.reservoirOldMl, share * (outMl - outOfWayMl));
    this.wayOldMl -= back;
    this.reservoirOldMl += back - outOfWay - outAbove;
    return outOfWay + outAbove;
  }

  /** The pump has carried it round. */
  mix(): void {
    const { reservoirMl, wayMl } = this.now;
    const whole = reservoirMl + wayMl;
    if (whole <= 0) return;
    const share = this.oldMl / whole;
    this.reservoirOldMl = share * reservoirMl;
    this.wayOldMl = share * wayMl;
  }
}
