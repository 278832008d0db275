import { grouped } from '../../../base/units/display.js';
import { say } from '../../../base/words/say.js';
import { colourReadFields, type ColourRead } from '../../../machine/liquids/colourSchema.js';
import type { EntryDefinition } from '../entry.js';

/** The liquid was photographed beside its retained sample. */
export interface ColourEntry extends ColourRead {
  readonly type: 'colour';
}

export const colour: EntryDefinition<ColourEntry> = {
  schema: colourReadFields,
  belongs: 'anytime',
  apply: ({ colours }, { deltaE, sd, photoId }, made) => void colours.push({ deltaE, sd, photoId, ...made }),
  reads: ({ deltaE, sd }) =>
    say('Colour beside the retained sample: ΔE₀₀ {deltaE} ± {sd}', { deltaE: grouped(deltaE, 1), sd: grouped(Math.max(0.1, sd), 1) }),
};
