import { DisjointSets } from '../../base/numerics/disjointSets.js';
import { partName, type LoopComponent, type LoopFile, type LoopTube } from './loopFile.js';

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

/** One circuit as a loop file of its own. */
export interface OwnCircuit {
  /** by what it cools, or by where it is filled */
  readonly name: string;
  readonly file: LoopFile;
}

/**
 * A file of several circuits as one file each: a circuit is what is filled, tested, bled, drained and dated, so each
 * becomes a loop. Fields that nobody knows go with every one; a part without tubes stays with the first.
 * @returns one element, the file as it is, where nothing has to be parted
 */
export function circuitFiles(loop: LoopFile): OwnCircuit[] {
  const all = findCircuits(loop);
  const joined = all.filter(({ tubes }) => tubes.length > 0);
  if (joined.length < 2) return [{ name: circuitName(loop.components), file: loop }];
  const alone = all.filter(({ tubes }) => tubes.length === 0).flatMap(({ components }) => components);
  return joined.map(({ components, tubes }, index) => {
    const own = new Set([...components, ...(index === 0 ? alone : [])]);
    const name = circuitName(components);
    return { name, file: { ...loop, name, components: loop.components.filter((part) => own.has(part)), tubes: [...tubes] } };
  });
}

/** How many circuits one file holds; parts that are joined to nothing yet make none. */
export const circuitCount = (loop: LoopFile): number => circuitFiles(loop).length;

function circuitName(components: readonly LoopComponent[]): string {
  const of = (kind: string): LoopComponent[] => components.filter((part) => part.kind === kind);
  const named = [of('block'), of('reservoir'), of('radiator')].find((parts) => parts.length > 0) ?? [];
  const words = named.map(partName).join(' and ').slice(0, 100);
  return words === '' ? 'Loop' : words.charAt(0).toUpperCase() + words.slice(1);
}
