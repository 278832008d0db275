import { formatDay, formatDayTime } from '../../base/units/dates.js';
import { formatDegrees, formatIn, formatMl, formatMlWithSd, formatRoughMl, formatSpan, grouped } from '../../base/units/display.js';
import { reading } from '../../base/units/reading.js';
import { capital, say, sayText, sayWord } from '../../base/words/say.js';
import { sayAnew } from '../../base/words/sayAnew.js';
import { GRADE_WORDS, type Grade } from '../../bench/inspection/grade.js';
import type { StepKind } from '../../bench/runs/procedure.js';
import { CLARITY_WORDS } from '../../machine/liquids/rinsing.js';
import { drawPlain } from '../../physics/profile/plainDrawing.js';
import { normaliseBaseline } from '../../physics/diagnosis/baseline.js';
import type { DateReason } from '../../workshop/due-dates/facts.js';
import { SIGNS } from '../../workshop/jobs/scope.js';
import { ENDS_LOOP, JOB_WORDS } from '../../workshop/job-kinds/kinds.js';
import type { DueKind } from '../../workshop/due-dates/attention.js';
import type { Priced } from '../../workshop/prices/priced.js';
import type { RunRecord } from '../records/record.js';
import { reasonWords, useLimitWords } from '../words/dates.js';
import { strengthWords } from '../words/strength.js';
import { plateWords } from '../words/verdicts.js';
import { coolantReadWords } from '../../bench/runs/entries/coolantRead.js';
import { OWED } from '../../workshop/due-dates/owed.js';
import { row, section, type Block, type Paper, type PaperRow } from './paper.js';
import { priceTable } from './priceBlocks.js';

/** What an owner's report is made of, as it was when the run was signed off. Nothing of the inside is in it: no log, no remark. */
export interface ReportFacts {
  readonly reportVersion: 1;
  readonly workshop: { readonly name: string; readonly where: string; readonly timeZone: string };
  readonly kind: string;
  readonly record: Omit<RunRecord, 'log' | 'remark' | 'notNeeded'>;
  /** of what is inside; null: not known */
  readonly colour: string | null;
  readonly before: readonly ReportPhoto[];
  readonly after: readonly ReportPhoto[];
  readonly dates: readonly ReportDate[];
  /** what it took, in the currency of that day; null: the workshop reckons no prices */
  readonly bill: Priced | null;
  /** mL that went into labelled containers */
  readonly wasteMl: number;
}
export interface ReportPhoto {
  readonly photoId: string;
  readonly caption: string;
}
export interface ReportDate {
  readonly kind: DueKind;
  readonly from: string | null;
  readonly on: string;
  readonly reason: DateReason;
  readonly estimated: boolean;
}

const DUE_WORDS: Readonly<Record<DueKind, string>> = {
  'coolant-service': 'Coolant',
  'settling-check': 'Level',
  'follow-up': 'Follow-up',
  'dust-clean': 'Dust',
  'paste-renewal': 'Paste',
  stirring: 'Stirring run',
};
const DID_WORDS: Readonly<Partial<Record<StepKind, string>>> = {
  drain: 'drained',
  rinse: 'rinsed',
  clean: 'cleaned',
  inspect: 'looked at part by part',
  swap: 'exchanged what was to be exchanged',
  repair: 'mended',
  'dry-test': 'tested with air',
  fill: 'filled',
  'wet-run': 'watched for leaks with only the pump running',
  bleed: 'bled',
  baseline: 'measured under load',
};

interface ReportOptions {
  readonly prices: boolean;
}

