import { partOfPlace } from '../../machine/seals/places.js';
import { say, sayWord } from '../../base/words/say.js';
import { judgeDryTest } from '../runs/dryTest.js';
import { replay } from '../runs/replay.js';
import { placesOf } from '../runs/procedure.js';
import { leakCauseWords } from '../leak-finding/causes.js';
import type { Leak } from '../runs/state.js';
import { STANDING_WORDS } from '../../machine/loop-file/orientation.js';
import { INSTRUMENT_KINDS } from '../instruments/kinds.js';
import { line, type DebriefInput, type DebriefLine, type Saving, type Told } from './debriefLine.js';
import { hiddenInService, onService, savedInService } from './debriefService.js';
import { formatIn, formatMl, formatPercent, formatSpan, grouped } from '../../base/units/display.js';

export interface Debrief {
  /** what the bench hid, now told */
  readonly hidden: readonly string[];
  readonly lines: readonly DebriefLine[];
  readonly ranDryS: number;
  readonly lostMl: number;
  readonly tookS: number;
  /** s that a better order would have saved, as far as it can be told */
  readonly savedS: number;
}

/** min beyond a clear verdict that are still no waste: reading it, letting the air out */
const FREE_WAIT_MIN = 3;
/** pump starts beyond the plan that are nobody's fault */
const FREE_STARTS = 2;
/** s that a pump start with its pour and settling takes (general estimate) */
const START_TAKES_S = 40;
/** share of the planned flow below which a pump should be noticed */
const WEAK_BELOW = 0.85;
/** mL that hanging gas must come to before it is worth a word */
const GAS_WORTH_ML = 3;
/** s between two instants */
const s = (fromIso: string, toIso: string): number => (Date.parse(toIso) - Date.parse(fromIso)) / 1000;

/** Stages: what was hidden · the fault · what hands did · what a better order saves. */
export function debrief(input: DebriefInput): Debrief {
  const { procedure, events, report, startedAt, endedAt } = input;
  const places = placesOf(procedure);
  const told: Told = {
    input,
    state: replay(procedure, events),
    nameOf: (id) => places.find((each) => each.id === id)?.name ?? id,
  };
  const savings = [...dryWait(told), ...extraStarts(told), ...foundWet(told), ...savedInService(told)];
  return {
    hidden: hiddenWords(told),
    lines: [
      ...onLeak(told),
      ...onPocket(told),
      ...onPump(told),
      ...onNarrow(told),
      ...onDropout(told),
      ...onService(told),
      ...onHands(told),
      ...savings.map(({ line }) => line),
    ],
    ranDryS: sum(report.happenings.map((each) => (each.what === 'ran-dry' ? each.seconds : 0))),
    lostMl: report.spilledMl + report.leakedMl,
    tookS: s(startedAt, endedAt),
    savedS: sum(savings.map(({ savedS }) => savedS)),
  };
}

const sum = (values: readonly number[]): number => values.reduce((total, each) => total + each, 0);

/** Parts that people know by name; the runs between them where there is no part. */
function pocketPlaces({ input: { procedure }, nameOf }: Told, ids: readonly string[]): string {
  const parts = ids.filter((id) => procedure.facts?.parts.some((part) => part.id === id));
  return (parts.length > 0 ? parts : ids).map(nameOf).join(', ');
}

