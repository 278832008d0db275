import { grouped } from '../../base/units/display.js';
import { say } from '../../base/words/say.js';
import { colourVerdict, COLOUR_LIMITS, type ColourVerdict } from '../../machine/liquids/colourDifference.js';
import type { Patch, PhotoRefusal } from '../../machine/liquids/colourPhoto.js';
import type { ColourRead } from '../../machine/liquids/colourSchema.js';

export const COLOUR_VERDICTS: Readonly<Record<ColourVerdict, string>> = {
  same: 'as its retained sample',
  watch: 'a little off its retained sample: watch it',
  changed: 'no longer the colour of its retained sample',
};

/** A difference with its error, and what it says. */
export const colourWords = ({ deltaE, sd }: Pick<ColourRead, 'deltaE' | 'sd'>): string =>
  say('ΔE₀₀ {deltaE} ± {sd}, {verdict}', {
    deltaE: grouped(deltaE, 1),
    sd: grouped(Math.max(0.1, sd), 1),
    verdict: say(COLOUR_VERDICTS[colourVerdict(deltaE)]),
  });

export const colourLimitWords = (): string =>
  say('below {same} the same, up to {changed} to be watched, above it changed', {
    same: COLOUR_LIMITS.same,
    changed: COLOUR_LIMITS.changed,
  });

export const PATCH_WORDS: Readonly<Record<Patch, string>> = {
  sample: 'the sample',
  liquid: 'the liquid',
  sampleCard: 'the card beside the sample',
  liquidCard: 'the card beside the liquid',
};

const REFUSALS: Readonly<Record<PhotoRefusal['why'], string>> = {
  clipped: '{patch} is burnt out: less light, or a shorter exposure',
  glare: 'a reflection lies on {patch}: turn the glass or the lamp, or touch beside it',
  mixed: '{patch} is more than one colour: touch where it is even',
  'off-edge': '{patch} lies at the edge of the picture',
  'dark-card': '{patch} is too dark: more light',
  'not-a-card': '{patch} is no brighter than what it stands beside: move it onto the white card',
  'uneven-card': 'the card is lit unevenly, by {percent} %: 10 % at most; turn it to the light',
  'same-place': 'sample and liquid are the same place: touch one after the other',
};
export const refusalWords = (refusal: PhotoRefusal): string =>
  say(REFUSALS[refusal.why], {
    patch: 'patch' in refusal ? say(PATCH_WORDS[refusal.patch]) : '',
    percent: 'percent' in refusal ? refusal.percent : 0,
  });
