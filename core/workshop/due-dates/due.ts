import { COOLANT_CLASSES, lifeFactor, REFERENCE_COOLANT_C, type CoolantClass } from '../../machine/liquids/classes.js';
import { addDays, addMonths, daysBetween } from '../../base/units/calendar.js';
import { DEFAULT_HOURS_PER_DAY } from '../usage/defaults.js';
import type { UsageSource } from '../usage/usage.js';
import { SEEN_BLED_WINDOW_DAYS, SETTLING_WINDOW_DAYS, SOON_DAYS, WEAR_MONTHS } from './defaults.js';
import { falloutDue, type FalloutSeen } from './falloutStages.js';
import { suspensionOf } from '../../machine/liquids/suspensions.js';
import type { ConditionClock, DateReason, LearnedMonths, LooseEnd, WarmHours, Warmth } from './facts.js';
import { beforeHotSeason, type HotSeason } from './season.js';

/** The workshop's schools for when a coolant comes out. Each is combined with the coolant's own limit: the earliest wins. */
export const SERVICE_POLICIES = {
  'six-months': { months: 6, label: 'every six months' },
  'twelve-months': { months: 12, label: 'every twelve months' },
  'product-life': { months: null, label: "the coolant's own life" },
} as const;
export type ServicePolicy = keyof typeof SERVICE_POLICIES;
export const SERVICE_POLICY_KEYS = Object.keys(SERVICE_POLICIES) as ServicePolicy[];

/** Whose policy counts, in words. The narrowest goes before the wider. */
export const POLICY_SCOPES = { workshop: 'workshop policy', owner: 'agreed with this owner', system: 'set for this machine' } as const;
export type PolicyScope = keyof typeof POLICY_SCOPES;

export interface DueInput {
  /** day of the fill */
  readonly filledOn: string;
  readonly coolantClass: CoolantClass;
  readonly productName: string;
  /** months from the product's sheet, or null */
  readonly sheetLifeMonths: number | null;
  readonly policy: ServicePolicy;
  /** whose policy it is; the workshop's where nobody says otherwise */
  readonly policyScope?: PolicyScope;
  /** running hours from the product's sheet; null or missing: it states none */
  readonly sheetLifeHours?: number | null;
  /** mean coolant temperature, or null where nobody measured it */
  readonly meanCoolantC: number | null;
  readonly coolantSource?: UsageSource;
  /** running hours a day, or null where nobody gave any */
  readonly hoursPerDay: number | null;
  readonly hoursSource?: UsageSource;
  /** the workshop's hot months; null or missing: it has no such rule */
  readonly season?: HotSeason | null;
  /** share of the usual interval, because something was left inside at the fill; 1 or missing: nothing was */
  readonly intervalShare?: number;
  readonly intervalReason?: readonly LooseEnd[];
  /** a day that the owner was promised for the next change; null or missing: none was */
  readonly promisedOn?: string | null;
  /** day since which every seal and tube of the loop is in use; missing: not known */
  readonly sealsOn?: string | null;
  readonly tubeOn?: string | null;
  /** what its readings under load say; null or missing: they say nothing of a day */
  readonly condition?: ConditionClock | null;
  /** how long fills of it lasted here; null or missing: too few failed to tell */
  readonly learned?: LearnedMonths | null;
  /** the heaviest stage of fallout that was seen since the fill; null or missing: none was */
  readonly fallout?: FalloutSeen | null;
  /** soft tube hardens and clouds; rigid tube is cleaned */
  readonly softTube?: boolean;
}

/** One clock that runs on the fill, with its reason. */
export interface DueClock {
  readonly kind:
    | 'policy'
    | 'coolant-life'
    | 'running-hours'
    | 'standing'
    | 'fallout'
    | 'learned-life'
    | 'condition'
    | 'findings'
    | 'seals'
    | 'tube'
    | 'season'
    | 'promised';
  readonly dueOn: string;
  readonly reason: DateReason;
  /** true where a default stood in for something nobody measured */
  readonly estimated: boolean;
}

export interface DueDate {
  readonly dueOn: string;
  readonly reason: DateReason;
  readonly estimated: boolean;
  /** every clock, earliest first */
  readonly clocks: readonly DueClock[];
}

