import { FLUSH } from '../../machine/liquids/rinsing.js';
import { judgeBleed, type BleedState } from '../../physics/air/bleed.js';
import { keepTally } from '../../physics/contents/ledger.js';
import { LEAST_TAIL_READINGS } from '../../physics/leak-testing/defaults.js';
import { asksForCause, gradeItem, type Graded } from '../inspection/grade.js';
import type { InspectItem } from '../inspection/items.js';
import { LEVEL_STAYS } from './checkIds.js';
import { stretchMm } from './book.js';
import { isDrawnDown } from './drawDown.js';
import { FILL_ORDER } from './fillOrder.js';
import { fillBalance, fillTotal, judgeDrain } from './contents.js';
import type { ServiceFacts } from './facts.js';
import { isAirTight, judgeDryTest } from './dryTest.js';
import { openFailures } from './locks.js';
import { stepOf, type Procedure, type ProcedureStep, type StepKind } from './procedure.js';
import {
  liesOutside,
  runningSoak,
  timerFace,
  type Leak,
  type RunState,
  type ServiceState,
  type StepState,
  type TimerState,
} from './state.js';
import type { LackFact } from './why.js';

/** What each kind of step needs before it can be called done. */

/** standard deviations by which a fill may exceed what the parts' volumes say; more than that is not inside the loop */
const LOST_TRACK_SD = 4;

/**
 * What is missing before a mended joint may be called dry; null: somebody may look. A joint that met neither the test's air
 * nor the pump's pressure since it was mended is dry in any case.
 */
export function lackBeforeDry(
  procedure: Procedure,
  state: RunState,
  { mended, inAir }: Leak,
): 'leak-mend-first' | 'test-air-again' | 'run-it-first' | null {
  if (mended === null) return 'leak-mend-first';
  if (inAir) return isAirTight(procedure, state, mended.at) ? null : 'test-air-again';
  return procedure.facts === null || ranSince(state, mended.at) ? null : 'run-it-first';
}

/** Whether the pump runs, or was stopped after an instant. */
export function ranSince({ pump, pumpRuns }: RunState, sinceIso: string): boolean {
  const sinceMs = Date.parse(sinceIso);
  return pump?.on === true || pumpRuns.some(({ stoppedAt }) => stoppedAt !== null && Date.parse(stoppedAt) > sinceMs);
}

/** The bleeding as it stands; what soft tube gives back at a stop is no air. */
export function judgeBleeding(procedure: Procedure, { bleedCycles, outflows }: Pick<RunState, 'bleedCycles' | 'outflows'>): BleedState {
  // what was drawn down since lets new air in: the cycles of before say nothing any more
  const since = outflows.findLast(({ kept }) => kept)?.at ?? '';
  return judgeBleed(
    bleedCycles.filter(({ at }) => Date.parse(at) > (Date.parse(since) || 0)).map(({ value }) => value),
    stretchMm(procedure),
  );
}

/** Called bled by eye, and not drawn down since: that let new air in. */
export const isSeenBled = ({ seenBled, outflows }: Pick<RunState, 'seenBled' | 'outflows'>): boolean =>
  seenBled !== null && !outflows.some(({ kept, at }) => kept && Date.parse(at) > Date.parse(seenBled.at));

/** What a step still lacks before it can be called done. Empty: it may be closed. */
export function lacksOf(procedure: Procedure, state: RunState, stepId: string, nowMs: number): LackFact[] {
  const step = stepOf(procedure, stepId);
  const progress = state.steps.find(({ id }) => id === stepId);
  if (!step || !progress) return [{ why: 'no-such-step' }];
  return [...openChecks(step, progress), ...openTimers(step, progress, state, nowMs), ...CRITERIA[step.kind](procedure, state, step)];
}

function openChecks(step: ProcedureStep, progress: StepState): LackFact[] {
  const open = step.checks.filter(({ id }) => (progress.checks[id]?.mark ?? 'open') === 'open');
  return open.length === 0
    ? []
    : [{ why: 'checks-open', count: open.length, beforePower: open.filter(({ beforePower }) => beforePower).length }];
}

function openTimers(step: ProcedureStep, { checks }: StepState, { timers }: RunState, nowMs: number): LackFact[] {
  // a clock whose every look is not needed runs for nobody
  const looks = step.checks.filter(({ after }) => after !== undefined && ['clock-begins', 'hour', 'clock-ends'].includes(after));
  const isIdle = looks.length > 0 && looks.every(({ id }) => checks[id]?.mark === 'not-needed');
  return step.timers
    .filter(({ id }) => (timers[id] ? !timerFace(timers[id], nowMs).finished : !isIdle))
    .map(({ label, id }) => ({ why: timerLack(timers[id], nowMs), label }));
}

function timerLack(timer: TimerState | undefined, nowMs: number): 'timer-running' | 'timer-stopped' | 'timer-not-started' {
  if (!timer) return 'timer-not-started';
  return timerFace(timer, nowMs).running ? 'timer-running' : 'timer-stopped';
}

