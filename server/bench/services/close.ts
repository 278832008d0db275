import { ENDS_A_COOLANT } from '../../../core/workshop/learned-lives/fillLives.js';
import { colourVerdict } from '../../../core/machine/liquids/colourDifference.js';
import { findingWords } from '../../../core/edge/words/dates.js';
import type { Finding, LooseEnd } from '../../../core/workshop/due-dates/facts.js';
import { openDates, type DateFacts } from '../runs/openDates.js';
import { FINS } from '../../../core/bench/runs/checkIds.js';
import { liesOutside, type RunState } from '../../../core/bench/runs/state.js';
import { flushedOf } from '../../../core/bench/runs/rinses.js';
import { placesOf } from '../../../core/bench/runs/procedure.js';
import { gradedSheet, looseEnds } from '../../../core/bench/runs/looseEnds.js';
import { ledgerOf } from '../../../core/bench/runs/contents.js';
import type { ServiceFacts } from '../../../core/bench/runs/facts.js';
import type { Volume } from '../../../core/machine/loop-file/volume.js';
import type { Ledger } from '../../../core/physics/contents/ledger.js';
import { and, count, desc, eq, inArray, ne } from 'drizzle-orm';
import { ENDS_LOOP, JOB_KINDS } from '../../../core/workshop/job-kinds/kinds.js';
import { nameIn } from '../../../core/machine/catalogue/names.js';
import { AFTER_FINDINGS } from '../../../core/workshop/due-dates/defaults.js';
import { addDays, daysBetween } from '../../../core/base/units/calendar.js';
import { restartDust } from '../../workshop/due-dates/cleaned.js';
import { openFollowUp, openSettling } from '../../workshop/due-dates/open.js';
import { dueItem } from '../../base/database/tables/due-dates.js';
import type { Ask } from '../../base/http/context.js';
import { loop, loopRevision } from '../../base/database/tables/loops.js';
import { fill } from '../../base/database/tables/runs.js';
import { redate } from '../../workshop/due-dates/redate.js';
import { keepMarks } from '../../workshop/marks/fromService.js';
import { newestRevision } from '../../machine/loops/revisions.js';
import { refreshLives } from '../../workshop/learned-lives/refresh.js';
import { endFitted, keepFitted } from '../../workshop/lots/lots.js';
import { tellOthers } from './tell.js';
import { keptPart } from '../../base/database/tables/store.js';
import { finding } from '../../base/database/tables/machines.js';
import { serviceJob } from '../../base/database/tables/jobs.js';

interface Closing extends DateFacts {
  readonly ask: Ask;
  readonly service: ServiceFacts;
}

/** share of fresh coolant from which a partly refilled loop counts as filled anew */
const COUNTS_AS_ANEW = 0.5;

/**
 * What a signed-off service leaves behind: dates by what went in, findings, follow-ups of temporary fixes and of what
 * stayed inside, removed parts with their place, machines that hold the suspected lot, the end of a retired loop.
 */
export async function closeService(ask: Ask, facts: DateFacts) {
  const service = facts.row.procedure.service as ServiceFacts;
  const closing: Closing = { ...facts, ask, service };
  await noteFindings(closing);
  await keepParts(closing);
  const { jobId, filledOn: on } = closing;
  const { workshopId, personId } = ask.account;
  const done = { workshopId, systemId: closing.systemId, jobId, on, at: ask.clock.now() };
  const { loopId } = closing.row;
  if (finsCleaned(closing)) await restartDust(ask.scope, { ...done, loopId, personId });
  if (ENDS_LOOP.includes(service.kind)) return endLoop(closing);
  const dates = await dateRefill(closing);
  await keepFitted(ask.scope, closing.state.service, { ...done, loopId });
  await keepMarks(ask.scope, closing.state, (await newestRevision(ask.scope, loopId)).file, { ...done, personId });
  const mates = await tellOthers(ask, facts);
  await learnFromEnd(closing);
  // what was mostly put back is no new fill: its date stays
  await answerDue(closing, dates.serviceDueOn !== null || facts.state.pours.length === 0);
  return { ...dates, mates };
}

/** Somebody ticked that fins and fans are free of dust. */
const finsCleaned = ({ state }: Closing): boolean =>
  state.steps.some(({ does, checks }) => does.includes('dusts') && checks[FINS]?.mark === 'done');

