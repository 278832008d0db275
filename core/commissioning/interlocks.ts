import { nameIn } from '../catalogue/names.js';
import { PULLED, type RunState } from './state.js';
import type { StandingName } from '../geometry/orientation.js';
import type { LoopFacts } from './facts.js';
import type { RunEventBody } from './events.js';
import { ledgerOf } from '../jobs/refill.js';
import type { Procedure } from './procedure.js';

/**
 * What must not happen next, with the reason in words. A hazard that has no safe way round has no override.
 * One list for the device, which shows it before the hand moves, and the server, which refuses.
 */
export type InterlockRule =
  | 'not-isolated'
  | 'joint-open'
  | 'port-open'
  | 'pump-turned'
  | 'low-mark'
  | 'air-before-drain'
  | 'cap-before-turn'
  | 'outlet-uncovers'
  | 'over-pressure'
  | 'doubt'
  | 'spill'
  | 'leak-open'
  | 'open-failure'
  | 'must-not-mix';

/** Whether a rule may be passed over with a recorded reason. */
export const CAN_OVERRIDE: Readonly<Record<InterlockRule, boolean>> = {
  'not-isolated': false,
  'joint-open': false,
  'port-open': false,
  'pump-turned': false,
  'low-mark': true,
  'air-before-drain': true,
  'cap-before-turn': false,
  'outlet-uncovers': false,
  'over-pressure': false,
  doubt: false,
  spill: false,
  'leak-open': true,
  'open-failure': false,
  // a lesser coolant fades; particles that fall out cost a strip-down, but the owner may have reasons: say them
  'must-not-mix': true,
};

export interface Interlock {
  readonly rule: InterlockRule;
  readonly message: string;
}

export const INTERLOCK = {
  /** h that rinsed electronics dry before they get power (usual practice is a day in a warm dry place) */
  dryingHours: 24,
  /** degrees of tilt that count as upright */
  uprightWithinDeg: 3,
} as const;

const block = (rule: InterlockRule, message: string): Interlock => ({ rule, message });

/** Degrees of a turn at which a running pump draws air; null where the outlet stays covered, or nobody knows. */
export const uncoverDeg = ({ uncovers }: LoopFacts, to: StandingName): number | null =>
  uncovers.find(({ towards }) => towards === to)?.angleDeg ?? null;

/** ms until everything that was splashed is dry; null where something was not rinsed yet, 0 when nothing is wet. */
export function dryingLeftMs(state: RunState, nowMs: number): number | null {
  let left = 0;
  for (const { onElectronics, rinsedAt } of state.spills) {
    if (!onElectronics) continue;
    if (rinsedAt === null) return null;
    left = Math.max(left, Date.parse(rinsedAt) + INTERLOCK.dryingHours * 3_600_000 - nowMs);
  }
  return left;
}

/** Failures that keep a run from being signed off, in words. */
export function openFailures(state: RunState, facts: LoopFacts | null): string[] {
  const parts = [...(facts?.parts ?? []), ...(facts?.joints ?? [])];
  return [
    ...state.doubts
      .filter(({ answer }) => !answer?.tight)
      .map(
        ({ part, answer }) => `${nameIn(parts, part)} felt wrong and ${answer ? 'leaked in its own test' : 'was not tested on its own'}`,
      ),
    ...state.leaks
      .filter(({ retested }) => !retested?.dry)
      .map(({ where, mended }) => `the leak at ${nameIn(parts, where)} is ${mended ? 'mended but not tested again' : 'open'}`),
    ...state.spills
      .filter(({ onElectronics, rinsedAt }) => onElectronics && rinsedAt === null)
      .map(() => 'electronics were splashed and not rinsed'),
  ];
}

/** mL that stand in the reservoir as far as it can be told: the last level, and what was poured and pumped since. */
export function levelNow(procedure: Procedure, state: RunState, nowMs: number): { ml: number; measured: boolean } | null {
  const reservoir = procedure.facts?.reservoir;
  const fill = procedure.facts?.fill;
  if (!reservoir || !fill || state.pours.length === 0) return null;
  const last = state.levels.at(-1);
  const pumpOn = state.pump?.on === true;
  const pulse = fill.pulses[pulsesRun(state)];
  const drawn = (fromMs: number): number => {
    if (!pumpOn || !state.pump || !pulse || pulse.runS <= 0) return 0;
    const seconds = Math.max(0, (nowMs - Math.max(fromMs, Date.parse(state.pump.since))) / 1000);
    return Math.min(pulse.movedMl, (pulse.movedMl / pulse.runS) * seconds);
  };
  const lastMs = last ? Date.parse(last.at) : 0;
  const pouredAfter = state.pours.filter(({ at }) => Date.parse(at) > lastMs).reduce((sum, { value }) => sum + value, 0);
  if (last) return { ml: Math.min(reservoir.fillMarkMl, last.value + pouredAfter) - drawn(lastMs), measured: pouredAfter === 0 && !pumpOn };
  return { ml: reservoir.fillMarkMl - drawn(0), measured: false };
}

