/** Services that are entered after they were done. */
export const SERVICE_KINDS = {
  'drain-refill': 'drain and refill',
  'flush-refill': 'flush and refill',
  'strip-clean': 'full strip and clean',
  'leak-repair': 'leak repair',
  'top-up': 'top-up',
  'closed-loop': 'dust, paste, fans; loop stayed closed',
} as const;
export type ServiceKind = keyof typeof SERVICE_KINDS;
/** Kinds after which the loop holds new coolant, so that its clocks start again. */
export const REFILLING: readonly ServiceKind[] = ['drain-refill', 'flush-refill', 'strip-clean', 'leak-repair'];
