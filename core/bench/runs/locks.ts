import type { StandingName } from '../../machine/loop-file/orientation.js';
import { keepTally } from '../../physics/contents/ledger.js';
import { holdsLiquid, isKnownEmpty, levelNow } from './contents.js';
import { sistersAsked } from './sisters.js';
import { twinOf } from './book.js';
import { isDrawnDown } from './drawDown.js';
import { PULLED } from './checkIds.js';
import { airInsideKpa, judgeDryTest } from './dryTest.js';
import { rinseStandOf, type LoopFacts } from './facts.js';
import { stepThat, type Procedure } from './procedure.js';
import { currentKind, type RunState } from './state.js';
import type { FailureFact, LockFact } from './why.js';

/**
 * What must not happen next. A hazard that has no safe way round has no override. One list for the device, which shows it
 * before the hand moves, and the server, which refuses.
 */
export type LockRule =
  | 'not-isolated'
  | 'loads-live'
  | 'joint-open'
  | 'port-open'
  | 'pump-turned'
  | 'low-mark'
  | 'pump-dry'
  | 'under-air'
  | 'air-before-drain'
  | 'cap-before-turn'
  | 'outlet-uncovers'
  | 'over-pressure'
  | 'doubt'
  | 'spill'
  | 'leak-open'
  | 'seal-missing'
  | 'drawn-down'
  | 'open-failure'
  | 'must-not-mix';

/** Whether a rule may be passed over with a recorded reason. */
export const CAN_OVERRIDE: Readonly<Record<LockRule, boolean>> = {
  'not-isolated': false,
  // where electronics are live, air goes first
  'loads-live': false,
  'joint-open': false,
  'port-open': false,
  'pump-turned': false,
  'low-mark': false,
  // where liquid meets a pump a reason is no liquid: only a level that was read passes
  'pump-dry': false,
  // air under pressure throws liquid and plugs about
  'under-air': false,
  'air-before-drain': true,
  'cap-before-turn': false,
  'outlet-uncovers': false,
  'over-pressure': false,
  doubt: false,
  spill: false,
  'leak-open': true,
  'seal-missing': false,
  'drawn-down': false,
  'open-failure': false,
  // a lesser coolant fades; particles that fall out cost a strip-down, but the owner may have reasons: say them
  'must-not-mix': true,
};

/** One thing that stands against an entry. */
export interface Lock {
  readonly rule: LockRule;
  readonly fact: LockFact | FailureFact;
}

export const LOCKS = {
  /** h that rinsed electronics dry before they get power (usual practice is a day in a warm dry place) */
  dryingHours: 24,
  /** degrees of tilt that count as upright */
  uprightWithinDeg: 3,
} as const;

const lock = (rule: LockRule, fact: Lock['fact']): Lock => ({ rule, fact });

/** Degrees of a turn at which a running pump draws air; null where the outlet stays covered, or nobody knows. */
export const uncoverDeg = ({ uncovers }: LoopFacts, to: StandingName): number | null =>
  uncovers.find(({ towards }) => towards === to)?.angleDeg ?? null;

/** ms until everything that was splashed is dry; null where something was not rinsed yet, 0 when nothing is wet. */
export function dryingLeftMs(state: RunState, nowMs: number): number | null {
  let left = 0;
  for (const { onElectronics, rinsedAt } of state.spills) {
    if (!onElectronics) continue;
    if (rinsedAt === null) return null;
    left = Math.max(left, Date.parse(rinsedAt) + LOCKS.dryingHours * 3_600_000 - nowMs);
  }
  return left;
}

/** Failures that keep a run from being signed off. A unit tested on its own may be signed off as one that leaks: nothing is built with it. */
export const openFailures = (procedure: Procedure, state: RunState): FailureFact[] => [
  ...(isJudgedAlone(procedure, state) ? [] : leaksAndDoubts(state)),
  ...state.spills
    .filter(({ onElectronics, rinsedAt }) => onElectronics && rinsedAt === null)
    .map((): FailureFact => ({ why: 'failed-spill' })),
  ...sistersAsked(procedure, state).map(({ where }): FailureFact => ({ why: 'failed-sisters', place: where })),
];

const isJudgedAlone = ({ unit }: Procedure, { partTests }: RunState): boolean => unit !== undefined && partTests.length > 0;

