import { say, sayWord } from '../../base/words/say.js';
import { shortName } from '../../machine/catalogue/names.js';
import type { PortChange, TubeChange, TubeFate } from '../../machine/loop-change/loopChange.js';
import type { LoopComponent } from '../../machine/loop-file/loopFile.js';
import type { ChangeFacts } from '../runs/facts.js';
import type { CheckItem } from '../runs/procedure.js';

/** The work between two drawings as checks: out, cut, in, plugged, each by name. */

/** `apart` and `together` are of any card whose block is taken off; `first` of one that had its own cooler until now. */
const CARD_STEPS: readonly (readonly [id: string, when: 'apart' | 'together' | 'first', text: string])[] = [
  ['map', 'apart', 'Photograph and screw map'],
  ['hidden', 'apart', 'Hidden screws and cables inside found before pulling'],
  ['apart', 'apart', 'Separated slowly, for paste glues'],
  ['pads', 'apart', 'Pad thickness map written down'],
  ['wipe', 'together', 'Wiped lint-free, paste by die size, screws crosswise'],
  ['kept', 'first', 'Original cooler, screws and pads bagged, their place noted'],
  ['label', 'apart', 'Warranty label’s state noted, with the owner’s consent'],
];
export type CardWork = (typeof CARD_STEPS)[number][1];

/**
 * Several cards are stripped side by side: each thing is looked at once, at all of them.
 * @param works what is done to them in this step
 */
export const cardChecks = (parts: readonly LoopComponent[], works: readonly CardWork[]): CheckItem[] =>
  parts
    .filter(({ kind, place }) => kind === 'block' && place === 'card')
    .flatMap((card) =>
      CARD_STEPS.filter(([, when]) => works.includes(when)).map(([id, , text]) => ({
        id: `card:${card.id}:${id}`,
        text: `${text}: ${shortName(card)}`,
        together: text,
        place: card.id,
        group: say('Cards with a block'),
        mayNotApply: true,
      })),
    );

/** Parts that debris of making hides in; a reservoir or a valve shows what is in it. */
const HIDES_DEBRIS: readonly string[] = ['radiator', 'block', 'pump', 'meter'];

const TUBE_WORDS: Readonly<Record<Exclude<TubeFate, 'kept'>, (tube: TubeChange) => string>> = {
  out: ({ name }) => say('Tube out, its ends over the jug: {name}', { name }),
  reseated: ({ name }) => say('Tube seated anew where the drawing has it: {name}', { name }),
  cut: ({ name, lengthMm, cutFrom }) =>
    cutFrom === null
      ? say('Cut back to {lengthMm} mm: {name}', { name, lengthMm: lengthMm ?? 0 })
      : say('Cut to {lengthMm} mm from a tube that came out, rinsed: {name}', { name, lengthMm: lengthMm ?? 0 }),
  new: ({ name, lengthMm, boreMm, outerMm }) =>
    say('New piece of {lengthMm} mm, {boreMm}/{outerMm}: {name}', { name, lengthMm: lengthMm ?? 0, boreMm, outerMm }),
};
const isTouched = (tube: TubeChange): tube is TubeChange & { fate: Exclude<TubeFate, 'kept'> } => tube.fate !== 'kept';

const CLOSED_WITH: Readonly<Record<PortChange['closure'], string>> = { plug: 'plug', cap: 'cap', valve: 'valve' };
const portWords = ({ name, does, closure }: PortChange): string =>
  does === 'opens'
    ? say('{closure} out, level seen below it: {name}', { closure: sayWord(CLOSED_WITH[closure]), name })
    : say('{closure} in, its ring looked at: {name}', { closure: sayWord(CLOSED_WITH[closure]), name });

/**
 * In the order in which hands do it. What guards the liquid (flushed, rinsed, plugged) is a lock before the loop is closed.
 * @param apart the loop was taken apart before: nothing is undone any more
 */
export function changeChecks(change: ChangeFacts, apart = false): CheckItem[] {
  const { in: into, moved, wanted } = change;
  const out = apart ? [] : change.out;
  const tubes: readonly TubeChange[] = apart ? change.tubes.filter(({ fate }) => fate !== 'out' && fate !== 'reseated') : change.tubes;
  const ports = apart ? change.ports.filter(({ does }) => does === 'closes') : change.ports;
  const undoes = say('Undone and out');
  const makes = say('In and made');
  const tubesOf = (...fates: TubeFate[]): CheckItem[] =>
    tubes
      .filter(isTouched)
      .filter(({ fate }) => fates.includes(fate))
      .map((tube) => ({
        id: `tube:${tube.id}:${tube.fate}`,
        text: TUBE_WORDS[tube.fate](tube),
        place: tube.id,
        group: tube.fate === 'out' ? undoes : makes,
      }));
  const fresh = into.filter(({ kind }) => HIDES_DEBRIS.includes(kind));
  const cards = wanted.components.filter(({ id }) => into.some((part) => part.id === id));
  return [
    ...ports
      .filter(({ does }) => does === 'opens')
      .map((port) => ({ id: `port:${port.place}:opens`, text: portWords(port), group: undoes })),
    ...tubesOf('out'),
    ...out.map(({ id, name }) => ({
      id: `out:${id}`,
      text: say('Out, tilted over the jug, capped: {name}', { name }),
      place: id,
      group: undoes,
    })),
    ...fresh.map(({ id, name }) => ({
      id: `flushed:${id}`,
      text: say('Flushed until nothing comes; rinsed as well where it was wet with something else: {name}', { name }),
      group: say('Before it goes in'),
      beforePower: true,
    })),
    ...cardChecks(
      cards,
      change.out.some(({ id }) => cards.some((card) => card.id === id)) ? ['apart', 'together'] : ['apart', 'together', 'first'],
    ),
    ...moved.map(({ id, name }) => ({
      id: `moved:${id}`,
      text: say('Mounted at its new place, screws crosswise: {name}', { name }),
      place: id,
      group: makes,
    })),
    ...into.map(({ id, name }) => ({ id: `in:${id}`, text: say('In, inlet where the drawing has it: {name}', { name }), group: makes })),
    ...tubesOf('cut', 'new', 'reseated'),
    ...ports
      .filter(({ does }) => does === 'closes')
      .map((port) => ({ id: `port:${port.place}:closes`, text: portWords(port), group: makes, beforePower: true })),
  ];
}
