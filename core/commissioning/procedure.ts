import type { CoolantOrder } from '../coolants/order.js';
import { planFill, type FillPlan } from '../filling/fillPlan.js';
import { LEAK_LIMITS } from '../leak-testing/defaults.js';
import { holdMinutes } from '../leak-testing/hold.js';
import type { LoopFile } from '../loops/loopFile.js';
import { loopVolume, type Volume } from '../loops/volume.js';
import { WATER, type Liquid } from '../flow/fluids.js';
import { loopFacts, type LoopFacts } from './facts.js';
import { LEAK_SCHOOLS, WET_SCHOOLS, type Schools } from './schools.js';
import { expandTemplate } from './expand.js';
import { STANDARD_TEMPLATE } from './standardTemplate.js';
import type { ServiceFacts } from '../jobs/serviceFacts.js';
import { refillPlan } from '../jobs/refill.js';
import { serviceTemplate } from '../jobs/templates.js';
import type { ProcedureTemplate } from './template.js';

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

export interface CheckItem {
  readonly id: string;
  readonly text: string;
  /** may be answered "not needed" with a reason */
  readonly mayNotApply?: boolean;
  /** without it, power must not go on: shown as such */
  readonly beforePower?: boolean;
  /** heading that groups checks */
  readonly group?: string;
}

export interface TimerItem {
  readonly id: string;
  readonly label: string;
  readonly seconds: number;
}

export interface ProcedureStep {
  readonly id: string;
  readonly kind: StepKind;
  readonly title: string;
  /** what the hands do next, in one sentence */
  readonly lead: string;
  readonly cautions: readonly string[];
  readonly checks: readonly CheckItem[];
  readonly timers: readonly TimerItem[];
}

/** What the run was planned with. Stored with the run, so that later changes of the catalogue do not rewrite history. */
export interface Procedure {
  readonly procedureVersion: 1;
  readonly schools: Schools;
  readonly volume: Volume;
  readonly fillPlan: FillPlan;
  readonly dry: { readonly limitMbarLs: number; readonly holdMinutes: number } | null;
  readonly wetSeconds: number | null;
  /** missing in runs that began before the loop's facts were kept: nothing is predicted or locked then */
  readonly facts?: LoopFacts;
  /** version of the workshop's procedure it was made from; missing: the standard one */
  readonly templateNumber?: number;
  /** what a service knows of its job; missing: a commissioning */
  readonly service?: ServiceFacts;
  readonly steps: readonly ProcedureStep[];
}

export interface ProcedureInput {
  readonly loop: LoopFile;
  readonly schools: Schools;
  readonly order: Pick<CoolantOrder, 'bottles'> | null;
  readonly coolantName: string | null;
  /** what will be poured; water where it is not known */
  readonly liquid?: Liquid;
  /** runs that were opened and mL that left, where only those joints are tested and only that is topped up */
  readonly opened?: { readonly joints: readonly string[]; readonly lostMl: number };
  /** the workshop's own procedure; the standard one without it */
  readonly template?: ProcedureTemplate;
  readonly templateNumber?: number;
  /** a service instead of a commissioning */
  readonly service?: ServiceFacts;
}

/** What small service work puts back: what left, as the jug says. */
function topUp(lostMl: number): FillPlan {
  return {
    kind: 'gravity',
    total: { volumeMl: lostMl, sdMl: Math.max(JUG_SD_ML, JUG_SD_SHARE * lostMl) },
    reason: 'Only what left the loop is put back; the rest of it is still full.',
  };
}

/** mL and share that a measuring jug may be off, and what clings to towels */
const JUG_SD_ML = 10;
const JUG_SD_SHARE = 0.1;

/** The commissioning of one loop, from kit list to sign-off, with its own parts, joints and figures. */
export function buildProcedure(input: ProcedureInput): Procedure {
  const { loop, schools } = input;
  const school = LEAK_SCHOOLS[schools.leak];
  const volume = loopVolume(loop);
  const opened = school.openedOnly ? (input.opened ?? null) : null;
  const { service } = input;
  const fillPlan = service ? refillPlan(loop, service) : opened ? topUp(opened.lostMl) : planFill(loop);
  const known = loopFacts(loop, input.liquid ?? WATER);
  // the simulated fill begins with a dry loop: of one that was drained it would say too much
  const facts = service && service.kind !== 'strip-clean' ? { ...known, fill: null } : known;
  const limitMbarLs = LEAK_LIMITS[schools.limit].mbarLs;
  const hold = holdMinutes({ volumeMl: volume.volumeMl, limitMbarLs, resolutionKpa: schools.gaugeResolutionKpa });
  const wetSeconds = school.wet ? WET_SCHOOLS[schools.wet].seconds : null;
  return {
    procedureVersion: 1,
    schools,
    volume: { volumeMl: volume.volumeMl, sdMl: volume.sdMl },
    fillPlan,
    dry: school.dry ? { limitMbarLs, holdMinutes: hold } : null,
    wetSeconds,
    facts,
    ...(service ? { service } : {}),
    ...(input.templateNumber === undefined ? {} : { templateNumber: input.templateNumber }),
    steps: expandTemplate(input.template ?? (service ? serviceTemplate(service.kind) : STANDARD_TEMPLATE), {
      input,
      facts,
      dry: school.dry,
      holdMinutes: hold,
      wetSeconds,
      parts: school.parts,
      onlyJoints: opened?.joints ?? null,
    }),
  };
}
