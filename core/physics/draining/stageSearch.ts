import type { Contents } from '../contents/contents.js';
import type { GeometricNetwork } from '../geometry/network.js';
import { STANDING, type StandingName } from '../../machine/loop-file/orientation.js';
import { turnNetwork, type TurnedNetwork } from '../geometry/turned.js';
import { ADVICE } from './defaults.js';
import { openUp } from './openings.js';
import { runOutBy, waysOut, type RunOut, type WaysOut } from './runOut.js';

/** An air inlet that would run if the stand before had given less than it should. */
export interface MayRun {
  readonly opening: string;
  readonly volumeMl: number;
}

/** One stand with its openings, from one content. */
export interface Candidate {
  readonly standing: StandingName;
  readonly drain: string;
  readonly airs: readonly string[];
  readonly airsFollow: boolean;
  readonly drainedMl: number;
  readonly heldMl: number;
  readonly left: Contents;
}

/** Tells apart what is left behind, node by node, to a tenth of a millilitre. @returns true for what no call before it was given */
export function leavesOther(): (candidate: Pick<Candidate, 'left'>) => boolean {
  const seen = new Set<string>();
  return ({ left }) => {
    const key = left.reduce((text, ml) => `${text}${ml > 0.05 ? Math.round(10 * ml) : ''},`, '');
    if (seen.has(key)) return false;
    seen.add(key);
    return true;
  };
}

/** Looks for the best drain and airs in each stand, from one content. */
export class StageSearch {
  private readonly turned = new Map<StandingName, TurnedNetwork>();
  private readonly ways = new Map<string, WaysOut>();
  private readonly joints: readonly string[];

  constructor(
    private readonly network: GeometricNetwork,
    private readonly ports: readonly string[],
  ) {
    this.joints = [...network.joints.keys()];
  }

  isJoint = (opening: string): boolean => this.network.joints.has(opening);

  turnedTo(standing: StandingName): TurnedNetwork {
    const known = this.turned.get(standing) ?? turnNetwork(this.network, STANDING[standing]);
    this.turned.set(standing, known);
    return known;
  }

  private run(standing: StandingName, drain: string, airs: readonly string[], contents: Contents, airsFollow = false): Candidate {
    const { drainedMl, heldMl, left } = this.runs(standing, airs, [drain], contents);
    return { standing, drain, airs, airsFollow, drainedMl, heldMl, left };
  }

  /** What runs where, in one stand. */
  runs(standing: StandingName, open: readonly string[], drains: readonly string[], contents: Contents): RunOut {
    const key = `${standing} ${open.join('+')} ${drains.join('+')}`;
    const ways = this.ways.get(key) ?? waysOut(this.turnedTo(standing), openUp(this.network, { open, drains, closed: [] }));
    this.ways.set(key, ways);
    return runOutBy(ways, contents);
  }

  private heightOf(standing: StandingName, opening: string): number {
    const node = this.network.joints.get(opening)?.portNode ?? (this.network.ports.get(opening) as number);
    return this.turnedTo(standing).heightMm[node] as number;
  }

  /** An opening that lies below the drain would run instead of letting air in. */
  private giveAir(standing: StandingName, drain: string): string[] {
    return this.ports.filter((port) => port !== drain && this.heightOf(standing, port) >= this.heightOf(standing, drain));
  }

  /** mL that leave at one of the open airs: with the drain still shut, or beside the open drain. */
  private spillMl(standing: StandingName, air: string, others: readonly string[], drain: string | null, contents: Contents): number {
    const drains = drain === null ? [air] : [drain, air];
    const { byDrain } = this.runs(standing, others, drains, contents);
    return byDrain.get(this.network.ports.get(air) as number) ?? 0;
  }

  /** Whether none of the airs runs, opened before the drain or after what it gives alone; null: neither. */
  private waySafe(standing: StandingName, drain: string, airs: readonly string[], contents: Contents): 'before' | 'after' | null {
    const quiet = (held: Contents, beside: string | null): boolean =>
      airs.every((air) => this.spillMl(standing, air, airs.filter((other) => other !== air), beside, held) <= ADVICE.mostSpillMl); // prettier-ignore
    if (quiet(contents, null) && quiet(contents, drain)) return 'before';
    return quiet(this.run(standing, drain, [], contents).left, drain) ? 'after' : null;
  }

  /** What would leave at a stand's airs, were so much inside still. */
  mayRun({ standing, drain, airs, airsFollow }: Candidate, contents: Contents): readonly MayRun[] {
    return airs
      .map((opening) => ({
        opening,
        volumeMl: this.spillMl(standing, opening, airs.filter((other) => other !== opening), airsFollow ? drain : null, contents), // prettier-ignore
      }))
      .filter(({ volumeMl }) => volumeMl > ADVICE.mostSpillMl);
  }

  /** The best of one drain: one air more as long as it is worth opening and does not run itself. */
  private withFewestAirs({ standing, drain, drainedMl: mostMl }: Candidate, contents: Contents): Candidate {
    let best = this.run(standing, drain, [], contents);
    // with every inlet open no more comes
    for (let count = 0; count < ADVICE.mostAirs && best.drainedMl + ADVICE.leastOpeningMl <= mostMl; count += 1) {
      const better = this.giveAir(standing, drain)
        .filter((port) => !best.airs.includes(port))
        .map((port) => this.run(standing, drain, [...best.airs, port], contents))
        .filter(({ drainedMl }) => drainedMl >= best.drainedMl + ADVICE.leastOpeningMl)
        .sort((x, y) => y.drainedMl - x.drainedMl)
        .flatMap((option) => {
          const way = this.waySafe(standing, drain, option.airs, contents);
          return way === null ? [] : [{ ...option, airsFollow: way === 'after' }];
        })[0];
      if (!better) break;
      best = better;
    }
    return best;
  }

  /** mL that a stand gets out, less what its joint costs */
  worthMl = ({ drain, drainedMl }: Pick<Candidate, 'drain' | 'drainedMl'>): number =>
    drainedMl - (this.isJoint(drain) ? ADVICE.jointPriceMl : 0);

  /** One stand by one drain, with the fewest airs. */
  stage(standing: StandingName, drain: string, contents: Contents): Candidate {
    return this.withFewestAirs(this.run(standing, drain, this.giveAir(standing, drain), contents), contents);
  }

  /** The most promising pairs of stand and drain, each with the fewest airs; best first. */
  candidates(standings: readonly StandingName[], by: 'ports' | 'joints', contents: Contents, closely: number): Candidate[] {
    const best = (a: Candidate, b: Candidate): number => this.worthMl(b) - this.worthMl(a);
    return standings
      .flatMap((standing) =>
        (by === 'ports' ? this.ports : this.joints).map((drain) => this.run(standing, drain, this.giveAir(standing, drain), contents)),
      )
      .sort(best)
      .filter(leavesOther())
      .slice(0, closely)
      .map((bound) => this.withFewestAirs(bound, contents))
      .sort(best);
  }
}
