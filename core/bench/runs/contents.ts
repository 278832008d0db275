import { say } from '../../base/words/say.js';
import { MEASURED } from '../../physics/measuring/errors.js';
import type { LoopFile } from '../../machine/loop-file/loopFile.js';
import { reservoirMarks } from '../../machine/loop-file/marks.js';
import type { Volume } from '../../machine/loop-file/volume.js';
import { judgeLedger, keepTally, netMl, twinLeftSdMl, type Flow, type Ledger, type LedgerVerdict } from '../../physics/contents/ledger.js';
import { balanceFill, fillVolume, type FillBalance, type FillPlan } from '../../physics/filling/fillPlan.js';
import { LEAK_SCHOOLS } from '../../physics/leak-testing/schools.js';
import { standingNow } from './book.js';
import { drainsDownTo, type ServiceFacts, type TakeOutFacts } from './facts.js';
import type { Procedure } from './procedure.js';
import { broughtMl, isDone, outflowMl, pouredMl, type RunState } from './state.js';

/** What is inside a loop during a run, as far as its entries tell. */

/** What a service expects to pour, before anything was measured: the loop at its mark without what the twin keeps inside. */
export function refillPlan(loop: LoopFile, service: ServiceFacts): FillPlan {
  const { kind, leftMl, inside } = service;
  const downTo = drainsDownTo(service);
  const whole = fillVolume(loop);
  if (kind === 'top-up') return upToTheMark(loop);
  const empty = kind === 'strip-clean' || inside === null;
  const stays = empty ? 0 : downTo ? whole.volumeMl - downTo.drawFirstMl - atPartMl(downTo) : (leftMl ?? 0);
  return {
    kind: 'gravity',
    total: { volumeMl: Math.max(0, whole.volumeMl - stays), sdMl: whole.sdMl },
    reason: say('What came out goes in again; once the drain is measured, the book says how much.'),
  };
}

/**
 * What a top-up takes at most is what lies between the reservoir's marks: below the low one nobody would have let it run. Half of that,
 * give or take a quarter, until the level is read. Estimate.
 */
function upToTheMark(loop: LoopFile): FillPlan {
  const reservoir = loop.components.find(({ kind }) => kind === 'reservoir');
  const marks = reservoir ? reservoirMarks(reservoir) : null;
  const betweenMl = marks ? marks.fillMarkMl - marks.lowMarkMl : fillVolume(loop).sdMl;
  return {
    kind: 'gravity',
    total: { volumeMl: betweenMl / 2, sdMl: betweenMl / 4 },
    reason: say('What left as vapour goes in again, up to the mark; the level that is read says how much.'),
  };
}

export type Kept = Pick<RunState, 'contents' | 'service'>;

/** What a service moved so far; how much is inside is the live book's figure. */
export const ledgerOf = (service: ServiceFacts, { contents, service: { flows } }: Kept): Ledger => ({
  ...keepTally(service.inside, flows),
  insideMl: contents.insideMl,
  sdMl: contents.insideSdMl,
});

/** mL inside before some of the flows, by what is inside now; null where nobody knows. */
function insideBefore({ contents: { insideMl } }: Pick<RunState, 'contents'>, since: readonly Flow[]): number | null {
  return insideMl === null ? null : insideMl - netMl(since);
}

/** mL that the refill should take: the loop at its mark less what the book says was inside before its first pour. */
function refillVolume({ facts, twin, earlier, fillPlan }: Procedure, service: ServiceFacts, state: RunState): Volume {
  const { flows } = state.service;
  const { way } = state.contents;
  // what this very loop held when it was filled and bled; a machine that lost some since takes more than came out of it
  // a part was left out: what was inside when it began belongs to another loop
  const atMark = earlier && twin ? fillVolume(twin.loop) : service.inside;
  const whole = way && facts?.reservoir ? { volumeMl: way.ml + facts.reservoir.fillMarkMl, sdMl: way.sdMl } : atMark;
  const first = flows.findIndex(({ eventId }) => eventId === state.pours[0]?.eventId);
  const before = insideBefore(state, first < 0 ? [] : flows.slice(first));
  if (before === null || whole === null) return fillPlan.total;
  return {
    volumeMl: Math.max(0, whole.volumeMl - Math.max(0, before)),
    // what another loop holds is known by its parts' volumes alone; of the same one by what was inside before
    sdMl: keepTally(service.inside, flows).emptied
      ? whole.sdMl
      : Math.hypot(state.contents.insideSdMl, MEASURED.markSdMl, earlier && !way ? whole.sdMl : 0),
  };
}

