import type { FalloutSeen } from '../due-dates/falloutStages.js';
import type { Dye } from '../../machine/liquids/dye.js';
import type { InsideNow } from '../../physics/live-book/insideNow.js';
import type { Suspect } from '../lots/suspects.js';
import type { LoopChange } from '../../machine/loop-change/loopChange.js';
import type { LoopFile } from '../../machine/loop-file/loopFile.js';
import type { Whereabouts } from './arrival.js';
import type { BesideWork } from './beside.js';
import type { BookedKind } from '../job-kinds/kinds.js';
import type { DueSoon } from './scope.js';
import type { AskedScope, ConsentWay, Intake } from './schema.js';
import type { Estimate } from '../prices/estimate.js';
import type { JobBill } from '../prices/answers.js';
import type { Loans } from '../store/answers.js';
import type { CoolantClass } from '../../machine/liquids/classes.js';

/** When a job has its bench. */
export interface Appointment {
  readonly from: string;
  readonly to: string;
  readonly bench: string;
  /** told to the owner; otherwise planned only */
  readonly confirmed: boolean;
}

/** Whose machine a job is about. */
interface AtTheDoor {
  readonly jobId: string;
  readonly kind: BookedKind;
  readonly systemId: string;
  readonly systemName: string;
  readonly ownerName: string;
  readonly phone: string | null;
  /** of the job */
  readonly version: number;
}

/** A machine that is awaited today, or was awaited and nobody knows. */
export interface Coming extends AtTheDoor {
  /** its time; and that time's day by the workshop's clock */
  readonly at: string;
  readonly awaitedOn: string;
  readonly bench: string;
  readonly broughtOn: string | null;
}

/** A machine that is done and still here. */
export interface Ready extends AtTheDoor {
  readonly since: string;
}

/** From the loop inside to the one that a job wants, and the least that is let out for it. */
export interface JobChange {
  /** of the wanted revision */
  readonly number: number;
  readonly file: LoopFile;
  readonly work: LoopChange;
  readonly drain: 'none' | 'down-to' | 'whole';
  /** mL that come where it is drawn down to what changes; null: it is drained whole, or not at all */
  readonly comesMl: number | null;
}

/** A job as its page shows it. */
export interface JobPage {
  id: string;
  kind: BookedKind;
  state: 'booked' | 'active' | 'waiting' | 'done' | 'cancelled';
  note: string;
  createdAt: string;
  intake: Intake;
  estimate: Estimate;
  partId: string | null;
  /** what will be poured; null: what the loop is filled with now */
  productId: string | null;
  /** small works that go along with it */
  beside: readonly BesideWork[];
  /** null: the loop stays as it is, or has become what was wanted */
  change: JobChange | null;
  neededBy: string | null;
  partsOn: string | null;
  dropOffOn: string | null;
  loans: Loans;
  causes: readonly { readonly suspect: Exclude<Suspect, 'none'>; readonly item: string | null }[];
  windows: readonly { readonly from: string; readonly to: string }[];
  /** what its owner is asked about while its run goes on as it is; null: nothing */
  asked: AskedScope | null;
  version: number;
  consents: { id: string; at: string; kind: string; estimate: Estimate; how: ConsentWay | 'page'; words: string; by: string }[];
  consented: boolean;
  broughtOn: string | null;
  notComeOn: string | null;
  fetchedOn: string | null;
  where: Whereabouts;
  doneOn: string | null;
  /** null: it has no place in the plan */
  appointment: Appointment | null;
  system: { id: string; name: string; state: string };
  owner: { id: string; name: string; phone: string | null; email: string | null; channel: 'phone' | 'email' | 'text' };
  loop: { id: string; name: string; file: LoopFile; coolantProductId: string | null; inside: InsideNow };
  history: LoopHistory;
  run: { id: string; state: string } | null;
  photos: { id: string; caption: string; at: string }[];
  /** what it costs so far, against what was agreed */
  bill: JobBill;
  took: { name: string; amount: number; unit: string }[];
  today: string;
}

/** A drawing that a loop shall become, and has not yet. */
export interface WantedLoop {
  readonly number: number;
  readonly at: string;
  readonly reason: string;
  readonly file: LoopFile;
}

/** A loop's history with what is inside it, for a job that is about to be booked. */
export interface BookableLoop extends LoopHistory {
  readonly file: LoopFile;
  /** the newest first */
  readonly wishes: readonly WantedLoop[];
}

/** What the server knows of a loop's liquid and baselines. */
export interface LoopHistory {
  readonly filledOn: string | null;
  readonly ageDays: number | null;
  /** what is poured into this loop */
  readonly coolantId: string | null;
  readonly coolantName: string | null;
  readonly coolantClass: CoolantClass | null;
  readonly lifeMonths: number | null;
  /** dye that went into it with its last fill */
  readonly dyes: readonly Dye[];
  readonly baselineFlowLph: number | null;
  readonly risenK: number | null;
  /** how far its liquid fell out since the fill, as somebody wrote it down */
  readonly fallout: FalloutSeen | null;
  /** its coolant’s date comes so soon, or in the hot months, that it is changed while it is here; null: it can wait */
  readonly dueSoon: DueSoon | null;
}
