import { STANDING, type StandingName } from '../../machine/loop-file/orientation.js';
import type { LiquidInside } from './liquidInside.js';

/** mL; less is drops */
const RUNS_FROM_ML = 0.5;
/** degrees from which a case counts as lying: below, liquid only shifts in its vessels */
const LIES_FROM_DEG = 20;

export interface Ran {
  readonly intoJugMl: number;
  /** where no jug stands */
  readonly besideMl: number;
}

/** What stands open at a simulated bench, where jugs stand, and what runs out there. */
export class OpenPlaces {
  private readonly open = new Set<string>();
  private readonly jugs = new Set<string>();
  /** mL in the jug that have not been read and poured away */
  jugMl = 0;
  /** mL that ever ran into a jug */
  caughtMl = 0;

  constructor(private readonly liquid: LiquidInside) {}

  get none(): boolean {
    return this.open.size === 0;
  }

  get names(): string[] {
    return [...this.open];
  }

  /** @param jug a jug stands under it */
  openUp(opening: string, jug: boolean): void {
    this.open.add(opening);
    if (jug) this.jugs.add(opening);
  }

  shut(openings: readonly string[]): void {
    for (const each of openings) {
      this.open.delete(each);
      this.jugs.delete(each);
    }
  }

  shutAll(): void {
    this.shut([...this.open]);
  }

  /** So much went into the jug by other ways: out of a part, at a valve that was shut again. */
  catch(ml: number): void {
    this.jugMl += ml;
    this.caughtMl += ml;
  }

  /** With the pump off, in a stand: what can leave, leaves. Nothing moves where nothing would. */
  run({ to, angleDeg }: { readonly to: StandingName; readonly angleDeg: number }): Ran {
    const nothing: Ran = { intoJugMl: 0, besideMl: 0 };
    const openings = [...this.open];
    if (openings.length === 0 || this.liquid.insideMl <= 0) return nothing;
    const tilt = STANDING[angleDeg >= LIES_FROM_DEG ? to : 'upright'];
    const setup = { open: openings, drains: openings, closed: [] };
    const leaves = this.liquid.openWhereItRuns(tilt, setup, RUNS_FROM_ML);
    if (!leaves) return nothing;
    const by = openings.map((opening) => ({ opening, ml: leaves(opening) }));
    const sum = (of: typeof by): number => of.reduce((so, { ml }) => so + ml, 0);
    const ranMl = sum(by);
    const comes = ranMl > 0 ? 1 - this.liquid.hang(ranMl) / ranMl : 0;
    const intoJugMl = comes * sum(by.filter(({ opening }) => this.jugs.has(opening)));
    this.catch(intoJugMl);
    return { intoJugMl, besideMl: comes * ranMl - intoJugMl };
  }
}
