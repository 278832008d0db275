import type { LoopFile } from '../../machine/loop-file/loopFile.js';
import type { HeatLimits } from '../../physics/condition/limits.js';
import type { ConditionMark, DatedReading } from '../../physics/condition/series.js';
import type { ReadPart } from '../../physics/diagnosis/sensors.js';
import type { LogColumns } from './columns.js';

/** Everything that a machine's readings tell, as the server sends it. */
export interface ConditionPage {
  readonly system: { readonly id: string; readonly name: string; readonly ownerName: string; readonly retired: boolean };
  readonly parts: readonly ReadPart[];
  readonly readings: readonly DatedReading[];
  readonly marks: readonly ConditionMark[];
  readonly limits: HeatLimits;
  /** how its log was read last; null: none was */
  readonly columns: LogColumns | null;
  /** drawn loops, the newest revision of each */
  readonly loops: readonly {
    readonly id: string;
    readonly name: string;
    readonly coolantProductId: string | null;
    readonly file: LoopFile;
  }[];
  readonly today: string;
  readonly zone: string;
}

/** What became of a log that was kept. */
export interface KeptLog {
  readonly id: string;
  /** readings that were taken, and days that an earlier log had already */
  readonly taken: number;
  readonly known: number;
  readonly moved: readonly unknown[];
}
