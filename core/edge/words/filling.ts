import { unitName } from '../../base/units/shown.js';
import type { FillOrder } from '../../bench/runs/fillOrder.js';
import type { Procedure } from '../../bench/runs/procedure.js';
import { formatIn, formatMl } from '../../base/units/display.js';

/** One order as the bench says it: one thing big, what it is, how it is done. */
export interface OrderWords {
  /** what the hands do, in a few words that are read at two metres */
  readonly order: string;
  readonly big: string;
  readonly small: string;
  readonly how: string;
  readonly isEstimate: boolean;
}

/** A fill that the pump cannot push over its crest, and what helps. */
export const cannotPrimeWords = ({ liftMm, shutoffMm }: { readonly liftMm: number; readonly shutoffMm: number }): string =>
  `Does not prime: the front has to rise ${formatIn('mm', liftMm)}, the pump pushes ${formatIn('mm', shutoffMm)}. Raise the reservoir, turn the case, or fill from the highest radiator.`;

/** why a reservoir is filled less than to its mark */
const LEAVES_ROOM =
  'the next run is poured beside the pump, and where that draws faster than a hand pours it all comes back. It needs the room.';

const percent = (share: number): string => `${Math.round(100 * share)} %`;
const seconds = (s: number): string => (s < 10 ? s.toFixed(1) : String(Math.round(s)));

function shutWords(order: FillOrder & { do: 'shut' }, facts: Procedure['facts']): OrderWords {
  const ports = order.ports.map((port) => facts?.ports.find(({ name }) => name === port)?.label ?? port);
  const joints = order.joints.map((joint) => `the joint at ${facts?.joints.find(({ id }) => id === joint)?.name ?? joint}`);
  return {
    order: 'Shut what stands open',
    big: 'Shut',
    small: [...ports, ...joints].join(', '),
    how: 'It stands open: what is poured or pumped now would leave there.',
    isEstimate: false,
  };
}

function pumpOnWords({ speed, pour, runS, offAtMl }: FillOrder & { do: 'pump-on' }): OrderWords {
  const first = speed === null ? '' : `Set the pump to ${percent(speed)} first. `;
  const slowed = speed === null ? '' : `Set it to ${percent(speed)}. `;
  return pour
    ? {
        order: `${slowed}Pump on, and pour as fast as it draws`,
        big: String(Math.round(pour.ml)),
        small: `${unitName('mL')} while the pump runs`,
        how: `${first}Pump on, and pour as fast as it draws, never above ${formatMl(pour.upToMl)} in the reservoir, until liquid comes back: stopped on the way, the column falls back.`,
        isEstimate: true,
      }
    : {
        order: `${slowed}Pump on, eyes on the level`,
        big: seconds(runS),
        small: 's of pump now',
        how: `${first}Pump on, eyes on the level: off after this time or at ${formatMl(offAtMl)} in the reservoir, whichever comes first. Once liquid comes back at the return, say so.`,
        isEstimate: true,
      };
}

export function fillOrderWords(order: FillOrder, { facts }: Pick<Procedure, 'facts'>): OrderWords {
  const mark = facts?.reservoir ? `the mark (${formatMl(facts.reservoir.fillMarkMl)} in the reservoir)` : 'the mark';
  const isMark = (ml: number): boolean => !facts?.reservoir || Math.abs(ml - facts.reservoir.fillMarkMl) < 1;
  switch (order.do) {
    case 'shut':
      return shutWords(order, facts);
    case 'pour':
      return {
        order: isMark(order.upToMl)
          ? 'Pour slowly into the reservoir, to the mark'
          : `Pour slowly, to ${formatMl(order.upToMl)} in the reservoir`,
        big: String(Math.round(order.mostMl)),
        small: `${unitName('mL')} at most now`,
        how: isMark(order.upToMl)
          ? `Pour slowly, up to ${mark} and never above it.`
          : `Pour slowly, up to ${formatMl(order.upToMl)} in the reservoir and no further: ${LEAVES_ROOM}`,
        isEstimate: true,
      };
    case 'read-level':
      return {
        order: 'Read the level in the reservoir',
        big: 'Read',
        small: 'the level first',
        how: 'By the book alone nobody can tell what stands in the reservoir now; a pour or the pump could be too much.',
        isEstimate: false,
      };
    case 'draw-off':
      return {
        order: isMark(order.downToMl)
          ? 'Draw it off with a syringe, to the mark'
          : `Draw off, to ${formatMl(order.downToMl)} in the reservoir`,
        big: String(Math.round(order.ml)),
        small: `${unitName('mL')} too much`,
        how: isMark(order.downToMl)
          ? `More stands in the reservoir than up to ${mark}: draw it off with a syringe, or it runs over when the pump stops.`
          : `Draw it off with a syringe, down to ${formatMl(order.downToMl)} in the reservoir: ${LEAVES_ROOM}`,
        isEstimate: true,
      };
    case 'pump-on':
      return pumpOnWords(order);
    case 'pump-off':
      return {
        order: 'Pump off at the low mark',
        big: seconds(order.inS),
        small: 's to pump off',
        how: 'Off at the low mark, whatever the clock says.',
        isEstimate: true,
      };
    case 'pour-running':
      return {
        order: 'Pour as fast as the pump draws',
        big: 'Pour',
        small: 'as fast as it draws',
        how: `Never above ${formatMl(order.upToMl)} in the reservoir, until liquid comes back at the return; then pump off. Stopped half way, what stands in the tubes runs back: leave room for it.`,
        isEstimate: false,
      };
    case 'finish':
      return {
        order: 'Nothing more goes in: look at the level',
        big: 'Full',
        small: 'nothing more goes in',
        how: 'The level stays at the mark and liquid comes back. What still comes home as bubbles is topped up later.',
        isEstimate: false,
      };
    case 'cannot-prime':
      return {
        order: 'This pump cannot lift it that high',
        big: String(Math.round(order.liftMm)),
        small: `${unitName('mm')} to lift`,
        how: `This pump can push ${formatIn('mm', order.shutoffMm)} at no flow: it does not prime. Raise the reservoir, lay the case down, or fill from the highest port.`,
        isEstimate: true,
      };
  }
}
