import { judgeBleed } from '../bleeding/bleed.js';
import { balanceFill, type FillBalance } from '../filling/fillPlan.js';
import { judgeDecay, type DecayResult } from '../leak-testing/decay.js';
import { LEAST_TAIL_READINGS, MOST_GAUGE_KPA } from '../leak-testing/defaults.js';
import { isServiceEntry, type ServiceEntry } from '../jobs/entries.js';
import { ledgerBeforeRefill, refillVolume } from '../jobs/refill.js';
import { refuseServiceEntry, serviceMissing } from '../jobs/serviceRules.js';
import type { Volume } from '../loops/volume.js';
import type { RunEvent, RunEventBody } from './events.js';
import { CAN_OVERRIDE, interlocksAgainst, openFailures, type InterlockRule } from './interlocks.js';
import type { Procedure, ProcedureStep } from './procedure.js';
import { broughtMl, dryReadings, pouredMl, timerFace, type RunState, type StepState } from './state.js';

/** Why an entry is not taken, in words that say what would be right. */
export interface Refusal {
  readonly code: 'interlock' | 'signed-off' | 'too-early' | 'unknown-item' | 'step-open' | 'unsafe' | 'not-yours-to-undo';
  readonly message: string;
  /** the interlock, where it is one, and whether a recorded reason may pass it over */
  readonly rule?: InterlockRule;
  readonly mayOverride?: boolean;
}

const refusal = (code: Refusal['code'], message: string): Refusal => ({ code, message });

/** The dry test as it stands, or null before the first reading. */
export function judgeDryTest(procedure: Procedure, state: RunState): DecayResult | null {
  const readings = dryReadings(state);
  if (!procedure.dry || readings.length === 0) return null;
  return judgeDecay({
    volumeMl: procedure.volume.volumeMl,
    readings,
    resolutionKpa: procedure.schools.gaugeResolutionKpa,
    limitMbarLs: procedure.dry.limitMbarLs,
    // after a first fill, what still stands inside takes room from the air
    liquidMl: Math.min(0.95 * procedure.volume.volumeMl, pouredMl(state) + broughtMl(state)),
  });
}

/** What a step still lacks before it can be called done. Empty: it may be closed. */
export function blockers(procedure: Procedure, state: RunState, stepId: string, nowMs: number): string[] {
  const step = procedure.steps.find(({ id }) => id === stepId);
  const progress = state.steps.find(({ id }) => id === stepId);
  if (!step || !progress) return ['this run has no such step'];
  return [
    ...openChecks(step, progress),
    ...openTimers(step, state, nowMs),
    ...criterion(procedure, state, step),
    ...serviceMissing(procedure, state, step),
  ];
}

function openChecks(step: ProcedureStep, progress: StepState): string[] {
  const open = step.checks.filter(({ id }) => (progress.checks[id]?.mark ?? 'open') === 'open');
  if (open.length === 0) return [];
  const power = open.filter(({ beforePower }) => beforePower).length;
  return [`${open.length} ${open.length === 1 ? 'check' : 'checks'} open${power > 0 ? `, ${power} of them before power` : ''}`];
}

function openTimers(step: ProcedureStep, state: RunState, nowMs: number): string[] {
  return step.timers
    .filter(({ id }) => !state.timers[id] || !timerFace(state.timers[id], nowMs).finished)
    .map(({ label, id }) =>
      state.timers[id] ? `timer still running: ${label.toLowerCase()}` : `timer not started: ${label.toLowerCase()}`,
    );
}

/** The step's own measure of done. */
function criterion(procedure: Procedure, state: RunState, step: ProcedureStep): string[] {
  switch (step.kind) {
    case 'dry-test': {
      const result = judgeDryTest(procedure, state);
      if (!result) return [`no reading yet; a verdict needs at least ${LEAST_TAIL_READINGS}`];
      return result.verdict === 'pass'
        ? []
        : [
            result.verdict === 'fail'
              ? 'the dry test failed: find the leak, then start the test again'
              : `cannot tell yet: about ${Math.ceil(result.moreMinutes ?? 0)} more min`,
          ];
    }
    case 'fill': {
      // a top-up may be nothing but water for vapour
      if (procedure.service?.kind === 'top-up') return state.service.flows.some(({ way }) => way === 'in') ? [] : ['nothing topped up yet'];
      const missing = state.coolant ? [] : ['coolant not chosen'];
      if (state.pours.length === 0) return [...missing, 'nothing poured yet'];
      const balance = fillBalance(procedure, state);
      return balance.verdict === 'as-planned' ? missing : [...missing, balance.text];
    }
    case 'part-test': {
      if (state.partTests.length === 0) return ['no part tested yet'];
      return failedParts(state).map(
        (part) => `${procedure.facts?.parts.find(({ id }) => id === part)?.name ?? part} leaked in its own test`,
      );
    }
    case 'bleed':
      return [...judgeBleed(state.bleedCycles.map(({ value }) => value)).missing];
    case 'baseline':
      return (step.id === 'before' ? state.befores : state.baselines).length === 0 ? ['no baseline reading yet'] : [];
    case 'sign-off':
      return openFailures(state, procedure.facts ?? null);
    default:
      return [];
  }
}

