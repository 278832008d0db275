import type { StandingName } from '../geometry/orientation.js';
import type { ServiceEntry } from '../jobs/entries.js';

/** What happened in a run, in the order it was recorded. Nothing is ever changed or removed; undo is an entry too. */

export type CheckMark = 'done' | 'open' | 'not-needed';

/** Conditions and values of one baseline measurement. Temperatures in °C. */
export interface BaselineReading {
  readonly setting: string;
  readonly workload: string;
  readonly durationMinutes: number;
  readonly powerW: number | null;
  readonly sensor: string;
  readonly statistic: 'peak' | 'mean of the last five minutes' | 'last value';
  readonly panels: 'on' | 'off';
  readonly pumpPercent: number;
  readonly fanPercent: number;
  readonly roomC: number;
  readonly partC: number;
  readonly coolantC: number | null;
  readonly flowLph: number | null;
  readonly levelMm: number | null;
}

/** Where a value came from: read and typed, sent by an instrument of the bench, or by a simulated stand-in of one. */
export type ReadingSource = 'hand' | 'instrument' | 'simulated';

/** An interlock that was passed over with a reason. Only those that can be safe may be. */
export interface Override {
  readonly rule: string;
  readonly reason: string;
}

export const LEAK_WHEN = ['first-pour', 'pump-start', 'under-pressure', 'after-minutes', 'after-hours', 'warm', 'after-moving'] as const;
export type LeakWhen = (typeof LEAK_WHEN)[number];
export const LEAK_AMOUNT = ['gush', 'drip', 'seep'] as const;
export type LeakAmount = (typeof LEAK_AMOUNT)[number];

export type RunEventBody =
  | ServiceEntry
  | { readonly type: 'check'; readonly step: string; readonly check: string; readonly mark: CheckMark; readonly reason?: string }
  | { readonly type: 'note'; readonly step: string; readonly text: string }
  | { readonly type: 'timer-started'; readonly step: string; readonly timer: string }
  | { readonly type: 'timer-stopped'; readonly step: string; readonly timer: string }
  | {
      readonly type: 'dry-reading';
      readonly gaugeKpa: number;
      readonly tempC: number;
      readonly atmosphereKpa?: number;
      readonly source?: ReadingSource;
    }
  | { readonly type: 'pump'; readonly on: boolean; readonly override?: Override; readonly source?: ReadingSource }
  | { readonly type: 'port'; readonly port: string; readonly open: boolean; readonly override?: Override }
  | { readonly type: 'joint'; readonly joint: string; readonly open: boolean }
  | { readonly type: 'turn'; readonly to: StandingName; readonly angleDeg: number; readonly override?: Override }
  | { readonly type: 'level'; readonly levelMl: number; readonly source?: ReadingSource }
  | { readonly type: 'doubt'; readonly part: string; readonly text: string }
  | { readonly type: 'part-test'; readonly part: string; readonly tight: boolean; readonly how: string; readonly leftMl: number }
  | {
      readonly type: 'leak';
      readonly at: string;
      readonly when: LeakWhen;
      readonly amount: LeakAmount;
      readonly text: string;
    }
  | { readonly type: 'leak-mended'; readonly leak: string; readonly cause: string; readonly fix: string }
  | { readonly type: 'leak-retested'; readonly leak: string; readonly dry: boolean }
  | { readonly type: 'spill'; readonly onElectronics: boolean; readonly text: string }
  | { readonly type: 'spill-rinsed'; readonly spill: string; readonly with: string }
  | { readonly type: 'dry-restarted'; readonly reason: string }
  | {
      readonly type: 'coolant';
      readonly productId: string;
      readonly productName: string;
      readonly batchId: string | null;
      readonly lot: string | null;
    }
  | { readonly type: 'pour'; readonly volumeMl: number; readonly source?: ReadingSource }
  | {
      readonly type: 'bleed-cycle';
      readonly runningMm: number;
      readonly stoppedMm: number;
      readonly bubbles: boolean;
      readonly noise: boolean;
      readonly source?: ReadingSource;
    }
  /** `before`: of a service, before anything was touched */
  | { readonly type: 'baseline'; readonly reading: BaselineReading; readonly before?: boolean }
  | { readonly type: 'step-done'; readonly step: string }
  | { readonly type: 'deviation'; readonly step: string; readonly reason: string }
  | { readonly type: 'withdrawn'; readonly event: string }
  | { readonly type: 'signed-off'; readonly remark: string }
  | { readonly type: 'correction'; readonly about: string | null; readonly text: string };

export type RunEventType = RunEventBody['type'];

export interface RunEvent {
  /** made on the device that recorded it; the same entry sent twice is kept once */
  readonly id: string;
  /** 1, 2, 3 … in the run */
  readonly seq: number;
  /** ISO instant at which it happened */
  readonly at: string;
  readonly by: string;
  readonly body: RunEventBody;
}