/** Pulses that are over: pours after the first one. */
export const pulsesRun = (state: RunState): number => Math.max(0, state.pours.length - 1);

function beforePump(procedure: Procedure, state: RunState, facts: LoopFacts): Interlock[] {
  const found: Interlock[] = [];
  const isolate = state.steps.find(({ id }) => id === 'isolate');
  if (isolate?.status !== 'done') {
    const step = procedure.steps.find(({ id }) => id === 'isolate');
    const open = step?.checks.filter(({ id }) => id.startsWith(PULLED) && (isolate?.checks[id]?.mark ?? 'open') === 'open').length ?? 0;
    found.push(
      block(
        'not-isolated',
        `everything but the pump must be off its plug first${open > 0 ? ` (${open} still to pull)` : ''}: a leak would meet live electronics`,
      ),
    );
  }
  for (const joint of state.openJoints)
    found.push(
      block('joint-open', `the joint at ${nameIn(facts.joints, joint)} is recorded undone: the pump would empty the loop through it`),
    );
  const allowed = allowedOpen(state, facts);
  for (const port of state.openPorts)
    if (!allowed.has(port))
      found.push(
        block('port-open', `${facts.ports.find(({ name }) => name === port)?.label ?? port} is open: close it before the pump runs`),
      );
  if (state.stand.angleDeg > INTERLOCK.uprightWithinDeg) {
    const uncover = uncoverDeg(facts, state.stand.to);
    if (uncover !== null && state.stand.angleDeg >= uncover)
      found.push(
        block(
          'pump-turned',
          `at ${Math.round(state.stand.angleDeg)}° the reservoir’s outlet is uncovered (from ${uncover}°): the pump would draw air`,
        ),
      );
  }
  return [...found, ...leaksAgainst(state, facts), ...doubtsAgainst(state, facts)];
}

/** While liquid goes in or air comes out, the reservoir's own cap and the highest port may stay open; nothing else. */
function allowedOpen(state: RunState, { ports }: LoopFacts): ReadonlySet<string> {
  if (!['fill', 'bleed', 'wet', 'rinse'].includes(state.current ?? '')) return new Set();
  const caps = ports.filter(({ valve }) => !valve);
  const top = Math.max(...caps.map(({ heightMm }) => heightMm));
  return new Set(caps.filter(({ ofReservoir, heightMm }) => ofReservoir || heightMm === top).map(({ name }) => name));
}

/** Every interlock that stands against an entry. Empty: nothing does. */
export function interlocksAgainst(procedure: Procedure, state: RunState, body: RunEventBody, nowMs: number): Interlock[] {
  const facts = procedure.facts;
  if (!facts) return [];
  switch (body.type) {
    case 'pump': {
      if (!body.on) return [];
      const level = state.current === 'fill' ? levelNow(procedure, state, nowMs) : null;
      const low = facts.reservoir?.lowMarkMl ?? 0;
      return [
        ...beforePump(procedure, state, facts),
        ...(level && level.ml <= low
          ? [
              block(
                'low-mark',
                `the level stands at its low mark (${Math.round(level.ml)} mL${level.measured ? '' : ', predicted'}): pour first, or the pump runs dry`,
              ),
            ]
          : []),
      ];
    }
    case 'timer-started':
      // the wet test's clock starts with the pump
      return body.step === 'wet' ? beforePump(procedure, state, facts) : [];
    case 'port':
      return body.open ? beforeOpening(procedure, state, facts, body.port) : [];
    case 'joint':
      return body.open && state.pump?.on ? [block('joint-open', 'the pump is on: switch it off before a joint is undone')] : [];
    case 'turn':
      return beforeTurn(procedure, state, facts, body);
    case 'dry-reading':
      return body.gaugeKpa > facts.mostGaugeKpa
        ? [
            block(
              'over-pressure',
              `${body.gaugeKpa} kPa is above ${facts.mostGaugeKpa} kPa${facts.weakest ? `, the rating of ${facts.weakest}` : ''}: let air out first; glass and acrylic burst`,
            ),
          ]
        : [];
    case 'coolant':
      return [...doubtsAgainst(state, facts), ...leaksAgainst(state, facts), ...mixAgainst(procedure, state, body.productId)];
    case 'pour':
      return [...doubtsAgainst(state, facts), ...leaksAgainst(state, facts)];
    case 'rinse':
      return body.liquid === 'cleaner' ? [] : leaksAgainst(state, facts);
    case 'check':
      return body.mark === 'done' && body.step === 'power' && body.check !== 'supply-off-again' ? spillsAgainst(state, nowMs) : [];
    case 'step-done':
      return body.step === 'power' ? spillsAgainst(state, nowMs) : [];
    case 'signed-off':
      return openFailures(state, facts).map((words) => block('open-failure', words));
    default:
      return [];
  }
}