/**
 * The next coolant service: the earliest of policy, coolant life, running hours and wear, and never in the hot months. What an owner
 * was promised stands, and says where the clocks would have it earlier.
 */
export function nextService(input: DueInput): DueDate {
  const usual = [
    policyClock(input),
    lifeClock(input),
    hoursClock(input),
    standingClock(input),
    falloutClock(input),
    learnedClock(input),
    conditionClock(input),
    ...wearClocks(input),
  ]
    .filter((clock) => clock !== null)
    .sort((a, b) => a.dueOn.localeCompare(b.dueOn));
  const found = [...findingsClock(input, usual[0] as DueClock), ...usual];
  const reckoned = [...seasonClock(input, found[0] as DueClock), ...found];
  const clocks = [...promisedClock(input, reckoned[0] as DueClock), ...reckoned];
  const first = clocks[0] as DueClock;
  return { dueOn: first.dueOn, reason: first.reason, estimated: first.estimated, clocks };
}

/**
 * What wears whatever coolant is inside. A clock that is over before the fill was not answered then: it is due with the
 * next service, and says since when.
 */
function wearClocks({ filledOn, sealsOn = null, tubeOn = null, softTube = false }: DueInput): DueClock[] {
  const clock = (kind: 'seals' | 'tube', since: string | null, months: number): DueClock[] => {
    if (since === null) return [];
    const dueOn = addMonths(since, months);
    return dueOn <= filledOn ? [] : [{ kind, dueOn, reason: { why: kind, since, years: months / 12 }, estimated: true }];
  };
  return [...clock('seals', sealsOn, WEAR_MONTHS.seals), ...(softTube ? clock('tube', tubeOn, WEAR_MONTHS.softTube) : [])];
}

/** What the workshop's own fills say. It is warmed and driven as they were: their ages hold both. */
function learnedClock({ filledOn, productName, coolantClass, learned = null }: DueInput): DueClock | null {
  if (learned === null) return null;
  return {
    kind: 'learned-life',
    dueOn: addMonths(filledOn, learned.months),
    reason: { why: 'learned-life', product: productName, coolantClass, ...learned },
    estimated: false,
  };
}

/** Readings from before the fill say nothing of what came after it. */
function conditionClock({ filledOn, condition = null }: DueInput): DueClock | null {
  if (condition === null || condition.lastOn < filledOn) return null;
  return { kind: 'condition', dueOn: condition.on, reason: condition.reason, estimated: false };
}

/** Something stayed inside: the first interval is a share of what it would have been. */
function findingsClock({ filledOn, intervalShare = 1, intervalReason = [] }: DueInput, earliest: DueClock): DueClock[] {
  if (intervalShare >= 1) return [];
  const days = Math.max(1, Math.round(intervalShare * daysBetween(filledOn, earliest.dueOn)));
  return [
    {
      kind: 'findings',
      dueOn: addDays(filledOn, days),
      reason: { why: 'findings', because: intervalReason, percent: Math.round(100 * intervalShare) },
      estimated: earliest.estimated,
    },
  ];
}

function promisedClock({ promisedOn = null }: DueInput, earliest: DueClock): DueClock[] {
  if (promisedOn === null) return [];
  const sooner = earliest.dueOn < promisedOn ? { on: earliest.dueOn, reason: earliest.reason } : null;
  return [{ kind: 'promised', dueOn: promisedOn, reason: { why: 'promised', on: promisedOn, sooner }, estimated: false }];
}

/** The earliest clock ends in the hot months: the work is done before they begin. */
function seasonClock({ filledOn, season = null }: DueInput, earliest: DueClock): DueClock[] {
  const before = season === null ? null : beforeHotSeason(earliest.dueOn, filledOn, season);
  if (season === null || before === null) return [];
  return [
    {
      kind: 'season',
      dueOn: before,
      reason: { why: 'season', season, first: earliest.reason },
      estimated: earliest.estimated,
    },
  ];
}

