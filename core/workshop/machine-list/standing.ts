import { addDays } from '../../base/units/calendar.js';
import { SOON_DAYS } from '../due-dates/defaults.js';
import { attentionOf, isBesideDue, type Attention, type OpenDue, type SystemState } from '../due-dates/attention.js';

/** What a list sorts a machine by, and until when that is so if nobody writes anything. */
export interface Standing<Due extends OpenDue> {
  readonly attention: Attention;
  /** the date that it is told by; null: it has none */
  readonly next: Due | null;
  /** the last day on which this holds; null: it holds for good */
  readonly holdsUntil: string | null;
}

/** The date that a machine is told by: what makes it urgent goes before dust that is older. */
export function nextOf<Due extends OpenDue>(attention: Attention, dues: readonly Due[]): Due | null {
  const urgent = attention === 'stir' ? dues.find(({ kind }) => kind === 'stirring') : dues.find((due) => !isBesideDue(due));
  return (attention === 'dust' || attention === 'fine' ? dues[0] : (urgent ?? dues[0])) ?? null;
}

/**
 * Where a machine stands in the list on a day. A date changes what is said of it twice by itself: on the day from which
 * it is near, and on the day after it, when it is over; between such days nothing moves unless somebody writes.
 * @param dues its open dates, the earliest first
 */
export function standingOf<Due extends OpenDue>(state: SystemState, dues: readonly Due[], today: string): Standing<Due> {
  const attention = attentionOf(state, dues, today);
  const turns = dues.flatMap(({ dueOn }) => [addDays(dueOn, -SOON_DAYS), addDays(dueOn, 1)]).filter((day) => day > today);
  const first = turns.reduce<string | null>((least, day) => (least === null || day < least ? day : least), null);
  return { attention, next: nextOf(attention, dues), holdsUntil: first === null ? null : addDays(first, -1) };
}
