import type { LoopChange } from '../../machine/loop-change/loopChange.js';
import type { LoopFile } from '../../machine/loop-file/loopFile.js';
import { fillVolume } from '../../physics/filling/fillPlan.js';
import { BOOKED_KINDS, type BookedKind } from '../job-kinds/kinds.js';
import { besideAs, type BesideWork } from './beside.js';
import { rinseMinutes } from './pourChoice.js';
import { usualHours } from './usualHours.js';

/** What such a job usually takes: a start for the estimate, to be corrected by whoever has seen the machine. h of attendance, mL of coolant */
export function usualEstimate(
  kind: BookedKind,
  file: LoopFile,
  { work = null, beside = [], rinses = null }: { work?: LoopChange | null; beside?: readonly BesideWork[]; rinses?: number | null } = {},
): { hours: number; coolantMl: number } {
  const more = rinseMinutes(rinses, RINSES.includes(kind)) / 60;
  const hours = Math.ceil((usualHours(kind, file, work, besideAs(kind, beside)) + more) * 20 - 1e-6) / 20;
  const coolantMl = BOOKED_KINDS[kind].fill === 'anew' ? Math.ceil(fillVolume(file).volumeMl / 50) * 50 : 0;
  return { hours, coolantMl };
}
/** Kinds that rinse by themselves. */
export const RINSES: readonly BookedKind[] = ['flush-refill', 'strip-clean'];
