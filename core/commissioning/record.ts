import { judgeBleed } from '../bleeding/bleed.js';
import { settlingCheck } from '../due-dates/due.js';
import { serviceReport, type ServiceReport } from '../jobs/report.js';
import type { LoopFile } from '../loops/loopFile.js';
import { describeEntry } from './describe.js';
import type { BaselineReading, RunEvent } from './events.js';
import type { Procedure } from './procedure.js';
import { fillBalance, fillTotal, judgeDryTest } from './rules.js';
import { pouredMl, replay } from './state.js';

/** What was measured and done, closed at sign-off. Stored whole, never written again; corrections stand beside it. */
export interface RunRecord {
  readonly recordVersion: 1;
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
  } | null;
  readonly bleeding: { readonly cycles: number; readonly lastRiseMm: number | null; readonly bled: boolean };
  readonly baselines: readonly BaselineReading[];
  readonly notNeeded: readonly string[];
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
}

/** Before: the log ends with its sign-off. After: a document that can be read without the program. */
export function buildRecord({ procedure, events, system, loop, startedAt, filledOn }: RecordInput): RunRecord {
  const state = replay(procedure, events);
  if (!state.signedOff) throw new Error('a record is made of a signed-off run');
  const dry = judgeDryTest(procedure, state);
  const bleeding = judgeBleed(state.bleedCycles.map(({ value }) => value));
  const settling = settlingCheck(filledOn);
  const planned = fillTotal(procedure, state);
  const service = serviceReport(procedure, state);
  const titles = new Map(procedure.steps.map(({ id, title }) => [id, title]));
  return {
    recordVersion: 1,
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
      balance: fillBalance(procedure, state).text,
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
        }
      : null,
    bleeding: { cycles: bleeding.risesMm.length, lastRiseMm: bleeding.risesMm.at(-1) ?? null, bled: bleeding.bled },
    baselines: state.baselines.map(({ value }) => value),
    notNeeded: procedure.steps.flatMap((step) => {
      const checks = state.steps.find(({ id }) => id === step.id)?.checks ?? {};
      return step.checks
        .filter(({ id }) => checks[id]?.mark === 'not-needed')
        .map(({ id, text }) => `${text}: ${checks[id]?.reason ?? ''}`);
    }),
    passedOver: state.steps.flatMap(({ id, deviation }) => (deviation ? [{ step: titles.get(id) ?? id, reason: deviation.text }] : [])),
    log: events.map((event) => ({
      seq: event.seq,
      at: event.at,
      by: event.by,
      text: describeEntry(procedure, event, events),
      takenBack: state.withdrawn.has(event.id),
    })),
    settling: { from: settling.windowFrom, to: settling.dueOn },
    ...(service ? { service } : {}),
    simulated: events.some(({ body }) => 'source' in body && body.source === 'simulated'),
  };
}
