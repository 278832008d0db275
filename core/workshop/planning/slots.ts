import { earliestOf, hasSkills, MINUTE_MS, type PlanProblem, type PlanStep, type Span } from './problem.js';

/** min; the coarsest by which every duration, wait, shift and release divides is taken, so that nothing is lost by counting in slots */
const SLOT_MINUTES = [60, 30, 15, 10, 5] as const;
/** slots, above which they get coarser: what is rounded makes the bound smaller, never wrong */
const MOST_SLOTS = 20_000;

/** What steps of one length ask for: many jobs have the same. */
export interface Demand {
  /** slots, rounded down */
  readonly length: number;
  /** what it holds one of while it lasts, as indexes of the capacities; the bench is held by the whole job */
  readonly holds: readonly number[];
  /** 1: may begin in this slot, since somebody who can do it is there for all of it; null: at any time */
  readonly may: Uint8Array | null;
}

export interface SlotStep {
  readonly demand: number;
  readonly length: number;
  /** slots that may lie between the step before and this one, rounded up; null: any */
  readonly mostGap: number | null;
}

export interface SlotJob {
  readonly weight: number;
  readonly dueMs: number;
  /** stretches of slots in which it must lie wholly; the end of the last may be that of the table */
  readonly windows: readonly Span[];
  readonly steps: readonly SlotStep[];
}

/**
 * A workshop counted in slots: no plan of the workshop is lost. Starts, ends, shifts and lengths are all rounded down to slots, which keeps
 * whatever order two spans had; a longest wait is rounded up.
 */
export interface Slots {
  readonly originMs: number;
  readonly slotMs: number;
  readonly count: number;
  /** of each thing that is scarce, how many there are in each slot; the first are the benches */
  readonly capacities: readonly Int32Array[];
  readonly demands: readonly Demand[];
  readonly jobs: readonly SlotJob[];
}

/** indexes of the capacities */
export const BENCHES = 0;
const HANDS = 1;

/** @param lastMs up to where slots are counted: the end of some plan; later it is as if nothing were scarce */
export function inSlots(problem: PlanProblem, lastMs: number): Slots {
  const slotMs = slotFor(problem, lastMs);
  const originMs = Math.floor(problem.nowMs / slotMs) * slotMs;
  const count = Math.ceil((lastMs - originMs) / slotMs) + 1;
  const slotOf = (ms: number): number => Math.min(count, Math.max(0, Math.floor((ms - originMs) / slotMs)));
  const add = (capacity: Int32Array, { from, to }: Span, by: number): void => {
    for (let slot = slotOf(from); slot < slotOf(to); slot += 1) capacity[slot] = (capacity[slot] as number) + by;
  };
  const skills = [...new Set(problem.jobs.flatMap(({ steps }) => steps.flatMap((step) => step.skills ?? [])))];
  const kits = problem.kits ?? [];
  const staffed = (people: PlanProblem['technicians']): Int32Array => {
    const capacity = new Int32Array(count);
    for (const { shifts } of people) for (const shift of shifts) add(capacity, shift, 1);
    return capacity;
  };
  const benches = new Int32Array(count).fill(problem.benches.length);
  for (const { taken } of problem.benches) for (const span of taken ?? []) add(benches, span, -1);
  const capacities = [
    benches,
    staffed(problem.technicians),
    ...skills.map((skill) => staffed(problem.technicians.filter((each) => each.skills?.includes(skill) ?? true))),
    ...kits.map((kit) => {
      const capacity = new Int32Array(count).fill(kit.count);
      for (const span of kit.taken ?? []) add(capacity, span, -1);
      return capacity.map((free) => Math.max(0, free));
    }),
  ];
  const gapBefore = (before: PlanStep | undefined, { maxWaitMs }: PlanStep): number | null =>
    before === undefined || maxWaitMs === null
      ? null
      : Math.ceil((before.durationMs + maxWaitMs) / slotMs) - Math.floor(before.durationMs / slotMs);
  const demands: Demand[] = [];
  const known = new Map<string, number>();
  const demandOf = (step: PlanStep, length: number): number => {
    const key = JSON.stringify([length, step.attended, step.skills ?? [], step.kits ?? []]);
    const same = known.get(key);
    if (same !== undefined) return same;
    const kitsHeld = (step.kits ?? []).map((id) => kits.findIndex((kit) => kit.id === id)).filter((index) => index >= 0);
    const holds = [
      ...(step.attended ? [HANDS, ...(step.skills ?? []).map((skill) => HANDS + 1 + skills.indexOf(skill))] : []),
      ...kitsHeld.map((index) => HANDS + 1 + skills.length + index),
    ];
    demands.push({ length, holds, may: step.attended ? mayBegin(step, length) : null });
    known.set(key, demands.length - 1);
    return demands.length - 1;
  };
  const mayBegin = (step: PlanStep, length: number): Uint8Array => {
    const may = new Uint8Array(count + 1);
    for (const person of problem.technicians.filter((each) => hasSkills(each, step)))
      for (const { from, to } of person.shifts)
        if (to > problem.nowMs) for (let slot = slotOf(from); slot + length <= slotOf(to); slot += 1) may[slot] = 1;
    return may;
  };
  const jobs = problem.jobs.map((job) => ({
    weight: job.weight,
    dueMs: job.dueMs,
    windows: (job.windows?.length ? job.windows : [{ from: problem.nowMs, to: Number.POSITIVE_INFINITY }]).map(({ from, to }) => ({
      from: slotOf(Math.max(earliestOf(problem, job), from)),
      to: to > lastMs ? Number.POSITIVE_INFINITY : slotOf(to),
    })),
    steps: job.steps.map((step, index) => {
      const length = Math.floor(step.durationMs / slotMs);
      return { demand: demandOf(step, length), length, mostGap: gapBefore(job.steps[index - 1], step) };
    }),
  }));
  return { originMs, slotMs, count, capacities, demands, jobs };
}

function slotFor(problem: PlanProblem, lastMs: number): number {
  const instants = [
    ...problem.technicians.flatMap(({ shifts }) => shifts.flatMap(({ from, to }) => [from, to])),
    ...problem.jobs.flatMap((job) => [
      earliestOf(problem, job),
      ...job.steps.flatMap(({ durationMs, maxWaitMs }) => [durationMs, maxWaitMs ?? 0]),
    ]),
  ];
  const divides = (minutes: number): boolean => instants.every((ms) => ms % (minutes * MINUTE_MS) === 0);
  const fits = (minutes: number): boolean => (lastMs - problem.nowMs) / (minutes * MINUTE_MS) <= MOST_SLOTS;
  const exact = SLOT_MINUTES.find(divides) ?? (SLOT_MINUTES.at(-1) as number);
  return (SLOT_MINUTES.toReversed().find((minutes) => minutes >= exact && fits(minutes)) ?? SLOT_MINUTES[0]) * MINUTE_MS;
}
