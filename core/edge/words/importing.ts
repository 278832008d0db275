import { formatDay } from '../../base/units/dates.js';
import { formatMl } from '../../base/units/display.js';
import type { CellProblem } from '../../workshop/importing/problems.js';
import { say, type Messages, type MessageValues } from '../../base/words/say.js';

/** Words of what could not be taken from a table. */
const PROBLEMS: Messages<CellProblem['why']> = {
  missing: 'is empty',
  'not-hours': 'is no number of hours, such as 6, 5,5 or 6 h',
  'not-a-days-hours': 'is not between 0 and 24 hours a day',
  'not-meter-hours': 'is not between 0 and {most} hours',
  'not-a-volume': 'is no volume, such as 1200 mL or 1,2 L',
  'volume-out-of-range': 'is not between 0 and {most}',
  'not-a-temperature': 'is no temperature from 0 to 90 °C',
  'not-a-tube': 'is no tube, such as 10/16 mm: two diameters, bore and outside',
  'not-a-day': 'is no day, such as 2026-03-15 or 15.3.2026',
  'a-year-alone': 'is a year without a month: too little for a date',
  'in-the-future': 'lies in the future',
  'no-channel': 'is no way to reach somebody; phone, e-mail or text',
  'not-a-phone': 'is no phone number of digits, spaces and + ( ) / - .',
  'not-an-email': 'is no e-mail address',
  'too-long': 'is longer than {most} characters',
  'coolant-not-known': 'is no coolant of this workshop: taken as unknown, it mixes with nothing',
  'no-clock-without-coolant': 'is not known: the work stands in the history, no date follows from it',
  'machine-there-already': '{machine} of {owner} is there already',
  'tag-there-already': 'a machine with the tag {tag} is there already',
  'which-machine': '{count} machines are called {machine}: name the owner or the tag as well',
  'no-such-machine': 'no machine is called {machine}: bring it first',
  'filled-that-day': 'a fill of {on} is there already',
  'in-a-run': '{machine} is in a run just now: finish it first',
};

function valuesOf(problem: CellProblem): MessageValues {
  switch (problem.why) {
    case 'volume-out-of-range':
      return { most: formatMl(problem.mostMl) };
    case 'filled-that-day':
      return { on: formatDay(problem.on) };
    default: {
      const { why: _, ...values } = problem;
      return values;
    }
  }
}

const NAMES_ITSELF: readonly CellProblem['why'][] = ['machine-there-already', 'tag-there-already', 'which-machine', 'no-such-machine', 'filled-that-day', 'in-a-run', 'missing']; // prettier-ignore

/** @param value the cell, named unless the words do */
export function cellProblemWords(problem: CellProblem, value: string): string {
  const words = say(PROBLEMS[problem.why], valuesOf(problem));
  return NAMES_ITSELF.includes(problem.why) || value === '' ? words : `“${value.length > 40 ? `${value.slice(0, 38)}…` : value}” ${words}`;
}
