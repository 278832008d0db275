import type { ColourRead } from '../../machine/liquids/colourSchema.js';
import { say } from '../../base/words/say.js';
import { leakCauseWords } from '../../bench/leak-finding/causes.js';
import { nameIn } from '../../machine/catalogue/names.js';
import type { LoopFile } from '../../machine/loop-file/loopFile.js';
import type { BaselineReading } from '../../physics/diagnosis/reading.js';
import { settlingCheck } from '../../workshop/due-dates/due.js';
import { resultOf, type TestedAlone } from '../../bench/commissioning/testedAlone.js';
import { fillBalance, fillTotal, liquidAtDryTest } from '../../bench/runs/contents.js';
import { isSeenBled, judgeBleeding } from '../../bench/runs/criteria.js';
import { judgeDryTest } from '../../bench/runs/dryTest.js';
import { swapWords } from '../../bench/runs/entries/swapped.js';
import { describeEntry, type RunEvent } from '../../bench/runs/log.js';
import { procedureNow } from '../../bench/runs/alsoPulled.js';
import { placesOf, type Procedure, type StepKind } from '../../bench/runs/procedure.js';
import type { Clarity } from '../../machine/liquids/rinsing.js';
import type { Intake } from '../../workshop/jobs/schema.js';
import type { Waiting } from '../../workshop/jobs/waitFor.js';
import { replay } from '../../bench/runs/replay.js';
import {
  pouredMl,
  type CoolantRead,
  type Leak,
  type Owed,
  type PastDryTest,
  type PhotoTaken,
  type Retest,
  type RunState,
  type TemporaryFix,
} from '../../bench/runs/state.js';
import { verdictsOf, type Verdict } from '../../bench/runs/verdicts.js';
import { strengthOf, type Strength } from '../../bench/runs/strength.js';
import { balanceWords } from '../words/bench.js';
import { serviceReport, type ServiceReport } from './serviceReport.js';

/** A leak as it was found, mended and looked at again. */
export interface LeakOnRecord {
  readonly place: string;
  readonly amount: Leak['amount'];
  readonly text: string;
  readonly inAir: boolean;
  readonly at: string;
  readonly by: string;
  readonly mended: { readonly cause: string; readonly text: string; readonly at: string; readonly by: string } | null;
  readonly retests: readonly Retest[];
}

/** What was measured and done, closed at sign-off. Stored whole, never written again; corrections stand beside it. */
export interface RunRecord {
  readonly recordVersion: typeof RECORD_VERSION;
  readonly system: { readonly name: string; readonly owner: string };
  readonly loop: { readonly name: string; readonly revision: number; readonly file: LoopFile };
  readonly schools: Procedure['schools'];
  readonly startedAt: string;
  readonly signedOffAt: string;
  readonly signedOffBy: string;
  readonly remark: string;
  readonly volumes: { readonly plannedMl: number; readonly plannedSdMl: number; readonly pouredMl: number; readonly balance: string };
  readonly coolant: { readonly productName: string; readonly lot: string | null } | null;
  readonly dryTest: {
    readonly verdict: string;
    readonly leakMbarLs: number;
    readonly seMbarLs: number;
    readonly excludedMlPerDay: number;
    readonly readings: number;
    readonly testNumber: number;
    /** mL of gas in the loop at that test; missing in records before it was kept */
    readonly gasMl?: number;
    /** tests before the one that counts */
    readonly before?: readonly PastDryTest[];
  } | null;
  /** leaks that were found, with what was mended and every look at it; missing in records before they were kept */
  readonly leaks?: readonly LeakOnRecord[];
  /** kinds of steps that this run had, those passed over left out; missing in records before it was kept */
  readonly had?: readonly StepKind[];
  /** what it can claim, as it was signed; missing in records before they were kept */
  readonly verdicts?: readonly Verdict[];
  readonly bleeding: { readonly cycles: number; readonly lastRiseMm: number | null; readonly bled: boolean; readonly seen?: boolean };
  readonly baselines: readonly BaselineReading[];
  /** the same, before anything was touched; missing in records before they were kept */
  readonly befores?: readonly BaselineReading[];
  /** the last water that was read; null: none was */
  readonly lastWater?: { readonly clarity: Clarity; readonly ph: number | null } | null;
  /** what the coolant inside comes to by the book; null: nothing was filled, or nobody can tell. Missing in records before it was kept */
  readonly strength?: Strength | null;
  /** the coolant as it was measured last in this run; null: it was not */
  readonly coolantRead?: (CoolantRead & { readonly at: string }) | null;
  /** the liquid beside its retained sample, each time it was photographed; missing in records before it was kept */
  readonly colours?: readonly (ColourRead & { readonly at: string })[];
  /** what was said and seen when the machine came in; missing in a build */
  readonly intake?: Intake;
  readonly notNeeded: readonly string[];
  /** what stays to be done, each with its follow-up; missing in records before it was kept */
  readonly owed?: readonly Owed[];
  /** fixes that hold for now, of a build: a service’s stand in its report */
  readonly holdsForNow?: readonly TemporaryFix[];
  /** parts exchanged and photographs taken in a build: a service’s stand in its report */
  readonly exchanged?: readonly string[];
  readonly photos?: readonly PhotoTaken[];
  /** each time it waited off its bench */
  readonly waits?: readonly WaitOnRecord[];
  readonly passedOver: readonly { readonly step: string; readonly reason: string }[];
  readonly log: readonly {
    readonly seq: number;
    readonly at: string;
    readonly by: string;
    readonly text: string;
    readonly takenBack: boolean;
  }[];
  readonly settling: { readonly from: string; readonly to: string };
  /** some readings came from a simulated bench; missing in records before there were any */
  readonly simulated?: boolean;
  /** of a service; missing in a commissioning */
  readonly service?: ServiceReport;
  /** a unit tested out of its case, what it was found to be and what stayed in it; missing in all other runs */
  readonly unit?: Pick<TestedAlone, 'tight' | 'how' | 'leftMl'> & { readonly name: string };
}

