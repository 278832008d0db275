import { say } from '../../../base/words/say.js';
import { id, note } from '../../../base/checking/fields.js';
import type { EntryDefinition } from '../entry.js';
import type { PhotoTaken } from '../state.js';
import { step } from './fields.js';

export interface PhotoEntry extends PhotoTaken {
  readonly type: 'photo';
  readonly step: string;
}

export const photo: EntryDefinition<PhotoEntry> = {
  schema: { step, photoId: id().required(), caption: note().max(200).required() },
  belongs: 'own-step',
  whileWaiting: true,
  apply: ({ service }, { photoId, caption }, made) => void service.photos.push({ photoId, caption, ...made }),
  reads: ({ caption }) => say('Photograph{caption}', { caption: caption ? `: ${caption}` : '' }),
};