async function dateRefill(closing: Closing): Promise<{ serviceDueOn: string | null; settlingDueOn: string | null }> {
  const { ask, row, state, service, systemId, filledOn } = closing;
  const ledger = ledgerOf(service, state);
  const ends = looseEnds(row.procedure, state);
  const { outMl: drainedMl, rinses, rinseMl } = flushedOf(state.service);
  const poured = state.pours.length > 0;
  const at = ask.clock.now();
  const own = { workshopId: ask.account.workshopId, systemId, loopId: row.loopId, at };
  if (ends.length > 0)
    await openFollowUp(ask.scope, {
      ...own,
      dueOn: addDays(filledOn, AFTER_FINDINGS.earlyLookDays),
      reason: { why: 'early-look', because: ends },
    });
  if (poured && ledger.shares.coolant >= COUNTS_AS_ANEW) {
    const aged = await putBack(closing, ledger);
    const shorter = [...ends, ...(aged ? [aged.reason] : [])];
    return openDates(ask, closing, {
      ...(drainedMl > 0 ? { drainedMl } : {}),
      ...(rinses > 0 ? { rinses, rinseMl } : {}),
      left: leftBy(closing),
      ...(shorter.length > 0
        ? { intervalShare: Math.min(ends.length > 0 ? AFTER_FINDINGS.intervalShare : 1, aged?.share ?? 1), intervalReason: shorter }
        : {}),
    });
  }
  const toppedUp = state.service.flows.some(({ way }) => way === 'in');
  if (!toppedUp) return { serviceDueOn: null, settlingDueOn: null };
  return { serviceDueOn: null, settlingDueOn: await openSettling(ask.scope, { ...own, filledOn, personId: ask.account.personId }) };
}

/**
 * Coolant that was put back out of the machine's own jug keeps its age: of the new interval goes what the old one had used
 * up, by its part in the mix. null where nothing was put back.
 */
async function putBack({ ask, row, state, filledOn }: Closing, { shares }: Ledger): Promise<{ share: number; reason: LooseEnd } | null> {
  if (!state.service.flows.some(({ way, liquid }) => way === 'in' && liquid === 'old')) return null;
  const [last] = await ask.scope
    .select({ filledOn: fill.filledOn })
    .from(fill)
    .innerJoin(loopRevision, eq(loopRevision.id, fill.revisionId))
    .where(eq(loopRevision.loopId, row.loopId))
    .orderBy(desc(fill.filledOn))
    .limit(1);
  const [due] = await ask.scope
    .select({ dueOn: dueItem.dueOn })
    .from(dueItem)
    .where(and(eq(dueItem.loopId, row.loopId), eq(dueItem.kind, 'coolant-service'), eq(dueItem.state, 'open')))
    .limit(1);
  const days = last ? Math.max(0, daysBetween(last.filledOn, filledOn)) : 0;
  // without a date on record its life counts as used up
  const used = last && due ? Math.min(1, days / Math.max(1, daysBetween(last.filledOn, due.dueOn))) : 1;
  return { share: 1 - shares.old * used, reason: { why: 'put-back', percent: Math.round(100 * shares.old), days } };
}

/** What a whole drain left: that of a part's change says nothing about what this loop keeps. */
function leftBy({ service, state: { service: own } }: Closing): Volume | null {
  const { drained } = own;
  if (service.kind === 'partial-drain' || drained === null || drained.leftMl === null || drained.cameMl <= 0) return null;
  return { volumeMl: drained.leftMl, sdMl: drained.leftSdMl };
}

async function noteFindings({ ask, row, jobId, state, service, systemId }: Closing): Promise<void> {
  const at = ask.clock.now();
  const sheet = gradedSheet(row.procedure, state.service).filter(({ grade }) => grade !== 'reuse');
  const facts: { fact: Finding; severity: 'watch' | 'failure' }[] = [
    ...sheet.map(({ item, name, words, grade, text }) => ({
      fact: { why: 'item', item, name, rule: words, text } as const,
      severity: grade === 'replace' ? ('failure' as const) : ('watch' as const),
    })),
    ...state.service.causes.map(({ cause, item, text }) => ({
      fact: { why: 'cause', cause, ...(item ? { item } : {}), name: item ? nameIn(service.items, item) : null, text } as const,
      severity: 'watch' as const,
    })),
    ...colourEnd(state),
    ...state.leaks.map(({ where, mended }) => ({
      fact: { why: 'leak', item: where, place: placeIn(row, where), cause: mended?.cause ?? null, text: mended?.text ?? '' } as const,
      severity: 'failure' as const,
    })),
  ];
  if (facts.length > 0)
    await ask.scope.insert(finding).values(
      facts.map((each) => ({
        ...each,
        text: findingWords(each.fact),
        workshopId: ask.account.workshopId,
        systemId,
        jobId,
        foundAt: at,
        createdAt: at,
      })),
    );
}

/** fills up to which that is worked out while somebody waits for the sign-off; with more of them it is done at night */
const LEARNS_AT_ONCE = 5000;