/** The report that an owner keeps. */
export function reportPaper(facts: ReportFacts, { prices }: ReportOptions): Paper {
  const { record, workshop, kind } = facts;
  const work = capital(sayWord(JOB_WORDS[kind] ?? kind));
  return {
    title: say('{work} of {machine}', { work, machine: record.system.name }),
    language: reading().language,
    from: workshop,
    about: `${record.system.owner} · ${record.loop.name} · ${formatDayTime(record.signedOffAt, workshop.timeZone)}`,
    blocks: [
      ...claims(facts),
      ...section(say('Stays open'), stays(facts)),
      ...section(say('What was found'), found(facts)),
      ...section(say('What was done'), done(facts)),
      ...section(say('Measured before and after'), measured(facts)),
      ...section(say('Side by side'), [pictures(facts)]),
      ...section(say('The loop now'), [profile(facts), { kind: 'rows', rows: insideRows(facts) }]),
      ...section(say('Volumes'), [{ kind: 'rows', rows: volumeRows(facts) }]),
      ...section(say('Tests'), tests(facts)),
      ...section(say('Next dates'), [nextDates(facts)]),
      ...section(say('Used coolant'), [disposal(facts)]),
      ...(prices && facts.bill ? section(say('What it cost'), [priceTable(say('As the work took it'), facts.bill)]) : []),
      {
        kind: 'text',
        as: 'small',
        text: say(
          'Signed off by {by}. Figures marked as estimates are reckoned, not measured, and are to be checked against the makers’ instructions. Local rules and safety data sheets come first.',
          { by: record.signedOffBy },
        ),
      },
    ],
  };
}

/** The one line on top: what it can claim. */
function claims({ record }: ReportFacts): Block[] {
  const earned = (record.verdicts ?? []).map((verdict) => ({ ...plateWords(verdict), earned: verdict.earned }));
  if (earned.length === 0) return [];
  return [
    {
      kind: 'rows',
      rows: earned.map(({ word, under, earned: is }) => ({
        label: capital(word),
        text: is ? under : say('not claimed: {why}', { why: under }),
      })),
    },
  ];
}

function stays({ record }: ReportFacts): (Block | null)[] {
  const fixes = record.service?.temporary ?? (record.holdsForNow ?? []).map((fix) => ({ ...fix, limits: [useLimitWords(fix.limits)] }));
  const off = record.service?.notReconnected ?? [];
  return [
    ...fixes.map(({ what, awaits, until, limits }): Block => ({
      kind: 'text',
      as: 'notice',
      text: say('Holds for now: {what}, until {awaits}, by {day} at the latest. Until then: {limits}.', {
        what,
        awaits,
        day: formatDay(until),
        limits: limits.map(sayAnew).join(', '),
      }),
    })),
    ...(off.length > 0 ? [{ kind: 'text', text: say('Not connected again:') } as const, { kind: 'list', items: off } as const] : []),
    {
      kind: 'list',
      items: (record.owed ?? []).map(({ kind, what, until }) => say('{owed}: {what}, by {day}', { owed: capital(sayWord(OWED[kind])), what, day: formatDay(until) })), // prettier-ignore
    },
    {
      kind: 'list',
      items: [
        ...(record.service?.looseEnds ?? []).map((each) => say('Not claimed clean: {each}', { each: sayAnew(each) })),
        ...record.passedOver.map(({ step }) => say('Not done: {step}', { step: sayAnew(step) })),
      ],
    },
  ];
}

function found({ record }: ReportFacts): (Block | null)[] {
  const { intake, service } = record;
  return [
    {
      kind: 'rows',
      rows: [
        ...row(say('You said'), intake?.symptom),
        ...row(say('Seen'), intake?.signs.map((sign) => sayWord(SIGNS[sign])).join('; ')),
        ...row(say('As it arrived'), intake?.condition),
        ...row(say('Suspected'), service?.cause && sayAnew(service.cause)),
        ...(record.leaks ?? []).flatMap(({ place, mended }) =>
          row(say('Leak'), mended ? say('{place}: mended, {how}', { place, how: mended.text || sayAnew(mended.cause) }) : place),
        ),
      ],
    },
    {
      kind: 'table',
      caption: say('Parts, one by one'),
      head: [say('Part'), say('Verdict'), say('Seen')],
      rows: (service?.sheet ?? []).map(({ name, grade, words, text }) => [name, sayText(GRADE_WORDS[grade as Grade]), [sayAnew(words), text].filter(Boolean).join('. ')]), // prettier-ignore
    },
  ];
}