type Criterion = (procedure: Procedure, state: RunState, step: ProcedureStep) => LackFact[];
const inService =
  (
    needs: (service: ServiceFacts, state: ServiceState, run: RunState, step: ProcedureStep, procedure: Procedure) => LackFact[],
  ): Criterion =>
  (procedure, run, step) =>
    procedure.service ? needs(procedure.service, run.service, run, step, procedure) : [];

const CRITERIA: Readonly<Record<StepKind, Criterion>> = {
  checks: () => [],
  'wet-run': drawnLacks,
  power: () => [],
  'dry-test': dryTestLacks,
  fill: (procedure, state) => [
    ...state.fillTroubles.filter(({ solved }) => solved === null).map(({ symptom }): LackFact => ({ why: 'fill-trouble-open', symptom })),
    ...fillLacks(procedure, state),
  ],
  'part-test': partTestLacks,
  bleed: (procedure, state) => [...drawnLacks(procedure, state), ...(isSeenBled(state) ? [] : judgeBleeding(procedure, state).missing)],
  baseline: (_procedure, { befores, baselines }, { does }) =>
    (does.includes('measures-before') ? befores : baselines).length === 0 ? [{ why: 'no-baseline' }] : [],
  'sign-off': openFailures,
  drain: inService(drainLacks),
  rinse: inService(rinseLacks),
  inspect: inService(inspectLacks),
  clean: inService(cleanLacks),
  swap: inService(swapLacks),
  repair: (_procedure, { leaks, spills }) => (leaks.length + spills.length === 0 ? [{ why: 'nothing-wrong-recorded' }] : []),
};

function drawnLacks(procedure: Procedure, state: RunState): LackFact[] {
  return isDrawnDown(procedure, state) ? [{ why: 'drawn-down' }] : [];
}

function dryTestLacks(procedure: Procedure, state: RunState): LackFact[] {
  const result = judgeDryTest(procedure, state);
  if (!result) return [{ why: 'no-reading', least: LEAST_TAIL_READINGS }];
  if (result.verdict === 'pass') return [];
  return [result.verdict === 'fail' ? { why: 'air-test-failed' } : { why: 'air-test-open', minutes: Math.ceil(result.moreMinutes ?? 0) }];
}

function fillLacks(procedure: Procedure, state: RunState): LackFact[] {
  // a top-up may be nothing but water for vapour, and nothing at all where the level was read at its mark
  if (procedure.service?.kind === 'top-up')
    return state.service.flows.some(({ way }) => way === 'in') || standsAtMark(procedure, state) ? [] : [{ why: 'nothing-topped-up' }];
  // a unit on its own is tested with water
  const missing: LackFact[] = state.coolant || procedure.unit ? [] : [{ why: 'no-coolant' }];
  if (state.pours.length === 0) return staysFull(procedure, state) ? [] : [...missing, { why: 'nothing-poured' }];
  const { verdict, stillToPourMl } = fillBalance(procedure, state);
  if (verdict === 'as-planned') return missing;
  // where the level stays at the mark and liquid comes back nothing more goes in: what was predicted is told, not demanded
  const stays = state.steps.some(({ kind, checks }) => kind === 'fill' && checks[LEVEL_STAYS]?.mark === 'done');
  const cannotBeInside = -stillToPourMl > LOST_TRACK_SD * fillTotal(procedure, state).sdMl;
  return stays && !cannotBeInside
    ? missing
    : [...missing, { why: verdict === 'filling' ? 'fill-open' : 'fill-over', ml: Math.abs(stillToPourMl) }];
}

/** The level was read, and nothing is missing to the mark that anybody would pour. */
function standsAtMark({ facts }: Procedure, { contents: { isLevelRead, standing }, levels }: RunState): boolean {
  const ml = standing?.reservoirMl ?? levels.at(-1)?.value ?? null;
  const mark = facts?.reservoir?.fillMarkMl ?? null;
  return (isLevelRead || levels.length > 0) && ml !== null && mark !== null && ml >= mark - FILL_ORDER.roundWithinMl;
}

/** A service that let nothing out: liquid comes back and the level was read at its mark, so that nothing has to go in. */
const staysFull = (procedure: Procedure, state: RunState): boolean =>
  procedure.service !== undefined &&
  state.contents.isLevelRead &&
  state.contents.standing?.isRound === true &&
  standsAtMark(procedure, state);

/** Parts whose last own test leaked keep the step open; where the test is the whole run, leaking is an answer. */
function partTestLacks({ unit }: Procedure, { partTests }: RunState): LackFact[] {
  if (partTests.length === 0) return [{ why: 'no-part-tested' }];
  if (unit) return [];
  const last = new Map(partTests.map(({ value }) => [value.part, value.tight]));
  return [...last].flatMap(([place, tight]): LackFact[] => (tight ? [] : [{ why: 'part-leaked', place }]));
}

function drainLacks(service: ServiceFacts, { drains }: ServiceState, state: RunState): LackFact[] {
  // above the level there is nothing to let out
  if (drains.length === 0 && service.change?.drain === 'none') return [];
  if (drains.length === 0) return [{ why: 'nothing-drained' }];
  const { kind, ml } = judgeDrain(service, state);
  return kind === 'more-out-than-in' ? [{ why: 'more-out-than-in', ml }] : [];
}