function hiddenWords(told: Told): string[] {
  const { input: { procedure, report }, nameOf } = told; // prettier-ignore
  const { leak, narrow, pocket, pumpShare, dropout } = report.truth;
  const offMl = report.insideMl - procedure.volume.volumeMl;
  return [
    ...(leak
      ? [
          say('A leak at {nameOf}. Its cause: {leakCauseWords}.', {
            nameOf: nameOf(leak.place),
            leakCauseWords: leakCauseWords(leak.cause),
          }),
        ]
      : []),
    ...(pocket ? [say('{formatMl} of air in {pocketPlaces} that only a turn {to} lets out.', { formatMl: formatMl(pocket.ml), pocketPlaces: pocketPlaces(told, pocket.parts), to: sayWord(STANDING_WORDS[pocket.to]) })] : []), // prettier-ignore
    ...(pumpShare < WEAK_BELOW ? [say('A pump at {formatPercent} of its speed.', { formatPercent: formatPercent(pumpShare) })] : []),
    ...(narrow ? [`${say(NARROW_WORDS[narrow.why])}: ${nameOf(narrow.place)}.`] : []),
    ...(dropout
      ? [
          say('{label} silent for {formatSpan}.', {
            label: sayWord(INSTRUMENT_KINDS[dropout.kind].label),
            formatSpan: formatSpan(dropout.forS),
          }),
        ]
      : []),
    ...hiddenInService(told),
    ...(!leak && !narrow && !pocket && pumpShare >= WEAK_BELOW && !dropout && !report.truth.finding
      ? [say('No fault. Only the volumes were off their sheets.')]
      : []),
    ...(report.pouredMl > 0 && Math.abs(offMl) > 1
      ? [
          say('At the end {formatMl} stood inside; the sheets say {formatMl2} for the whole loop.', {
            formatMl: formatMl(report.insideMl),
            formatMl2: formatMl(procedure.volume.volumeMl),
          }),
        ]
      : []),
  ];
}

/** Whether what was mended was what was wrong: a seat that is renewed under a strained tube leaks again. */
function onCause(cause: string, { mended }: Leak): DebriefLine[] {
  if (mended === null) return [];
  return mended.cause === cause
    ? [line('good', say('Its cause was named right: {leakCauseWords}.', { leakCauseWords: leakCauseWords(cause) }), mended.at)]
    : [
        line(
          'missed',
          say('Its cause was: {leakCauseWords}. Written down was: {leakCauseWords2}.', {
            leakCauseWords: leakCauseWords(cause),
            leakCauseWords2: leakCauseWords(mended.cause),
          }),
          mended.at,
        ),
      ];
}

function onLeak({ state, input: { report, procedure }, nameOf }: Told): DebriefLine[] {
  const { leak } = report.truth;
  const wrong = state.leaks.filter(({ where }) => partOfPlace(where) !== leak?.place).map((each) => line('missed', say('{nameOf} was tight; the leak written down there was none.', { nameOf: nameOf(each.where) }), each.at)); // prettier-ignore
  if (!leak) return wrong;
  const found = state.leaks.find(({ where }) => partOfPlace(where) === leak.place);
  if (!found) {
    const out = report.leakedMl > 0.05 ? say('; {formatMl} came out', { formatMl: formatMl(report.leakedMl) }) : '';
    return [...wrong, line(out ? 'harm' : 'missed', say('The leak at {nameOf} was not found{out}.', { nameOf: nameOf(leak.place), out }))];
  }
  const firstPour = state.pours[0]?.at;
  const dry = firstPour === undefined || found.at < firstPour;
  // it came with liquid inside, and dripping
  const how =
    procedure.service?.kind === 'leak-repair' && dry
      ? line('good', say('The leak at {nameOf} was found.', { nameOf: nameOf(leak.place) }), found.at)
      : dry
        ? line('good', say('The leak at {nameOf} was found with air: not a drop came out.', { nameOf: nameOf(leak.place) }), found.at)
        : line(
            'missed',
            say('The leak at {nameOf} was found with coolant inside; {formatMl} came out first.', {
              nameOf: nameOf(leak.place),
              formatMl: formatMl(report.leakedMl),
            }),
            found.at,
          );
  return [
    ...wrong,
    how,
    ...onCause(leak.cause, found),
    ...(report.leakMended ? [] : [line('harm', say('{nameOf} still leaks.', { nameOf: nameOf(leak.place) }))]),
  ];
}

