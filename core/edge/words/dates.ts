import { formatDay } from '../../base/units/dates.js';
import { formatDegrees, formatIn, formatKelvinPerWatt, formatMl, formatMm, grouped, groupedUpTo } from '../../base/units/display.js';
import { CAUSES } from '../../bench/inspection/grade.js';
import { COOLANT_CLASSES } from '../../machine/liquids/classes.js';
import { POLICY_SCOPES, SERVICE_POLICIES } from '../../workshop/due-dates/due.js';
import { OWED } from '../../workshop/due-dates/owed.js';
import { DUST_PLACES } from '../../workshop/due-dates/dust.js';
import { PASTE_MEDIA } from '../../workshop/due-dates/paste.js';
import type { Escalation, EscalationLevel } from '../../workshop/due-dates/escalation.js';
import type { DateReason, Finding, LevelFound, LooseEnd, Outcome, UseLimit, WarmHours, Warmth } from '../../workshop/due-dates/facts.js';
import { seasonWords, type HotSeason } from '../../workshop/due-dates/season.js';
import { FALLOUT_STAGES } from '../../workshop/due-dates/falloutStages.js';
import { USE_LIMITS } from '../../workshop/due-dates/useLimits.js';
import { JOB_KINDS } from '../../workshop/job-kinds/kinds.js';
import { USAGE_SOURCE_WORDS, type UsageSource } from '../../workshop/usage/usage.js';
import type { ThetaLimit } from '../../physics/condition/series.js';
import { say, type Messages, type MessageValues, sayWord } from '../../base/words/say.js';

/** Words of dates: why something falls due, how it ended, what was found. */

const LOOSE_ENDS: Messages<LooseEnd['why']> = {
  said: '{text}',
  'particles-stayed': 'particles stayed inside',
  'step-passed-over': '"{step}" was passed over',
  'cleaner-too-long': '{cleaner} stayed in longer than its sheet allows',
  'radiator-not-soaked': '{name} had deposit and was rinsed without a soak',
  'blown-by-mouth': 'it was blown through by mouth: look for growth',
  'put-back': '{percent} % of it is the coolant of before, {days} days old',
};
export const looseEndWords = ({ why, ...values }: LooseEnd): string => say(LOOSE_ENDS[why], values);
const listOf = (ends: readonly LooseEnd[]): string => ends.map(looseEndWords).join('; ');

/** Limits of use of a temporary fix, one after the other. */
export const useLimitWords = (limits: readonly UseLimit[]): string => limits.map((limit) => say(USE_LIMITS[limit])).join(', ');

const REASONS: Messages<DateReason['why']> = {
  said: '{text}',
  policy: '{scope}: {policy} after the fill',
  'class-life': '{coolantClass}: {months} months, {because}{warm}',
  'sheet-life': '{product}: {months} months by its sheet{warm}',
  'class-hours': '{coolantClass}: {hours} running hours ({usage}{warm}), {because}',
  'sheet-hours': '{product}: {hours} running hours by its sheet ({usage}{warm})',
  standing: '{coolantClass}: it stood {days} days in the loop by then, whatever its hours; particles that lie pack together',
  stirring: '{coolantClass} at rest since {since}: every {days} days the pump alone, until all of it moves',
  fallout: 'fallout seen on {on}: {stage}',
  seals: 'the same O-rings since {since}: {years} years',
  tube: 'the same soft tube since {since}: {years} years',
  findings: '{because}: {percent} % of the usual interval',
  season: 'before the hot months ({season}), in which it would fall due; {first}',
  settling: 'the last air comes home in the first days: compare the level with its mark {fromDays} to {toDays} days after the fill',
  dust: 'fins and filters were clean on {since}; {place}: {months} months{season}',
  paste: '{medium} under {name} since {since}{product}: {months} months; its readings say more{others}',
  'not-settled': 'level had not settled on {on}{level}: look for a leak, or vapour through the tube walls{note}',
  'put-off': 'put off by the owner until {until} ({said}); first reason: {first}',
  overtaken: '{first}; earlier than when it was put off until {agreed}: tell the owner',
  'early-look': 'early look: {because}',
  temporary: 'temporary: {what}, until {awaits}; {limits}',
  'came-filled':
    '{product, select, none {unknown coolant, it mixes with nothing: find out or flush} other {filled elsewhere with {product}{months}}}; {since}',
  condition:
    '{part} over the room, per watt: {isOver, select, true {stands over its limit of {limit} ({because})} other {meets its limit of {limit} ({because}); {range}}}, by its readings',
  'learned-life':
    '{whose}: {months} months until {percent} % failed, {low} at the least; learned from {fills, plural, one {# fill} other {# fills}}, {failed} failed',
  promised: 'promised to the owner{sooner}',
  owed: '{kind}: {what}',
  'same-lot': '{look}, or ask for a photograph: the same lot ({what}) is suspected in another machine: {cause}',
};

