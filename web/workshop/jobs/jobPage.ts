import type { Suspect } from '@core/bench/runs/state.js';
import type { LoopFile } from '@core/machine/loop-file/loopFile.js';
import type { JobKind } from '@core/workshop/jobs/kinds.js';
import type { Estimate, Intake } from '@core/workshop/jobs/schema.js';
import type { Loans } from '../store/LoanBox.vue';
import type { LoopHistory } from './jobForm.js';

/** A job as its page shows it. */
export interface JobPage {
  id: string;
  kind: JobKind;
  state: 'booked' | 'active' | 'waiting' | 'done' | 'cancelled';
  note: string;
  createdAt: string;
  intake: Intake;
  estimate: Estimate;
  partId: string | null;
  neededBy: string | null;
  partsOn: string | null;
  dropOffOn: string | null;
  loans: Loans;
  cause: { readonly suspect: Suspect; readonly item: string | null } | null;
  windows: readonly { readonly from: string; readonly to: string }[];
  version: number;
  consents: { id: string; at: string; kind: string; estimate: Estimate; how: string; words: string; by: string }[];
  consented: boolean;
  system: { id: string; name: string; state: string };
  owner: { id: string; name: string; phone: string | null; channel: string };
  loop: { id: string; name: string; file: LoopFile; coolantProductId: string | null };
  history: LoopHistory;
  run: { id: string; state: string } | null;
  photos: { id: string; caption: string; at: string }[];
  took: { name: string; amount: number; unit: string }[];
  today: string;
}
