import { say, sayWord } from '@core/base/words/say.js';
import { computed, ref } from 'vue';
import { isAssignable, isCharacter, KEY_ACTION_NAMES, KEY_ACTIONS, type KeyAction } from './actions.js';

/** What this device's person made of the keys. A keyboard and a pedal belong to a bench, so it stays on the device. */
interface Assigned {
  /** single characters do something */
  readonly on: boolean;
  /** other than the usual ones */
  readonly keys: Partial<Record<KeyAction, string>>;
}

const STORED_AS = 'lavacrum keys';
const USUAL: Assigned = { on: true, keys: {} };

function read(): Assigned {
  try {
    const found = JSON.parse(localStorage.getItem(STORED_AS) ?? 'null') as Partial<Assigned> | null;
    const keys = Object.entries(found?.keys ?? {}).filter(([action, key]) => action in KEY_ACTIONS && isAssignable(key));
    return { on: found?.on !== false, keys: Object.fromEntries(keys) };
  } catch {
    // what somebody else left under this name, or a browser that keeps nothing
    return USUAL;
  }
}

const assigned = ref<Assigned>(read());

function keep(now: Assigned): void {
  assigned.value = now;
  try {
    localStorage.setItem(STORED_AS, JSON.stringify(now));
  } catch {
    // it holds until the page is closed
  }
}

export const keysAreOn = computed({ get: () => assigned.value.on, set: (on: boolean) => keep({ ...assigned.value, on }) });

export const keyOf = (action: KeyAction): string => assigned.value.keys[action] ?? KEY_ACTIONS[action].key;

/** The key as it works now; null where characters are turned off. */
export const activeKey = (action: KeyAction): string | null => (keysAreOn.value || !isCharacter(keyOf(action)) ? keyOf(action) : null);

export const actionOf = (key: string): KeyAction | null => KEY_ACTION_NAMES.find((action) => keyOf(action) === key) ?? null;

/** Gives an action another key. @returns in words, why not; null: done */
export function assign(action: KeyAction, key: string): string | null {
  if (!isAssignable(key)) return say('Choose a letter, a digit, a sign or a function key.');
  const taken = actionOf(key);
  if (taken !== null && taken !== action)
    return say('{key} already does something: {words}.', { key, words: sayWord(KEY_ACTIONS[taken].words) });
  keep({ ...assigned.value, keys: { ...assigned.value.keys, [action]: key } });
  return null;
}

export const isUsual = computed(() => assigned.value.on && KEY_ACTION_NAMES.every((action) => keyOf(action) === KEY_ACTIONS[action].key));
export const backToUsual = (): void => keep(USUAL);
