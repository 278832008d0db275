import { formatDay } from '../../base/units/dates.js';
import { formatIn, formatKg, formatMl, formatMlWithSd, grouped } from '../../base/units/display.js';
import { AGREES_WITHIN_SD } from '../../physics/measuring/errors.js';
import type { Later } from '../../bench/runs/laterChecks.js';
import { placesOf, type After, type Procedure } from '../../bench/runs/procedure.js';
import { FILL_SYMPTOMS } from '../../bench/fill-troubles/causes.js';
import { WAIT_FOR } from '../../workshop/jobs/waitFor.js';
import type { Refusal } from '../../bench/runs/entry.js';
import type { LackFact, Why, WhyCode } from '../../bench/runs/why.js';
import { CLARITY_WORDS, RINSE_WORDS } from '../../machine/liquids/rinsing.js';
import type { BleedLack } from '../../physics/air/bleed.js';
import type { LedgerVerdict } from '../../physics/contents/ledger.js';
import type { FillBalance } from '../../physics/filling/fillPlan.js';
import { say, type Messages, type MessageValues, midSentence } from '../../base/words/say.js';

/** What a run says: locks, refusals, what a step lacks. A code without words does not compile. */
const WHY: Messages<WhyCode> = {
  // locks
  'not-isolated':
    'everything but the pump must be off its plug first{toPull, plural, =0 {} other { (# still to pull)}}: a leak would meet live electronics',
  'loads-before-air': 'loads hang on the supply: no liquid moves before the air test has passed; or pull them now',
  'joint-open': 'the joint at {joint} is recorded undone: the pump would empty the loop through it',
  'joint-while-pumping': 'the pump is on: switch it off before a joint is undone',
  'port-open': '{port} is open: close it before the pump runs',
  'valve-while-pumping': 'the pump is on: switch it off before a drain valve is opened',
  'pump-turned': 'at {angleDeg}° the reservoir’s outlet is uncovered (from {uncoverDeg}°): the pump would draw air',
  'pump-dry': 'nothing is inside yet: pour first, a pump that runs dry is ruined within seconds',
  'low-mark':
    'the level stands at its low mark ({levelMl}{measured, select, true {} other {, predicted}}): pour first, or the pump runs dry',
  'under-air': '{gaugeKpa} of test air stand inside: let them out at the pump and tick it, then open anything',
  'air-before-drain': 'open an air inlet higher up first: without it the column hangs and lets go when knocked',
  'cap-before-turn': 'close it before the turn: {port}',
  'joint-before-turn': 'the joint at {joint} is undone: cap both ends before the turn',
  'outlet-uncovers': 'with the pump on, turn it to less than {uncoverDeg}°: beyond, the reservoir’s outlet comes out of the liquid',
  'over-pressure': '{gaugeKpa} is above {mostKpa}{weakest}: let air out first; glass and acrylic burst',
  'doubt-untested': '{place} felt wrong (“{said}”): test that part alone with air before any liquid',
  'doubt-leaked': '{place} felt wrong (“{said}”): it leaked in its own test and must be replaced or mended',
  'drawn-down': 'it was drawn down for the leak: fill it up again first, until liquid comes back',
  'seal-missing': '{place} gave its seal away and stands open: fit one there first',
  'leak-not-mended': 'the leak at {place} is not mended yet',
  'not-rinsed': 'electronics were splashed: rinse them as their maker advises; salts of the coolant do not dry away',
  'still-drying': 'rinsed electronics still dry for about {hours} h: no power before',
  'must-not-mix':
    '{never, select, true {these two never go together} other {rinse between}}: {reason}; {oldPercent} % of what is inside is the old liquid, at most {mostPercent} % may be',
  // what keeps a run from its sign-off
  'failed-doubt': '{place} felt wrong and {leaked, select, true {leaked in its own test} other {was not tested on its own}}',
  'failed-leak': 'the leak at {place} is {mended, select, true {mended but not tested again} other {open}}',
  'failed-sisters': 'what {place} had may be elsewhere too: the places with the same cause or bag are not looked at',
  'failed-spill': 'electronics were splashed and not rinsed',
  // what a step lacks
  'no-such-step': 'this run has no such step',
  'checks-open': '{count, plural, one {# check} other {# checks}} open{beforePower, plural, =0 {} other {, # of them before power}}',
  'timer-running': 'timer still running: {label}',
  'timer-stopped': 'timer stopped before its end, start it again: {label}',
  'timer-not-started': 'timer not started: {label}',
  'no-reading': 'no reading yet; a verdict needs at least {least}',
  'air-test-failed': 'the air test failed: find the leak, then start the test again',
  'air-test-open': 'cannot tell yet: about {minutes} more min',
  'nothing-topped-up': 'nothing topped up yet',
  'no-coolant': 'coolant not chosen',
  'nothing-poured': 'nothing poured yet',
  'no-part-tested': 'no part tested yet',
  'no-baseline': 'no baseline reading yet',
  'fill-open': 'about {ml} to go',
  'fill-over': '{ml} more than the loop should hold: look for a leak, or for a larger radiator than planned',
  'part-leaked': '{place} leaked in its own test',
  'bleed-cycles': '{count, plural, one {# more stop and start cycle} other {# more stop and start cycles}}',
  'bleed-drift': 'level still moves by {mm} between cycles',
  'bleed-empty': 'by its level nothing stands in the reservoir: top up and run a cycle again',
  'bleed-rise': 'rise at stop is {mm}, it should be at most {mostMm}',
  'bleed-bubbles': 'bubbles at the return',
  'bleed-noise': 'the pump still sounds of air',
  'fill-trouble-open': '{symptom}: say what was behind it',
  'nothing-drained': 'nothing came out yet',
  'nothing-rinsed': 'nothing rinsed yet',
  'water-not-read': 'the last water was not read',
  'last-rinse': 'the last rinse was {liquid}: one more with distilled water',
  'water-unclear': 'the last water is {clarity}',
  'ph-not-read': 'pH not read: cleaner was inside',
  'ph-off': 'pH {ph}, neutral is {from} to {to}',
  'cause-open': 'a suspected cause: “not known” is one too',
  'nothing-wrong-recorded': 'no leak recorded yet: say it with “Something is wrong”',
  'more-out-than-in':
    '{ml} more came out than was inside by the book: a jug counted twice, rinse water not entered, or the loop holds more than recorded',
  'old-left': '{percent} % of the old liquid left, {targetPercent} % is the target',
  'items-not-seen': '{count, plural, one {# item} other {# items}} not looked at',
  'cleaner-in': '{cleaner} is still in',
  'not-smooth': 'not felt smooth yet: {items}',
  'not-rebuilt': 'the loop is not said to be as it was wanted yet',
  'no-place': 'nobody said where they lie: {items}',
  'to-replace': 'to be replaced: {items}',
  'leaks-not-mended': '{count, plural, one {# leak} other {# leaks}} not mended',
  // why an entry does not fit
  'open-run-correction': 'corrections belong to a signed record; this run is still open, so undo the entry instead',
  'signed-off': 'this run is signed off; add a correction to its record',
  'steps-before-sign-off': 'the steps before the sign-off are not done',
  'use-sign-off': 'sign off with the button of this step',
  'nothing-read': 'enter what was read: the strength, the pH, or both',
  'rebuilt-elsewhere': 'a loop is changed with its own request, so that its steps change with it',
  'bypass-elsewhere': 'a part is left out with its own request, so that loop and steps change with it',
  'rescope-elsewhere': 'the scope is changed with its own request, so that the steps change with it',
  'no-step': 'this run has no step "{step}"',
  'too-early': '"{first}" comes first; finish it before "{then}"',
  'step-not-done': '"{step}" is not done: {lacks}',
  'protects-power': '"{step}" cannot be passed over: there is no safe way to skip it: a leak would meet live electronics',
  'protects-closing': '"{step}" cannot be passed over: the loop must be closed before air or liquid goes in',
  'protects-change': '"{step}" cannot be passed over: every later step goes by the loop that it makes',
  'protects-emptying': '"{step}" cannot be passed over: whatever is still inside must come out over the basin',
  'protects-return': '"{step}" cannot be passed over: every towel and every connector must be accounted for before the board has power',
  'unknown-check': '"{step}" has no check "{name}"',
  'unknown-timer': '"{step}" has no timer "{name}"',
  'check-later': '"{text}" belongs {after}',
  'one-by-one': 'these are ticked one by one: each guards somebody',
  'always-needed': '"{text}" is always needed',
  'pulls-nothing': 'nothing is pulled in "{step}"; write it down where the loads come off the supply',
  'pulled-already': '"{name}" stands on the list already',
  'unknown-port': 'this loop has no port "{name}"',
  'unknown-joint': 'this loop has no tube "{name}"',
  'unknown-part': 'this loop has no part "{name}"',
  'unknown-place': 'this loop has no part or tube "{name}"',
  'unknown-item': 'this loop has no part, plug or tube "{name}"',
  'unknown-cause': '"{name}" is no cause of a leak that is known here',
  'unknown-leak': 'there is no such leak in this run',
  'unknown-trouble': 'there is no such trouble in this run, or it is answered',
  'loads-not-allowed': 'the lead allows no loads on the supply in this kind of job, or no air test goes before the liquid',
  'loads-not-on': 'no loads were left on the supply',
  'unknown-seal': 'no seal was taken with that entry, or the place has one again',
  'unknown-spill': 'there is no such spill in this run',
  'leak-mend-first': 'mend the leak first, then test that joint again',
  'test-air-again': 'it was found with air: start the air test again, and let it pass',
  'run-it-first': 'run it first, with a dry towel under that joint, then look',
  'say-which-part': 'say which part is suspected',
  'dye-last': 'dye goes in last: the loop holds nothing yet',
  'fix-day-past': 'the day of the final fix lies behind us',
  'not-a-service': 'this run commissions a loop; such an entry belongs to a service',
  'no-entry': 'there is no such entry in this run',
  'already-withdrawn': 'this entry was already taken back',
  'undo-of-undo': 'an undo is not undone; enter the value again',
  'jug-holds-less': '{ml} cannot come out of the jug: it holds {jugMl} of what this loop gave',
  'lighter-than-before': 'the machine cannot weigh less than before the first pour ({beforeG}): read the scale again, hoses and bottle off',
  'too-much-out': '{ml} cannot come out: by the book {insideMl} are inside',
  'cleaner-is-in': '{cleaner} is in already; take it out first',
  'no-cleaner-in': 'no cleaner is in',
  'not-undone': 'a machine was carried with this entry; it is not taken back',
  'told-already': 'others were told of it when the run began to wait: it stays; write a note',
  waits: 'this run waits for {waitsFor}{what}, until {until}: put it back on a bench first',
  'wait-pump-on': 'the pump runs: switch it off before anybody walks away',
  'wait-timer': 'a clock runs ({label}): let it end or stop it, what it stands for goes on beside nobody',
  'wait-cleaner-in': '{cleaner} is in: take it out and rinse first, it must not stay longer than its sheet allows',
  'wait-day-past': 'the day on which somebody looks again lies behind us',
  'not-left-safe': '{count, plural, one {# line} other {# lines}} not ticked: nobody stands beside it while it waits',
  'not-waiting': 'this run does not wait',
  'not-looked-at': '{count, plural, one {# line} other {# lines}} not ticked: somebody may have been at it in the meantime',
  'wait-elsewhere': 'a run is left to wait, and put back on a bench, with its own request: a bench is freed or taken with it',
  'unknown-kind': 'entries of the kind "{kind}" belong to a newer version of the program',
};

