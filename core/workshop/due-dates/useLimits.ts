import type { UseLimit } from './facts.js';

/** Limits of use that a temporary fix comes with, in words for the owner. */
export const USE_LIMITS: Readonly<Record<UseLimit, string>> = {
  'do-not-move': 'do not move the machine',
  'level-daily': 'look at the level every day',
  'no-load': 'no long loads',
  'not-unattended': 'do not leave it running alone',
};
