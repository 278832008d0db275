import type { BookedKind } from '../job-kinds/kinds.js';

/** What not everybody in a workshop can do. */
export const SKILLS = {
  'rigid-tube': 'rigid tube',
  cleaner: 'acidic cleaner',
  electronics: 'cards and boards',
} as const;
export type Skill = keyof typeof SKILLS;
export const SKILL_KEYS = Object.keys(SKILLS) as Skill[];

/** What a bench needs and a workshop has few of. */
export const KITS = {
  'pump-supply': 'pump supply',
  'pressure-tester': 'pressure tester',
  'flush-rig': 'flush rig',
} as const;
export type KitKind = keyof typeof KITS;
export const KIT_KEYS = Object.keys(KITS) as KitKind[];

/** Skills that a kind of job asks for (workshop practice). Rigid tube asks for its own where runs are made anew. */
export function skillsFor(kind: BookedKind, rigid: boolean): readonly Skill[] {
  const own: readonly Skill[] = SKILLS_OF[kind] ?? [];
  return rigid && MAKES_RUNS.includes(kind) ? [...own, 'rigid-tube'] : own;
}
const SKILLS_OF: Partial<Record<BookedKind, readonly Skill[]>> = {
  'strip-clean': ['cleaner'],
  commissioning: ['electronics'],
  'into-loop': ['electronics'],
  'leak-repair': ['electronics'],
  'partial-drain': ['electronics'],
  'loop-change': ['electronics'],
  'part-conversion': ['electronics'],
};
const MAKES_RUNS: readonly BookedKind[] = [
  'commissioning',
  'into-loop',
  'part-replacement',
  'partial-drain',
  'leak-repair',
  'loop-change',
  'part-conversion',
];

/** Kinds that rinse from a rig, and kinds whose joints are tested with air before liquid goes in. */
const FLUSHES: readonly BookedKind[] = ['flush-refill', 'strip-clean'];
const AIR_TESTED: readonly BookedKind[] = [
  'commissioning',
  'into-loop',
  'strip-clean',
  'leak-repair',
  'part-replacement',
  'partial-drain',
  'loop-change',
  'part-conversion',
];

/** Kit that a led step takes, by the kind of the step. */
export const KIT_OF_STEP: Readonly<Partial<Record<string, KitKind>>> = {
  'dry-test': 'pressure-tester',
  fill: 'pump-supply',
  'wet-run': 'pump-supply',
  bleed: 'pump-supply',
  rinse: 'flush-rig',
  clean: 'flush-rig',
};
/** min after which a step likely lets a tester or rig go; the pump's supply stays until the run is over (workshop practice) */
export const KIT_LASTS_MINUTES = 120;

/**
 * Kit that a step holds while it lasts.
 * @param beforeWet the last attended step before the pump runs alone: joints are tested and the loop is filled in it
 */
export function kitsFor(kind: BookedKind, what: 'work' | 'soak' | 'wet test', beforeWet: boolean): readonly KitKind[] {
  if (what === 'wet test') return ['pump-supply'];
  if (what === 'soak') return ['flush-rig'];
  return [
    ...(FLUSHES.includes(kind) && !beforeWet ? (['flush-rig'] as const) : []),
    ...(AIR_TESTED.includes(kind) && beforeWet ? (['pressure-tester'] as const) : []),
  ];
}
