import { sayWord } from '../../base/words/say.js';
const FITTING_WORDS: Readonly<Record<string, string>> = {
  compression: 'compression fittings',
  barb: 'barbs',
  '90': '90° elbows',
  '45': '45° elbows',
  'tee-through': 'tees, straight through',
  'tee-branch': 'tees, into the branch',
  coupling: 'quick couplings',
  plug: 'plugs',
  cap: 'caps',
  valve: 'valves',
};

/** Kinds of fittings as a parts drawer names them: "12 barbs", "1 barb". */
export function fittingWords(kind: string, count: number): string {
  const words = Object.hasOwn(FITTING_WORDS, kind) ? (sayWord(FITTING_WORDS[kind]) as string) : kind;
  return count === 1 ? words.replace(/s(?=$|,)/, '') : words;
}