/**
 * What is inside, poured or brought by tested parts, against what the loop holds. Gas that the simulated fill leaves
 * behind is an upper limit: flow fills a radiator above its ports better than still water does, so it excuses nothing here.
 */
export const fillBalance = (procedure: Procedure, state: RunState): FillBalance =>
  balanceFill(fillTotal(procedure, state), pouredMl(state) + broughtMl(state));

/** What the fill should take: by the plan, or, in a service, what the book says is missing inside. */
export function fillTotal({ fillPlan, service }: Procedure, state: RunState): Volume {
  if (!service) return fillPlan.total;
  return refillVolume(service, fillPlan.total, ledgerBeforeRefill(service, state.service, state.pours[0]?.eventId ?? null));
}

/** Parts whose last own test leaked. */
const failedParts = ({ partTests }: RunState): string[] => {
  const last = new Map(partTests.map(({ value }) => [value.part, value.tight]));
  return [...last].flatMap(([part, tight]) => (tight ? [] : [part]));
};

/** Steps whose criterion may not be passed over with a reason, because somebody or something would be hurt. */
const NO_DEVIATION: Record<string, string> = {
  isolate: 'there is no safe way to skip it: a leak would meet live electronics',
  close: 'the loop must be closed before air or liquid goes in',
  strip: 'whatever is still inside must come out over the basin',
  power: 'every towel and every connector must be accounted for before the board has power',
  'sign-off': 'sign off with the button of this step',
};

/** Decides whether an entry may join the log as it stands. null: yes. The same rule runs on the device and on the server. */
export function refuseEntry(
  procedure: Procedure,
  state: RunState,
  events: readonly RunEvent[],
  body: RunEventBody,
  nowMs: number,
): Refusal | null {
  if (body.type === 'correction')
    return state.signedOff
      ? null
      : refusal('step-open', 'corrections belong to a signed record; this run is still open, so undo the entry instead');
  if (state.signedOff) return refusal('signed-off', 'this run is signed off; add a correction to its record');
  if (body.type === 'withdrawn') return refuseUndo(events, state, body.event);
  const locked = refuseInterlocked(procedure, state, body, nowMs);
  if (locked) return locked;
  if (isAnytime(body)) return refuseAnytime(procedure, state, body);
  const stepId = 'step' in body ? body.step : body.type === 'baseline' && body.before ? 'before' : STEP_OF_ENTRY[body.type];
  const index = procedure.steps.findIndex(({ id }) => id === stepId);
  const step = procedure.steps[index];
  if (!step) return refusal('unknown-item', `this run has no step "${stepId}"`);
  const currentIndex = procedure.steps.findIndex(({ id }) => id === state.current);
  if (index > currentIndex && body.type !== 'note') {
    return refusal('too-early', `"${procedure.steps[currentIndex]?.title}" comes first; finish it before "${step.title}"`);
  }
  return isServiceEntry(body) ? refuseServiceEntry(procedure, state, body, nowMs) : refuseWithin(procedure, state, step, body, nowMs);
}

/** Entries that belong to no step: what hands do and eyes see at any time before the sign-off. */
const ANYTIME = [
  'pump',
  'port',
  'joint',
  'turn',
  'level',
  'doubt',
  'part-test',
  'leak',
  'leak-mended',
  'leak-retested',
  'spill',
  'spill-rinsed',
] as const satisfies readonly RunEventBody['type'][];
type AnytimeType = (typeof ANYTIME)[number];
type AnytimeBody = Extract<RunEventBody, { type: AnytimeType }>;
const isAnytime = (body: RunEventBody): body is AnytimeBody => (ANYTIME as readonly string[]).includes(body.type);

/** The first interlock that stands against an entry, unless it may be passed over and was, with a reason. */
function refuseInterlocked(procedure: Procedure, state: RunState, body: RunEventBody, nowMs: number): Refusal | null {
  const passed = 'override' in body ? body.override?.rule : undefined;
  const against = interlocksAgainst(procedure, state, body, nowMs).filter(({ rule }) => !(rule === passed && CAN_OVERRIDE[rule]));
  // what cannot be passed over is said first
  const first = against.find(({ rule }) => !CAN_OVERRIDE[rule]) ?? against[0];
  return first ? { code: 'interlock', message: first.message, rule: first.rule, mayOverride: CAN_OVERRIDE[first.rule] } : null;
}

