import type { GeometricNetwork } from '../geometry/network.js';
import type { TurnedNetwork } from '../geometry/turned.js';
import type { LoopFile } from '../../machine/loop-file/loopFile.js';
import { fullContents, type Contents } from '../contents/contents.js';
import { leavesAt, openablePorts, openUp } from './openings.js';
import { partlyOut } from './partlyOut.js';
import { runOut } from './runOut.js';

/** mL at an air inlet that are drops, not a stream */
const DROPS_ML = 0.5;
/** mL that towels under two joints take up (judged) */
const TOWELS_ML = 15;
/** mL to which a draw is found */
const WITHIN_ML = 1;

export interface TakeOutPlan {
  /** joints to undo, each over a towel or a jug, with what leaves there once the draw is done */
  readonly joints: readonly { readonly joint: string; readonly volumeMl: number }[];
  /** openings that give air and do not run, opened first */
  readonly airs: readonly string[];
  /** mL to draw first, so that as little as can be runs when the joints are undone */
  readonly drawFirstMl: number;
  /** the valve to draw it at; null: none helps, it comes out of the reservoir by hose */
  readonly drawAt: string | null;
  /** mL that hang above the joints and follow when air gets in */
  readonly hangsMl: number;
  /** mL that stays inside what comes out: it runs when that is tilted */
  readonly insideMl: number;
  /** mL that stays in the rest of the loop */
  readonly elsewhereMl: number;
}

/** mL that come in all: drawn first, at the joints, down from above them, and out of what is lifted. */
export const comesOutMl = ({ drawFirstMl, joints, hangsMl, insideMl }: Omit<TakeOutPlan, 'elsewhereMl'>): number =>
  joints.reduce((sum, { volumeMl }) => sum + volumeMl, drawFirstMl + hangsMl + insideMl);

/** mL fewer at the joints that are worth a hose where a valve does nearly as well (judged) */
const HOSE_FOR_ML = 25;
/** inlets that anybody keeps an eye on */
const MOST_AIRS = 2;
/** mL and share by which more is drawn than the sums say: volumes are off by so much, and it goes back in anyway */
const SPARE_ML = 10;
const SPARE_SHARE = 0.06;

/** A way to bring the level down before the joints are undone. */
interface Draw {
  readonly at: string | null;
  readonly mostMl: number;
  readonly after: (ml: number) => Contents;
}

/** What was drawn, what stays, and mL that then run at the joints, at least what towels take. */
interface Drawn {
  readonly ml: number;
  readonly at: string | null;
  readonly left: Contents;
  readonly runs: number;
}

/**
 * Taking one component out: its joints undone at both ends of every tube it carries, air given through every port that
 * lies higher than the highest of them and runs with nothing when it is opened. Before that so much is drawn at a valve
 * that the joints run no more, or, where columns hang that no draw reaches, as little as can be.
 * @param contents what is inside; a full loop without them
 */
export function planTakeOut(
  turned: TurnedNetwork,
  loop: LoopFile,
  componentId: string,
  contents: Contents = fullContents(turned.network),
): TakeOutPlan {
  const joints = loop.tubes.flatMap(({ id, from, to }) => [
    ...(from[0] === componentId ? [`${id}.from`] : []),
    ...(to[0] === componentId ? [`${id}.to`] : []),
  ]);
  return planUndo(turned, loop, { joints, parts: [componentId] }, contents);
}

/** What is undone: joints or closed ports by their names, and the parts that they free; none: joints alone. */
export interface Undo {
  readonly joints: readonly string[];
  readonly parts: readonly string[];
}

