/** Kinds of fittings as a parts drawer names them. */
export const FITTING_WORDS: Readonly<Record<string, string>> = {
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
