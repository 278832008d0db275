import { formatHours } from '../../base/units/display.js';
import { formatDay, formatWeekday, formatWeekdayTime } from '../../base/units/dates.js';
import { say, type Messages } from '../../base/words/say.js';
import type { Said } from '../../workshop/owner-door/said.js';
import type { OwnerStage, ReadyWhen, Stands } from '../../workshop/owner-door/stands.js';

/** Where a machine stands, as its owner reads it: one line large, one beneath it. */
export interface StandsWords {
  readonly large: string;
  readonly small: string;
}

const STAGE_WORDS: Messages<OwnerStage> = {
  preparing: 'It is being prepared.',
  measuring: 'Its temperatures are read under load.',
  draining: 'Its coolant is let out.',
  cleaning: 'Its loop is rinsed and cleaned.',
  inspecting: 'Its parts are looked at one by one.',
  working: 'What was found is being put right.',
  'air-test': 'Its loop is tested with air, before anything wet goes in.',
  filling: 'It is being filled.',
  'wet-test': 'Only its pump runs: it is watched for leaks.',
  bleeding: 'The last air is let out.',
  finishing: 'It is put together and read once more.',
};

const WAITS_WORDS = {
  parts: 'It waits for a part.',
  owner: 'It waits for your answer.',
  overnight: 'It rests overnight.',
  other: 'It waits.',
} as const;

export function standsWords(stands: Stands, timeZone: string): StandsWords {
  switch (stands.at) {
    case 'home':
      return { large: say('With you'), small: say('Nothing is agreed for it at the moment.') };
    case 'booked':
      return { large: say('Booked'), small: say('Its slot is still open.') };
    case 'awaited':
      return { large: say('Awaited'), small: say('Bring it on {when}.', { when: formatWeekdayTime(stands.from, timeZone) }) };
    case 'missed':
      return { large: say('We missed it'), small: say('It was awaited and did not come. Choose another slot, or call.') };
    case 'here':
      return { large: say('With us'), small: say('It is here, and waits for its bench.') };
    case 'bench':
      return { large: say('On the bench'), small: benchWords(stands, timeZone) };
    case 'waits':
      return {
        large: say('Waiting'),
        small:
          stands.until === null || stands.for === 'owner'
            ? say(WAITS_WORDS[stands.for])
            : say('{what} Expected {day}.', { what: say(WAITS_WORDS[stands.for]), day: formatWeekday(stands.until) }),
      };
    case 'ready':
      return { large: say('Ready'), small: stands.since === null ? say('You can fetch it.') : say('You can fetch it, since {day}.', { day: formatDay(stands.since) }) }; // prettier-ignore
    case 'fetched':
      return { large: say('With you again'), small: say('You fetched it on {day}.', { day: formatDay(stands.on) }) };
  }
}

function benchWords({ stage, until }: Extract<Stands, { at: 'bench' }>, timeZone: string): string {
  const words = stage === null ? say('It is being worked on.') : say(STAGE_WORDS[stage]);
  return until === null ? words : say('{words} Until {when}.', { words, when: formatWeekdayTime(until, timeZone) });
}

/** The promised time with how sure it is; a promise never looks surer than it is. */
export function readyWords(ready: ReadyWhen, timeZone: string): StandsWords {
  switch (ready.sure) {
    case 'agreed':
      return { large: formatWeekdayTime(ready.at, timeZone), small: say('by the plan, if its tests pass the first time') };
    case 'not-before':
      return { large: say('not before {day}', { day: formatWeekday(ready.on) }), small: say('when what it waits for is expected') };
    case 'late':
      return { large: say('later than we said'), small: say('it takes longer; we write as soon as we can tell') };
    case 'open':
      return { large: say('cannot be told yet'), small: say('we write as soon as we can tell') };
  }
}

/** What an owner sent, in one line. */
export function saidWords(said: Said, timeZone: string): string {
  switch (said.kind) {
    case 'agreed':
      return say('Agreed to the estimate: {name}', { name: said.name });
    case 'declined':
      return said.why
        ? say('Declined the estimate: {name}. {why}', { name: said.name, why: said.why })
        : say('Declined the estimate: {name}', { name: said.name });
    case 'slot':
      return say('Chose {when}', { when: formatWeekdayTime(said.from, timeZone) });
    case 'days': {
      const days = said.not.map(({ from, to }) => (from === to ? formatWeekday(from) : `${formatWeekday(from)} – ${formatWeekday(to)}`));
      return [say('Not on {days}', { days: days.join(', ') }), said.text].filter(Boolean).join('. ');
    }
    case 'put-off':
      return said.why
        ? say('Put the service off until {day}: {name}. {why}', { day: formatDay(said.until), name: said.name, why: said.why })
        : say('Put the service off until {day}: {name}', { day: formatDay(said.until), name: said.name });
    case 'photo':
      return said.text ? say('Photograph of the level: {text}', { text: said.text }) : say('Photograph of the level');
    case 'meter':
      return say('Meter on {day}: {hours} h', { day: formatDay(said.on), hours: formatHours(said.hours) });
    case 'log':
      return say('Log of the monitoring program');
    case 'line':
      return said.text;
  }
}
