import { say } from '../../base/words/say.js';
import { tubeName, shortName } from '../../machine/catalogue/names.js';
import { unusedPorts } from '../../machine/loop-file/fittings.js';
import { tubesByHand, type LoopFile } from '../../machine/loop-file/loopFile.js';
import { findTubeMaterial } from '../../machine/materials/tubes.js';

export const INSPECT_KINDS = ['radiator', 'block', 'pump', 'reservoir', 'meter', 'plug', 'run', 'rigid-run', 'other'] as const;
export type InspectKind = (typeof INSPECT_KINDS)[number];

/** One thing on the inspection sheet of a stripped loop. */
export interface InspectItem {
  /** component id, run id, or "plug:component.port" */
  readonly id: string;
  readonly name: string;
  readonly kind: InspectKind;
}

const KNOWN: Readonly<Record<string, InspectKind>> = {
  radiator: 'radiator',
  block: 'block',
  pump: 'pump',
  reservoir: 'reservoir',
  meter: 'meter',
};
/** Tube that is cleaned rather than replaced. A wall nobody knows counts as soft: most are. */
export const isRigid = (material: string): boolean => findTubeMaterial(material)?.soft === false;

export const hasRigidTube = (loop: LoopFile): boolean => loop.tubes.some(({ material }) => isRigid(material));

/** Every component, plug and run of a loop, in its own order. */
export function inspectItems(loop: LoopFile): InspectItem[] {
  const parts = loop.components.map((part): InspectItem => ({ id: part.id, name: shortName(part), kind: KNOWN[part.kind] ?? 'other' }));
  const plugs = loop.components.flatMap((part) =>
    unusedPorts(loop, part)
      .filter((port) => ['plug', 'cap'].includes(part.closures?.[port] ?? 'plug'))
      .map((port): InspectItem => ({
        id: `plug:${part.id}.${port}`,
        name:
          part.closures?.[port] === 'cap'
            ? say('cap on {shortName}, {port}', { shortName: shortName(part), port })
            : say('plug in {shortName}, {port}', { shortName: shortName(part), port }),
        kind: 'plug',
      })),
  );
  const runs = tubesByHand(loop).map((tube): InspectItem => ({
    id: tube.id,
    name: tubeName(loop, tube),
    kind: isRigid(tube.material) ? 'rigid-run' : 'run',
  }));
  return [...parts, ...plugs, ...runs];
}
