import { fullContents, totalMl, type Contents } from '../contents/contents.js';
import type { GeometricNetwork } from '../geometry/network.js';
import { STANDING, type StandingName } from '../../machine/loop-file/orientation.js';
import { turnNetwork, type TurnedNetwork } from '../geometry/turned.js';
import type { LoopFile } from '../../machine/loop-file/loopFile.js';
import { ADVICE } from './defaults.js';
import { openablePorts, openUp, type OpeningSetup } from './openings.js';
import { runOut } from './runOut.js';

/** One stand of the machine: how it stands, what is open, what comes. */
export interface DrainStage {
  readonly standing: StandingName;
  /** the opening over the bowl */
  readonly drain: string;
  /** openings that let air in; none of them runs itself when it is opened */
  readonly airs: readonly string[];
  /** the drain is opened first, and air is let in once the level has fallen below the inlets: opened before, they would run */
  readonly airsFollow: boolean;
  /** openings of the stage before that must be closed before the machine is turned, because they would spill */
  readonly capFirst: readonly string[];
  /** airs that would run if the stand before had given less than it should: opened over a towel */
  readonly mayRun: readonly { readonly opening: string; readonly volumeMl: number }[];
  readonly drainedMl: number;
  /** could come as well when a bubble gets in: more may follow */
  readonly heldMl: number;
  readonly leftMl: number;
  /** what stays, node by node */
  readonly left: Contents;
}

export interface DrainPlan {
  readonly stages: readonly DrainStage[];
  readonly drainedMl: number;
  /** stays with the last stand: only blowing, a pump or taking a joint apart gets it out */
  readonly leftMl: number;
  readonly wholeMl: number;
}

interface Candidate {
  readonly standing: StandingName;
  readonly drain: string;
  readonly airs: readonly string[];
  readonly airsFollow: boolean;
  readonly drainedMl: number;
  readonly heldMl: number;
  readonly left: Contents;
}

/** Looks for the best drain and airs in each stand, from one content. */
class StageSearch {
  private readonly turned = new Map<StandingName, TurnedNetwork>();

  constructor(
    private readonly network: GeometricNetwork,
    private readonly ports: readonly string[],
  ) {}

  turnedTo(standing: StandingName): TurnedNetwork {
    const known = this.turned.get(standing) ?? turnNetwork(this.network, STANDING[standing]);
    this.turned.set(standing, known);
    return known;
  }

  private run(standing: StandingName, drain: string, airs: readonly string[], contents: Contents, airsFollow = false): Candidate {
    const setup: OpeningSetup = { open: airs, drains: [drain], closed: [] };
    const { drainedMl, heldMl, left } = runOut(this.turnedTo(standing), openUp(this.network, setup), contents);
    return { standing, drain, airs, airsFollow, drainedMl, heldMl, left };
  }

  /** An opening that lies below the drain would run instead of letting air in. */
  private giveAir(standing: StandingName, drain: string): string[] {
    const { heightMm } = this.turnedTo(standing);
    const height = (port: string): number => heightMm[this.network.ports.get(port) as number] as number;
    return this.ports.filter((port) => port !== drain && height(port) >= height(drain));
  }

