import type { RunEvent } from '../../bench/runs/log.js';
import type { RunRecord } from './record.js';

/** A signed record with the corrections that came later. */
export interface RecordAnswer {
  readonly record: RunRecord;
  readonly corrections: readonly RunEvent[];
}
