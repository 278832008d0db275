import type { CallMachine, OffersAnswer } from '@core/workshop/calls/answers.js';
import { reasonWords } from '@core/edge/words/dates.js';
import { waitsForWords } from '@core/edge/words/waiting.js';
import { sayDue } from '@core/workshop/machines/attention.js';
import { taxWords, totalWords } from '@core/edge/words/prices.js';
import type { Priced } from '@core/workshop/prices/priced.js';
import { capital } from '@core/base/words/say.js';
import { formatMl } from '@core/base/units/display.js';

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
  const title = 'Due';
  if (state === 'retired') return { title, big: 'retired', small: 'Nothing falls due on it.', isGuess: false };
  if (!due) return { title, big: 'no date', small: 'It is made from the first signed-off fill.', isGuess: false };
  return { title, big: sayDue(due.dueOn, today), small: `${day(due.dueOn)}: ${reasonWords(due.reason)}`, isGuess: due.estimated };
}

type Picked = OffersAnswer['offers'][number] | null;

export function comesAnswer({ job, ready, run, state }: CallMachine, picked: Picked, times: Times): Answer {
  const title = 'Comes in';
  if (run) return { title, big: 'it is here', small: run.waits ? 'Off the bench, waiting.' : 'On a bench.', isGuess: false };
  if (ready) return { title, big: 'it is here', small: `Done on ${times.day(ready.since)}, not fetched yet.`, isGuess: false };
  if (job?.where === 'here') {
    const since = job.broughtOn ? ` since ${times.day(job.broughtOn)}` : '';
    const slot = job.slot ? `; ${job.slot.bench} from ${times.slotTime(job.slot.from)}` : '';
    return { title, big: 'it is here', small: `Brought${since}${slot}.`, isGuess: false };
  }
  if (job?.where === 'missed' && !job.slot)
    return { title, big: 'did not come', small: `It was awaited on ${times.day(job.notComeOn ?? '')}; no new slot yet.`, isGuess: false };
  if (job?.slot) {
    const { from, bench, confirmed } = job.slot;
    return {
      title,
      big: times.slotTime(from),
      small: `${bench}, ${confirmed ? 'told to the owner' : 'planned, nobody was told'}`,
      isGuess: !confirmed,
    };
  }
  if (picked) return { title, big: times.slotTime(picked.from), small: `${picked.bench}, free until it is booked`, isGuess: false };
  if (state === 'planned')
    return { title, big: 'not yet', small: 'It was never filled: a build is put on a bench from its page.', isGuess: false };
  return { title, big: job ? 'no slot yet' : 'nothing booked', small: job ? 'Booked, without a place in the plan.' : 'Take it in, or call and book.', isGuess: false }; // prettier-ignore
}

export function readyAnswer({ job, ready, run }: CallMachine, picked: Picked, times: Times): Answer {
  const title = 'Ready';
  if (ready) return { title, big: 'it is ready', small: `Since ${times.day(ready.since)}.`, isGuess: false };
  if (run?.waits) return { title, big: `not before ${times.day(run.waits.until)}`, small: waitsForWords(run.waits), isGuess: true };
  if (run) {
    return run.until
      ? { title, big: times.slotTime(run.until), small: 'By its place in the plan.', isGuess: false }
      : { title, big: 'cannot tell yet', small: 'It is on a bench, and nobody planned when it ends.', isGuess: true };
  }
  const at = job?.slot?.to ?? picked?.to ?? null;
  return at === null
    ? { title, big: 'cannot tell yet', small: 'A slot says it.', isGuess: true }
    : { title, big: times.slotTime(at), small: 'By the plan, if its tests pass the first time.', isGuess: true };
}

/** What such a job usually takes. */
interface Usual {
  readonly hours: number;
  readonly coolantMl: number;
  readonly learnedFrom: number;
  /** null: this workshop reckons no prices */
  readonly priced: Priced | null;
}

/** What was told, or what such a job usually takes. */
export function costsAnswer({ job }: CallMachine, usual: Usual | null): Answer {
  const title = 'Costs';
  const hoursWords = (hours: number): string => `${Number(hours.toFixed(1))} h`;
  const coolantWords = (ml: number): string => (ml > 0 ? `${formatMl(ml)} of coolant` : '');
  const sentence = (parts: readonly string[]): string => `${capital(parts.filter(Boolean).join(', '))}.`;
  if (job) {
    const { hours, coolantMl, partsText, priceText, priced, parts } = job.estimate;
    const agreed = job.consented ? 'agreed' : 'not agreed yet';
    const price = priceText || (priced ? totalWords(priced) : '');
    const small = sentence([price ? hoursWords(hours) : '', coolantWords(coolantMl), ...parts.map(({ what }) => what), partsText, agreed]);
    return { title, big: price || hoursWords(hours), small, isGuess: false };
  }
  if (!usual) return { title, big: 'cannot tell yet', small: 'Say what is to be done.', isGuess: true };
  const from = usual.learnedFrom > 0 ? `as ${usual.learnedFrom} such jobs took here` : 'an estimate';
  if (usual.priced) {
    const { priced } = usual;
    const small = sentence([hoursWords(usual.hours), coolantWords(usual.coolantMl), taxWords(priced), from]);
    return { title, big: priced.open > 0 ? totalWords(priced) : `about ${totalWords(priced)}`, small, isGuess: true };
  }
  const small = sentence([coolantWords(usual.coolantMl), from, 'a price is told with the estimate']);
  return { title, big: hoursWords(usual.hours), small, isGuess: true };
}
