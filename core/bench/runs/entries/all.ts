import type { EntryDefinition } from '../entry.js';
import { alsoPulled, type AlsoPulledEntry } from './alsoPulled.js';
import { baseline, type BaselineEntry } from './baseline.js';
import { bleedCycle, type BleedCycleEntry } from './bleedCycle.js';
import { bypassed, type BypassedEntry } from './bypassed.js';
import { rebuilt, type RebuiltEntry } from './rebuilt.js';
import { relaid, type RelaidEntry } from './relaid.js';
import { cause, type CauseEntry } from './cause.js';
import { check, type CheckEntry } from './check.js';
import { checks, type ChecksEntry } from './checks.js';
import { coolant, type CoolantEntry } from './coolant.js';
import { colour, type ColourEntry } from './colour.js';
import { coolantRead, type CoolantReadEntry } from './coolantRead.js';
import { correction, type CorrectionEntry } from './correction.js';
import { deviation, type DeviationEntry } from './deviation.js';
import { doubt, type DoubtEntry } from './doubt.js';
import { dyed, type DyedEntry } from './dyed.js';
import { drained, type DrainedEntry } from './drained.js';
import { dryReading, type DryReadingEntry } from './dryReading.js';
import { dryRestarted, type DryRestartedEntry } from './dryRestarted.js';
import { fillTrouble, type FillTroubleEntry } from './fillTrouble.js';
import { fillTroubleSolved, type FillTroubleSolvedEntry } from './fillTroubleSolved.js';
import { groupReading, type GroupReadingEntry } from './groupReading.js';
import { inspected, type InspectedEntry } from './inspected.js';
import { joint, type JointEntry } from './joint.js';
import { leak, type LeakEntry } from './leak.js';
import { leakMended, type LeakMendedEntry } from './leakMended.js';
import { leakRetested, type LeakRetestedEntry } from './leakRetested.js';
import { level, type LevelEntry } from './level.js';
import { lost, type LostEntry } from './lost.js';
import { missed, type MissedEntry } from './missed.js';
import { note, type NoteEntry } from './note.js';
import { outflow, type OutflowEntry } from './outflow.js';
import { owed, type OwedEntry } from './owed.js';
import { partTest, type PartTestEntry } from './partTest.js';
import { photo, type PhotoEntry } from './photo.js';
import { port, type PortEntry } from './port.js';
import { pour, type PourEntry } from './pour.js';
import { pump, type PumpEntry } from './pump.js';
import { ringRenewed, type RingRenewedEntry } from './ringRenewed.js';
import { rescoped, type RescopedEntry } from './rescoped.js';
import { resumed, type ResumedEntry } from './resumed.js';
import { returned, type ReturnedEntry } from './returned.js';
import { rinse, type RinseEntry } from './rinse.js';
import { sealBorrowed, type SealBorrowedEntry } from './sealBorrowed.js';
import { sealFitted, type SealFittedEntry } from './sealFitted.js';
import { signedOff, type SignedOffEntry } from './signedOff.js';
import { blown, type BlownEntry } from './blown.js';
import { loadsStay, type LoadsStayEntry } from './loadsStay.js';
import { pasted, type PastedEntry } from './pasted.js';
import { seenBled, type SeenBledEntry } from './seenBled.js';
import { sistersSeen, type SistersSeenEntry } from './sistersSeen.js';
import { soak, type SoakEntry } from './soak.js';
import { spill, type SpillEntry } from './spill.js';
import { spillRinsed, type SpillRinsedEntry } from './spillRinsed.js';
import { stepDone, type StepDoneEntry } from './stepDone.js';
import { swapped, type SwappedEntry } from './swapped.js';
import { temporaryFix, type TemporaryFixEntry } from './temporaryFix.js';
import { timerStarted, type TimerStartedEntry } from './timerStarted.js';
import { timerStopped, type TimerStoppedEntry } from './timerStopped.js';
import { turn, type TurnEntry } from './turn.js';
import { used, type UsedEntry } from './used.js';
import { waits, type WaitsEntry } from './waits.js';
import { warming, type WarmingEntry } from './warming.js';
import { water, type WaterEntry } from './water.js';
import { weighed, type WeighedEntry } from './weighed.js';
import { withdrawn, type WithdrawnEntry } from './withdrawn.js';

