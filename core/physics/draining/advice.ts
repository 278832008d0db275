import { fullContents, totalMl, type Contents } from '../contents/contents.js';
import { buildNetwork, type GeometricNetwork } from '../geometry/network.js';
import type { StandingName } from '../../machine/loop-file/orientation.js';
import type { TurnedNetwork } from '../geometry/turned.js';
import type { LoopFile } from '../../machine/loop-file/loopFile.js';
import { ADVICE, DRAIN_POLICY, searchWidth, type DrainPolicy, type SearchWidth } from './defaults.js';
import { openablePorts, openUp, type OpeningSetup } from './openings.js';
import { runOut } from './runOut.js';
import { PlanSearch } from './planSearch.js';
import { StageSearch, type Candidate, type MayRun } from './stageSearch.js';

/** One stand of the machine: how it stands, what is open, what comes. */
export interface DrainStage {
  readonly standing: StandingName;
  /** the opening over the jug: a port, or a joint undone, which runs at both its ends */
  readonly drain: string;
  /** openings that let air in; none of them runs itself when it is opened */
  readonly airs: readonly string[];
  /** the drain is opened first, and air is let in once the level has fallen below the inlets: opened before, they would run */
  readonly airsFollow: boolean;
  /** openings of the stage before that must be closed before the machine is turned, because they would spill */
  readonly capFirst: readonly string[];
  /** airs that would run if the stand before had given less than it should: opened over a towel */
  readonly mayRun: readonly MayRun[];
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

/** Openings of the last stage that would run once the machine stands as in the next: cap them before it is turned. A joint is made up again in any case. */
function capsBefore(search: StageSearch, last: Candidate, next: Candidate): string[] {
  return [last.drain, ...last.airs].filter((opening) => {
    if (search.isJoint(opening)) return next.drain !== opening || next.standing !== last.standing;
    if (next.drain === opening) return false;
    const others = [next.drain, ...next.airs, last.drain, ...last.airs].filter((other) => other !== opening);
    return search.runs(next.standing, [...new Set(others)], [opening], last.left).drainedMl > 1;
  });
}

/** The same liquid on a network of another fineness: each part as full as it is. */
function onNetwork(rough: GeometricNetwork, network: GeometricNetwork, contents: Contents): Contents {
  const [held, whole] = [new Map<number, number>(), new Map<number, number>()];
  contents.forEach((ml, node) => {
    const part = network.part[node] as number;
    held.set(part, (held.get(part) ?? 0) + ml);
    whole.set(part, (whole.get(part) ?? 0) + (network.volumeMl[node] as number));
  });
  return Float64Array.from(rough.volumeMl, (ml, node) => {
    const part = rough.part[node] as number;
    const all = whole.get(part) ?? 0;
    return all > 0 ? (ml * (held.get(part) ?? 0)) / all : 0;
  });
}

/**
 * Which openings and turns get the most out with the fewest moves and no spill: plans of up to three turns are followed
 * side by side (a beam search), each stand with the drain and the air inlets that are worth opening. Searched on a rough
 * network, the best plans played node by node.
 * @param policy which stands the workshop brings the machine into
 * @param from what is inside now; missing: every part is full
 */
export function adviseDraining(
  loop: LoopFile,
  network: GeometricNetwork,
  policy: DrainPolicy = DRAIN_POLICY,
  from: Contents = fullContents(network),
  { width, cellMm }: { readonly width: SearchWidth; readonly cellMm: number | null } = {
    width: searchWidth(network.size),
    cellMm: ADVICE.searchCellMm,
  },
): DrainPlan {
  const wholeMl = totalMl(from);
  const ports = openablePorts(loop);
  const search = new StageSearch(network, ports);
  const here = new PlanSearch(search, policy, width, from);
  const rough = cellMm === null ? null : buildNetwork(loop, cellMm);
  const plans = rough
    ? new PlanSearch(new StageSearch(rough, ports), policy, width, onNetwork(rough, network, from))
        .best(ADVICE.played)
        .map((plan) => here.play(plan))
    : here.best(1);
  const chain = plans.reduce((best, plan) => (here.valueMl(plan) > here.valueMl(best) ? plan : best));
  const stages = chain.map((stage, index): DrainStage => {
    const { left, ...how } = stage;
    const capFirst = index === 0 ? [] : capsBefore(search, chain[index - 1] as Candidate, stage);
    const mayRun = index === 0 ? [] : search.mayRun(stage, chain[index - 2]?.left ?? from);
    return { ...how, capFirst, mayRun, leftMl: totalMl(left), left };
  });
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
