import { formatAtMost } from '../../base/units/display.js';
import type { CautionFact } from '../../bench/runs/cautionNow.js';
import { placesOf, type Procedure } from '../../bench/runs/procedure.js';
import { nameIn } from '../../machine/catalogue/names.js';
import { say, type Messages } from '../../base/words/say.js';

const CAUTIONS: Messages<CautionFact['caution']> = {
  'leak-open': 'It leaks at {place}: supply off, nothing runs before it is mended.',
  splashed: 'Electronics were splashed: no power before they are rinsed and dry.',
  'air-inside': 'Air under pressure: goggles on, never above {mostKpa}, nothing is loosened.',
  turned: 'Turned: caps on, and the pump stays off once its outlet may uncover.',
  'pump-runs': 'The pump runs: hand on the switch, eyes on the level.',
  'pump-next': 'The pump must never run dry: hand on the switch.',
  pouring: 'Slowly, and never above the mark: what runs over meets the board.',
};

/** The caution of this moment, one sentence that is read at two metres. */
export const cautionWords = (procedure: Procedure, fact: CautionFact): string =>
  say(CAUTIONS[fact.caution], {
    place: fact.caution === 'leak-open' ? nameIn(placesOf(procedure), fact.place) : '',
    mostKpa: fact.caution === 'air-inside' ? formatAtMost('kPa', fact.mostKpa) : '',
  });
