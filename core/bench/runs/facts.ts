import type { BlowThrough } from '../../physics/draining/blowThrough.js';
import type { DrainStage } from '../../physics/draining/advice.js';
import type { TakeOutPlan } from '../../physics/draining/takeOut.js';
import type { LoopChange } from '../../machine/loop-change/loopChange.js';
import type { LoopFile } from '../../machine/loop-file/loopFile.js';
import type { Volume } from '../../machine/loop-file/volume.js';
import type { Dye } from '../../machine/liquids/dye.js';
import type { Mix, MixVerdict } from '../../machine/liquids/mixing.js';
import type { Kept } from '../../physics/contents/kept.js';
import type { Shares } from '../../physics/contents/shares.js';
import type { IntakeHead } from '../../physics/flow/intakeHead.js';
import type { GravityTurn } from '../../physics/filling/gravityFill.js';
import type { UncoverAngle } from '../../physics/filling/outletAngle.js';
import type { BesideWork } from '../../workshop/jobs/beside.js';
import type { JobKind } from '../../workshop/job-kinds/kinds.js';
import type { InspectItem } from '../inspection/items.js';

/** A port that can be opened, as the hands meet it. */
export interface PortFact {
  /** "component.port" */
  readonly name: string;
  readonly label: string;
  readonly valve: boolean;
  readonly ofReservoir: boolean;
  /** mm, upright */
  readonly heightMm: number;
}

export interface PulseFact {
  readonly runS: number;
  readonly movedMl: number;
  readonly fallsBackMl: number;
  readonly refillMl: number;
  readonly pouredRunning: boolean;
  /** share of full speed that the pump is set to before it, where hands could not follow it as it is; missing: as it is set */
  readonly speed?: number;
}

export interface FillFacts {
  readonly primes: boolean;
  readonly liftMm: number;
  readonly shutoffMm: number;
  readonly passiveMl: number;
  readonly pulses: readonly PulseFact[];
  readonly totalMl: number;
}

export interface ReservoirFacts {
  readonly fillMarkMl: number;
  readonly lowMarkMl: number;
  /** what one millimetre of its level holds; missing in runs that began before it was kept */
  readonly mlPerMm?: number;
}

/** What a run must know of its loop to predict and to lock. Stored with the run: a later edit of the loop does not reach it. */
export interface LoopFacts {
  /** kPa; the lowest rating on record, or the cap for loops without one */
  readonly mostGaugeKpa: number;
  /** the part that sets it, or null for the cap */
  readonly weakest: string | null;
  readonly ports: readonly PortFact[];
  /** tubes in flow order, each with two joints */
  readonly joints: readonly { readonly id: string; readonly name: string }[];
  readonly parts: readonly { readonly id: string; readonly name: string }[];
  /** everything that seals besides the ends of tubes as a place of its own, see `sealPlaces`; missing in runs that began before they were */
  readonly seals?: readonly { readonly id: string; readonly name: string; readonly hasRing?: false }[];
  readonly reservoir: ReservoirFacts | null;
  /** at the low mark: the least that a running loop may hold */
  readonly uncovers: readonly UncoverAngle[];
  readonly fill: FillFacts | null;
  /** a loop without a reservoir: from a bottle on this port, turn by turn; missing where there is one, or heights are */
  readonly gravity?: { readonly port: string; readonly label: string; readonly turns: readonly GravityTurn[] };
  /** pumps whose intake has too little head with hot coolant at full speed; missing in runs that began before it was reckoned */
  readonly shortOfHead?: readonly Pick<IntakeHead, 'pump' | 'gaugeKpa' | 'verdict'>[];
}

/** One stand of the advised drain, with the share of each part and tube that still holds liquid after it. */
export type DrainStand = Omit<DrainStage, 'left' | 'mayRun'> & {
  readonly left: Shares;
  /** missing in runs that began before it was reckoned */
  readonly mayRun?: DrainStage['mayRun'];
};