/** The same for any joints and ports, all of them open before the first part is lifted. */
export function planUndo(
  turned: TurnedNetwork,
  loop: LoopFile,
  { joints, parts }: Undo,
  contents: Contents = fullContents(turned.network),
): TakeOutPlan {
  const { network, heightMm } = turned;
  const jointHeight = (joint: string): number =>
    heightMm[(network.joints.get(joint)?.portNode ?? network.ports.get(joint)) as number] as number;
  const highest = joints.reduce((most, joint) => Math.max(most, jointHeight(joint)), Number.NEGATIVE_INFINITY);
  const opened = (drains: readonly string[], open: readonly string[], inside = contents) =>
    runOut(turned, openUp(network, { open, drains, closed: [] }), inside);
  const ports = openablePorts(loop);
  const others = ports.filter((port) => !joints.includes(port) && !parts.some((id) => port.startsWith(`${id}.`)));
  const drawnWith = (airs: readonly string[], inside: Contents): Drawn => {
    // its own valve as well: what it drains is out before the joints are undone
    const draws = ports
      .filter((port) => isValve(loop, port) && !airs.includes(port))
      .map((port): Draw => {
        const { left, drainedMl } = opened([port], airs, inside);
        return { at: port, mostMl: drainedMl, after: (ml) => partlyOut(turned, inside, left, ml) };
      });
    return bestDraw([...draws, ...byHose(network, loop, inside)], inside, (after) => {
      const { drainedMl, heldMl } = opened(joints, airs, after);
      // what hangs for want of air comes as soon as the joint lets some in
      return drainedMl + heldMl;
    });
  };
  // one inlet after the other, each where it runs with nothing once those before it have settled, and where it helps
  let airs: readonly string[] = [];
  let drawn = drawnWith(airs, contents);
  let settled = contents;
  for (let n = 0; n < MOST_AIRS; n += 1) {
    const before = airs;
    const better = others
      .filter((port) => !before.includes(port) && (heightMm[network.ports.get(port) as number] as number) > highest)
      .map((port) => ({ port, run: opened([port], before, settled) }))
      .filter(({ port, run }) => leavesAt(network, port, run.byDrain) <= DROPS_ML)
      .map(({ port, run }) => ({ airs: [...before, port], settled: run.left, drawn: drawnWith([...before, port], run.left) }))
      .sort((one, other) => costMl(one.drawn) - costMl(other.drawn) || one.drawn.ml - other.drawn.ml)[0];
    // without air what hangs comes by gulps, whatever the sums say: one inlet there is
    if (!better || (n > 0 && better.drawn.runs > drawn.runs - WITHIN_ML)) break;
    ({ airs, drawn, settled } = better);
  }
  const undone = opened(joints, airs, drawn.left);
  let insideMl = 0;
  let elsewhereMl = 0;
  undone.left.forEach((ml, node) => {
    if (parts.includes(network.partIds[network.part[node] as number] as string)) insideMl += ml;
    else elsewhereMl += ml;
  });
  return {
    joints: joints.map((joint) => ({ joint, volumeMl: leavesAt(network, joint, undone.byDrain) })),
    airs,
    drawFirstMl: drawn.ml,
    drawAt: drawn.at,
    hangsMl: undone.heldMl,
    insideMl,
    elsewhereMl,
  };
}

const isValve = (loop: LoopFile, port: string): boolean => {
  const [id, name] = port.split('.') as [string, string];
  return loop.components.find((part) => part.id === id)?.closures?.[name] === 'valve';
};

/** mL at the joints, with what a hose is held to cost; to 5 mL, below which neither is better. */
const costMl = ({ at, ml, runs }: Drawn): number => Math.round((runs + (at === null && ml > 0 ? HOSE_FOR_ML : 0)) / 5);

/** Out of the reservoir, which alone becomes emptier. */
function byHose(network: GeometricNetwork, loop: LoopFile, contents: Contents): Draw[] {
  return network.vessels.flatMap(({ node, part }): Draw[] => {
    const heldMl = contents[node] as number;
    const after = (ml: number): Contents => Float64Array.from(contents, (each, at) => (at === node ? each - ml : each));
    return loop.components[part]?.kind === 'reservoir' ? [{ at: null, mostMl: heldMl, after }] : [];
  });
}

/** The draw after which least runs at the joints, and of those that are as good the smallest. */
function bestDraw(draws: readonly Draw[], contents: Contents, runsMl: (inside: Contents) => number): Drawn {
  let best: Drawn = { ml: 0, at: null, left: contents, runs: Math.max(TOWELS_ML, runsMl(contents)) };
  for (const { at, mostMl, after } of draws) {
    const least = Math.max(TOWELS_ML, runsMl(after(mostMl)));
    if (least > best.runs - (at === null && best.at !== null ? HOSE_FOR_ML : WITHIN_ML)) continue;
    let [tooLittle, enough] = [0, mostMl];
    while (enough - tooLittle > WITHIN_ML) {
      const middle = (tooLittle + enough) / 2;
      if (runsMl(after(middle)) <= least + WITHIN_ML) enough = middle;
      else tooLittle = middle;
    }
    const ml = Math.min(mostMl, enough + Math.max(SPARE_ML, SPARE_SHARE * enough));
    best = { ml, at, left: after(ml), runs: least };
  }
  return best;
}
