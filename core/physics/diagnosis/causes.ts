/** What can make a machine run hotter, or slower round, than on its sound days. */
export const HEAT_CAUSES = ['nothing', 'dust', 'fan', 'paste', 'block', 'radiator', 'pump', 'kink', 'air-inside', 'coolant'] as const;
export type HeatCause = (typeof HEAT_CAUSES)[number];

/** Parts that a cause can sit at; `loop`: it acts on all of it. */
export const CAUSE_AT: Readonly<Record<HeatCause, 'loop' | 'block' | 'radiator'>> = {
  nothing: 'loop',
  dust: 'radiator',
  fan: 'radiator',
  paste: 'block',
  block: 'block',
  radiator: 'radiator',
  pump: 'loop',
  kink: 'loop',
  'air-inside': 'loop',
  coolant: 'loop',
};

type Range = readonly [from: number, to: number];
/** How far each cause shifts the twin, even over its range (handbook H; workshop practice, estimates). */
export const CAUSE_RANGES = {
  /** share of a radiator's air that is left */
  dustAir: [0.35, 0.85],
  fanAir: [0.2, 0.7],
  /** K/W more between one block and its part */
  pasteKPerW: [0.02, 0.1],
  /** of one block's loss and of its film */
  blockLoss: [2, 6],
  blockFilm: [1.2, 2],
  /** of one radiator's loss, and of its conductance */
  radiatorLoss: [3, 15],
  radiatorUa: [0.9, 0.6],
  /** share of the pump's head that is left */
  pumpHead: [0.2, 0.7],
  /** share of the flow that is lost */
  kinkFlow: [0.25, 0.65],
  airFlow: [0.05, 0.2],
  airFilm: [1.2, 2],
  /** of the viscosity */
  viscosity: [1.5, 3],
} as const satisfies Record<string, Range>;

/** Causes that no figure tells apart: what was seen does. */
export const TWINS: readonly (readonly [HeatCause, HeatCause])[] = [
  ['dust', 'fan'],
  ['pump', 'kink'],
];

export const CAUSE_CHECKS = [
  'look-at-fans',
  'look-at-fins',
  'feel-tubes',
  'listen-to-pump',
  'look-for-bubbles',
  'look-at-colour',
  'rinse-the-radiator',
  'renew-the-paste',
  'open-the-block',
] as const;
export type CauseCheck = (typeof CAUSE_CHECKS)[number];

interface CheckRule {
  /** min, with the machine on the bench */
  readonly minutes: number;
  /** what is written down when something was found, and when nothing was */
  readonly found: string;
  readonly sound: string;
  /** chance that it finds something, by cause; `other` for those that are not named */
  readonly chance: Readonly<Partial<Record<HeatCause, number>>> & { readonly other: number };
}

/** What each look finds, how often, and how long it takes (workshop practice, estimates). */
export const CHECK_RULES: Readonly<Record<CauseCheck, CheckRule>> = {
  'look-at-fans': { minutes: 1, found: 'fan-still', sound: 'fans-turn', chance: { fan: 0.9, other: 0.03 } },
  'look-at-fins': { minutes: 2, found: 'fins-dusty', sound: 'fins-clean', chance: { dust: 0.92, other: 0.15 } },
  'feel-tubes': { minutes: 2, found: 'tube-kinked', sound: 'tubes-round', chance: { kink: 0.85, other: 0.03 } },
  'listen-to-pump': { minutes: 1, found: 'pump-noisy', sound: 'pump-quiet', chance: { pump: 0.6, 'air-inside': 0.5, other: 0.06 } },
  'look-for-bubbles': { minutes: 2, found: 'bubbles', sound: 'no-bubbles', chance: { 'air-inside': 0.8, other: 0.05 } },
  'look-at-colour': {
    minutes: 2,
    found: 'colour-changed',
    sound: 'colour-same',
    chance: { coolant: 0.7, block: 0.4, radiator: 0.3, other: 0.08 },
  },
  'rinse-the-radiator': {
    minutes: 45,
    found: 'radiator-dirty',
    sound: 'radiator-clear',
    chance: { radiator: 0.9, block: 0.3, other: 0.05 },
  },
  'renew-the-paste': { minutes: 30, found: 'paste-dry', sound: 'paste-sound', chance: { paste: 0.9, other: 0.1 } },
  'open-the-block': {
    minutes: 60,
    found: 'fins-choked',
    sound: 'fins-open',
    chance: { block: 0.95, radiator: 0.3, coolant: 0.2, other: 0.05 },
  },
};

/** Every sign that can be written down. */
export const SEEN_SIGNS: readonly string[] = CAUSE_CHECKS.flatMap((check) => [CHECK_RULES[check].found, CHECK_RULES[check].sound]);

export const chanceOf = (check: CauseCheck, cause: HeatCause): number =>
  CHECK_RULES[check].chance[cause] ?? CHECK_RULES[check].chance.other;

/** How likely a sign is where this is the cause; 1 for a sign that no look gives. */
export function signChance(sign: string, cause: HeatCause): number {
  for (const check of CAUSE_CHECKS) {
    if (CHECK_RULES[check].found === sign) return chanceOf(check, cause);
    if (CHECK_RULES[check].sound === sign) return 1 - chanceOf(check, cause);
  }
  return 1;
}
