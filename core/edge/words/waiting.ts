import { STANDING_WORDS } from '../../machine/loop-file/orientation.js';
import { placesOf, type Procedure } from '../../bench/runs/procedure.js';
import type { StandCheck } from '../../bench/runs/waiting.js';
import { WAIT_FOR, type Waiting } from '../../workshop/jobs/waitFor.js';
import { say, type Messages, sayWord } from '../../base/words/say.js';

/** Words of a run that waits. */

/** "parts: the seal of the plate" */
export const waitsForWords = ({ for: what, what: text }: Pick<Waiting, 'for' | 'what'>): string =>
  text ? `${say(WAIT_FOR[what])}: ${text}` : say(WAIT_FOR[what]);

const CHECKS: Messages<StandCheck['check']> = {
  'supply-out': 'Supply off at the wall, its lead and the jumper pulled and laid beside it',
  'air-let-off': 'Test air let off, pump and gauge disconnected',
  'ends-capped': 'Capped or plugged, so that a knock spills nothing: {places}',
  'leak-stilled': 'Nothing drips at {places}: drained below it, or capped',
  'stays-turned': 'It stays {stand}, wedged, with a note that says so',
  'tray-under': 'A tray with a dry towel under it, nothing electric beside it',
  labelled: 'A note on it: not to be switched on, what it waits for, whom to ask',
  'supply-still-out': 'Supply still off, lead and jumper still out',
  'ends-still-capped': 'Still capped or plugged: {places}',
  'dry-under': 'Towel and tray dry; what is wet is wiped up and said before anything else',
};

/** A line to be ticked, places by their names. */
export function standCheckWords(procedure: Procedure, check: StandCheck): string {
  const places = placesOf(procedure);
  const nameOf = (id: string): string =>
    procedure.facts?.ports.find(({ name }) => name === id)?.label ?? places.find((each) => each.id === id)?.name ?? id;
  return say(CHECKS[check.check], {
    places: 'places' in check ? check.places.map(nameOf).join(', ') : '',
    stand: 'to' in check ? sayWord(STANDING_WORDS[check.to]) : '',
  });
}
