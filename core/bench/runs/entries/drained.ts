import { say } from '../../../base/words/say.js';
import { id, positiveMl } from '../../../base/checking/fields.js';
import { STANDING } from '../../../machine/loop-file/orientation.js';
import { WORTH_DRAWING_ML } from '../contents.js';
import { tubesLeaving } from '../../../machine/loop-change/loopChange.js';
import type { CameOutHow } from '../../../physics/live-book/liveBook.js';
import { drainsDownTo, rinseStandOf, type ServiceFacts } from '../facts.js';
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

/** Where it ran in a change: at the valve that it is drawn at, then at its joints. undefined: it is drained whole, stand by stand. */
function outOfChange(service: ServiceFacts, nth: number): CameOutHow | null | undefined {
  const downTo = drainsDownTo(service);
  const { change } = service;
  if (!change || (!downTo && nth < service.stands.length)) return undefined;
  const isDraw = downTo !== null && nth === 0 && downTo.drawFirstMl >= WORTH_DRAWING_ML;
  if (isDraw && (downTo.drawAt ?? null) === null) return null;
  const drains = isDraw ? [downTo.drawAt as string] : downTo ? downTo.joints.map(({ joint }) => joint) : change.undone;
  if (drains.length === 0) return null;
  // what comes out is tilted over the same jug
  const emptied = isDraw ? [] : [...change.out.map(({ id }) => id), ...tubesLeaving(change)];
  return { tilt: STANDING.upright, setup: { open: downTo?.airs ?? [], drains, closed: [] }, emptied };
}

export const drained: EntryDefinition<DrainedEntry> = {
  schema: { step, volumeMl: positiveMl().max(20_000).required(), how: oneOf(['jug', 'scale']).required(), wasteId: id().allow(null).required(), source }, // prettier-ignore
  belongs: 'own-step',
  moves: (book, { volumeMl, step: of }, { service: { drains } }, { service, steps }) => {
    const isRinse = steps.some(({ id: each, kind }) => each === of && kind === 'rinse');
    const ofChange = service?.change && !isRinse ? outOfChange(service, drains.length) : undefined;
    if (ofChange !== undefined) return book.cameOut(volumeMl, ofChange);
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
