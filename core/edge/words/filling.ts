import { say } from '../../base/words/say.js';
import { unitName } from '../../base/units/shown.js';
import type { FillOrder } from '../../bench/runs/fillOrder.js';
import type { Procedure } from '../../bench/runs/procedure.js';
import { digitsIn, formatIn, formatMl, secondsDigits } from '../../base/units/display.js';

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
  say(
    'Does not prime: the front has to rise {formatIn}, the pump pushes {formatIn2}. Raise the reservoir, turn the case, or fill from the highest radiator.',
    { formatIn: formatIn('mm', liftMm), formatIn2: formatIn('mm', shutoffMm) },
  );

/** why a reservoir is filled less than to its mark */
const LEAVES_ROOM =
  'the next run is poured beside the pump, and where that draws faster than a hand pours it all comes back. It needs the room.';

const percent = (share: number): string => `${Math.round(100 * share)} %`;

/** What stands open and has to be shut first. */
export function shutWords(order: Pick<FillOrder & { do: 'shut' }, 'ports' | 'joints'>, facts: Procedure['facts']): OrderWords {
  const ports = order.ports.map((port) => facts?.ports.find(({ name }) => name === port)?.label ?? port);
  const joints = order.joints.map((joint) =>
    say('the joint at {find}', { find: facts?.joints.find(({ id }) => id === joint)?.name ?? joint }),
  );
  return {
    order: say('Shut what stands open'),
    big: say('Shut'),
    small: [...ports, ...joints].join(', '),
    how: say('It stands open: what is poured or pumped now would leave there.'),
    isEstimate: false,
  };
}

function pumpOnWords({ speed, pour, runS, offAtMl }: FillOrder & { do: 'pump-on' }): OrderWords {
  const first = speed === null ? '' : say('Set the pump to {percent} first. ', { percent: percent(speed) });
  const slowed = speed === null ? '' : say('Set it to {percent}. ', { percent: percent(speed) });
  return pour
    ? {
        order: say('{slowed}Pump on, and pour as fast as it draws', { slowed }),
        big: digitsIn('mL', pour.ml),
        small: say('{unitName} while the pump runs', { unitName: unitName('mL') }),
        how: say(
          '{first}Pump on, and pour as fast as it draws, never above {formatMl} in the reservoir, until liquid comes back: stopped on the way, the column falls back.',
          { first, formatMl: formatMl(pour.upToMl) },
        ),
        isEstimate: true,
      }
    : {
        order: say('{slowed}Pump on, eyes on the level', { slowed }),
        big: secondsDigits(runS),
        small: say('s of pump now'),
        how: say(
          '{first}Pump on, eyes on the level: off after this time or at {formatMl} in the reservoir, whichever comes first. Once liquid comes back at the return, say so.',
          { first, formatMl: formatMl(offAtMl) },
        ),
        isEstimate: true,
      };
}

// eslint-disable-next-line max-lines-per-function -- a case for each order, each with its words
export function fillOrderWords(order: FillOrder, { facts }: Pick<Procedure, 'facts'>): OrderWords {
  const mark = facts?.reservoir
    ? say('the mark ({formatMl} in the reservoir)', { formatMl: formatMl(facts.reservoir.fillMarkMl) })
    : say('the mark');
  const isMark = (ml: number): boolean => !facts?.reservoir || Math.abs(ml - facts.reservoir.fillMarkMl) < 1;
  switch (order.do) {
    case 'shut':
      return shutWords(order, facts);
    case 'pour':
      return {
        order: isMark(order.upToMl)
          ? say('Pour slowly into the reservoir, to the mark')
          : say('Pour slowly, to {formatMl} in the reservoir', { formatMl: formatMl(order.upToMl) }),
        big: digitsIn('mL', order.mostMl),
        small: say('{unitName} at most now', { unitName: unitName('mL') }),
        how: isMark(order.upToMl)
          ? say('Pour slowly, up to {mark} and never above it.', { mark })
          : say('Pour slowly, up to {formatMl} in the reservoir and no further: {LEAVES_ROOM}', {
              formatMl: formatMl(order.upToMl),
              LEAVES_ROOM,
            }),
        isEstimate: true,
      };
    case 'read-level':
      return {
        order: say('Read the level in the reservoir'),
        big: say('Read'),
        small: say('the level first'),
        how: say('By the book alone nobody can tell what stands in the reservoir now; a pour or the pump could be too much.'),
        isEstimate: false,
      };
    case 'draw-off':
      return {
        order: isMark(order.downToMl)
          ? say('Draw it off with a syringe, to the mark')
          : say('Draw off, to {formatMl} in the reservoir', { formatMl: formatMl(order.downToMl) }),
        big: digitsIn('mL', order.ml),
        small: say('{unitName} too much', { unitName: unitName('mL') }),
        how: isMark(order.downToMl)
          ? say('More stands in the reservoir than up to {mark}: draw it off with a syringe, or it runs over when the pump stops.', {
              mark,
            })
          : say('Draw it off with a syringe, down to {formatMl} in the reservoir: {LEAVES_ROOM}', {
              formatMl: formatMl(order.downToMl),
              LEAVES_ROOM,
            }),
        isEstimate: true,
      };
    case 'pump-on':
      return pumpOnWords(order);
    case 'pump-off':
      return {
        order: say('Pump off at the low mark'),
        big: secondsDigits(order.inS),
        small: say('s to pump off'),
        how: say('Off at the low mark, whatever the clock says.'),
        isEstimate: true,
      };
    case 'pour-running':
      return {
        order: say('Pour as fast as the pump draws'),
        big: say('Pour'),
        small: say('as fast as it draws'),
        how: say(
          'Never above {formatMl} in the reservoir, until liquid comes back at the return; then pump off. Stopped half way, what stands in the tubes runs back: leave room for it.',
          { formatMl: formatMl(order.upToMl) },
        ),
        isEstimate: false,
      };
    case 'finish':
      return {
        order: say('Nothing more goes in: look at the level'),
        big: say('Full'),
        small: say('nothing more goes in'),
        how: say('The level stays at the mark and liquid comes back. What still comes home as bubbles is topped up later.'),
        isEstimate: false,
      };
    case 'cannot-prime':
      return {
        order: say('This pump cannot lift it that high'),
        big: digitsIn('mm', order.liftMm),
        small: say('{unitName} to lift', { unitName: unitName('mm') }),
        how: say(
          'This pump can push {formatIn} at no flow: it does not prime. Raise the reservoir, lay the case down, or fill from the highest port.',
          { formatIn: formatIn('mm', order.shutoffMm) },
        ),
        isEstimate: true,
      };
  }
}