const warmWords = (warm: Warmth | null): string =>
  warm === null
    ? ''
    : say(', shortened to {months} at {formatIn} coolant{null}', {
        months: grouped(warm.months, 1),
        formatIn: formatIn('°C', warm.coolantC),
        null: warm.source === null ? '' : ` ${sayWord(USAGE_SOURCE_WORDS[warm.source])}`,
      });
const warmHours = (warm: WarmHours | undefined): string =>
  warm === undefined
    ? ''
    : say(', shortened to {hours} h at {formatIn} coolant{null}', {
        hours: grouped(warm.hours, 1),
        formatIn: formatIn('°C', warm.coolantC),
        null: warm.source === null ? '' : ` ${sayWord(USAGE_SOURCE_WORDS[warm.source])}`,
      });
function usageWords(perDay: number, source: UsageSource): string {
  const rate = groupedUpTo(perDay, 1);
  return source === 'default'
    ? say('assumed {rate} h a day', { rate })
    : say('{rate} h a day {source}', { rate, source: sayWord(USAGE_SOURCE_WORDS[source]) });
}
/** Where a limit of a part's resistance comes from. */
export const limitWords = ({ why, powerW, partC, hotRoomC, riseShare }: ThetaLimit): string =>
  why === 'hot-day'
    ? say('{part} at {powerW} W in a room of {room}', {
        part: formatDegrees(partC),
        powerW: Math.round(powerW),
        room: formatDegrees(hotRoomC),
      })
    : say('{percent} % over its best days', { percent: Math.round(100 * riseShare) });
/** Between which days a line meets its limit. */
export const rangeWords = (lowOn: string | null, highOn: string | null): string =>
  lowOn === null
    ? say('on a day that is not certain')
    : highOn === null
      ? say('{low} at the earliest', { low: formatDay(lowOn) })
      : say('between {low} and {high}', { low: formatDay(lowOn), high: formatDay(highOn) });
const levelWords = ({ levelChangeMm: mm, toppedUpMl }: LevelFound): string =>
  `${mm === null ? '' : say(', level changed by {formatMm}', { formatMm: formatMm(mm) })}${toppedUpMl === undefined ? '' : say(', {formatMl} topped up', { formatMl: formatMl(toppedUpMl) })}`;
const inBrackets = (note: string): string => (note ? ` (${note})` : '');

const broughtForwardWords = (season: HotSeason | null): string =>
  season === null ? '' : say('; brought forward to before the hot months ({seasonWords})', { seasonWords: seasonWords(season) });
const lookWords = (isCoolant: boolean): string => (isCoolant ? say('look at the reservoir') : say('look at that part'));

type LeftOpen = Extract<DateReason, { why: 'temporary' | 'owed' | 'came-filled' | 'same-lot' | 'condition' | 'learned-life' }>;
const LEFT_OPEN: readonly DateReason['why'][] = ['temporary', 'owed', 'came-filled', 'same-lot', 'condition', 'learned-life'];
const isLeftOpen = (reason: DateReason): reason is LeftOpen => LEFT_OPEN.includes(reason.why);

