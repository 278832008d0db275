import { say, sayWord } from '../../base/words/say.js';
import { seededRandom } from '../../base/random/random.js';
import type { LoopFile } from '../../machine/loop-file/loopFile.js';
import { HAS_SEAL, isTube, SOUND, type ItemFindings } from '../inspection/grade.js';
import { inspectItems, type InspectItem, type InspectKind } from '../inspection/items.js';

/** What one part of a loop that is taken apart really looks like. */
export interface HiddenFinding {
  readonly item: string;
  readonly findings: ItemFindings;
  /** soaks after which it is smooth to the finger */
  readonly soaks: number;
}

/** drawn apart, so that a seed hides the same volumes and leaks whatever else it hides */
const FINDING_SEED = 611_953;

/** What is at its end, by the kind of part: each is one that cleaning does not mend. */
function spent(kind: InspectKind, pick: <T>(of: readonly T[]) => T): Partial<ItemFindings> {
  if (isTube(kind)) return kind === 'run' ? { wall: pick(['hard', 'coloured'] as const) } : { surface: 'cracked' };
  if (kind === 'pump' || kind === 'meter') return { worn: true };
  if (kind === 'plug') return { surface: 'plating-loss' };
  if (kind === 'reservoir') return { surface: 'cracked' };
  return HAS_SEAL[kind] ? pick([{ surface: 'pitted' }, { worn: true }] as const) : { surface: 'pitted' };
}

/** The one part whose line on the inspection sheet is not "sound"; null where nothing of the kind is hidden. */
export function drawFinding(loop: LoopFile, scenario: string, seed: number): HiddenFinding | null {
  if (scenario !== 'deposit' && scenario !== 'spent') return null;
  const random = seededRandom(seed + FINDING_SEED);
  const pick = <T>(of: readonly T[]): T => random.pick(of);
  const items = inspectItems(loop);
  if (scenario === 'spent') {
    const { id, kind } = pick(items);
    return { item: id, findings: { ...SOUND, ...spent(kind, pick) }, soaks: 0 };
  }
  // where liquid passes narrow places, and where it stands
  const likely = items.filter(({ kind }) => ['block', 'radiator', 'pump', 'reservoir'].includes(kind));
  const { id } = pick(likely.length > 0 ? likely : items);
  return { item: id, findings: { ...SOUND, deposit: pick(['film', 'layer', 'blocked'] as const) }, soaks: pick([1, 2]) };
}

const DEPOSIT_SEEN = {
  none: 'Nothing lies in it',
  film: 'A film that a finger wipes off lies over it',
  layer: 'A layer sits in it that does not wipe off',
  blocked: 'Half its ways are closed with deposit',
} as const;
const SURFACE_SEEN = {
  sound: 'its metal is even',
  'plating-loss': 'the coating is gone in a patch, the metal below it smooth',
  pitted: 'small pits go into the metal',
  cracked: 'a hair crack runs from its edge',
} as const;
const WALL_SEEN = { clear: 'its wall is clear', coloured: 'its wall has turned beige', hard: 'it cracks like a twig when bent' } as const;
const WORN_SEEN: Readonly<Partial<Record<InspectKind, string>>> = {
  pump: 'a blade of its impeller is chipped',
  meter: 'its wheel sticks',
  block: 'some of its fins are bent flat',
};

/** What eyes and fingers meet at a part: facts, never what becomes of it. */
export function seenClose({ id, kind }: InspectItem, finding: HiddenFinding | null | undefined): string {
  const { deposit, surface, worn, wall } = finding?.item === id ? finding.findings : SOUND;
  const more = [
    say(SURFACE_SEEN[surface]),
    ...(isTube(kind) && kind === 'run' ? [say(WALL_SEEN[wall ?? 'clear'])] : []),
    ...(worn ? [sayWord(WORN_SEEN[kind]) ?? sayWord('its thread is worn')] : []),
  ];
  return `${say(DEPOSIT_SEEN[deposit])}; ${more.join(', ')}.`;
}