/** A time off the bench. */
export interface WaitOnRecord extends Waiting {
  readonly from: string;
  readonly to: string;
}

export const RECORD_VERSION = 1;

/** Reads a stored record. It is a document: older ones are shown as they were written. */
export function readRecord(stored: unknown): RunRecord {
  const { recordVersion } = stored as RunRecord;
  if (recordVersion > RECORD_VERSION)
    throw new Error(`a record of version ${recordVersion} was made by a newer program; this one reads up to ${RECORD_VERSION}`);
  return stored as RunRecord;
}

export interface RecordInput {
  readonly procedure: Procedure;
  /** the whole log, the sign-off last */
  readonly events: readonly RunEvent[];
  readonly system: RunRecord['system'];
  readonly loop: RunRecord['loop'];
  readonly startedAt: string;
  /** the fill's calendar day in the workshop's time zone */
  readonly filledOn: string;
  /** of a service */
  readonly intake?: Intake | null;
}

/** Before: the log ends with its sign-off. After: a document that can be read without the program. */
// eslint-disable-next-line max-lines-per-function -- one document, a field a line
export function buildRecord({ procedure, events, system, loop, startedAt, filledOn, intake }: RecordInput): RunRecord {
  const state = replay(procedure, events);
  if (!state.signedOff) throw new Error('a record is made of a signed-off run');
  const now = procedureNow(procedure, state);
  const dry = judgeDryTest(procedure, state);
  const bleeding = judgeBleeding(procedure, state);
  const settling = settlingCheck(filledOn, isSeenBled(state));
  const planned = fillTotal(procedure, state);
  const service = serviceReport(procedure, state);
  const alone = resultOf(procedure, state);
  const titles = new Map(procedure.steps.map(({ id, title }) => [id, title]));
  return {
    recordVersion: RECORD_VERSION,
    system,
    loop,
    schools: procedure.schools,
    startedAt,
    signedOffAt: state.signedOff.at,
    signedOffBy: state.signedOff.by,
    remark: state.signedOff.text,
    volumes: {
      plannedMl: planned.volumeMl,
      plannedSdMl: planned.sdMl,
      pouredMl: pouredMl(state),
      balance: balanceWords(fillBalance(procedure, state)),
    },
    coolant: state.coolant ? { productName: state.coolant.productName, lot: state.coolant.lot } : null,
    dryTest: dry
      ? {
          verdict: dry.verdict,
          leakMbarLs: dry.leakMbarLs,
          seMbarLs: dry.seMbarLs,
          excludedMlPerDay: dry.excludedMlPerDay,
          readings: dry.correctedKpa.length,
          testNumber: state.dryTestNumber,
          gasMl: Math.round(procedure.volume.volumeMl - liquidAtDryTest(state)),
          before: state.pastDryTests,
        }
      : null,
    leaks: state.leaks.map((leak) => leakOnRecord(procedure, leak)),
    had: [...new Set(state.steps.filter(({ deviation }) => deviation === null).map(({ kind }) => kind))],
    verdicts: verdictsOf(procedure, state),
    bleeding: {
      cycles: bleeding.risesMm.length,
      lastRiseMm: bleeding.risesMm.at(-1) ?? null,
      bled: bleeding.bled,
      ...(isSeenBled(state) ? { seen: true } : {}),
    },
    baselines: state.baselines.map(({ value }) => value),
    befores: state.befores.map(({ value }) => value),
    lastWater: lastWaterOf(state),
    strength: strengthOf(procedure, state),
    coolantRead: coolantReadOf(state),
    colours: state.colours.map(({ deltaE, sd, photoId, at }) => ({ deltaE, sd, photoId, at })),
    ...(intake ? { intake } : {}),
    notNeeded: now.steps.flatMap((step) => {
      const checks = state.steps.find(({ id }) => id === step.id)?.checks ?? {};
      return step.checks
        .filter(({ id }) => checks[id]?.mark === 'not-needed')
        .map(({ id, text }) => `${text}: ${checks[id]?.reason ?? ''}`);
    }),
    owed: state.owed.map(({ kind, what, until }) => ({ kind, what, until })),
    ...(service
      ? {}
      : { holdsForNow: state.service.temporaryFixes.map(({ what, awaits, until, limits }) => ({ what, awaits, until, limits })) }),
    ...(service ? {} : buildExtras(procedure, state)),
    waits: state.waits.map(({ for: reason, what, until, lies, at, resumed }) => ({
      for: reason,
      what,
      until,
      lies,
      from: at,
      to: resumed?.at ?? at,
    })),
    passedOver: state.steps.flatMap(({ id, deviation }) => (deviation ? [{ step: titles.get(id) ?? id, reason: deviation.text }] : [])),
    log: events.map((event) => ({
      seq: event.seq,
      at: event.at,
      by:
        event.deliveredBy === undefined
          ? event.by
          : say('{by}, delivered by {deliveredBy}', { by: event.by, deliveredBy: event.deliveredBy }),
      text: describeEntry(now, event, events),
      takenBack: state.withdrawn.has(event.id),
    })),
    settling: { from: settling.windowFrom, to: settling.dueOn },
    ...(service ? { service } : {}),
    ...(alone ? { unit: { name: alone.unit.name, tight: alone.tight, how: alone.how, leftMl: alone.leftMl } } : {}),
    simulated: events.some(({ body }) => 'source' in body && body.source === 'simulated'),
  };
}

function lastWaterOf({ service: { waters } }: RunState): RunRecord['lastWater'] {
  const last = waters.at(-1);
  return last ? { clarity: last.clarity, ph: last.ph } : null;
}

function coolantReadOf({ coolantReads }: RunState): RunRecord['coolantRead'] {
  const last = coolantReads.at(-1);
  return last ? { strength: last.strength, ph: last.ph, at: last.at } : null;
}

/** What a build has besides its measurements. */
const buildExtras = (procedure: Procedure, { service: { swaps, photos } }: RunState): Pick<RunRecord, 'exchanged' | 'photos'> => ({
  exchanged: swaps.map((swap) => swapWords(swap, nameIn(placesOf(procedure), swap.item))),
  photos: photos.map(({ photoId, caption }) => ({ photoId, caption })),
});

function leakOnRecord(procedure: Procedure, { where, amount, text, inAir, at, by, mended, retests }: Leak): LeakOnRecord {
  return {
    place: nameIn(placesOf(procedure), where),
    amount,
    text,
    inAir,
    at,
    by,
    mended: mended && { cause: leakCauseWords(mended.cause), text: mended.text, at: mended.at, by: mended.by },
    retests,
  };
}