const PLACES: readonly string[] = ['joint', 'place'];
const percent = (value: number): string => grouped(value, value < 10 ? 1 : 0);

/** Values as a reader sees them: places by name, volumes with their unit, sensible digits. */
function valuesOf(procedure: Procedure, why: Why): MessageValues {
  const places = placesOf(procedure);
  const portOf = (id: string): string => procedure.facts?.ports.find(({ name }) => name === id)?.label ?? id;
  const nameOf = (id: string): string => places.find((each) => each.id === id)?.name ?? portOf(id);
  const written = Object.entries(why).map(([name, value]): [string, MessageValues[string]] => {
    if (PLACES.includes(name)) return [name, nameOf(String(value))];
    if (name === 'port') return [name, portOf(String(value))];
    if (name === 'items') return [name, (value as readonly string[]).map(nameOf).join(', ')];
    if (name === 'lacks') return [name, (value as readonly LackFact[]).map((lack) => whyWords(procedure, lack)).join('; ')];
    if (name === 'liquid') return [name, say(RINSE_WORDS[value as keyof typeof RINSE_WORDS])];
    if (name === 'clarity') return [name, say(CLARITY_WORDS[value as keyof typeof CLARITY_WORDS])];
    if (name === 'after') return [name, laterWords(why as Later)];
    if (name === 'label') return [name, midSentence(String(value))];
    if (name === 'weakest') return [name, value === null ? '' : say(', the rating of {value}', { value: String(value) })];
    return [name, typeof value === 'number' ? figureWords(name, value) : (value as string | boolean | null)];
  });
  return {
    ...Object.fromEntries(written),
    ...(why.why === 'waits' ? waitValues(why) : {}),
    ...(why.why === 'fill-trouble-open' ? { symptom: say(FILL_SYMPTOMS[why.symptom]) } : {}),
  };
}

