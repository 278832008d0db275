import { totalMl, type Contents } from '../contents/contents.js';
import type { StandingName } from '../../machine/loop-file/orientation.js';
import { ADVICE, type DrainPolicy, type SearchWidth } from './defaults.js';
import { leavesOther, type Candidate, type StageSearch } from './stageSearch.js';

/** Stand after stand. */
export type Chain = readonly Candidate[];

const turnsOf = (chain: Chain): number =>
  chain.filter(({ standing }, index) => standing !== (chain[index - 1]?.standing ?? 'upright')).length;

/** The best plans found so far, each as long as it pays. */
export class PlanSearch {
  constructor(
    private readonly search: StageSearch,
    private readonly policy: DrainPolicy,
    private readonly width: SearchWidth,
    private readonly from: Contents,
  ) {}

  /** mL that a plan gets out, less what its turns, joints and a stand on its head cost */
  valueMl(chain: Chain): number {
    const onHead = chain.some(({ standing }) => standing === 'upside-down');
    const out = chain.reduce((sum, stage) => sum + this.search.worthMl(stage), 0);
    const turned = chain.reduce((sum, { standing }, index) => {
      const before = chain[index - 1];
      return standing === (before?.standing ?? 'upright') ? sum : sum + totalMl(before?.left ?? this.from);
    }, 0);
    return (
      out - ADVICE.leastTurnMl * turnsOf(chain) - ADVICE.turnedFullShare * turned - (onHead ? (this.policy.headLeastMl ?? Infinity) : 0)
    );
  }

  /** The most promising ones; of plans that leave the same behind, the one that costs least. */
  private narrow(chains: readonly Chain[]): Chain[] {
    const isOther = leavesOther();
    return chains
      .map((chain) => ({ chain, valueMl: this.valueMl(chain) }))
      .sort((a, b) => b.valueMl - a.valueMl)
      .filter(({ chain }) => isOther(chain.at(-1) as Candidate))
      .slice(0, this.width.beam)
      .map(({ chain }) => chain);
  }

  private left(chain: Chain): Contents {
    return chain.at(-1)?.left ?? this.from;
  }

  private turnsFrom(chain: Chain): StandingName[] {
    const last = chain.at(-1);
    const { mayTurn, headLeastMl } = this.policy;
    if (mayTurn.length === 0 || turnsOf(chain) >= ADVICE.mostTurns) return [];
    const turns: StandingName[] = ['upright', ...mayTurn, ...(headLeastMl === null ? [] : (['upside-down'] as const))];
    return turns.filter((standing) => standing !== (last?.standing ?? 'upright'));
  }

  /** Every plan with one more stand that pays. */
  private longer(chain: Chain): Chain[] {
    return this.search
      .candidates(this.turnsFrom(chain), 'ports', this.left(chain), this.width.looksClosely)
      .filter(({ drainedMl }) => drainedMl >= ADVICE.leastTurnMl)
      .map((next) => [...chain, next]);
  }

  /** A joint comes last, once the ports have had their turn: as it stands, or turned once more. */
  private withJoint(chain: Chain): Chain[] {
    if (!this.policy.joints || totalMl(this.left(chain)) <= ADVICE.jointPriceMl + ADVICE.leastTurnMl) return [];
    return this.search
      .candidates([chain.at(-1)?.standing ?? 'upright', ...this.turnsFrom(chain)], 'joints', this.left(chain), this.width.joints)
      .filter((next) => this.search.worthMl(next) >= ADVICE.leastTurnMl)
      .map((next) => [...chain, next]);
  }

  /** @param count plans wanted. @returns the best ones, best first; at least one, which may have no stand */
  best(count: number): Chain[] {
    const asItStands = this.search
      .candidates(['upright'], 'ports', this.from, this.width.looksClosely)
      .filter(({ drainedMl }) => drainedMl >= ADVICE.leastOpeningMl)
      .map((first): Chain => [first]);
    let chains = asItStands.length > 0 ? this.narrow(asItStands) : [[]];
    const ends: Chain[] = [];
    while (chains.length > 0) {
      ends.push(...chains.slice(0, count), ...chains.slice(0, this.width.joints).flatMap((chain) => this.withJoint(chain)));
      chains = this.narrow(chains.flatMap((chain) => this.longer(chain)));
    }
    return ends.sort((a, b) => this.valueMl(b) - this.valueMl(a)).slice(0, count);
  }

  /** A plan that was found on a rough network, played on this one for as long as it pays here. */
  play(rough: Chain): Chain {
    const chain: Candidate[] = [];
    for (const { standing, drain } of rough) {
      const next = this.search.stage(standing, drain, this.left(chain));
      if (next.drainedMl < (chain.length === 0 ? ADVICE.leastOpeningMl : ADVICE.leastTurnMl)) break;
      chain.push(next);
    }
    return chain;
  }
}