function doubtsAgainst(state: RunState, facts: LoopFacts): Interlock[] {
  return state.doubts
    .filter(({ answer }) => !answer?.tight)
    .map(({ part, text, answer }) =>
      block(
        'doubt',
        `${nameIn([...facts.parts, ...facts.joints], part)} felt wrong (“${text}”): ${answer ? 'it leaked in its own test and must be replaced or mended' : 'test that part alone with air before any liquid'}`,
      ),
    );
}

function leaksAgainst(state: RunState, facts: LoopFacts): Interlock[] {
  return state.leaks
    .filter(({ mended }) => mended === null)
    .map(({ where }) => block('leak-open', `the leak at ${nameIn([...facts.joints, ...facts.parts], where)} is not mended yet`));
}

function spillsAgainst(state: RunState, nowMs: number): Interlock[] {
  const left = dryingLeftMs(state, nowMs);
  if (left === null)
    return [block('spill', 'electronics were splashed: rinse them as their maker advises; salts of the coolant do not dry away')];
  return left > 0 ? [block('spill', `rinsed electronics still dry for about ${Math.ceil(left / 3_600_000)} h: no power before`)] : [];
}

/** Two liquids that must not meet while too much of the first is still inside. */
function mixAgainst({ service }: Procedure, state: RunState, productId: string): Interlock[] {
  const mix = service?.mixes.find((each) => each.productId === productId);
  if (!service || !mix || mix.verdict === 'fine') return [];
  const { shares } = ledgerOf(service, state.service);
  const old = shares.old;
  if (old <= mix.mostOldFraction) return [];
  return [
    block(
      'must-not-mix',
      `${mix.verdict === 'never' ? 'these two never go together' : 'rinse between'}: ${mix.reason}; ${(100 * old).toFixed(1)} % of what is inside is the old liquid, at most ${(100 * mix.mostOldFraction).toFixed(1)} % may be`,
    ),
  ];
}

/** Liquid stands inside: poured in this run, or already there when a service began. */
const holdsLiquid = ({ service }: Procedure, state: RunState): boolean =>
  state.pours.length > 0 || (service !== undefined && (ledgerOf(service, state.service).insideMl ?? 1) > 1);

function beforeOpening(procedure: Procedure, state: RunState, facts: LoopFacts, port: string): Interlock[] {
  const fact = facts.ports.find(({ name }) => name === port);
  if (!fact) return [];
  if (state.pump?.on && fact.valve) return [block('port-open', 'the pump is on: switch it off before a drain valve is opened')];
  if (!fact.valve || !holdsLiquid(procedure, state)) return [];
  const inlet = facts.ports.some(({ name, heightMm }) => state.openPorts.has(name) && heightMm > fact.heightMm);
  return inlet
    ? []
    : [block('air-before-drain', 'open an air inlet higher up first: without it the column hangs and lets go when knocked')];
}

function beforeTurn(
  procedure: Procedure,
  state: RunState,
  facts: LoopFacts,
  { to, angleDeg }: Extract<RunEventBody, { type: 'turn' }>,
): Interlock[] {
  if (angleDeg <= INTERLOCK.uprightWithinDeg) return [];
  const open = facts.ports.filter(({ name }) => state.openPorts.has(name));
  const found: Interlock[] = [];
  if (holdsLiquid(procedure, state)) {
    for (const { label } of open) found.push(block('cap-before-turn', `close it before the turn: ${label}`));
    for (const joint of state.openJoints)
      found.push(block('cap-before-turn', `the joint at ${nameIn(facts.joints, joint)} is undone: cap both ends before the turn`));
  }
  if (state.pump?.on) {
    const uncover = uncoverDeg(facts, to);
    if (uncover !== null && angleDeg >= uncover)
      found.push(
        block(
          'outlet-uncovers',
          `with the pump on, turn it to less than ${uncover}°: beyond, the reservoir’s outlet comes out of the liquid`,
        ),
      );
  }
  return found;
}
