import { watch } from 'vue';

/**
 * Runs when what is read has become something else, not when it was only read anew: an answer of the server or an entry of a colleague makes
 * every object anew, and a form that followed the object would lose what is being typed.
 */
export function whenChanged<T>(read: () => T, then: (now: T) => void, options: { readonly immediate?: true } = {}): void {
  watch(
    () => JSON.stringify(read()),
    () => then(read()),
    options,
  );
}