function refuseAnytime({ facts }: Procedure, state: RunState, body: AnytimeBody): Refusal | null {
  const unknown = (what: string): Refusal => refusal('unknown-item', `this loop has no ${what}`);
  const isPlace = (id: string): boolean => !facts || [...facts.parts, ...facts.joints].some((each) => each.id === id);
  switch (body.type) {
    case 'port':
      return !facts || facts.ports.some(({ name }) => name === body.port) ? null : unknown(`port "${body.port}"`);
    case 'joint':
      return !facts || facts.joints.some(({ id }) => id === body.joint) ? null : unknown(`run "${body.joint}"`);
    case 'doubt':
    case 'part-test':
      return isPlace(body.part) ? null : unknown(`part "${body.part}"`);
    case 'leak':
      return isPlace(body.at) ? null : unknown(`part or run "${body.at}"`);
    case 'leak-mended':
    case 'leak-retested': {
      const leak = state.leaks.find(({ eventId }) => eventId === body.leak);
      if (!leak) return refusal('unknown-item', 'there is no such leak in this run');
      return body.type === 'leak-retested' && leak.mended === null
        ? refusal('step-open', 'mend the leak first, then test that joint again')
        : null;
    }
    case 'spill-rinsed':
      return state.spills.some(({ eventId }) => eventId === body.spill)
        ? null
        : refusal('unknown-item', 'there is no such spill in this run');
    default:
      return null;
  }
}

const STEP_OF_ENTRY: Record<
  Exclude<
    RunEventBody['type'],
    | 'check'
    | 'note'
    | 'timer-started'
    | 'timer-stopped'
    | 'step-done'
    | 'deviation'
    | 'withdrawn'
    | 'correction'
    | AnytimeType
    | ServiceEntry['type']
  >,
  string
> = {
  'dry-reading': 'dry',
  'dry-restarted': 'dry',
  coolant: 'fill',
  pour: 'fill',
  'bleed-cycle': 'bleed',
  baseline: 'baseline',
  'signed-off': 'sign-off',
};

function refuseWithin(procedure: Procedure, state: RunState, step: ProcedureStep, body: RunEventBody, nowMs: number): Refusal | null {
  switch (body.type) {
    case 'check': {
      const item = step.checks.find(({ id }) => id === body.check);
      if (!item) return refusal('unknown-item', `"${step.title}" has no check "${body.check}"`);
      return body.mark === 'not-needed' && !item.mayNotApply ? refusal('unsafe', `"${item.text}" is always needed`) : null;
    }
    case 'timer-started':
    case 'timer-stopped':
      return step.timers.some(({ id }) => id === body.timer)
        ? null
        : refusal('unknown-item', `"${step.title}" has no timer "${body.timer}"`);
    case 'dry-reading':
      return !procedure.facts && body.gaugeKpa > MOST_GAUGE_KPA
        ? refusal('unsafe', `${body.gaugeKpa} kPa is above ${MOST_GAUGE_KPA} kPa: let air out first; glass and acrylic burst`)
        : null;
    case 'step-done': {
      if (step.kind === 'sign-off') return refusal('step-open', 'sign off with the button of this step');
      const open = blockers(procedure, state, step.id, nowMs);
      return open.length > 0 ? refusal('step-open', `"${step.title}" is not done: ${open.join('; ')}`) : null;
    }
    case 'deviation': {
      const why = NO_DEVIATION[step.id];
      return why ? refusal('unsafe', `"${step.title}" cannot be passed over: ${why}`) : null;
    }
    case 'signed-off':
      return state.current === 'sign-off' ? null : refusal('too-early', 'the steps before the sign-off are not done');
    default:
      return null;
  }
}

/** Newest first, so that undo walks back the way the hands went. */
function refuseUndo(events: readonly RunEvent[], state: RunState, eventId: string): Refusal | null {
  const event = events.find(({ id }) => id === eventId);
  if (!event) return refusal('unknown-item', 'there is no such entry in this run');
  if (state.withdrawn.has(eventId)) return refusal('not-yours-to-undo', 'this entry was already taken back');
  if (event.body.type === 'withdrawn') return refusal('not-yours-to-undo', 'an undo is not undone; enter the value again');
  return null;
}

/** The entry that undo would take back next, or null. */
export function lastUndoable(events: readonly RunEvent[], state: RunState): RunEvent | null {
  return (
    [...events].reverse().find(({ id, body }) => body.type !== 'withdrawn' && body.type !== 'correction' && !state.withdrawn.has(id)) ??
    null
  );
}