/** What the fill should take: by the plan, or, in a service, what the book says is missing inside. */
export function fillTotal(procedure: Procedure, state: RunState): Volume {
  const { fillPlan, service, facts } = procedure;
  // what the simulated fill expects to end at: the same figure as on every other page
  if (!service)
    return fillPlan.kind === 'pulses' && facts?.fill?.primes === true
      ? { volumeMl: facts.fill.totalMl, sdMl: fillPlan.total.sdMl }
      : fillPlan.total;
  return refillVolume(procedure, service, state);
}

/**
 * What is inside, poured or brought by tested parts, against what the loop holds. Gas that the simulated fill leaves
 * behind is an upper limit: flow fills a radiator above its ports better than still water does, so it excuses nothing here.
 */
export const fillBalance = (procedure: Procedure, state: RunState): FillBalance =>
  balanceFill(fillTotal(procedure, state), pouredMl(state) + broughtMl(state) + leftFromBefore(procedure) - outflowMl(state));

/** mL that a build was begun with, where an earlier one was broken off with liquid inside. What a service begins with is part of its total. */
const leftFromBefore = ({ service, schools, start }: Procedure): number =>
  service || LEAK_SCHOOLS[schools.leak].openedOnly ? 0 : Math.max(0, start?.insideMl ?? 0);

/** The book after a drain: against what the twin keeps inside once the planned stands are done. */
export function judgeDrain(service: ServiceFacts, state: Kept): LedgerVerdict {
  const { rinses, drains } = state.service;
  const drainedOnly = rinses.length === 0 && !drainsDownTo(service);
  const { leftMl, kept } = service;
  const blown = drains.length > service.stands.length ? (service.blow ?? null) : null;
  const predicted =
    leftMl === null
      ? null
      : {
          volumeMl: Math.max(0, leftMl - (blown?.likelyMl ?? 0)),
          sdMl: Math.hypot(kept?.sdMl ?? twinLeftSdMl(leftMl), blown?.sdMl ?? 0),
        };
  return judgeLedger(ledgerOf(service, state), drainedOnly && drains.length >= service.stands.length ? predicted : null);
}

/** mL that come at the joints of the part and out of it. Runs that began before the valve was named told what the joints would give undrawn. */
const atPartMl = ({ joints, insideMl, drawAt }: TakeOutFacts): number =>
  joints.reduce((sum, { volumeMl }) => sum + (drawAt === undefined ? 0 : volumeMl), insideMl);

/** mL; less is drops, not a volume to draw */
export const WORTH_DRAWING_ML = 5;

/** What should come, one after the other: stand by stand, or down to the part and then out of it. */
export function expectedDrains(service: ServiceFacts): number[] {
  const downTo = drainsDownTo(service);
  if (service.change?.drain === 'none') return [];
  const volumes = downTo ? [downTo.drawFirstMl, atPartMl(downTo)] : service.stands.map(({ drainedMl }) => drainedMl);
  return volumes.filter((ml) => ml >= WORTH_DRAWING_ML);
}

/** mL of liquid that took room from the air when the test that counts began: what was poured later has no part in it. */
export function liquidAtDryTest(state: RunState): number {
  const beganMs = Math.min(...state.dryReadings.map(({ at }) => Date.parse(at)));
  const later = ({ at }: { readonly at: string }): boolean => Date.parse(at) >= beganMs;
  const inside = insideBefore(state, state.service.flows.filter(later));
  // where nobody knows, what parts brought in wet is there at least
  if (inside === null) return broughtMl({ partTests: state.partTests.filter((each) => !later(each)) });
  return Math.max(0, inside - broughtMl({ partTests: state.partTests.filter(later) }));
}

/** Whether the loop is known to be empty: a first fill before its first pour, a loop that was taken apart or drained to nothing. */
export function isKnownEmpty({ service, schools }: Procedure, state: RunState): boolean {
  if (state.pours.length > 0) return false;
  if (!service) return !LEAK_SCHOOLS[schools.leak].openedOnly && (state.levels.at(-1)?.value ?? 0) <= 0;
  const { insideMl } = state.contents;
  return insideMl !== null && insideMl <= 1;
}

