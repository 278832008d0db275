import type { FalloutAnswer } from '../fallout/answers.js';
import type { CallMachine } from '../calls/answers.js';
import type { Whereabouts } from '../jobs/arrival.js';
import type { Appointment, Coming, Ready } from '../jobs/answers.js';
import type { CameFilled } from '../../machine/loop-file/cameFilled.js';
import type { DrainPolicy } from '../../physics/draining/defaults.js';
import type { InsideNow } from '../../physics/live-book/insideNow.js';
import type { DateReason } from '../due-dates/facts.js';
import type { Escalation } from '../due-dates/escalation.js';
import type { Attention, DueKind, SystemState } from '../due-dates/attention.js';
import type { DueClock, ServicePolicy } from '../due-dates/due.js';
import type { OwnReading } from '../people/readingSchema.js';
import type { DustPlace } from '../due-dates/facts.js';
import type { FittedLot } from '../lots/answers.js';
import type { UsagePage } from '../usage/answers.js';
import type { BookedKind } from '../job-kinds/kinds.js';
import type { RadiatorFans, HeatSetup } from '../../physics/heat/setup.js';
import type { FanStacks } from '../../machine/shop-sums/fanScrews.js';
import type { ElectricalSheet } from '../../machine/electrical/sheet.js';
import type { LoopFile } from '../../machine/loop-file/loopFile.js';
import type { RevisionKind } from '../../machine/loop-file/revisionKinds.js';
import type { BaselineReading } from '../../physics/diagnosis/reading.js';

export interface Due {
  id: string;
  kind: DueKind;
  dueOn: string;
  windowFrom: string | null;
  reason: DateReason;
  postponed: number;
  version: number;
}

export interface SystemLine {
  id: string;
  name: string;
  ownerName: string;
  ownerPhone: string | null;
  tag: string;
  caseText: string;
  state: SystemState;
  attention: Attention;
  nextDueOn: string | null;
  nextKind: DueKind | null;
  nextReason: DateReason | null;
  /** what is open, the earliest first */
  dues: Pick<Due, 'kind' | 'dueOn' | 'postponed'>[];
  filledOn: string | null;
  coolant: { name: string; colour: string } | null;
}

export interface Owner {
  id: string;
  name: string;
  email: string | null;
  phone: string | null;
  channel: 'phone' | 'email' | 'text';
  note: string;
  reading: OwnReading;
  policy: ServicePolicy | null;
  version: number;
}

export interface SystemRow {
  id: string;
  ownerId: string;
  name: string;
  tag: string;
  caseText: string;
  builtBy: string;
  state: SystemState;
  hoursPerDay: number | null;
  coolantC: number | null;
  dustPlace: DustPlace;
  policy: ServicePolicy | null;
  note: string;
  version: number;
}

export interface HistoryEntry {
  id: string;
  /** a calendar day or an instant; both sort as text */
  at: string;
  kind: 'job' | 'run' | 'revision' | 'finding' | 'check' | 'postponed' | 'follow-up' | 'photo' | 'reading' | 'message';
  title: string;
  text: string;
  by: string | null;
  runId: string | null;
  colour: string | null;
  /** id of a picture */
  photoId?: string;
  /** its run is still going on */
  open?: boolean;
}

/** A piece of a machine's history, the newest first. */
export interface HistoryPiece {
  entries: HistoryEntry[];
  /** what to ask for the piece before it with; null: this holds the first entry */
  before: string | null;
}

export interface LoopOfSystem {
  id: string;
  name: string;
  coolantProductId: string | null;
  /** filled by somebody else before it came */
  cameFilled: CameFilled | null;
  version: number;
  revision: { number: number; kind: RevisionKind; volumeMl: number; volumeSdMl: number; file: LoopFile } | null;
  /** null without a drawing */
  inside: InsideNow | null;
  /** of its liquid: of a suspension alone something is seen */
  fallout: FalloutAnswer;
  runs: { id: string; loopId: string; state: string; startedAt: string }[];
}

export interface SystemPage {
  system: SystemRow;
  owner: Owner;
  attention: Attention;
  /** what is said of it on the phone as well: due, in, ready, costs */
  answers: CallMachine;
  loops: LoopOfSystem[];
  dues: (Due & {
    systemId: string;
    loopId: string;
    estimated: boolean;
    /** the job that is booked for it, or on a bench */
    jobId: string | null;
    clocks: DueClock[];
    escalation: Escalation;
  })[];
  usage: UsagePage;
  lots: FittedLot[];
  /** what is in it now of lots that fail earlier than others */
  earlyLots: string[];
  /** the loan machine that its owner has */
  loan: { id: string; name: string; jobId: string; untilDay: string | null } | null;
  /** booked or on a bench */
  jobs: {
    id: string;
    kind: BookedKind;
    state: string;
    neededBy: string | null;
    partsOn: string | null;
    notComeOn: string | null;
    where: Whereabouts;
    appointment: Appointment | null;
  }[];
  today: string;
}

/** A page of the list of machines. */
export interface SystemsAnswer {
  today: string;
  systems: SystemLine[];
  /** what to ask for the next page with; null: this is the last */
  after: string | null;
  /** machines of the workshop by what needs attention; null beyond the first page */
  counts: Partial<Record<Attention, number>> | null;
  /** machines of this list, all pages; null beyond the first page */
  found: number | null;
}

/** What falls due, and what is overdue. */
export interface TodayAnswer {
  today: string;
  /** first pages; more of them are pages of the list of machines */
  overdue: SystemsAnswer;
  coming: SystemsAnswer;
  /** machines that are dusty and nothing else: cleaned beside other work, they are not overdue */
  dusty: number;
  count: number;
  /** awaited today, or before and nobody wrote down what became of it */
  comingIn: readonly Coming[];
  /** done and still here */
  ready: readonly Ready[];
}

/** What hangs on what in a machine, with its loops: their pumps and radiators are named there. */
export interface ConnectorsAnswer {
  systemId: string;
  systemName: string;
  /** null: nobody wrote it down */
  sheet: ElectricalSheet | null;
  /** how often it was written down */
  version: number;
  loops: { id: string; name: string; file: LoopFile }[];
}

/** A loop with its newest revision. */
export interface LoopAnswer {
  id: string;
  name: string;
  systemId: string;
  systemName: string;
  coolantProductId: string | null;
  version: number;
  /** °C, mean of its coolant as its owner's logs or words have it; null: nobody knows */
  coolantC: number | null;
  /** what was said of its air and load; null: nothing yet */
  heatSetup: HeatSetup | null;
  /** groups of fans on its radiators, by the machine's sheet of connectors */
  fans: RadiatorFans[];
  /** what the screws of its fans pass; null: nobody measured */
  fanStacks: FanStacks | null;
  file: LoopFile;
  inside: InsideNow;
  /** the workshop's policy of stands and openings */
  drainPolicy: DrainPolicy;
  activeRunId: string | null;
  /** that run is its build */
  isBuilding: boolean;
  revisions: {
    id: string;
    number: number;
    kind: RevisionKind;
    reason: string;
    at: string;
    by: string;
    volumeMl: number;
    volumeSdMl: number;
  }[];
  /** readings of the loop when it was well, the newest first */
  baselines: { reading: BaselineReading; at: string }[];
}
