import type { Liquid } from '../../machine/liquids/fluids.js';
import type { LoopFile } from '../../machine/loop-file/loopFile.js';
import type { LoopContents } from '../../physics/live-book/loopContents.js';
import type { Volume } from '../../machine/loop-file/volume.js';
import type { FillPlan } from '../../physics/filling/fillPlan.js';
import type { Schools } from '../../physics/leak-testing/schools.js';
import type { LoopFacts, ServiceFacts } from './facts.js';

export const STEP_KINDS = [
  'part-test',
  'checks',
  'dry-test',
  'fill',
  'wet-run',
  'bleed',
  'power',
  'baseline',
  'sign-off',
  'drain',
  'rinse',
  'clean',
  'inspect',
  'swap',
  'repair',
] as const;
export type StepKind = (typeof STEP_KINDS)[number];

/**
 * What a step does beyond its kind, so that no rule needs its name: `isolates` cuts power off everything but the pump, `cuts-mains` takes
 * the whole machine off the wall where its loop stays closed,
 * `closes` closes the loop, `empties` takes it apart, `measures-before` reads the state on arrival, `mends` a leak,
 * `new-parts` is for parts that were never in use, `dusts` cleans fins and fans, `pastes` has blocks on new paste, `puts-away` gives every part of a loop that is over
 * its place; `changes-loop` makes of the loop inside the one that is wanted; `lays-out` is before anything is built.
 */
export const STEP_TRAITS = [
  'isolates',
  'cuts-mains',
  'closes',
  'empties',
  'measures-before',
  'mends',
  'new-parts',
  'dusts',
  'pastes',
  'puts-away',
  'changes-loop',
  'lays-out',
] as const;
export type StepTrait = (typeof STEP_TRAITS)[number];

/**
 * What a check waits for: it says something only once that has been. `clock-begins` and `clock-ends` are of the step's first clock,
 * `hour` an hour into it; `verdict` is the air test's, `pour` the first liquid of the step.
 */
export const AFTER = ['clock-begins', 'hour', 'clock-ends', 'verdict', 'pour'] as const;
export type After = (typeof AFTER)[number];

export interface CheckItem {
  readonly id: string;
  readonly text: string;
  /** id of the part, tube or port that is looked at: it is shown and ticked on the picture of the loop */
  readonly place?: string;
  /** cannot be ticked before; missing: at any time of its step */
  readonly after?: After;
  /** may be answered "not needed" with a reason */
  readonly mayNotApply?: boolean;
  /** without it, power must not go on: shown as such */
  readonly beforePower?: boolean;
  /** one look with the others of its step that say the same: one touch ticks them all; missing: a check of its own */
  readonly together?: string;
  /** heading that groups checks */
  readonly group?: string;
  /** name of the connector that it is about */
  readonly lead?: string;
}

export interface TimerItem {
  readonly id: string;
  readonly label: string;
  readonly seconds: number;
}

export interface ProcedureStep {
  readonly id: string;
  readonly kind: StepKind;
  readonly does: readonly StepTrait[];
  readonly title: string;
  /** what the hands do next, in one sentence */
  readonly lead: string;
  readonly cautions: readonly string[];
  readonly checks: readonly CheckItem[];
  readonly timers: readonly TimerItem[];
}

export const PROCEDURE_VERSION = 2;

/** A pump with its reservoir that a run tests out of its case, the loop closed by a scrap of tube. */
export interface UnitTested {
  /** ids of both in the loop that they will be built into */
  readonly reservoir: string;
  readonly pump: string;
  readonly name: string;
}

/** What the run was planned with. Stored with the run, so that later changes of the catalogue do not rewrite history. */
export interface Procedure {
  readonly procedureVersion: typeof PROCEDURE_VERSION;
  readonly schools: Schools;
  readonly volume: Volume;
  readonly fillPlan: FillPlan;
  readonly dry: { readonly limitMbarLs: number; readonly holdMinutes: number } | null;
  readonly wetSeconds: number | null;
  /** the lead allows loads to stay on the supply, behind a passed air test; missing: they are pulled */
  readonly loadsMayStay?: true;
  /** missing in runs that began before the loop's facts were kept: nothing is predicted or locked then */
  readonly facts?: LoopFacts;
  /** version of the workshop's procedure it was made from; missing: the standard one */
  readonly templateNumber?: number;
  /** what a service knows of its job; missing: a commissioning */
  readonly service?: ServiceFacts;
  /** a unit on its own, nothing of which is built in yet: `twin` is its own small loop; missing: the loop itself */
  readonly unit?: UnitTested;
  /** the loop as it was when the run began, and what is poured: what is inside is reckoned with it. Missing in older runs */
  readonly twin?: { readonly loop: LoopFile; readonly liquid: Liquid };
  /** what stood on the bags of what was fitted before this run, place by place */
  readonly fitted?: readonly { readonly item: string; readonly make: string; readonly lot: string }[];
  /** what was inside when the run began; missing: nothing, or, in a service, what its facts say */
  readonly start?: LoopContents;
  /** the loop as it was before each change that this run made to it, in their order; missing: it is as it was */
  readonly earlier?: readonly EarlierLoop[];
  readonly steps: readonly ProcedureStep[];
}