function policyClock({ filledOn, policy, policyScope = 'workshop' }: DueInput): DueClock | null {
  const { months } = SERVICE_POLICIES[policy];
  if (months === null) return null;
  return {
    kind: 'policy',
    dueOn: addMonths(filledOn, months),
    reason: { why: 'policy', scope: policyScope, policy },
    estimated: false,
  };
}

function lifeClock(input: DueInput): DueClock | null {
  const base = COOLANT_CLASSES[input.coolantClass];
  // The sheet of a show coolant counts hours as well; months would hide that.
  if (base.baseLifeRunningHours !== null && input.sheetLifeMonths === null) return null;
  const months = input.sheetLifeMonths ?? base.baseLifeMonths;
  const factor = lifeFactor(input.meanCoolantC ?? REFERENCE_COOLANT_C);
  const warm: Warmth | null =
    factor < 1 ? { months: months * factor, coolantC: input.meanCoolantC as number, source: input.coolantSource ?? null } : null;
  return {
    kind: 'coolant-life',
    dueOn: addMonths(input.filledOn, months * factor),
    reason:
      input.sheetLifeMonths === null
        ? { why: 'class-life', coolantClass: input.coolantClass, months, warm }
        : { why: 'sheet-life', product: input.productName, months, warm },
    estimated: input.sheetLifeMonths === null,
  };
}

function hoursClock(input: DueInput): DueClock | null {
  const base = COOLANT_CLASSES[input.coolantClass];
  const sheetHours = input.sheetLifeHours ?? null;
  // a sheet that gives months alone goes before the hours of its class
  const limit = sheetHours ?? (input.sheetLifeMonths === null ? base.baseLifeRunningHours : null);
  if (limit === null) return null;
  const perDay = input.hoursPerDay ?? DEFAULT_HOURS_PER_DAY;
  // what keeps particles up ages faster when warm, as other coolants do
  const factor = lifeFactor(input.meanCoolantC ?? REFERENCE_COOLANT_C);
  const hours = limit * factor;
  const warm: { warm?: WarmHours } = factor < 1 ? { warm: { hours, coolantC: input.meanCoolantC as number, source: input.coolantSource ?? null } } : {}; // prettier-ignore
  const days = Math.max(1, Math.floor(hours / Math.max(perDay, 0.1)));
  const source = input.hoursPerDay === null ? 'default' : (input.hoursSource ?? 'owner');
  return {
    kind: 'running-hours',
    dueOn: addDays(input.filledOn, days),
    estimated: source === 'default' || sheetHours === null,
    reason:
      sheetHours === null
        ? { why: 'class-hours', coolantClass: input.coolantClass, hours: limit, perDay, source, ...warm }
        : { why: 'sheet-hours', product: input.productName, hours: limit, perDay, source, ...warm },
  };
}

/** What is counted in hours may not stand for months because nobody runs it; a sheet that gives months goes before it. */
function standingClock({ coolantClass, sheetLifeMonths, filledOn }: DueInput): DueClock | null {
  const days = suspensionOf(coolantClass)?.standingDays ?? null;
  if (days === null || sheetLifeMonths !== null) return null;
  return { kind: 'standing', dueOn: addDays(filledOn, days), reason: { why: 'standing', coolantClass, days }, estimated: true };
}

const falloutClock = ({ fallout = null, filledOn }: DueInput): DueClock | null =>
  fallout === null || fallout.on < filledOn ? null : { kind: 'fallout', ...falloutDue(fallout), estimated: false };

/** Days and reason of the settling check that every fill opens. */
export function settlingCheck(filledOn: string, seenBled = false): { windowFrom: string; dueOn: string; reason: DateReason } {
  const { from, to } = seenBled ? SEEN_BLED_WINDOW_DAYS : SETTLING_WINDOW_DAYS;
  return {
    windowFrom: addDays(filledOn, from),
    dueOn: addDays(filledOn, to),
    reason: { why: 'settling', fromDays: from, toDays: to },
  };
}

export type DueState = 'overdue' | 'soon' | 'later';

export function dueState(dueOn: string, today: string): DueState {
  const days = daysBetween(today, dueOn);
  return days < 0 ? 'overdue' : days <= SOON_DAYS ? 'soon' : 'later';
}