/** What a run, other machines, another workshop or its own readings say of it. */
function leftOpenValues(reason: LeftOpen): MessageValues {
  switch (reason.why) {
    case 'temporary':
      return { what: reason.what, awaits: reason.awaits, limits: useLimitWords(reason.limits) };
    case 'came-filled':
      return {
        product: reason.product ?? 'none',
        months: reason.months === null ? '' : say(', {months} months by its sheet or class', { months: reason.months }),
        since:
          reason.since === null ? say('since when nobody knows') : say('since about {formatDay}', { formatDay: formatDay(reason.since) }),
      };
    case 'owed':
      return { kind: OWED[reason.kind], what: reason.what };
    case 'condition':
      return {
        part: reason.part,
        isOver: String(reason.isOver),
        limit: formatKelvinPerWatt(reason.limit.theta),
        because: limitWords(reason.limit),
        range: rangeWords(reason.lowOn, reason.highOn),
      };
    case 'learned-life':
      return {
        whose: reason.of === 'product' ? reason.product : say(COOLANT_CLASSES[reason.coolantClass].label),
        months: grouped(reason.months, 1),
        low: grouped(reason.lowMonths, 1),
        percent: Math.round(100 * reason.risk),
        fills: reason.fills,
        failed: reason.failed,
      };
    case 'same-lot':
      return { look: lookWords(reason.isCoolant), what: reason.what, cause: say(CAUSES[reason.cause]) };
  }
}

type Small = Extract<DateReason, { why: 'dust' | 'paste' | 'stirring' | 'standing' | 'fallout' }>;
const SMALL: readonly DateReason['why'][] = ['dust', 'paste', 'stirring', 'standing', 'fallout'];
const isSmall = (reason: DateReason): reason is Small => SMALL.includes(reason.why);

/** Small works that are done beside others, and what a suspension does at rest. */
function smallValues(reason: Small): MessageValues {
  if (reason.why === 'dust')
    return {
      since: formatDay(reason.since),
      place: say(DUST_PLACES[reason.place].label),
      months: reason.months,
      season: broughtForwardWords(reason.season),
    };
  if (reason.why === 'stirring') return { coolantClass: say(COOLANT_CLASSES[reason.coolantClass].label), since: formatDay(reason.since), days: reason.days }; // prettier-ignore
  if (reason.why === 'standing') return { coolantClass: say(COOLANT_CLASSES[reason.coolantClass].label), days: reason.days };
  if (reason.why === 'fallout') return { on: formatDay(reason.on), stage: say(FALLOUT_STAGES[reason.stage].label) };
  const { first, layers } = reason;
  const others = layers.filter(({ item }) => item !== first.item);
  return {
    medium: say(PASTE_MEDIA[first.medium].label),
    name: first.name,
    since: formatDay(first.since),
    product: inBrackets(first.product),
    months: PASTE_MEDIA[first.medium].months,
    others: others.map(({ name, since }) => say('; {name} since {since}', { name, since: formatDay(since) })).join(''),
  };
}

