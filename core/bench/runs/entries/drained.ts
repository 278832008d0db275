import { say } from '../../../base/words/say.js';
import { id, positiveMl } from '../../../base/checking/fields.js';
import { STANDING } from '../../../machine/loop-file/orientation.js';
import { rinseStandOf } from '../facts.js';
import { formatMl } from '../../../base/units/display.js';
import { refusal, type EntryDefinition } from '../entry.js';
import type { Drained, ReadingSource } from '../state.js';
import { oneOf, source, step } from './fields.js';

export interface DrainedEntry extends Drained {
  readonly type: 'drained';
  readonly step: string;
  readonly source?: ReadingSource;
}

/** More than this above what the book says is a slip of the finger, not a full loop. */
const MOST_OVER_SD = 4;
const MOST_OVER_ML = 400;

export const drained: EntryDefinition<DrainedEntry> = {
  schema: { step, volumeMl: positiveMl().max(20_000).required(), how: oneOf(['jug', 'scale']).required(), wasteId: id().allow(null).required(), source }, // prettier-ignore
  belongs: 'own-step',
  moves: (book, { volumeMl, step: of }, { service: { drains } }, { service, steps }) => {
    const isRinse = steps.some(({ id: each, kind }) => each === of && kind === 'rinse');
    const stand = isRinse ? service && rinseStandOf(service) : service?.stands[Math.min(drains.length, service.stands.length - 1)];
    book.cameOut(
      volumeMl,
      stand ? { tilt: STANDING[stand.standing], setup: { open: stand.airs, drains: [stand.drain], closed: [] } } : null,
    );
  },
  apply: ({ service }, { volumeMl, how, wasteId }, made) => {
    service.drains.push({ volumeMl, how, wasteId, ...made });
    service.flows.push({ eventId: made.eventId, at: made.at, way: 'out', liquid: 'old', volumeMl });
  },
  refuse: ({ volumeMl }, { procedure: { service }, state }) => {
    if (!service) return refusal('unknown-item', { why: 'not-a-service' });
    const { insideMl, insideSdMl } = state.contents;
    const most = insideMl === null ? Infinity : Math.max(0, insideMl) + MOST_OVER_SD * insideSdMl + MOST_OVER_ML;
    return volumeMl > most ? refusal('unsafe', { why: 'too-much-out', ml: volumeMl, insideMl: Math.max(0, insideMl ?? 0) }) : null;
  },
  reads: ({ volumeMl, how }) => say('Came out: {formatMl}, by {how}', { formatMl: formatMl(volumeMl), how }),
  books: ({ volumeMl, wasteId }) => (wasteId === null ? null : { kind: 'waste', containerId: wasteId, ml: volumeMl }),
};