/** Something ended this coolant: how long its kind lasts here is known better now, and the dates of others move with it. */
async function learnFromEnd({ ask, state }: Closing): Promise<void> {
  const isEnd = colourEnd(state).length > 0 || state.service.causes.some(({ cause }) => ENDS_A_COOLANT.includes(cause));
  if (!isEnd) return;
  const [known] = await ask.scope.select({ fills: count() }).from(fill);
  if ((known?.fills ?? 0) > LEARNS_AT_ONCE) return;
  await refreshLives(ask.scope, { workshopId: ask.account.workshopId, today: ask.today, at: ask.clock.now() });
  await redate(ask.scope, { everything: true });
}

/** The liquid left the colour of its sample and nobody named another cause: that is what ended it. */
function colourEnd({ colours, pours, service: { causes } }: RunState): { fact: Finding; severity: 'watch' }[] {
  // what was photographed once the new coolant was in says nothing of the old one
  const old = colours.filter(({ at }) => pours.every((pour) => at < pour.at)).at(-1);
  if (!old || colourVerdict(old.deltaE) !== 'changed' || causes.some(({ cause }) => ENDS_A_COOLANT.includes(cause))) return [];
  return [{ fact: { why: 'cause', cause: 'colour', name: null, text: `ΔE₀₀ ${old.deltaE.toFixed(1)}` }, severity: 'watch' }];
}

const placeIn = ({ procedure }: Closing['row'], id: string): string => nameIn(placesOf(procedure), id);

/** days in which somebody decides what becomes of a part that was taken out */
const DECIDE_DAYS = 60;

async function keepParts({ ask, row, jobId, state, systemId, filledOn }: Closing): Promise<void> {
  const out = state.service.swaps.filter(liesOutside);
  if (out.length === 0) return;
  await ask.scope.insert(keptPart).values(
    out.map(({ item, text, heldMl }) => ({
      workshopId: ask.account.workshopId,
      name: placeIn(row, item),
      kind: 'removed' as const,
      systemId,
      jobId,
      place: text,
      heldMl,
      // what was capped full is no part that dries
      wetOn: heldMl > 0 ? null : filledOn,
      untilDay: addDays(filledOn, DECIDE_DAYS),
      createdAt: ask.clock.now(),
    })),
  );
}

/** The follow-up that this very job was booked for is answered; so is a due service, once the loop was filled anew. */
async function answerDue({ ask, jobId, service }: Closing, mayBeAnew: boolean): Promise<void> {
  const [own] = await ask.scope.select({ dueItemId: serviceJob.dueItemId }).from(serviceJob).where(eq(serviceJob.jobId, jobId));
  if (!own || own.dueItemId === null) return;
  const [due] = await ask.scope.select({ kind: dueItem.kind }).from(dueItem).where(eq(dueItem.id, own.dueItemId));
  const isFollowUp = due?.kind === 'follow-up';
  if (!isFollowUp && (!mayBeAnew || JOB_KINDS[service.kind].fill !== 'anew')) return;
  await ask.scope
    .update(dueItem)
    .set({
      state: 'closed',
      outcome: { why: isFollowUp ? 'in-service' : 'filled-anew' },
      closedAt: ask.clock.now(),
      closedBy: ask.account.personId,
    })
    .where(and(eq(dueItem.id, own.dueItemId), eq(dueItem.state, 'open')));
}

/** The loop is over: nothing falls due on it any more. The machine is retired once none of its loops is alive. */
async function endLoop({ ask, row, systemId, service, filledOn }: Closing) {
  const { scope, account, clock } = ask;
  const over = {
    state: 'closed' as const,
    outcome: { why: 'loop-ended' as const, kind: service.kind },
    closedAt: clock.now(),
    closedBy: account.personId,
  };
  const isOpen = eq(dueItem.state, 'open');
  await scope
    .update(dueItem)
    .set(over)
    .where(and(eq(dueItem.loopId, row.loopId), isOpen, ne(dueItem.kind, 'dust-clean')));
  await scope.update(loop).set({ coolantProductId: null }).where(eq(loop.id, row.loopId));
  await endFitted(scope, row.loopId, filledOn);
  const others = await scope
    .select({ id: dueItem.id })
    .from(dueItem)
    .where(and(eq(dueItem.systemId, systemId), eq(dueItem.state, 'open'), inArray(dueItem.kind, ['coolant-service', 'settling-check'])));
  // dust belongs to the machine: it is cleaned as long as one of its loops is alive
  if (others.length === 0)
    await scope
      .update(dueItem)
      .set(over)
      .where(and(eq(dueItem.systemId, systemId), isOpen));
  return { serviceDueOn: null, settlingDueOn: null, mates: [], retires: others.length === 0 };
}
