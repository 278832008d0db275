import { KITS } from '@core/workshop/planning/capacities.js';
import type { WorkshopBoard } from '@core/workshop/planning/workshopPlan.js';
import { say, sayWord } from '@core/base/words/say.js';
import type { useDates } from '../../base/units/dates.js';

/** What stands under a bar's name: that it is late or what is done, and how sure its place is. */
export const underBar = ({ late, kind, fixed, consented }: { late: number; kind: string; fixed: boolean; consented: boolean }): string =>
  [late > 0 ? say('late') : kind, fixed ? say('confirmed') : '', consented ? '' : say('not agreed yet')].filter(Boolean).join(', ');

/** What stands on a bench now, and which kits it holds until when. */
export const heldWords = ({ systemName, holds }: WorkshopBoard['running'][number], dates: ReturnType<typeof useDates>): string =>
  [
    say('{systemName}, on it now', { systemName }),
    ...holds.map(({ kit, until }) =>
      say('holds the {kit} until about {weekdayAndTime}', { kit: sayWord(KITS[kit]), weekdayAndTime: dates.weekdayAndTime(until) }),
    ),
  ].join('; ');