/** Whether what comes at an outlet runs over the reservoir's own rim: no jug stands under that, only a tube leads it away. */
export function runsOverRim({ ports }: LoopFacts, { standing, drain }: Pick<DrainStand, 'standing' | 'drain'>): boolean {
  const port = ports.find(({ name }) => name === drain);
  if (standing !== 'upright' || !port?.ofReservoir || port.valve) return false;
  return !ports.some(({ ofReservoir, heightMm }) => ofReservoir && heightMm > port.heightMm);
}

/** Taking one part out of a loop as it stands. */
export interface TakeOutFacts extends Omit<TakeOutPlan, 'elsewhereMl' | 'drawAt' | 'hangsMl'> {
  readonly part: string;
  /** where several come out at once: each of them; missing: the one */
  readonly parts?: readonly string[];
  readonly name: string;
  /** missing in runs that began before the valve was named */
  readonly drawAt?: string | null;
  readonly hangsMl?: number;
}

/** From the loop that is inside to the one that is wanted, and how far it is let out for that. */
export interface ChangeFacts extends LoopChange {
  readonly wanted: LoopFile;
  /** what the build check says of the loop inside: it is no news in the wanted one; missing in runs that began before it was kept */
  readonly found?: readonly string[];
  readonly drain: 'none' | 'down-to' | 'whole';
}

/** What a service knows of its job and its loop. Stored with the run. */
export interface ServiceFacts {
  readonly kind: JobKind;
  readonly jobId: string;
  /** what stood inside when it began; null: nobody knows */
  readonly inside: Volume | null;
  readonly stands: readonly DrainStand[];
  /** how a rinse is let out, as the machine stands; null where nobody can tell, missing in runs that began before it was kept */
  readonly rinseStand?: DrainStand | null;
  /** mL that stay inside after the last stand, by the twin and by what this loop's own drains left; null where nobody can tell */
  readonly leftMl: number | null;
  /** what those drains say; missing before the first of them */
  readonly kept?: Kept;
  /** a hand bulb after the last stand; null where none is worth it, missing in runs that began before it was reckoned */
  readonly blow?: BlowThrough | null;
  readonly takeOut: TakeOutFacts | null;
  /** the work between two drawings; missing where the loop stays as it is */
  readonly change?: ChangeFacts;
  /** how another coolant that will be poured goes with what is inside; missing: the same is poured, or nobody chose */
  readonly follows?: MixVerdict;
  /** small works that go along with it; missing: none */
  readonly beside?: readonly BesideWork[];
  readonly items: readonly InspectItem[];
  readonly rigid: boolean;
  readonly old: {
    readonly productId: string;
    readonly name: string;
    /** dye that went into it; missing: none that is known */
    readonly dyes?: readonly Dye[];
  } | null;
  /** every coolant of the shelf against what is inside */
  readonly mixes: readonly Mix[];
  readonly targetOldFraction: number;
  /** openings by their names, as they were called when the run began */
  readonly openings: Readonly<Record<string, string>>;
}

/** The part, or the set of joints, down to which a service drains; null: it drains all that comes. */
export const drainsDownTo = ({ kind, takeOut, change }: Pick<ServiceFacts, 'kind' | 'takeOut' | 'change'>): TakeOutFacts | null =>
  kind === 'partial-drain' || change ? takeOut : null;

/** ids of openings in the words of the run */
export const openingIn = ({ openings }: ServiceFacts, opening: string): string => openings[opening] ?? opening;

/** A rinse is let out as the machine stands; runs that began before that was reckoned apart take the drain's first stand. */
export const rinseStandOf = ({ rinseStand, stands }: ServiceFacts): DrainStand | null =>
  rinseStand === undefined ? (stands[0] ?? null) : rinseStand;

/** A pump of the machine that belongs to another of its loops: one supply would run both. */
export interface PumpBeside {
  readonly id: string;
  readonly name: string;
  /** name of its loop */
  readonly loop: string;
  /** its loop is known to hold coolant */
  readonly isFilled: boolean;
}
