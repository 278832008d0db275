import type { HeatCause } from '../../physics/diagnosis/causes.js';
import type { JobKind } from '../job-kinds/kinds.js';

/** The lightest job that mends a cause; null: there is nothing to mend. What is found when it is looked at may ask for more. */
export const CAUSE_JOBS: Readonly<Record<HeatCause, JobKind | null>> = {
  nothing: null,
  dust: 'closed-loop',
  fan: 'closed-loop',
  paste: 'closed-loop',
  block: 'strip-clean',
  radiator: 'flush-refill',
  pump: 'partial-drain',
  kink: 'closed-loop',
  'air-inside': 'top-up',
  coolant: 'flush-refill',
};