/** Every kind of entry. A new one is a file beside these and a line in each list below; without them it does not compile. */
export type RunEventBody =
  | AlsoPulledEntry
  | BaselineEntry
  | BleedCycleEntry
  | CauseEntry
  | CheckEntry
  | BypassedEntry
  | RebuiltEntry
  | ChecksEntry
  | CoolantEntry
  | ColourEntry
  | CoolantReadEntry
  | CorrectionEntry
  | DeviationEntry
  | DoubtEntry
  | DyedEntry
  | DrainedEntry
  | DryReadingEntry
  | DryRestartedEntry
  | FillTroubleEntry
  | FillTroubleSolvedEntry
  | GroupReadingEntry
  | InspectedEntry
  | JointEntry
  | LeakEntry
  | LeakMendedEntry
  | LeakRetestedEntry
  | LevelEntry
  | LostEntry
  | MissedEntry
  | NoteEntry
  | OutflowEntry
  | OwedEntry
  | PartTestEntry
  | PhotoEntry
  | PortEntry
  | PourEntry
  | PumpEntry
  | RelaidEntry
  | RescopedEntry
  | ResumedEntry
  | ReturnedEntry
  | RingRenewedEntry
  | RinseEntry
  | SealBorrowedEntry
  | SealFittedEntry
  | SignedOffEntry
  | BlownEntry
  | LoadsStayEntry
  | PastedEntry
  | SeenBledEntry
  | SistersSeenEntry
  | SoakEntry
  | SpillEntry
  | SpillRinsedEntry
  | StepDoneEntry
  | SwappedEntry
  | TemporaryFixEntry
  | TimerStartedEntry
  | TimerStoppedEntry
  | TurnEntry
  | UsedEntry
  | WaitsEntry
  | WarmingEntry
  | WaterEntry
  | WeighedEntry
  | WithdrawnEntry;

export type RunEventType = RunEventBody['type'];
export type BodyOf<T extends RunEventType> = Extract<RunEventBody, { type: T }>;

export const ENTRIES: { readonly [T in RunEventType]: EntryDefinition<BodyOf<T>> } = {
  'also-pulled': alsoPulled,
  baseline,
  'bleed-cycle': bleedCycle,
  bypassed,
  cause,
  check,
  checks,
  coolant,
  colour,
  'coolant-read': coolantRead,
  correction,
  deviation,
  doubt,
  dyed,
  drained,
  'dry-reading': dryReading,
  'dry-restarted': dryRestarted,
  'fill-trouble': fillTrouble,
  'fill-trouble-solved': fillTroubleSolved,
  'group-reading': groupReading,
  inspected,
  joint,
  leak,
  'leak-mended': leakMended,
  'leak-retested': leakRetested,
  level,
  lost,
  missed,
  note,
  outflow,
  owed,
  'part-test': partTest,
  photo,
  port,
  pour,
  pump,
  rebuilt,
  relaid,
  rescoped,
  resumed,
  returned,
  'ring-renewed': ringRenewed,
  rinse,
  'seal-borrowed': sealBorrowed,
  'seal-fitted': sealFitted,
  'signed-off': signedOff,
  blown,
  'loads-stay': loadsStay,
  pasted,
  'seen-bled': seenBled,
  'sisters-seen': sistersSeen,
  soak,
  spill,
  'spill-rinsed': spillRinsed,
  'step-done': stepDone,
  swapped,
  'temporary-fix': temporaryFix,
  'timer-started': timerStarted,
  'timer-stopped': timerStopped,
  turn,
  used,
  waits,
  warming,
  water,
  weighed,
  withdrawn,
};

/** The definition of one entry. */
export const definitionOf = ({ type }: Pick<RunEventBody, 'type'>): EntryDefinition<RunEventBody> => ENTRIES[type] as never;

/** Whether an entry came with other steps or another loop: what was folded with the old ones is folded anew. */
export const changesProcedure = (body: Pick<RunEventBody, 'type'>): boolean =>
  body.type === 'rescoped' || definitionOf(body).carriesOver !== undefined;
