import type { RunEvent } from '../runs/log.js';
import type { Procedure } from '../runs/procedure.js';
import type { RunState } from '../runs/state.js';
import type { BenchReport } from '../simulated-bench/report.js';

/** What a practice run comes to. `harm` would have cost a owner something. */
export interface DebriefLine {
  readonly kind: 'good' | 'missed' | 'harm' | 'saving';
  readonly text: string;
  /** ISO instant, where it happened at one */
  readonly at: string | null;
}

export interface DebriefInput {
  readonly procedure: Procedure;
  readonly events: readonly RunEvent[];
  readonly report: BenchReport;
  readonly startedAt: string;
  readonly endedAt: string;
}

/** What a debrief is told by: the run, what the bench saw, and names. */
export interface Told {
  readonly state: RunState;
  readonly input: DebriefInput;
  nameOf(id: string): string;
}

export interface Saving {
  readonly line: DebriefLine;
  readonly savedS: number;
}

export const line = (kind: DebriefLine['kind'], text: string, at: string | null = null): DebriefLine => ({ kind, text, at });
