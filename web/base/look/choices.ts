import { sayWord } from '@core/base/words/say.js';

/** A table of kinds as the items of a choice, by their labels. */
export const choicesOf = <K extends string>(
  all: Readonly<Record<K, { readonly label: string }>>,
): { value: K; title: string | undefined }[] => (Object.keys(all) as K[]).map((value) => ({ value, title: sayWord(all[value].label) }));