/** a step may be closed with nothing to do in it */
function wasDone({ service, exchanged = [], leaks = [] }: ReportFacts['record'], kind: StepKind): boolean {
  if (kind === 'swap') return (service?.done ?? exchanged).length > 0;
  return kind !== 'repair' || leaks.some(({ mended }) => mended !== null);
}

function done({ record }: ReportFacts): (Block | null)[] {
  const did = (record.had ?? [])
    .filter((kind) => wasDone(record, kind))
    .flatMap((kind) => (DID_WORDS[kind] ? [sayText(DID_WORDS[kind])] : []));
  const { lastWater } = record;
  return [
    { kind: 'text', text: did.length > 0 ? `${capital(did.join(', '))}.` : '' },
    { kind: 'list', items: (record.service?.done ?? record.exchanged ?? []).map((each) => capital(sayAnew(each))) },
    lastWater
      ? {
          kind: 'rows',
          rows: row(
            say('Last water'),
            [sayWord(CLARITY_WORDS[lastWater.clarity]), lastWater.ph === null ? '' : `pH ${grouped(lastWater.ph, 1)}`]
              .filter(Boolean)
              .join(', '),
          ),
        }
      : null,
  ];
}

/** Readings in kelvin above the room: another room is no other loop. */
function measured({ record }: ReportFacts): (Block | null)[] {
  const { service, baselines, befores = [] } = record;
  const rows = [...befores.map((each) => ({ each, when: say('before') })), ...baselines.map((each) => ({ each, when: befores.length > 0 ? say('after') : say('at hand-over') }))]; // prettier-ignore
  return [
    service?.comparison
      ? { kind: 'text', as: 'strong', text: say('At the same load: {comparison}.', { comparison: sayAnew(service.comparison) }) }
      : null,
    {
      kind: 'table',
      caption: say('Readings under load'),
      head: [say('When'), say('What'), say('Load'), say('Part'), say('Room'), say('Above the room')],
      rows: rows.map(({ each, when }) => [
        when,
        [each.sensor, each.setting].filter(Boolean).join(', '),
        [each.powerW === null ? '' : `${Math.round(each.powerW)} W`, `${each.durationMinutes} min`].filter(Boolean).join(', '),
        formatDegrees(each.partC),
        formatDegrees(each.roomC),
        formatIn('K', normaliseBaseline(each).aboveRoomK, 1),
      ]),
      figures: [3, 4, 5],
    },
  ];
}

function pictures({ before, after }: ReportFacts): Block {
  const pairs = Math.max(before.length, after.length);
  return {
    kind: 'pictures',
    pictures: Array.from({ length: pairs }).flatMap((_, index) => [
      ...(before[index] ? [{ ...before[index], caption: say('before: {caption}', { caption: before[index].caption || say('as it came in') }) }] : []), // prettier-ignore
      ...(after[index] ? [{ ...after[index], caption: say('after: {caption}', { caption: after[index].caption || say('as it left') }) }] : []), // prettier-ignore
    ]),
  };
}

const isOver = ({ record }: ReportFacts): boolean => record.service !== undefined && ENDS_LOOP.includes(record.service.kind);

function profile(facts: ReportFacts): Block {
  const { record, colour } = facts;
  return {
    kind: 'drawing',
    alt: say('Loop profile: heights along the flow path'),
    drawing: drawPlain(record.loop.file, { width: 1000, height: 300, colour, filled: isOver(facts) || record.unit ? new Map() : null }),
  };
}