function onPocket(told: Told): DebriefLine[] {
  const { state, input: { report } } = told; // prettier-ignore
  const freed = report.happenings.find(({ what }) => what === 'pocket-freed');
  const { pocket } = report.truth;
  const loose = report.gasMl - report.pocketMl;
  const rest =
    loose > GAS_WORTH_ML && state.bleedCycles.length > 0
      ? [
          line(
            'missed',
            say('{formatMl} of small bubbles are still on the way: run longer before the last cycle.', { formatMl: formatMl(loose) }),
          ),
        ]
      : [];
  if (!pocket || state.pours.length === 0) return rest;
  return [
    freed
      ? line('good', say('The turn {to} let the pocket in {pocketPlaces} out.', { to: sayWord(STANDING_WORDS[pocket.to]), pocketPlaces: pocketPlaces(told, pocket.parts) }), freed.at)
      : line('missed', say('{formatMl} of air still hang in {pocketPlaces}: turn the case {to}, cap on.', { formatMl: formatMl(report.pocketMl), pocketPlaces: pocketPlaces(told, pocket.parts), to: sayWord(STANDING_WORDS[pocket.to]) })), // prettier-ignore
    ...rest,
  ];
}

function onPump({ state, input: { report, procedure, events } }: Told): DebriefLine[] {
  if (report.truth.pumpShare >= WEAK_BELOW || report.pumpStarts === 0) return [];
  const names = (procedure.facts?.parts ?? []).map(({ id }) => id);
  const said =
    state.fillTroubles.some(({ solved }) => solved?.cause === 'pump-weak') ||
    state.doubts.some(({ part }) => names.includes(part) && /pump|flow|slow|weak/i.test(part)) ||
    events.some(({ body }) => 'text' in body && /pump|flow|slow|weak/i.test(body.text));
  return [
    said
      ? line('good', say('The weak pump was noticed and written down.'))
      : line(
          'missed',
          say('Flow stayed below what this loop should give: the pump ran at {formatPercent} of its speed.', {
            formatPercent: formatPercent(report.truth.pumpShare),
          }),
        ),
  ];
}

const NARROW_WORDS = { kink: 'A kinked tube', choked: 'A choked part' } as const;
const NARROW_CAUSE = { kink: 'kink', choked: 'block-choked' } as const;

/** Flow that something holds up: noticed where its cause was named, or the place itself was doubted. */
function onNarrow({ state, input: { report }, nameOf }: Told): DebriefLine[] {
  const { narrow } = report.truth;
  if (!narrow || report.pumpStarts === 0) return [];
  const named = state.fillTroubles.find(({ solved }) => solved?.cause === NARROW_CAUSE[narrow.why]);
  const doubted = state.doubts.find(({ part }) => part === narrow.place);
  const what = `${sayWord(NARROW_WORDS[narrow.why]).toLowerCase()}, ${nameOf(narrow.place)}`;
  if (named) return [line('good', say('The flow was too low, and its cause was named: {what}.', { what }), named.at)];
  return [doubted ? line('good', say('{nameOf} was doubted: it was {what}.', { nameOf: nameOf(narrow.place), what }), doubted.at) : line('missed', say('Flow stayed below what this loop should give, and nobody asked why: {what}.', { what }))]; // prettier-ignore
}

function onDropout({ input: { report, events, startedAt } }: Told): DebriefLine[] {
  const { dropout } = report.truth;
  if (!dropout) return [];
  const from = Date.parse(startedAt) + dropout.fromS * 1000;
  const within = events.filter(({ at }) => Date.parse(at) >= from && Date.parse(at) <= from + dropout.forS * 1000);
  const byHand = within.some(({ body }) => 'source' in body && body.source !== 'instrument' || (body.type === 'dry-reading' || body.type === 'pour') && !body.source); // prettier-ignore
  const label = sayWord(INSTRUMENT_KINDS[dropout.kind].label).toLowerCase();
  return [
    byHand
      ? line('good', say('While the {label} was silent, readings went on by hand.', { label }))
      : line(
          'missed',
          say('The {label} was silent for {formatSpan} and no reading was taken by hand.', { label, formatSpan: formatSpan(dropout.forS) }),
        ),
  ];
}

