import { formatMl } from '@core/base/units/display.js';
import { ITEM_KINDS, KEPT_KINDS, WASTE_KINDS } from '@core/workshop/store/schema.js';
import type { KeptRow, LotRow, StoreRow, WasteContainer } from '@core/workshop/store/answers.js';
import { capital, say } from '@core/base/words/say.js';

/** One label: what it is in large letters, and what the books know of it. */
export interface Label {
  readonly id: string;
  readonly group: LabelGroup;
  readonly head: string;
  readonly lines: readonly string[];
  /** said in bold, where the thing is not harmless */
  readonly warning: string | null;
  /** page that its code opens */
  readonly path: string;
  /** colour of the liquid, where it is one */
  readonly colour: string | null;
}
export const LABEL_GROUPS = {
  waste: 'Waste containers',
  lots: 'Coolant lots',
  samples: 'Retained samples',
  shelf: 'Shelf',
  kept: 'Parts and loans',
} as const;
export type LabelGroup = keyof typeof LABEL_GROUPS;
type Day = (iso: string) => string;

export const wasteLabel = ({ id, label, kind, levelMl, capacityMl }: WasteContainer, today: string, day: Day): Label => ({
  id,
  group: 'waste',
  head: label,
  lines: [
    capital(say(WASTE_KINDS[kind])),
    say('{formatMl} of {formatMl2} on {day}', { formatMl: formatMl(levelMl), formatMl2: formatMl(capacityMl), day: day(today) }),
  ],
  warning: say('Not for the drain. Keep from children and animals.'),
  path: `/store`,
  colour: null,
});

export function lotLabel({ id, productName, colour, lot, stockMl, openedOn, keepsUntil, bottleMl }: LotRow, day: Day): Label {
  const known = [
    openedOn && say('opened {day}', { day: day(openedOn) }),
    keepsUntil && say('keeps to {day}', { day: day(keepsUntil) }),
    stockMl !== null && `${formatMl(stockMl)}`,
  ];
  return {
    id,
    group: 'lots',
    head: productName,
    lines: [
      say('lot {lot}, bottle {formatMl}', { lot, formatMl: formatMl(bottleMl) }),
      ...known.filter((each): each is string => typeof each === 'string'),
    ],
    warning: null,
    path: '/store',
    colour,
  };
}

/** null: no sample of this lot is kept */
export const sampleLabel = (row: LotRow, day: Day): Label | null =>
  row.samplePlace === ''
    ? null
    : {
        ...lotLabel(row, day),
        id: `${row.id}-sample`,
        group: 'samples',
        lines: [
          say('retained sample, lot {lot}', { lot: row.lot }),
          ...(row.openedOn ? [say('drawn from the bottle of {day}', { day: day(row.openedOn) })] : []),
          say('stands: {samplePlace}', { samplePlace: row.samplePlace }),
        ],
      };

export const itemLabel = ({ id, name, kind, unit, lot, reorderAt }: StoreRow): Label => ({
  id,
  group: 'shelf',
  head: name,
  lines: [
    capital(say(ITEM_KINDS[kind])),
    ...(lot ? [say('lot {lot}', { lot })] : []),
    ...(reorderAt > 0 ? [say('reorder at {reorderAt} {unit}', { reorderAt, unit })] : []),
  ],
  warning: null,
  path: '/store',
  colour: null,
});

export const keptLabel = (
  { id, name, kind, systemId, systemName, condition, heldMl, lentTo, untilDay, place }: KeptRow,
  day: Day,
): Label => ({
  id,
  group: 'kept',
  head: name,
  lines: [
    [capital(say(KEPT_KINDS[kind])), systemName && `of ${systemName}`].filter(Boolean).join(' '),
    ...[place, condition, lentTo && say('with {lentTo}', { lentTo }), untilDay && say('until {day}', { day: day(untilDay) })].filter(
      (each): each is string => Boolean(each),
    ),
  ],
  warning: heldMl > 0 ? say('{formatMl} inside: open over a basin', { formatMl: formatMl(heldMl) }) : null,
  path: systemId ? `/systems/${systemId}` : '/store',
  colour: null,
});