  /** mL that leave at one of the open airs: with the drain still shut, or beside the open drain. */
  private spillMl(standing: StandingName, air: string, others: readonly string[], drain: string | null, contents: Contents): number {
    const drains = drain === null ? [air] : [drain, air];
    const { byDrain } = runOut(this.turnedTo(standing), openUp(this.network, { open: others, drains, closed: [] }), contents);
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
  mayRun({ standing, drain, airs, airsFollow }: Candidate, contents: Contents): DrainStage['mayRun'] {
    return airs
      .map((opening) => ({
        opening,
        volumeMl: this.spillMl(standing, opening, airs.filter((other) => other !== opening), airsFollow ? drain : null, contents), // prettier-ignore
      }))
      .filter(({ volumeMl }) => volumeMl > ADVICE.mostSpillMl);
  }

  /** The best of one drain: one air more as long as it is worth opening and does not run itself. */
  private withFewestAirs(standing: StandingName, drain: string, contents: Contents): Candidate {
    let best = this.run(standing, drain, [], contents);
    for (let count = 0; count < ADVICE.mostAirs; count += 1) {
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

  /** The most promising pairs of stand and drain, each with the fewest airs; best first. */
  candidates(standings: readonly StandingName[], contents: Contents): Candidate[] {
    const bounds = standings
      .flatMap((standing) => this.ports.map((drain) => this.run(standing, drain, this.giveAir(standing, drain), contents)))
      .sort((a, b) => b.drainedMl - a.drainedMl)
      .slice(0, ADVICE.looksClosely);
    return bounds.map(({ standing, drain }) => this.withFewestAirs(standing, drain, contents)).sort((a, b) => b.drainedMl - a.drainedMl);
  }
}

/** Openings of the last stage that would run once the machine stands as in the next: cap them before it is turned. */
function capsBefore(search: StageSearch, network: GeometricNetwork, last: Candidate, next: Candidate): string[] {
  const turned = search.turnedTo(next.standing);
  return [last.drain, ...last.airs].filter((port) => {
    if (next.drain === port) return false;
    const others = [next.drain, ...next.airs, last.drain, ...last.airs].filter((other) => other !== port);
    const setup = { open: [...new Set(others)], drains: [port], closed: [] };
    return runOut(turned, openUp(network, setup), last.left).drainedMl > 1;
  });
}

/**
 * Which openings and turns get the most out with the fewest moves and no spill: the best stand and openings as the
 * machine stands, then, while a turn is worth the lifting, the best turn from what is left.
 * @param mayTurn stands the machine may be brought into besides upright; none when it is too heavy
 */
export function adviseDraining(loop: LoopFile, network: GeometricNetwork, mayTurn: readonly StandingName[]): DrainPlan {
  const wholeMl = totalMl(network.volumeMl);
  const ports = openablePorts(loop);
  const nothing = { stages: [], drainedMl: 0, leftMl: wholeMl, wholeMl };
  if (ports.length === 0) return nothing;
  const search = new StageSearch(network, ports);
  const first = search.candidates(['upright'], fullContents(network))[0];
  let chain: Candidate[] = first && first.drainedMl >= ADVICE.leastOpeningMl ? [first] : [];
  while (chain.filter(({ standing }) => standing !== 'upright').length < ADVICE.mostTurns) {
    const last = chain.at(-1);
    const contents = last?.left ?? fullContents(network);
    const turns = mayTurn.filter((standing) => standing !== (last?.standing ?? 'upright'));
    if (turns.length === 0) break;
    const best = search.candidates(turns, contents)[0];
    if (!best || best.drainedMl < ADVICE.leastTurnMl) break;
    chain = [...chain, best];
  }
  const stages = chain.map((stage, index): DrainStage => ({
    standing: stage.standing,
    drain: stage.drain,
    airs: stage.airs,
    airsFollow: stage.airsFollow,
    capFirst: index === 0 ? [] : capsBefore(search, network, chain[index - 1] as Candidate, stage),
    mayRun: index === 0 ? [] : search.mayRun(stage, chain[index - 2]?.left ?? fullContents(network)),
    drainedMl: stage.drainedMl,
    heldMl: stage.heldMl,
    leftMl: totalMl(stage.left),
    left: stage.left,
  }));
  const leftMl = stages.at(-1)?.leftMl ?? wholeMl;
  return { stages, drainedMl: wholeMl - leftMl, leftMl, wholeMl };
}

export interface ExtraOpening {
  readonly opening: string;
  readonly addsMl: number;
}

/** The one opening, not open yet, that would get the most more out; null when none gets out 5 mL. */
export function bestExtraOpening(turned: TurnedNetwork, loop: LoopFile, setup: OpeningSetup): ExtraOpening | null {
  const { network } = turned;
  const full = fullContents(network);
  const certain = (open: readonly string[]): number => runOut(turned, openUp(network, { ...setup, open }), full).drainedMl;
  const now = certain(setup.open);
  const used = new Set([...setup.open, ...setup.drains]);
  const options = openablePorts(loop)
    .filter((port) => !used.has(port))
    .map((opening) => ({ opening, addsMl: certain([...setup.open, opening]) - now }));
  const best = options.reduce<ExtraOpening | null>((so, each) => (so === null || each.addsMl > so.addsMl ? each : so), null);
  return best && best.addsMl >= ADVICE.leastOpeningMl ? best : null;
}