const leaksAndDoubts = ({ doubts, leaks }: RunState): FailureFact[] => [
  ...doubts
    .filter(({ answer }) => !answer?.tight)
    .map(({ part, answer }): FailureFact => ({ why: 'failed-doubt', place: part, leaked: answer !== null })),
  ...leaks
    .filter(({ retested }) => !retested?.dry)
    .map(({ where, mended }): FailureFact => ({ why: 'failed-leak', place: where, mended: mended !== null })),
];

export const doubtsAgainst = (state: RunState): Lock[] =>
  state.doubts
    .filter(({ answer }) => !answer?.tight)
    .map(({ part, text, answer }) => lock('doubt', { why: answer ? 'doubt-leaked' : 'doubt-untested', place: part, said: text }));

export const leaksAgainst = (state: RunState): Lock[] =>
  state.leaks.filter(({ mended }) => mended === null).map(({ where }) => lock('leak-open', { why: 'leak-not-mended', place: where }));

/** A place that gave its seal away: neither air nor liquid goes in. */
export const sealsAgainst = (state: RunState): Lock[] =>
  state.borrowedSeals.filter(({ fitted }) => fitted === null).map(({ from }) => lock('seal-missing', { why: 'seal-missing', place: from }));

/** Drawn down for a leak and not full again: no clock of a test starts. */
export const drawnAgainst = (procedure: Procedure, state: RunState): Lock[] =>
  isDrawnDown(procedure, state) ? [lock('drawn-down', { why: 'drawn-down' })] : [];

export function spillsAgainst(state: RunState, nowMs: number): Lock[] {
  const left = dryingLeftMs(state, nowMs);
  if (left === null) return [lock('spill', { why: 'not-rinsed' })];
  return left > 0 ? [lock('spill', { why: 'still-drying', hours: Math.ceil(left / 3_600_000) })] : [];
}

export const failuresAgainst = (procedure: Procedure, state: RunState): Lock[] =>
  openFailures(procedure, state).map((fact) => lock('open-failure', fact));

/** Two liquids that must not meet while too much of the first is still inside. */
export function mixAgainst({ service }: Procedure, state: RunState, productId: string): Lock[] {
  const mix = service?.mixes.find((each) => each.productId === productId);
  if (!service || !mix || mix.verdict === 'fine') return [];
  const { old } = keepTally(service.inside, state.service.flows).shares;
  if (old <= mix.mostOldFraction) return [];
  return [
    lock('must-not-mix', {
      why: 'must-not-mix',
      never: mix.verdict === 'never',
      reason: mix.reason,
      oldPercent: 100 * old,
      mostPercent: 100 * mix.mostOldFraction,
    }),
  ];
}

/** While liquid goes in or air comes out, the reservoir's own cap and the highest port may stay open; nothing else. */
function allowedOpen(state: RunState, { ports }: LoopFacts): ReadonlySet<string> {
  if (!['fill', 'bleed', 'wet-run', 'rinse'].includes(currentKind(state) ?? '')) return new Set();
  const caps = ports.filter(({ valve }) => !valve);
  const top = Math.max(...caps.map(({ heightMm }) => heightMm));
  return new Set(caps.filter(({ ofReservoir, heightMm }) => ofReservoir || heightMm === top).map(({ name }) => name));
}

/** What stands open and has to be shut before liquid goes in or the pump starts. */
export function leftOpen({ facts }: Procedure, state: RunState): { readonly ports: readonly string[]; readonly joints: readonly string[] } {
  const allowed = facts ? allowedOpen(state, facts) : new Set<string>();
  return { ports: facts ? [...state.openPorts].filter((port) => !allowed.has(port)) : [], joints: [...state.openJoints] };
}

/** What stands open, against a pump that would empty the loop through it: on the bench's supply or on the machine's own. */
export function openAgainst(procedure: Procedure, state: RunState): Lock[] {
  const { ports, joints } = leftOpen(procedure, state);
  return [
    ...joints.map((joint) => lock('joint-open', { why: 'joint-open', joint })),
    ...ports.map((port) => lock('port-open', { why: 'port-open', port })),
  ];
}

function isolationAgainst(procedure: Procedure, state: RunState): Lock[] {
  const step = stepThat(procedure, 'isolates');
  const progress = state.steps.find(({ id }) => id === step?.id);
  if (progress?.status === 'done') return [];
  const toPull = step?.checks.filter(({ id }) => id.startsWith(PULLED) && (progress?.checks[id]?.mark ?? 'open') === 'open').length ?? 0;
  return [lock('not-isolated', { why: 'not-isolated', toPull })];
}

