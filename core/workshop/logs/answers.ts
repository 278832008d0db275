import type { Breathing } from '../../physics/heat/steady.js';
import type { FanGroup } from '../../physics/diagnosis/loadReading.js';
import type { KeptSetting } from '../marks/schema.js';
import type { LevelPoint } from '../../physics/condition/level.js';
import type { HeatCause } from '../../physics/diagnosis/causes.js';
import type { LoopFile } from '../../machine/loop-file/loopFile.js';
import type { HeatLimits } from '../../physics/condition/limits.js';
import type { ConditionMark, DatedReading } from '../../physics/condition/series.js';
import type { ReadPart } from '../../physics/diagnosis/sensors.js';
import type { LogColumns } from './columns.js';

/** Everything that a machine's readings tell, as the server sends it. */
/** Levels of one loop that was filled, and how warm its coolant usually is. */
export interface LoopLevels {
  readonly loopId: string;
  readonly filledOn: string;
  readonly read: readonly LevelPoint[];
  /** °C; null: nobody measured it */
  readonly coolantC: number | null;
}

/** A cause that somebody looked at and found. */
export interface ConfirmedCause {
  readonly id: string;
  readonly cause: HeatCause;
  readonly part: string | null;
  readonly on: string;
  readonly by: string;
}

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
    /** how its radiators breathe, by what is said under its heat */
    readonly breathing: Breathing;
  }[];
  /** its groups of fans by name, as far as its connectors were written down */
  readonly fanGroups: readonly Omit<FanGroup, 'speed'>[];
  /** pump and fans as they were left; null: nobody chose */
  readonly keptSetting: KeptSetting | null;
  /** levels of each loop since its last fill */
  readonly levels: readonly LoopLevels[];
  /** what was found to be the matter with it, the newest first */
  readonly confirmed: readonly ConfirmedCause[];
  /** how often each cause was found in this workshop */
  readonly found: Readonly<Partial<Record<HeatCause, number>>>;
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
