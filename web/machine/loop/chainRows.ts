import { say } from '@core/base/words/say.js';
import { firstOf, flowList, isBranches, lastOf, type FlowItem, type FlowList } from '@core/machine/loop-file/branches.js';
import { flowOrder } from '@core/machine/loop-file/chain.js';
import type { LoopComponent, LoopFile, LoopTube } from '@core/machine/loop-file/loopFile.js';

/** One line of the list: a part, or the tube behind it. */
export type ChainRow = {
  readonly key: string;
  /** how many splitters it stands behind */
  readonly depth: number;
  /** said in front of the first line of a branch: "branch 1 of 2" */
  readonly branch: string | null;
} & ({ readonly component: LoopComponent } | { readonly tube: LoopTube });

/** The loop line by line in flow order, branches one below the other; what no list describes in the order it is reached. */
export function chainRows(loop: LoopFile): ChainRow[] {
  const list = flowList(loop);
  if (list) return closed(loop, list);
  const { links, offPath } = flowOrder(loop);
  return [
    ...links.flatMap(({ component, tube }) => [partRow(component, 0), ...(tube ? [tubeRow(tube, 0)] : [])]),
    ...offPath.components.map((component) => partRow(component, 0)),
  ];
}

const partRow = (component: LoopComponent, depth: number): ChainRow => ({ key: component.id, component, depth, branch: null });
const tubeRow = (tube: LoopTube, depth: number, branch: string | null = null): ChainRow => ({ key: tube.id, tube, depth, branch });

function closed(loop: LoopFile, list: FlowList): ChainRow[] {
  const left = new Set(loop.tubes);
  const between = (from: LoopComponent, to: LoopComponent, depth: number, branch: string | null = null): ChainRow[] => {
    const tube = [...left].find((each) => each.from[0] === from.id && each.to[0] === to.id);
    if (!tube) return [];
    left.delete(tube);
    return tube.inside ? [] : [tubeRow(tube, depth, branch)];
  };
  const rowsOf = (item: FlowItem, depth: number): ChainRow[] =>
    isBranches(item)
      ? [
          partRow(item.split, depth),
          ...item.branches.flatMap((branch, index) => {
            const stations = [...branch.map((each) => [firstOf(each), lastOf(each)] as const), [item.meet, item.meet] as const];
            const name = say('branch {index} of {length}', { index: index + 1, length: item.branches.length });
            return stations.flatMap(([first], at) => {
              const before = at === 0 ? item.split : (stations[at - 1] as (typeof stations)[number])[1];
              const own = branch[at];
              return [...between(before, first, depth + 1, at === 0 ? name : null), ...(own ? rowsOf(own, depth + 1) : [])];
            });
          }),
          partRow(item.meet, depth),
        ]
      : [partRow(item, depth)];
  return list.flatMap((item, index) => [
    ...rowsOf(item, 0),
    ...between(lastOf(item), firstOf(list[(index + 1) % list.length] as FlowItem), 0),
  ]);
}
