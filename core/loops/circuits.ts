import type { LoopComponent, LoopFile, LoopTube } from './loopFile.js';

/** Everything that is joined by tubes: one body of liquid. */
export interface Circuit {
  readonly components: readonly LoopComponent[];
  readonly tubes: readonly LoopTube[];
}

/** The circuits of a loop file, in the order of their first component. A part without tubes is a circuit of its own. */
export function findCircuits(loop: LoopFile): Circuit[] {
  const root = new Map(loop.components.map(({ id }) => [id, id]));
  const find = (id: string): string => {
    let at = id;
    while (root.get(at) !== at) at = root.get(at) as string;
    return at;
  };
  for (const { from, to } of loop.tubes) root.set(find(to[0]), find(from[0]));
  const circuits = new Map<string, { components: LoopComponent[]; tubes: LoopTube[] }>();
  for (const component of loop.components) {
    const key = find(component.id);
    const circuit = circuits.get(key) ?? { components: [], tubes: [] };
    circuit.components.push(component);
    circuits.set(key, circuit);
  }
  for (const tube of loop.tubes) circuits.get(find(tube.from[0]))?.tubes.push(tube);
  return [...circuits.values()];
}