/** A loop that a run began with, or had until it was changed. */
export interface EarlierLoop {
  readonly loop: Pick<Procedure, 'volume' | 'fillPlan' | 'facts' | 'twin'>;
  /** what is no part of it any more: name by id */
  readonly gone: readonly { readonly id: string; readonly name: string }[];
  /** lines that somebody answered and that no step has any more, so that the log can be read; missing: none */
  readonly checks?: readonly { readonly step: string; readonly id: string; readonly text: string }[];
}

/** The loop that a run works on: its machine's own, or the small one around a unit. */
export const loopOfRun = (file: LoopFile, { unit, twin }: Pick<Procedure, 'unit' | 'twin'>): LoopFile => (unit && twin ? twin.loop : file);

export const stepOf = ({ steps }: Procedure, id: string | null): ProcedureStep | undefined => steps.find((step) => step.id === id);
/** A line of a step as it is said, or was said before the loop was changed; its id where nobody knows. */
export const checkText = (procedure: Pick<Procedure, 'steps' | 'earlier'>, step: string, id: string): string =>
  procedure.steps.find((each) => each.id === step)?.checks.find((check) => check.id === id)?.text ??
  procedure.earlier?.flatMap(({ checks = [] }) => checks).find((check) => check.step === step && check.id === id)?.text ??
  id;

export const stepOfKind = ({ steps }: Procedure, kind: StepKind): ProcedureStep | undefined => steps.find((step) => step.kind === kind);
export const stepThat = ({ steps }: Procedure, does: StepTrait): ProcedureStep | undefined =>
  steps.find((step) => step.does.includes(does));

/** Places a run knows by name: parts, tubes, the items of an inspection sheet, and what was left out of the loop meanwhile. */
export const placesOf = ({
  facts,
  service,
  earlier = [],
}: Pick<Procedure, 'facts' | 'service' | 'earlier'>): readonly { readonly id: string; readonly name: string }[] => [
  ...(facts?.parts ?? []),
  ...(facts?.joints ?? []),
  ...(facts?.seals ?? []),
  ...(service?.items ?? []),
  ...earlier.flatMap(({ gone }) => gone),
];

/** Steps of procedures that were stored before steps carried what they do, by their id. */
const DID: Readonly<Record<string, readonly StepTrait[]>> = {
  isolate: ['isolates'],
  close: ['closes'],
  strip: ['empties'],
  before: ['measures-before'],
  mend: ['mends'],
  flush: ['new-parts'],
  dust: ['dusts'],
  closed: ['dusts'],
};

/** The procedure of a program that is newer than this one. */
export class NewerProcedure extends Error {
  constructor(readonly version: number) {
    super(`This run was made by a newer version of the program (procedure ${version}; this one reads up to ${PROCEDURE_VERSION}).`);
    this.name = 'NewerProcedure';
  }
}

/**
 * Reads a stored procedure, of this version or an older one.
 * @throws NewerProcedure
 */
export function readProcedure(stored: unknown): Procedure {
  const { procedureVersion } = stored as { procedureVersion: number };
  if (procedureVersion > PROCEDURE_VERSION) throw new NewerProcedure(procedureVersion);
  if (procedureVersion === PROCEDURE_VERSION) return stored as Procedure;
  const old = stored as Omit<Procedure, 'procedureVersion' | 'steps' | 'service'> & {
    readonly steps: readonly Omit<ProcedureStep, 'does'>[];
    readonly service?: Omit<ServiceFacts, 'openings'>;
  };
  return {
    ...old,
    procedureVersion: PROCEDURE_VERSION,
    steps: old.steps.map((step) => ({ ...step, does: DID[step.id] ?? [] })),
    // openings stood there as words: they are their own names
    ...(old.service ? { service: { ...old.service, openings: {}, stands: old.service.stands.map(readStand) } } : {}),
  } as Procedure;
}

type Stand = ServiceFacts['stands'][number];
const readStand = (stand: Omit<Stand, 'airsFollow'> & { readonly airsFollow?: boolean }): Stand => ({ ...stand, airsFollow: stand.airsFollow ?? false }); // prettier-ignore