function valuesOf(reason: DateReason): MessageValues {
  if (isLeftOpen(reason)) return leftOpenValues(reason);
  if (isSmall(reason)) return smallValues(reason);
  switch (reason.why) {
    case 'policy':
      return { scope: say(POLICY_SCOPES[reason.scope]), policy: say(SERVICE_POLICIES[reason.policy].label) };
    case 'class-life': {
      const { label, why } = COOLANT_CLASSES[reason.coolantClass];
      return { coolantClass: label, because: why, months: reason.months, warm: warmWords(reason.warm) };
    }
    case 'sheet-life':
      return { product: reason.product, months: reason.months, warm: warmWords(reason.warm) };
    case 'class-hours': {
      const { label, why } = COOLANT_CLASSES[reason.coolantClass];
      return {
        coolantClass: label,
        because: why,
        hours: reason.hours,
        usage: usageWords(reason.perDay, reason.source),
        warm: warmHours(reason.warm),
      };
    }
    case 'sheet-hours':
      return {
        product: reason.product,
        hours: reason.hours,
        usage: usageWords(reason.perDay, reason.source),
        warm: warmHours(reason.warm),
      };
    case 'seals':
    case 'tube':
      return { since: formatDay(reason.since), years: reason.years };
    case 'findings':
      return { because: listOf(reason.because), percent: reason.percent };
    case 'promised':
      return {
        sooner:
          reason.sooner === null
            ? ''
            : say('; by its clocks it would be {formatDay}: {reasonWords}', {
                formatDay: formatDay(reason.sooner.on),
                reasonWords: reasonWords(reason.sooner.reason),
              }),
      };
    case 'early-look':
      return { because: listOf(reason.because) };
    case 'season':
      return { season: seasonWords(reason.season), first: reasonWords(reason.first) };
    case 'not-settled':
      return { on: formatDay(reason.on), level: levelWords(reason), note: inBrackets(reason.note) };
    case 'put-off':
      return { until: formatDay(reason.until), said: reason.said, first: reasonWords(reason.first) };
    case 'overtaken':
      return { agreed: formatDay(reason.agreed), first: reasonWords(reason.first) };
    case 'settling':
      return { fromDays: reason.fromDays, toDays: reason.toDays };
    case 'said':
      return { text: reason.text };
  }
}

export const reasonWords = (reason: DateReason): string => say(REASONS[reason.why], valuesOf(reason));

const OUTCOMES: Messages<Outcome['why']> = {
  said: '{text}',
  'filled-anew': 'the loop was filled anew',
  'topped-up': 'the loop was topped up anew',
  'in-service': 'in a service',
  'machine-retired': 'the machine was retired',
  done: 'done{note}',
  settled: 'settled{level}{note}',
  'loop-ended': '{kind}',
};
export function outcomeWords(outcome: Outcome): string {
  const { why, ...values } = outcome;
  if (outcome.why === 'done') return say(OUTCOMES.done, { note: inBrackets(outcome.note) });
  if (outcome.why === 'settled') return say(OUTCOMES.settled, { level: levelWords(outcome), note: inBrackets(outcome.note) });
  if (outcome.why === 'loop-ended') return say(OUTCOMES[why], { kind: sayWord(JOB_KINDS[outcome.kind].label) });
  return say(OUTCOMES[why], values);
}

const FINDINGS: Messages<Finding['why']> = {
  said: '{text}',
  item: '{name}: {rule}{text}',
  cause: 'Suspected cause: {cause}{name}{text}',
  leak: 'Leak at {place}{mended}',
  'same-lot': 'The same lot ({what}) is suspected in another machine: {cause}',
};
export function findingWords(finding: Finding): string {
  switch (finding.why) {
    case 'said':
      return finding.text;
    case 'item':
      return say(FINDINGS.item, { name: finding.name, rule: finding.rule, text: inBrackets(finding.text) });
    case 'cause':
      return say(FINDINGS.cause, {
        cause: sayWord(CAUSES[finding.cause]),
        name: finding.name === null ? '' : `, ${finding.name}`,
        text: finding.text ? `. ${finding.text}` : '',
      });
    case 'leak':
      return say(FINDINGS.leak, { place: finding.place, mended: finding.cause === null ? '' : `: ${finding.cause}, ${finding.text}` });
    case 'same-lot':
      return say(FINDINGS['same-lot'], { what: finding.what, cause: sayWord(CAUSES[finding.cause]) });
  }
}

const ESCALATION: Readonly<Record<EscalationLevel, string>> = {
  0: '',
  1: 'the owner knows the risk',
  2: 'the risk goes to the owner in writing',
  3: 'only the lead may put it off again',
};
/** How often an item was put off, and how far past its clock that is. */
export const howOftenWords = ({ times, pastDays }: Escalation): string =>
  say('put off {times, plural, =1 {once} other {# times}}{pastDays, plural, =0 {} other {, # days past its clock}}', { times, pastDays });
/** How loud it has become by that; empty where nobody put it off. */
export const escalationWords = (escalation: Escalation): string =>
  escalation.level === 0 ? '' : `${howOftenWords(escalation)}: ${ESCALATION[escalation.level]}`;
