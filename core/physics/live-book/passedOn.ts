import { wettedOf, type LiquidTwin, type Wetted } from './liquidTwin.js';
import type { LoopContents } from './loopContents.js';

/** part or tube that each cell of the way belongs to */
const ownersOf = ({ drive: { cells, network } }: LiquidTwin): string[] =>
  cells.map(({ node }) => network.partIds[network.part[node] as number] as string);

/**
 * What is inside after the loop was changed in the middle of its run: liquid passes by part and tube. What stood in tubes and parts
 * that are no more, or has no room, stands in those that follow on the way; what the parts that left took along was said before.
 * @param takesOver id of a tube that is no more to the one that took its place
 */
export function passedOn(
  from: LiquidTwin | null,
  to: LiquidTwin | null,
  contents: LoopContents,
  takesOver: ReadonlyMap<string, string>,
): LoopContents {
  // what the old way held when it was bled says nothing of the new one
  const own = { ...contents, way: null };
  const at = from && wettedOf(from, contents.standing);
  if (!from || !to || !at || !contents.standing) return { ...own, standing: null };
  const { reservoirMl, wettedMl } = wettedInto(from, at, to, takesOver);
  return { ...own, standing: { ...contents.standing, reservoirMl, wettedMl: Array.from(wettedMl), isRound: false } };
}

/** The same of what stands where: nothing is lost. */
export function wettedInto(from: LiquidTwin, at: Wetted, to: LiquidTwin, takesOver: ReadonlyMap<string, string>): Wetted {
  const held = new Map<string, number>();
  ownersOf(from).forEach((id, index) => {
    const owner = takesOver.get(id) ?? id;
    held.set(owner, (held.get(owner) ?? 0) + (at.wettedMl[index] as number));
  });
  const owners = ownersOf(to);
  const wetted = to.drive.cells.map(({ volumeMl }, index) => {
    const owner = owners[index] as string;
    const here = Math.min(volumeMl, held.get(owner) ?? 0);
    held.set(owner, (held.get(owner) ?? 0) - here);
    return here;
  });
  // the rest of parts that stayed, wherever there is room
  let rest = [...held.values()].reduce((sum, ml) => sum + Math.max(0, ml), 0);
  const wettedMl = wetted.map((ml, index) => {
    const more = Math.min(rest, Math.max(0, (to.drive.cells[index]?.volumeMl ?? 0) - ml));
    rest -= more;
    return ml + more;
  });
  return { reservoirMl: at.reservoirMl + rest, wettedMl: Float64Array.from(wettedMl) };
}