const AFTER_WORDS: Messages<After> = {
  'clock-begins': 'after the clock “{clock}” has begun',
  hour: 'after an hour of “{clock}”',
  'clock-ends': 'after “{clock}” is over',
  verdict: 'after the verdict',
  pour: 'after the first pour',
};
/** When a check can be ticked that cannot be yet. */
export const laterWords = ({ after, clock }: Later): string => say(AFTER_WORDS[after], { clock: midSentence(clock) });

const waitValues = ({ waitsFor, what, until }: Extract<Why, { why: 'waits' }>): MessageValues => ({
  until: formatDay(until),
  waitsFor: say(WAIT_FOR[waitsFor]),
  what: what === '' ? '' : ` (${what})`,
});

/** A figure by the unit that its name carries, as its reader counts. */
function figureWords(name: string, value: number): string | number {
  if (name === 'ml' || name.endsWith('Ml')) return formatMl(value);
  if (name === 'mm' || name.endsWith('Mm')) return formatIn('mm', value, name === 'mm' ? 1 : 0);
  if (name.endsWith('Kpa')) return formatIn('kPa', value, Number.isInteger(value) ? 0 : 1);
  if (name.endsWith('G')) return formatKg(value);
  if (name === 'percent' || name.endsWith('Percent')) return percent(value);
  return name === 'ph' ? grouped(value, 1) : value;
}

