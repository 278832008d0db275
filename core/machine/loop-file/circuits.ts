import { DisjointSets } from '../../base/numerics/disjointSets.js';
import type { LoopComponent, LoopFile, LoopTube } from './loopFile.js';

/** Everything that is joined by tubes: one body of liquid. */
export interface Circuit {
  readonly components: readonly LoopComponent[];
  readonly tubes: readonly LoopTube[];
}

/** The circuits of a loop file, in the order of their first component. A part without tubes is a circuit of its own. */
export function findCircuits(loop: LoopFile): Circuit[] {
  const indexOf = new Map(loop.components.map(({ id }, index) => [id, index]));
  const joined = new DisjointSets(loop.components.length);
  for (const { from, to } of loop.tubes) joined.merge(indexOf.get(to[0]) as number, indexOf.get(from[0]) as number);
  const { of, count } = joined.number();
  const circuits = Array.from({ length: count }, (): { components: LoopComponent[]; tubes: LoopTube[] } => ({ components: [], tubes: [] }));
  loop.components.forEach((component, index) => circuits[of[index] as number]?.components.push(component));
  for (const tube of loop.tubes) circuits[of[indexOf.get(tube.from[0]) as number] as number]?.tubes.push(tube);
  return circuits;
}