function onHands({ state, input: { report } }: Told): DebriefLine[] {
  const lines = report.happenings.flatMap((each): DebriefLine[] => {
    switch (each.what) {
      case 'ran-dry':
        return [line('harm', say('The pump drew air for {toFixed} s.', { toFixed: grouped(each.seconds, 1) }), each.at)];
      case 'spilled':
        return [line('harm', `${formatMl(each.ml)} ran out (${{ overflow: say('over the fill port'), turn: say('in a turn'), 'open-port': say('of an open port') }[each.by]}).`, each.at)]; // prettier-ignore
      case 'too-much-pressure':
        return [
          line('harm', say('{gauge} were pumped in: glass and acrylic can burst.', { gauge: formatIn('kPa', each.gaugeKpa) }), each.at),
        ];
      default:
        return [];
    }
  });
  const ranDry = lines.length > 0 || report.pumpStarts === 0 ? [] : [line('good', say('The pump never drew air and nothing ran over.'))];
  const passed = state.overrides.map(({ rule, at }) =>
    line('missed', say('A lock was passed over with a reason ({replaceAll}).', { replaceAll: rule.replaceAll('-', ' ') }), at),
  );
  return [...lines, ...ranDry, ...passed];
}

/** The earliest reading at which the air test was clear, against when it was closed. */
function dryWait({ state, input: { procedure, events } }: Told): Saving[] {
  const doneAt = state.steps.find(({ kind }) => kind === 'dry-test')?.doneAt;
  if (!procedure.dry || !doneAt) return [];
  const readings = state.dryReadings.map(({ at }) => at).sort();
  const clear = readings.find((at) => {
    const until = replay(procedure, events.filter((event) => event.at <= at)); // prettier-ignore
    return judgeDryTest(procedure, until)?.verdict === 'pass';
  });
  if (clear === undefined) return [];
  const waitedS = s(clear, doneAt);
  if (waitedS < FREE_WAIT_MIN * 60) return [];
  return [
    {
      savedS: waitedS,
      line: line('saving', say('The air test was clear {formatSpan} before it was closed.', { formatSpan: formatSpan(waitedS) }), clear),
    },
  ];
}

function extraStarts({ input: { procedure, report } }: Told): Saving[] {
  const planned = procedure.facts?.fill?.pulses.length;
  const circulatingAt = report.happenings.find(({ what }) => what === 'circulating')?.at;
  // a service begins with a loop that goes round
  if (planned === undefined || circulatingAt === undefined || procedure.service) return [];
  const extra = report.startsBeforeReturn - planned;
  if (extra <= FREE_STARTS) return [];
  const savedS = extra * START_TAKES_S;
  return [
    {
      savedS,
      line: line('saving', say('{startsBeforeReturn} pump starts to fill, {planned} would do: pour to the mark, run to the low mark. About {formatSpan}.', { startsBeforeReturn: report.startsBeforeReturn, planned, formatSpan: formatSpan(savedS) })), // prettier-ignore
    },
  ];
}

/** A leak that air would have shown: what was filled in vain, and the drying before the next try. */
function foundWet({ state, input: { report, procedure } }: Told): Saving[] {
  const { leak } = report.truth;
  const found = leak && state.leaks.find(({ where }) => where === leak.place);
  const firstPour = state.pours[0]?.at;
  if (!found || firstPour === undefined || found.at < firstPour) return [];
  const savedS = s(firstPour, found.at);
  const why = procedure.dry ? say('the air test before it should have shown it') : say('an air test first would have shown it');
  return [
    {
      savedS,
      line: line('saving', say('{formatSpan} from the first pour to the drop; {why}.', { formatSpan: formatSpan(savedS), why }), found.at),
    },
  ];
}
