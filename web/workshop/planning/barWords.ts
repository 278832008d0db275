import { KITS } from '@core/workshop/planning/capacities.js';
import type { WorkshopBoard } from '@core/workshop/planning/workshopPlan.js';
import { listed, say, sayWord } from '@core/base/words/say.js';
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

/** Why a job was not moved: others would stand nowhere. */
export const hinderedWords = (names: readonly string[]): string =>
  say('Not moved: {names} would have no place any more.', { names: listed(names) });

interface SpokenBar {
  readonly label: string;
  readonly kind: string;
  readonly fixed: boolean;
  readonly late: number;
  readonly steps: readonly { readonly from: number; readonly to: number }[];
}
/** A bar as it is read out. */
export const spokenBar = ({ label, kind, fixed, late, steps }: SpokenBar, bench: string, dates: ReturnType<typeof useDates>): string =>
  [
    say('{label}, {kind}, {bench}, {from} to {to}', {
      label,
      kind,
      bench,
      from: dates.dayAndTime(new Date(steps[0]?.from ?? 0).toISOString()),
      to: dates.dayAndTime(new Date(steps.at(-1)?.to ?? 0).toISOString()),
    }),
    ...(fixed ? [say('confirmed')] : []),
    ...(late > 0 ? [say('late')] : []),
  ].join(', ');
