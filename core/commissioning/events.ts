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

export type RunEventBody =
  | { readonly type: 'check'; readonly step: string; readonly check: string; readonly mark: CheckMark; readonly reason?: string }
  | { readonly type: 'note'; readonly step: string; readonly text: string }
  | { readonly type: 'timer-started'; readonly step: string; readonly timer: string }
  | { readonly type: 'timer-stopped'; readonly step: string; readonly timer: string }
  | { readonly type: 'dry-reading'; readonly gaugeKpa: number; readonly tempC: number; readonly atmosphereKpa?: number }
  | { readonly type: 'dry-restarted'; readonly reason: string }
  | {
      readonly type: 'coolant';
      readonly productId: string;
      readonly productName: string;
      readonly batchId: string | null;
      readonly lot: string | null;
    }
  | { readonly type: 'pour'; readonly volumeMl: number }
  | {
      readonly type: 'bleed-cycle';
      readonly runningMm: number;
      readonly stoppedMm: number;
      readonly bubbles: boolean;
      readonly noise: boolean;
    }
  | { readonly type: 'baseline'; readonly reading: BaselineReading }
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
