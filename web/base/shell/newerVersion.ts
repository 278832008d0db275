import { shallowRef } from 'vue';

/** Loads the newer version that lies ready on this device; null: none does. */
export const newerVersion = shallowRef<(() => void) | null>(null);
