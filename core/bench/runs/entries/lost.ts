import { say } from '../../../base/words/say.js';
import { positiveMl } from '../../../base/checking/fields.js';
import { formatMl } from '../../../base/units/display.js';
import type { EntryDefinition } from '../entry.js';
import { sentence, step } from './fields.js';

export interface LostEntry {
  readonly type: 'lost';
  readonly step: string;
  readonly volumeMl: number;
  readonly text: string;
}

export const lost: EntryDefinition<LostEntry> = {
  schema: { step, volumeMl: positiveMl().max(20_000).required(), text: sentence.required() },
  belongs: 'own-step',
  whileWaiting: true,
  moves: (book, { volumeMl }) => book.lost(volumeMl),
  apply: ({ service }, { volumeMl }, { eventId, at }) => void service.flows.push({ eventId, at, way: 'lost', liquid: 'old', volumeMl }),
  reads: ({ volumeMl, text }) => say('Lost: about {formatMl} ({text})', { formatMl: formatMl(volumeMl), text }),
};