export const whyWords = (procedure: Procedure, why: Why): string => say(WHY[why.why], valuesOf(procedure, why));
/** What a loop lacks before it counts as bled: no place has to be named. */
export const bleedWords = (lack: BleedLack): string =>
  say(WHY[lack.why], Object.fromEntries(Object.entries(lack).map(([name, value]) => [name, typeof value === 'number' ? figureWords(name, value) : value]))); // prettier-ignore
export const refusalWords = (procedure: Procedure, { fact }: Refusal): string => whyWords(procedure, fact);

const LEDGER: Messages<LedgerVerdict['kind']> = {
  'cannot-tell': 'nobody recorded what stood inside: what is left cannot be told',
  inside: '{mlWithSd} still inside',
  balances: 'the book balances: {mlWithSd} still inside',
  'more-out-than-in': WHY['more-out-than-in'],
  'more-left-than-predicted':
    '{ml} more inside than this loop should keep: one more turn, or look where it went (towels, an open port, a column that hangs)',
  'less-left-than-predicted': '{ml} more came out than this loop should give: it held more than recorded, or rinse water was counted',
};
export const ledgerWords = ({ kind, ml, slackMl }: LedgerVerdict): string =>
  say(LEDGER[kind], { ml: formatMl(ml), mlWithSd: formatMlWithSd(ml, slackMl / AGREES_WITHIN_SD) });

const BALANCE: Messages<FillBalance['verdict']> = {
  filling: WHY['fill-open'],
  'as-planned': 'within what this loop is expected to hold',
  'more-than-planned': WHY['fill-over'],
};
export const balanceWords = ({ verdict, stillToPourMl }: FillBalance): string =>
  say(BALANCE[verdict], { ml: formatMl(Math.abs(stillToPourMl)) });
