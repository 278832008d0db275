import { ranked, type Ranked } from '../../base/numerics/rankedCauses.js';

/** What goes wrong while a loop is filled, and what is behind it. Frequencies are general estimates from bench practice. */

export const FILL_SYMPTOMS = {
  'level-stays': 'the level does not go down',
  'nothing-returns': 'it goes down, but nothing comes back',
  'comes-out': 'it comes out at the air inlet or the spout',
  'flows-little': 'it goes round, but too little',
  foams: 'it foams',
} as const;
export type FillSymptom = keyof typeof FILL_SYMPTOMS;
export const FILL_SYMPTOM_KEYS = Object.keys(FILL_SYMPTOMS) as FillSymptom[];

interface CauseRule {
  readonly label: string;
  /** what to look at or do next, cheapest first */
  readonly nextCheck: string;
  /** relative frequency behind each symptom */
  readonly behind: Partial<Readonly<Record<FillSymptom, number>>>;
}

export const FILL_CAUSES = {
  'pump-stands': {
    label: 'Pump does not turn',
    nextCheck: 'A finger on it: a pump that runs trembles. Then its lead on the supply, the jumper, the speed that it is set to.',
    behind: { 'level-stays': 5 },
  },
  'air-at-intake': {
    label: 'Air in the pump’s eye',
    nextCheck: 'Pump off. Tilt so that the air goes up into the reservoir, knock, then a pulse of two seconds.',
    behind: { 'level-stays': 4, 'nothing-returns': 1, 'flows-little': 1.5 },
  },
  'valve-shut': {
    label: 'A valve or a coupling in the way is shut',
    nextCheck: 'Handle along the pipe is open; a quick coupling is pushed until it clicks.',
    behind: { 'level-stays': 2, 'nothing-returns': 2, 'flows-little': 1.5 },
  },
  kink: {
    label: 'A tube is kinked or pinched',
    nextCheck: 'Follow every tube with two fingers in flow order, behind the panel as well; look again once it is warm.',
    behind: { 'level-stays': 1.5, 'nothing-returns': 3, 'flows-little': 4 },
  },
  'cannot-lift': {
    label: 'The pump does not lift it over the highest point',
    nextCheck: 'Lay the machine so that the highest point comes lower, and pulse there; or pour into the highest port.',
    behind: { 'level-stays': 1, 'nothing-returns': 3 },
  },
  'no-way-out': {
    label: 'The air has no way out',
    nextCheck:
      'Pump off, then the cap or the air inlet open while it is poured; shut before the pump runs where it stands below the level.',
    behind: { 'level-stays': 2, 'nothing-returns': 2, 'comes-out': 4 },
  },
  'too-much-at-once': {
    label: 'Poured faster than it goes in',
    nextCheck: 'Stop at the mark, wait until the level stands, then the next order.',
    behind: { 'comes-out': 5, foams: 2 },
  },
  'falls-back': {
    label: 'The column comes back when the pump stops',
    nextCheck: 'Less in the reservoir before the next pulse: read the level and follow the next order.',
    behind: { 'comes-out': 4 },
  },
  'draws-air': {
    label: 'The pump draws air with it',
    nextCheck: 'Pump slower, and the level well above the outlet: a whirl above it is what makes the foam.',
    behind: { foams: 4, 'nothing-returns': 1 },
  },
  residue: {
    label: 'Rests of cleaner or soap, in the loop, the bottle or the jug',
    nextCheck:
      'A drop of it shaken in a clean glass: foam that stands for a minute is a rest. Drain, rinse with distilled water, bottle and jug too.',
    behind: { foams: 5 },
  },
  'block-choked': {
    label: 'A block is choked, or fed at its outlet',
    nextCheck: 'Undo the tube behind it over a jug: what comes before it and not behind it names it.',
    behind: { 'nothing-returns': 1, 'level-stays': 0.5, 'flows-little': 4 },
  },
  'pump-weak': {
    label: 'The pump gives less than its curve',
    nextCheck: 'Full speed set, lead seated, supply at its voltage; then the same loop with another pump.',
    behind: { 'flows-little': 3, 'nothing-returns': 0.5 },
  },
} as const satisfies Record<string, CauseRule>;

export type FillCause = keyof typeof FILL_CAUSES;
export const FILL_CAUSE_KEYS = Object.keys(FILL_CAUSES) as FillCause[];
export type ConfirmedFillCauses = Readonly<Partial<Record<FillCause, number>>>;

/** What this very loop says for or against a cause. */
export interface FillEvidence {
  /** whether its twin says that the pump primes it; null: nobody can tell */
  readonly primes: boolean | null;
  /** valves and couplings in its flow path */
  readonly hasValve: boolean;
  /** the machine stands turned */
  readonly turned: boolean;
  /** the pump is recorded as running */
  readonly pumpOn: boolean;
}

export type RankedFillCause = Ranked<FillCause>;

/** factors on a frequency where this loop speaks for or against it (judged) */
const SPEAKS_FOR = 6;
const SPEAKS_AGAINST = 0.2;

function evidenceFor(cause: FillCause, { primes, hasValve, turned, pumpOn }: FillEvidence): number {
  if (cause === 'cannot-lift') return primes === null ? 1 : primes ? SPEAKS_AGAINST : SPEAKS_FOR;
  if (cause === 'valve-shut') return hasValve ? 1 : SPEAKS_AGAINST;
  if (cause === 'air-at-intake') return turned ? 2 : 1;
  return cause === 'falls-back' && pumpOn ? SPEAKS_AGAINST : 1;
}

/** Causes of one symptom, ranked: frequency × what this loop says. */
export const rankFillCauses = (symptom: FillSymptom, evidence: FillEvidence, confirmed: ConfirmedFillCauses = {}): RankedFillCause[] =>
  ranked(
    FILL_CAUSE_KEYS.map((cause) => {
      const rule: CauseRule = FILL_CAUSES[cause];
      return { cause, rule, frequency: rule.behind[symptom] ?? 0, findsCount: true, likelihood: evidenceFor(cause, evidence) };
    }).filter(({ frequency }) => frequency > 0),
    confirmed,
  );
