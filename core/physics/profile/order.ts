import type { LoopFile } from '../../machine/loop-file/loopFile.js';

export interface PlaceStep {
  readonly kind: 'component' | 'tube';
  readonly index: number;
}

/**
 * The order in which a loop is unrolled: from each circuit's reservoir along the flow; a part where branches meet comes
 * after all of them. Everything appears once.
 */
export function placeInOrder(loop: LoopFile): PlaceStep[] {
  const indexOf = new Map(loop.components.map(({ id }, index) => [id, index]));
  const leaving = loop.components.map((component, index) =>
    loop.tubes
      .map((tube, tubeIndex) => ({ tube, tubeIndex }))
      .filter(({ tube }) => indexOf.get(tube.from[0]) === index)
      // the part's own outlet first
      .sort((a, b) => Number(b.tube.from[1] === component.flow?.[1]) - Number(a.tube.from[1] === component.flow?.[1]))
      .map(({ tubeIndex }) => tubeIndex),
  );
  const arriving = new Int32Array(loop.components.length);
  for (const { to } of loop.tubes) {
    const index = indexOf.get(to[0]) as number;
    arriving[index] = (arriving[index] as number) + 1;
  }
  const steps: PlaceStep[] = [];
  const placed = new Set<number>();
  const place = (start: number): void => {
    const stack = [start];
    for (let index = stack.pop(); index !== undefined; index = stack.pop()) {
      if (index >= loop.components.length) {
        // a tube: then what it leads to, once everything else has arrived there
        const tubeIndex = index - loop.components.length;
        steps.push({ kind: 'tube', index: tubeIndex });
        const to = indexOf.get((loop.tubes[tubeIndex] as LoopFile['tubes'][number]).to[0]) as number;
        arriving[to] = (arriving[to] as number) - 1;
        if (!placed.has(to) && (arriving[to] as number) <= 0) stack.push(to);
        continue;
      }
      if (placed.has(index)) continue;
      placed.add(index);
      steps.push({ kind: 'component', index });
      for (const tubeIndex of [...(leaving[index] as number[])].reverse()) stack.push(loop.components.length + tubeIndex);
    }
  };
  loop.components.forEach(({ kind }, index) => {
    if (kind === 'reservoir' && !placed.has(index)) place(index);
  });
  loop.components.forEach(({ kind }, index) => {
    if (kind === 'pump' && !placed.has(index)) place(index);
  });
  loop.components.forEach((_, index) => {
    if (!placed.has(index)) place(index);
  });
  return steps;
}