function insideRows(facts: ReportFacts): PaperRow[] {
  const { record } = facts;
  if (isOver(facts)) return row(say('Inside now'), say('nothing: the loop is over'));
  const inside = record.verdicts?.find((each) => each.verdict === 'inside');
  const ml = inside?.earned ? formatMlWithSd(inside.ml, inside.sdMl) : record.service?.volumes.insideMl === null || record.service === undefined ? null : formatMl(Math.max(0, record.service.volumes.insideMl)); // prettier-ignore
  const share = record.service?.volumes.oldShare;
  return [
    ...row(say('Coolant'), record.coolant && [record.coolant.productName, record.coolant.lot ? say('lot {lot}', { lot: record.coolant.lot }) : ''].filter(Boolean).join(', ')), // prettier-ignore
    ...row(say('Inside now'), ml, { estimate: true }),
    ...row(say('Strength'), record.strength && strengthWords(record.strength), { estimate: true }),
    ...row(say('Measured'), record.coolantRead && coolantReadWords(record.coolantRead)),
    ...row(say('Of it old'), share !== undefined && share > 0.0005 ? `${grouped(100 * share, 1)} %` : null, { estimate: true }),
  ];
}

function volumeRows({ record }: ReportFacts): PaperRow[] {
  const { service, volumes } = record;
  if (!service)
    return [
      ...row(say('Poured'), volumes.pouredMl > 0 ? formatMl(volumes.pouredMl) : null),
      ...row(say('Planned'), volumes.plannedMl > 0 ? formatMlWithSd(volumes.plannedMl, volumes.plannedSdMl) : null, { estimate: true }),
    ];
  const own = service.volumes;
  return [
    ...row(say('Came out'), own.outMl > 0 ? formatMl(own.outMl) : null),
    ...row(say('Lost'), own.lostMl > 0 ? formatMl(own.lostMl) : null),
    ...row(say('Went in'), own.inMl > 0 ? formatMl(own.inMl) : null),
    ...row(say('Left by the drain'), own.drain === null || own.drain === undefined || own.drain.leftMl === null ? null : formatMlWithSd(Math.max(0, own.drain.leftMl), own.drain.leftSdMl), { estimate: true }), // prettier-ignore
  ];
}

/** What was tested and what that says, in plain words: no test finds everything. */
function tests({ record }: ReportFacts): (Block | null)[] {
  const { dryTest, verdicts = [], settling } = record;
  const tight = verdicts.find((each) => each.verdict === 'tight');
  return [
    dryTest
      ? {
          kind: 'text',
          text:
            dryTest.verdict === 'pass'
              ? say('Air test passed: a leak of more than {ml} of water a day would have been seen, a smaller one would not.', {
                  ml: formatRoughMl(dryTest.excludedMlPerDay),
                })
              : say('Air test: not passed.'),
        }
      : null,
    tight?.earned && tight.wetS !== null
      ? { kind: 'text', text: say('Its pump ran for {span} with only towels to wet; no joint dripped.', { span: formatSpan(tight.wetS) }) }
      : null,
    tight && !tight.earned ? { kind: 'text', as: 'notice', text: capital(plateWords(tight).under) } : null,
    record.had?.includes('fill') && !record.unit
      ? { kind: 'text', text: say('Look at the level from {from} to {to}: the last air comes home in these days. A photograph of it is enough.', { from: formatDay(settling.from), to: formatDay(settling.to) }) } // prettier-ignore
      : null,
  ];
}

const nextDates = ({ dates }: ReportFacts): Block => ({
  kind: 'table',
  caption: say('What is due, and why then'),
  head: [say('What'), say('When'), say('Why')],
  rows: dates.map(({ kind, from, on, reason, estimated }) => [
    sayText(DUE_WORDS[kind]),
    from && from !== on ? say('{from} to {on}', { from: formatDay(from), on: formatDay(on) }) : formatDay(on),
    `${reasonWords(reason)}${estimated ? say(' (estimate)') : ''}`,
  ]),
});

const disposal = ({ wasteMl, record }: ReportFacts): Block | null =>
  wasteMl > 0 || (record.service?.volumes.outMl ?? 0) > 0
    ? {
        kind: 'text',
        text: say('{ml} of used liquid went into a labelled container for the authorised collection point, like used engine oil. Never pour such liquid down a drain; local rules decide.', { ml: formatMl(wasteMl > 0 ? wasteMl : (record.service?.volumes.outMl ?? 0)) }), // prettier-ignore
      }
    : null;
