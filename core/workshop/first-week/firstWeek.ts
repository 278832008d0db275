import Joi from 'joi';

/** What a workshop needs before its dates, plan and papers mean something, in the order in which it is asked. */
export const FIRST_STEPS = ['benches', 'people', 'hours', 'coolants', 'machines', 'address', 'prices'] as const;
export type FirstStep = (typeof FIRST_STEPS)[number];

/** What is there already. */
export interface WorkshopSoFar {
  readonly benches: readonly string[];
  readonly people: number;
  /** people who stand at benches, and how many of them have hours */
  readonly hands: number;
  readonly withHours: number;
  readonly coolants: number;
  /** machines that are no sample */
  readonly machines: number;
  readonly hasAddress: boolean;
  readonly reckonsPrices: boolean;
}

/** The name that the first bench is given before anybody looked at it. */
export const FIRST_BENCH = 'Bench 1';

const DONE: Readonly<Record<FirstStep, (so: WorkshopSoFar) => boolean>> = {
  benches: ({ benches }) => benches.length > 1 || benches.some((name) => name !== FIRST_BENCH),
  people: ({ people }) => people > 1,
  hours: ({ hands, withHours }) => hands > 0 && withHours === hands,
  coolants: ({ coolants }) => coolants > 0,
  machines: ({ machines }) => machines > 0,
  address: ({ hasAddress }) => hasAddress,
  prices: ({ reckonsPrices }) => reckonsPrices,
};

export interface StepState {
  readonly step: FirstStep;
  /** `passed`: somebody said that it needs nothing here */
  readonly state: 'done' | 'passed' | 'missing';
}

/** Which steps are done, and what is still missing. */
export const firstWeek = (so: WorkshopSoFar, passed: readonly FirstStep[]): StepState[] =>
  FIRST_STEPS.map((step) => ({ step, state: DONE[step](so) ? 'done' : passed.includes(step) ? 'passed' : 'missing' }));

/** What the lead sees until all of it is done. */
export interface FirstWeekAnswer {
  readonly steps: readonly StepState[];
  readonly so: WorkshopSoFar;
  /** a machine to try things with; null: none was asked for */
  readonly sample: { readonly systemId: string; readonly importId: string } | null;
}

export interface FirstWeekPassed {
  readonly passed: readonly FirstStep[];
}
export const passedSchema = Joi.object({
  passed: Joi.array()
    .items(Joi.string().valid(...FIRST_STEPS))
    .unique()
    .required(),
});
