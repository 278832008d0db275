import { say } from '../../base/words/say.js';
import { PLACEHOLDERS, type Placeholder } from '../../bench/runs/template.js';

/** What the loop puts into a sentence of a procedure, as whoever edits it reads it. */
export const FILLED_IN: Readonly<Record<Placeholder, string>> = {
  parts: 'its parts',
  plugs: 'its plugs',
  bottles: 'bottles of coolant',
  gaugeKpa: 'test pressure',
  mostKpa: 'least rating',
  holdMinutes: 'minutes to hold',
  wetSpan: 'length of the wet test',
  joints: 'number of joints',
  cushionMl: 'cushion',
  screws: 'screw lengths',
  fans: 'fans by name',
  rings: 'rings and gaskets',
  tightest: 'the shortest tubes',
  scrap: 'length of the scrap of tube',
};
const OPEN = '‹';
const CLOSE = '›';
export const shownAs = (name: Placeholder): string => `${OPEN}${say(FILLED_IN[name])}${CLOSE}`;

/** A stored sentence as it is shown: "{gaugeKpa} kPa" reads "‹test pressure› kPa". */
export const asShown = (stored: string): string => PLACEHOLDERS.reduce((text, name) => text.replaceAll(`{${name}}`, shownAs(name)), stored);

/** A shown sentence as it is stored; what is no name of anything stays as it was typed. */
export const asStored = (shown: string): string => PLACEHOLDERS.reduce((text, name) => text.replaceAll(shownAs(name), `{${name}}`), shown);
