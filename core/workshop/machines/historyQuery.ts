import Joi from 'joi';
import { id, readText } from '../../base/checking/fields.js';

/** A place in a machine's history: the day or instant of an entry, and the entry. */
export type HistoryPlace = readonly [at: string, id: string];

const PLACE = /^(\d{4}-\d{2}-\d{2}(?:T\d{2}:\d{2}:\d{2}\.\d{3}Z)?) ([0-9a-f-]{36})$/;

/** A place as an address carries it. */
export const historyPlaceText = (place: HistoryPlace): string => place.join(' ');

function readPlace(text: string): HistoryPlace | null {
  const [, at, entry] = PLACE.exec(text) ?? [];
  return at === undefined || entry === undefined || id().validate(entry).error ? null : [at, entry];
}

export interface HistoryQuery {
  /** the place before which the piece lies; the newest one without it */
  readonly before?: HistoryPlace;
}

export const historyQuerySchema = Joi.object({
  before: readText(80, readPlace),
});
