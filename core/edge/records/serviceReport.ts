import { say } from '../../base/words/say.js';
import { CAUSES } from '../../bench/inspection/grade.js';
import { judgeDrain, ledgerOf } from '../../bench/runs/contents.js';
import { swapWords } from '../../bench/runs/entries/swapped.js';
import { usedWords } from '../../bench/runs/entries/used.js';
import { gradedSheet, looseEnds } from '../../bench/runs/looseEnds.js';
import { stillOff } from '../../bench/runs/connectorsAfter.js';
import { placesOf, type Procedure } from '../../bench/runs/procedure.js';
import type { DrainEnd, RunState } from '../../bench/runs/state.js';
import { USE_LIMITS } from '../../workshop/due-dates/useLimits.js';
import { nameIn } from '../../machine/catalogue/names.js';
import type { BaselineReading } from '../../physics/diagnosis/reading.js';
import { compareBaselines, pairsOf, type ReadPair } from '../../physics/diagnosis/compare.js';
import type { JobKind } from '../../workshop/job-kinds/kinds.js';
import { ledgerWords } from '../words/bench.js';
import { comparisonWords, perWattWords } from '../words/readings.js';
import { looseEndWords } from '../words/dates.js';

export interface DrainReport {
  readonly cameMl: number;
  readonly shouldMl: number | null;
  readonly leftMl: number | null;
  readonly leftSdMl: number;
  /** parts and tubes that hold what is left, most of it first */
  readonly where: readonly { readonly name: string; readonly ml: number }[];
}

/** What a service leaves in its record, and what the owner is told. */
export interface ServiceReport {
  readonly kind: JobKind;
  readonly volumes: {
    readonly startMl: number | null;
    readonly outMl: number;
    readonly inMl: number;
    readonly lostMl: number;
    readonly insideMl: number | null;
    /** on towels and in parts when it was taken apart */
    readonly unseenMl: number;
    readonly balance: string;
    /** how the drain ended, judged when its step was closed; missing in records that are older, null where none was led */
    readonly drain?: DrainReport | null;
    /** share of the old liquid in what is inside now */
    readonly oldShare: number;
  };
  readonly sheet: readonly { readonly name: string; readonly words: string; readonly grade: string; readonly text: string }[];
  readonly cause: string | null;
  readonly done: readonly string[];
  readonly temporary: readonly {
    readonly what: string;
    readonly awaits: string;
    readonly until: string;
    readonly limits: readonly string[];
  }[];
  /** what keeps "clean" from being claimed */
  readonly looseEnds: readonly string[];
  readonly comparison: string | null;
  /** what of it the cleaning did and what came after it; missing or null: nobody read in between, all of it counts as one */
  readonly split?: { readonly dusting: string; readonly rest: string } | null;
  /** what was pulled and not put back */
  readonly notReconnected: readonly string[];
  readonly photos: readonly { readonly photoId: string; readonly caption: string }[];
}

function drainReport(procedure: Procedure, drained: DrainEnd | null): DrainReport | null {
  if (!drained) return null;
  const { cameMl, shouldMl, leftMl, leftSdMl, where } = drained;
  const names = placesOf(procedure);
  return { cameMl, shouldMl, leftMl, leftSdMl, where: where.map(({ id, ml }) => ({ name: nameIn(names, id), ml })) };
}

/** Sensor by sensor what two readings come to; with one alone its name is not said. null: nothing was read twice. */
function changeWords(
  pairs: readonly ReadPair[],
  of: (pair: ReadPair) => readonly [BaselineReading, BaselineReading] | null,
): string | null {
  const said = pairs.flatMap((pair) => {
    const both = of(pair);
    if (!both) return [];
    const compared = compareBaselines(...both);
    return [{ sensor: pair.after.sensor, words: [comparisonWords(compared), perWattWords(compared)].filter(Boolean).join(', ') }];
  });
  if (said.length === 0) return null;
  return said.map(({ sensor, words }) => (said.length > 1 ? `${sensor}: ${words}` : words)).join('; ');
}

/** The report of a service, or null for a commissioning. */
export function serviceReport(procedure: Procedure, state: RunState): ServiceReport | null {
  const { service } = procedure;
  if (!service) return null;
  const own = state.service;
  const ledger = ledgerOf(service, state);
  const pairs = pairsOf(
    state.befores.map(({ value }) => value),
    state.baselines.map(({ value }) => value),
  );
  return {
    kind: service.kind,
    volumes: {
      startMl: service.inside?.volumeMl ?? null,
      outMl: ledger.outMl,
      inMl: ledger.inMl,
      lostMl: ledger.lostMl,
      insideMl: ledger.insideMl,
      unseenMl: ledger.unseenMl,
      balance: ledgerWords(own.drained?.verdict ?? judgeDrain(service, state)),
      drain: drainReport(procedure, own.drained),
      oldShare: ledger.shares.old,
    },
    sheet: gradedSheet(procedure, own).map(({ name, words, grade, text }) => ({ name, words, grade, text })),
    cause:
      own.causes
        .map(
          ({ cause, suspect, item }) =>
            `${say(CAUSES[cause])}${suspect === 'coolant-lot' ? say(', the coolant’s lot is suspected') : item ? say(', {nameIn} is suspected', { nameIn: nameIn(service.items, item) }) : ''}`,
        )
        .join('; ') || null,
    done: [...own.swaps.map((swap) => swapWords(swap, nameIn(placesOf(procedure), swap.item))), ...own.used.map(usedWords)],
    temporary: own.temporaryFixes.map(({ what, awaits, until, limits }) => ({
      what,
      awaits,
      until,
      limits: limits.map((limit) => say(USE_LIMITS[limit])),
    })),
    looseEnds: looseEnds(procedure, state).map(looseEndWords),
    comparison: changeWords(pairs, ({ before, after }) => [before, after]),
    split: pairs.some(({ dusted }) => dusted)
      ? {
          dusting: changeWords(pairs, ({ before, dusted }) => dusted && [before, dusted]) ?? '',
          rest: changeWords(pairs, ({ dusted, after }) => dusted && [dusted, after]) ?? '',
        }
      : null,
    notReconnected: stillOff(procedure, state).map(({ lead, why }) => `${lead}: ${why}`),
    photos: own.photos.map(({ photoId, caption }) => ({ photoId, caption })),
  };
}