/** Loads that hang on the supply: nothing wet moves before air found the loop tight. */
export const loadsAgainst = (procedure: Procedure, state: RunState): Lock[] =>
  state.loadsStay !== null && judgeDryTest(procedure, state)?.verdict !== 'pass' ? [lock('loads-live', { why: 'loads-before-air' })] : [];

/** Air of the test that still stands inside: nothing is opened, and the test is not left, before it is out. */
export function airAgainst(procedure: Procedure, state: RunState): Lock[] {
  const gaugeKpa = airInsideKpa(procedure, state);
  return gaugeKpa === null ? [] : [lock('under-air', { why: 'under-air', gaugeKpa })];
}

/** What stands against the pump, whatever the level. */
export function pumpAgainst(procedure: Procedure, state: RunState, facts: LoopFacts): Lock[] {
  const { to, angleDeg } = state.stand;
  const uncover = angleDeg > LOCKS.uprightWithinDeg ? uncoverDeg(facts, to) : null;
  return [
    ...isolationAgainst(procedure, state),
    ...loadsAgainst(procedure, state),
    ...airAgainst(procedure, state),
    ...openAgainst(procedure, state),
    ...(uncover !== null && angleDeg >= uncover
      ? [lock('pump-turned', { why: 'pump-turned', angleDeg: Math.round(angleDeg), uncoverDeg: uncover })]
      : []),
    ...(isKnownEmpty(procedure, state) ? [lock('pump-dry', { why: 'pump-dry' })] : []),
    ...sealsAgainst(state),
    ...leaksAgainst(state),
    ...doubtsAgainst(state),
  ];
}

/** The level at its low mark, by the book or as it was read; without a twin only while filling. */
export function lowMarkAgainst(procedure: Procedure, state: RunState, facts: LoopFacts, nowMs: number): Lock[] {
  const level = twinOf(procedure) || currentKind(state) === 'fill' ? levelNow(procedure, state, nowMs) : null;
  // a loop that is empty is told of by its own lock
  if (!level || level.ml > (facts.reservoir?.lowMarkMl ?? 0) || isKnownEmpty(procedure, state)) return [];
  return [lock('low-mark', { why: 'low-mark', levelMl: level.ml, measured: level.measured })];
}

export function openingAgainst(procedure: Procedure, state: RunState, facts: LoopFacts, port: string): Lock[] {
  const air = airAgainst(procedure, state);
  const fact = facts.ports.find(({ name }) => name === port);
  if (air.length > 0 || !fact?.valve) return air;
  if (state.pump?.on) return [lock('port-open', { why: 'valve-while-pumping' })];
  if (!holdsLiquid(procedure, state)) return [];
  // the advised stand whose inlets would run if they were opened first
  const { service } = procedure;
  const advised = service ? [...service.stands, rinseStandOf(service)] : [];
  if (advised.some((stand) => stand?.drain === port && (stand.airsFollow || stand.airs.length === 0))) return [];
  const inlet = facts.ports.some(({ name, heightMm }) => state.openPorts.has(name) && heightMm > fact.heightMm);
  return inlet ? [] : [lock('air-before-drain', { why: 'air-before-drain' })];
}

export const jointAgainst = (procedure: Procedure, state: RunState): Lock[] => [
  ...airAgainst(procedure, state),
  ...(state.pump?.on ? [lock('joint-open', { why: 'joint-while-pumping' })] : []),
];

export function turnAgainst(procedure: Procedure, state: RunState, facts: LoopFacts, to: StandingName, angleDeg: number): Lock[] {
  if (angleDeg <= LOCKS.uprightWithinDeg) return [];
  const open = holdsLiquid(procedure, state)
    ? [
        ...facts.ports
          .filter(({ name }) => state.openPorts.has(name))
          .map(({ name }) => lock('cap-before-turn', { why: 'cap-before-turn', port: name })),
        ...[...state.openJoints].map((joint) => lock('cap-before-turn', { why: 'joint-before-turn', joint })),
      ]
    : [];
  const uncover = state.pump?.on ? uncoverDeg(facts, to) : null;
  return uncover !== null && angleDeg >= uncover
    ? [...open, lock('outlet-uncovers', { why: 'outlet-uncovers', uncoverDeg: uncover })]
    : open;
}

export const pressureAgainst = ({ mostGaugeKpa, weakest }: Pick<LoopFacts, 'mostGaugeKpa' | 'weakest'>, gaugeKpa: number): Lock[] =>
  gaugeKpa > mostGaugeKpa ? [lock('over-pressure', { why: 'over-pressure', gaugeKpa, mostKpa: mostGaugeKpa, weakest })] : [];