/** What the rinses still lack. The acid's own water must read neutral; without one only clarity and carry-over count. */
export function rinseLacks(service: ServiceFacts, state: ServiceState): LackFact[] {
  const lacks: LackFact[] = [];
  const { old } = keepTally(service.inside, state.flows).shares;
  const last = state.waters.at(-1);
  const cleaned = state.soaks.length > 0 || state.rinses.some(({ liquid }) => liquid === 'cleaner');
  const lastRinse = state.rinses.at(-1);
  const soak = runningSoak(state);
  if (soak) lacks.push({ why: 'cleaner-in', cleaner: soak.cleaner });
  if (!lastRinse) lacks.push({ why: 'nothing-rinsed' });
  // lime and cleaner stay behind: what is in last is what the coolant meets
  else if (lastRinse.liquid === 'mains' || lastRinse.liquid === 'cleaner') lacks.push({ why: 'last-rinse', liquid: lastRinse.liquid });
  if (service.inside !== null && old > service.targetOldFraction)
    lacks.push({ why: 'old-left', percent: 100 * old, targetPercent: 100 * service.targetOldFraction });
  // what was read before the last rinse went in says nothing of it
  if (!last || (lastRinse && Date.parse(last.at) < Date.parse(lastRinse.at))) lacks.push({ why: 'water-not-read' });
  else if (last.clarity !== 'clear') lacks.push({ why: 'water-unclear', clarity: last.clarity });
  return cleaned ? [...lacks, ...phLacks(last?.ph ?? null)] : lacks;
}

function phLacks(ph: number | null): LackFact[] {
  if (ph === null) return [{ why: 'ph-not-read' }];
  return ph >= FLUSH.phFrom && ph <= FLUSH.phTo ? [] : [{ why: 'ph-off', ph, from: FLUSH.phFrom, to: FLUSH.phTo }];
}

/** What the last look at an item says; null where nobody looked. */
export function lastGrade({ sheet }: ServiceState, { id, kind }: InspectItem): Graded | null {
  const seen = sheet.get(id);
  return seen ? gradeItem(kind, seen.last) : null;
}

function inspectLacks({ items }: ServiceFacts, state: ServiceState): LackFact[] {
  const count = items.filter(({ id }) => !state.sheet.has(id)).length;
  const seen = [...state.sheet.values()].map(({ first }) => first);
  return [
    ...(count > 0 ? [{ why: 'items-not-seen', count } as const] : []),
    ...(asksForCause(seen) && state.causes.length === 0 ? [{ why: 'cause-open' } as const] : []),
  ];
}

function cleanLacks({ items }: ServiceFacts, state: ServiceState): LackFact[] {
  const soak = runningSoak(state);
  const again = items.filter((item) => lastGrade(state, item)?.grade === 'clean-again').map(({ id }) => id);
  return [
    ...(soak ? [{ why: 'cleaner-in', cleaner: soak.cleaner } as const] : []),
    ...(again.length > 0 ? [{ why: 'not-smooth', items: again } as const] : []),
    ...(state.soaks.length > 0 && !soak ? phLacks(state.waters.at(-1)?.ph ?? null) : []),
  ];
}

/** Parts that this step takes out, and of which nobody said where they lie: all of a loop that is over, those that a change takes out. */
export function withoutPlace(
  { facts, service }: Pick<Procedure, 'facts' | 'service'>,
  { does }: Pick<ProcedureStep, 'does'>,
  { swaps }: ServiceState,
): readonly { readonly id: string; readonly name: string }[] {
  const comeOut = does.includes('puts-away') ? (facts?.parts ?? []) : does.includes('changes-loop') ? (service?.change?.out ?? []) : [];
  return comeOut.filter(({ id }) => !swaps.some((swap) => swap.item === id && liesOutside(swap)));
}

/** Items of the sheet whose last look says something must still happen. */
function swapLacks(
  { items }: ServiceFacts,
  state: ServiceState,
  { leaks }: RunState,
  step: ProcedureStep,
  procedure: Procedure,
): LackFact[] {
  const { does } = step;
  const done = new Set(state.swaps.map(({ item }) => item));
  // what goes away with its loop is replaced by nothing
  const open = does.includes('puts-away')
    ? []
    : items.filter((item) => lastGrade(state, item)?.grade === 'replace' && !done.has(item.id)).map(({ id }) => id);
  const count = does.includes('mends') ? leaks.filter(({ mended }) => mended === null).length : 0;
  const away = withoutPlace(procedure, step, state);
  return [
    ...(away.length > 0 ? [{ why: 'no-place', items: away.map(({ id }) => id) } as const] : []),
    ...(does.includes('changes-loop') && state.rebuilds.length === 0 ? [{ why: 'not-rebuilt' } as const] : []),
    ...(open.length > 0 ? [{ why: 'to-replace', items: open } as const] : []),
    ...(count > 0 ? [{ why: 'leaks-not-mended', count } as const] : []),
  ];
}
