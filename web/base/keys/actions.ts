/** Every single key of the program, by what it does: its usual key and its words. */
export const KEY_ACTIONS = {
  today: { key: '1', words: 'Today' },
  systems: { key: '2', words: 'Machines' },
  plan: { key: '3', words: 'Plan' },
  store: { key: '4', words: 'Store' },
  workshop: { key: '5', words: 'Workshop' },
  'new-system': { key: 'n', words: 'New machine' },
  search: { key: 'f', words: 'Search across everything' },
  'search-systems': { key: '/', words: 'Search the machines' },
  call: { key: 'a', words: 'Answer a call: when due, when in, when ready, what it costs' },
  sums: { key: 'r', words: 'Sums, then 1 … 8: air, screws, cuts, loss, mix, rinses, hold, level' },
  keys: { key: '?', words: 'This list' },
  'step-done': { key: 'Enter', words: 'Bench: step done' },
  tick: { key: 'c', words: 'Bench: tick the next check' },
  note: { key: 'm', words: 'Bench: note' },
  pump: { key: 'p', words: 'Bench: pump on or off' },
  'pump-off': { key: 'F9', words: 'Bench: pump off, wherever the cursor stands; for a pedal' },
  trouble: { key: 'x', words: 'Bench: something is wrong' },
  undo: { key: 'z', words: 'Bench: take back the last entry' },
} as const;

export type KeyAction = keyof typeof KEY_ACTIONS;
export const KEY_ACTION_NAMES = Object.keys(KEY_ACTIONS) as KeyAction[];

/** Taken everywhere: in a field, over a dialog, in an open list, and where keys are turned off. What it does is always safe. */
export const ALWAYS: readonly KeyAction[] = ['pump-off'];

/** A key that types a character. Those can be turned off (WCAG 2.1.4): speech and a sleeve on the keyboard type them too. */
export const isCharacter = (key: string): boolean => [...key].length === 1;

/** Whether a key may be given to an action: a character or a function key; the others already move, close or choose something. */
export const isAssignable = (key: string): boolean => key !== ' ' && (isCharacter(key) || /^F([1-9]|1[0-9]|2[0-4])$/.test(key));
