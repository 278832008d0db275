import type { CallMachine, OffersAnswer } from '@core/workshop/calls/answers.js';
import { reasonWords } from '@core/edge/words/dates.js';
import { waitsForWords } from '@core/edge/words/waiting.js';
import { sayDue } from '@core/workshop/due-dates/attention.js';
import { taxWords, totalWords } from '@core/edge/words/prices.js';
import type { Priced } from '@core/workshop/prices/priced.js';
import { BOOKED_KINDS, type BookedKind } from '@core/workshop/job-kinds/kinds.js';
import { capital, say, sayWord } from '@core/base/words/say.js';
import { formatHours, formatMl } from '@core/base/units/display.js';

/** One of the four answers: a large word, and what stands behind it. */
export interface Answer {
  readonly title: string;
  readonly big: string;
  readonly small: string;
  /** nobody planned or measured it */
  readonly isGuess: boolean;
}

interface Times {
  readonly day: (iso: string) => string;
  readonly slotTime: (iso: string) => string;
}

export function dueAnswer({ due, state }: CallMachine, today: string, { day }: Times): Answer {
  const title = say('Due');
  if (state === 'retired') return { title, big: say('retired'), small: say('Nothing falls due on it.'), isGuess: false };
  if (!due) return { title, big: say('no date'), small: say('It is made from the first signed-off fill.'), isGuess: false };
  return { title, big: sayDue(due.dueOn, today), small: `${day(due.dueOn)}: ${reasonWords(due.reason)}`, isGuess: due.estimated };
}

type Picked = OffersAnswer['offers'][number] | null;

/** What is not awaited at all, and why. */
const NEVER_IN: Partial<Record<CallMachine['state'], { readonly big: string; readonly small: string }>> = {
  retired: { big: 'no more', small: 'Its page brings it back into service.' },
  planned: { big: 'not yet', small: 'It was never filled: its page books its build.' },
};

export function comesAnswer({ job, ready, run, state }: CallMachine, picked: Picked, times: Times): Answer {
  const title = say('Comes in');
  if (run) return { title, big: say('it is here'), small: run.waits ? say('Off the bench, waiting.') : say('On a bench.'), isGuess: false };
  if (ready)
    return {
      title,
      big: say('it is here'),
      small: say('Done on {day}, not fetched yet.', { day: times.day(ready.since) }),
      isGuess: false,
    };
  if (job?.where === 'here') {
    const since = job.broughtOn ? say(' since {day}', { day: times.day(job.broughtOn) }) : '';
    const slot = job.slot ? say('; {bench} from {slotTime}', { bench: job.slot.bench, slotTime: times.slotTime(job.slot.from) }) : '';
    return { title, big: say('it is here'), small: say('Brought{since}{slot}.', { since, slot }), isGuess: false };
  }
  if (job?.where === 'missed' && !job.slot)
    return {
      title,
      big: say('did not come'),
      small: say('It was awaited on {day}; no new slot yet.', { day: times.day(job.notComeOn ?? '') }),
      isGuess: false,
    };
  if (job?.slot) {
    const { from, bench, confirmed } = job.slot;
    return {
      title,
      big: times.slotTime(from),
      small: `${bench}, ${confirmed ? say('told to the owner') : say('planned, nobody was told')}`,
      isGuess: !confirmed,
    };
  }
  if (picked)
    return {
      title,
      big: times.slotTime(picked.from),
      small: say('{bench}, free until it is booked', { bench: picked.bench }),
      isGuess: false,
    };
  const never = job ? null : NEVER_IN[state];
  if (never) return { title, big: say(never.big), small: say(never.small), isGuess: false };
  return { title, big: job ? say('no slot yet') : say('nothing booked'), small: job ? say('Booked, without a place in the plan.') : say('Take it in, or call and book.'), isGuess: false }; // prettier-ignore
}

export function readyAnswer({ job, ready, run }: CallMachine, picked: Picked, times: Times): Answer {
  const title = say('Ready');
  if (ready) return { title, big: say('it is ready'), small: say('Since {day}.', { day: times.day(ready.since) }), isGuess: false };
  if (run?.waits)
    return { title, big: say('not before {day}', { day: times.day(run.waits.until) }), small: waitsForWords(run.waits), isGuess: true };
  if (run) {
    return run.until
      ? { title, big: times.slotTime(run.until), small: say('By its place in the plan.'), isGuess: false }
      : { title, big: say('cannot tell yet'), small: say('It is on a bench, and nobody planned when it ends.'), isGuess: true };
  }
  const at = job?.slot?.to ?? picked?.to ?? null;
  return at === null
    ? { title, big: say('cannot tell yet'), small: say('A slot says it.'), isGuess: true }
    : { title, big: times.slotTime(at), small: say('By the plan, if its tests pass the first time.'), isGuess: true };
}

/** What such a job usually takes. */
interface Usual {
  readonly kind: BookedKind;
  readonly hours: number;
  readonly coolantMl: number;
  readonly learnedFrom: number;
  /** null: this workshop reckons no prices */
  readonly priced: Priced | null;
}

/** What was told, or what such a job usually takes. */
export function costsAnswer({ job }: CallMachine, usual: Usual | null): Answer {
  const title = say('Costs');
  const hoursWords = (hours: number): string => `${formatHours(hours)} h`;
  const coolantWords = (ml: number): string => (ml > 0 ? say('{formatMl} of coolant', { formatMl: formatMl(ml) }) : '');
  const sentence = (parts: readonly string[]): string => `${capital(parts.filter(Boolean).join(', '))}.`;
  if (job) {
    const { hours, coolantMl, partsText, priceText, priced, parts } = job.estimate;
    const agreed = job.consented ? say('agreed') : say('not agreed yet');
    const price = priceText || (priced ? totalWords(priced) : '');
    const small = sentence([price ? hoursWords(hours) : '', coolantWords(coolantMl), ...parts.map(({ what }) => what), partsText, agreed]);
    return { title, big: price || hoursWords(hours), small, isGuess: false };
  }
  if (!usual) return { title, big: say('cannot tell yet'), small: say('Say what is to be done.'), isGuess: true };
  const from = usual.learnedFrom > 0 ? say('as {learnedFrom} such jobs took here', { learnedFrom: usual.learnedFrom }) : say('an estimate');
  const what = sayWord(BOOKED_KINDS[usual.kind].label);
  if (usual.priced) {
    const { priced } = usual;
    const small = sentence([what, hoursWords(usual.hours), coolantWords(usual.coolantMl), taxWords(priced), from]);
    return {
      title,
      big: priced.open > 0 ? totalWords(priced) : say('about {totalWords}', { totalWords: totalWords(priced) }),
      small,
      isGuess: true,
    };
  }
  const small = sentence([what, coolantWords(usual.coolantMl), from, say('a price is told with the estimate')]);
  return { title, big: hoursWords(usual.hours), small, isGuess: true };
}