/** Liquid stands inside: poured in this run, or already there when a service began. What nobody knows counts as liquid. */
export const holdsLiquid = ({ service, start }: Procedure, state: RunState): boolean =>
  state.pours.length > 0 || ((service ?? start) !== undefined && (state.contents.insideMl ?? Infinity) > 1);

/** Pulses that are over: pours after the first one. */
export const pulsesRun = (state: RunState): number => Math.max(0, state.pours.length - 1);

const pouredSince = (state: RunState, sinceMs: number): number =>
  state.pours.filter(({ at }) => Date.parse(at) > sinceMs).reduce((sum, { value }) => sum + value, 0);

/**
 * mL that still fit up to the fill mark, by the last level that was read and what was poured since. null where no level was
 * read, or the pump moved it since: then only the plan can say.
 */
export function roomToMark({ facts }: Procedure, state: RunState): number | null {
  const last = state.levels.at(-1);
  if (!facts?.reservoir || !last) return null;
  const lastMs = Date.parse(last.at);
  const moved = state.pumpRuns.some(({ stoppedAt }) => stoppedAt === null || Date.parse(stoppedAt) > lastMs);
  return moved ? null : Math.max(0, facts.reservoir.fillMarkMl - last.value - pouredSince(state, lastMs));
}

/** mL up to the mark that are no pour any more: a hand cannot stop there, and a scale takes it for a drip */
export const AT_MARK_WITHIN_ML = 5;

/** mL that stand in the reservoir as far as it can be told, with their standard deviation where the book carries one. */
export function levelNow(procedure: Procedure, state: RunState, nowMs: number): { ml: number; measured: boolean; sdMl?: number } | null {
  const now = standingNow(procedure, state, nowMs);
  if (now) return { ml: now.at.reservoirMl, sdMl: now.sdMl, measured: now.contents.isLevelRead };
  return levelByVolumes(procedure, state, nowMs);
}

/** Of runs without a twin: the last level, and what was poured and pumped since. */
function levelByVolumes(procedure: Procedure, state: RunState, nowMs: number): { ml: number; measured: boolean } | null {
  const reservoir = procedure.facts?.reservoir;
  const fill = procedure.facts?.fill;
  const last = state.levels.at(-1);
  if (reservoir && !last && isKnownEmpty(procedure, state)) return { ml: 0, measured: false };
  if (!reservoir || !fill || (state.pours.length === 0 && !last)) return null;
  const pumpOn = state.pump?.on === true;
  const pulse = fill.pulses[pulsesRun(state)];
  const drawn = (fromMs: number): number => {
    if (!pumpOn || !state.pump || !pulse || pulse.runS <= 0) return 0;
    const seconds = Math.max(0, (nowMs - Math.max(fromMs, Date.parse(state.pump.since))) / 1000);
    return Math.min(pulse.movedMl, (pulse.movedMl / pulse.runS) * seconds);
  };
  if (!last) return { ml: reservoir.fillMarkMl - drawn(0), measured: false };
  const lastMs = Date.parse(last.at);
  const pouredAfter = pouredSince(state, lastMs);
  return { ml: Math.min(reservoir.fillMarkMl, last.value + pouredAfter) - drawn(lastMs), measured: pouredAfter === 0 && !pumpOn };
}

/**
 * What the loop of a service looks like inside, as far as it can be told: full as it came, emptier stand by stand as the
 * twin predicts, empty once it was taken apart, full again once it was refilled. null: full.
 */
export function serviceContents({ service }: Procedure, state: RunState): ReadonlyMap<string, number> | null {
  if (!service) return null;
  if (isDone(state, ({ kind }) => kind === 'fill') || state.pours.length > 0) return null;
  if (isDone(state, ({ does }) => does.includes('empties'))) return new Map();
  const { flows, drains } = state.service;
  const last = flows.findLast(({ way }) => way !== 'lost');
  // a rinse fills it as far as the loop takes it
  if (!last || last.way === 'in') return null;
  const stand = service.stands[Math.min(drains.length, service.stands.length) - 1];
  return stand ? new Map(Object.entries(stand.left)) : null;
}
