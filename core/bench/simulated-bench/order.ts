import type { RunEvent } from '../runs/log.js';
import type { Liquid } from '../../machine/liquids/fluids.js';
import type { LoopFile } from '../../machine/loop-file/loopFile.js';
import type { Procedure } from '../runs/procedure.js';
import type { Scenario } from './truth.js';

/** What the simulated bench's process is told by the server that starts it, over the channel between the two. */
export interface BenchOrder {
  /** brokers in the order in which they are tried */
  readonly urls: readonly string[];
  readonly name: string;
  readonly secret: string;
  readonly workshopId: string;
  readonly benchId: string;
  readonly loop: LoopFile;
  readonly coolant: Liquid;
  readonly scenario: Scenario;
  readonly seed: number;
  readonly procedure: Procedure;
  readonly startedAt: string;
  /** what hands did before this process began */
  readonly events: readonly RunEvent[];
  readonly aheadMs: number;
}
