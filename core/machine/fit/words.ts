import { say, type Messages } from '../../base/words/say.js';
import { formatIn } from '../../base/units/display.js';
import { shortName } from '../catalogue/names.js';
import type { LoopFile } from '../loop-file/loopFile.js';
import { FIT, type FitReason, type FitState } from './verdict.js';

type Measured = Extract<FitReason, { needMm: number; haveMm: number }>;
const MEASURED: Messages<Measured['code']> = {
  longer: '{need} long, room for {room}.',
  wider: '{need} wide, room for {room}.',
  deeper: '{need} deep with its fans, room for {room}.',
  'card-longer': 'The card is {need} long with its block, room for {room}.',
  'card-higher': 'The card stands {need} high with its block, room for {room}.',
};
const isMeasured = (reason: FitReason): reason is Measured => Object.hasOwn(MEASURED, reason.code);

type Open = Exclude<
  FitReason,
  { needMm: number } | { need: number } | { model: string } | { part: string } | { mm: number } | { port: string }
>;
const OPEN: Messages<Open['code']> = {
  'size-not-known': 'Its size is not known: enter its box.',
  'room-not-measured': 'The room there was not measured.',
  'not-read': 'What it sits on was not read off: model and revision.',
  'revision-not-read': 'Its list names revisions: read this one off its sticker.',
  'no-list': 'The list of what it fits is not entered.',
  'card-room-not-measured': 'Slots, length and height for cards were not measured in this case.',
};
const isOpen = (reason: FitReason): reason is Open => Object.hasOwn(OPEN, reason.code);

/** What stands in the way of a part, or is still to be measured, one sentence each. `loop` names what it meets. */
export function fitWords(loop: Pick<LoopFile, 'components'>, reason: FitReason): string {
  if (isMeasured(reason)) return say(MEASURED[reason.code], { need: formatIn('mm', reason.needMm), room: formatIn('mm', reason.haveMm) });
  if (isOpen(reason)) return say(OPEN[reason.code]);
  const nameOf = (id: string): string => {
    const part = loop.components.find((each) => each.id === id);
    return part ? shortName(part) : id;
  };
  switch (reason.code) {
    case 'slots':
      return say('Takes {need} slots, {have} are free.', { need: reason.need, have: reason.have });
    case 'power-leads':
      return say('Wants {need} power leads, the supply has {have}.', { need: reason.need, have: reason.have });
    case 'other-model':
      return say('{model} is not on its list.', { model: reason.model });
    case 'other-revision':
      return say('Its list names that model, not this revision: {model}.', { model: reason.model });
    case 'overlaps':
      return say('Stands in {name}.', { name: nameOf(reason.part) });
    case 'meets-fans':
      return say('Meets the fans at {name}, if they stand on the inside.', { name: nameOf(reason.part) });
    case 'beyond-panel':
      return say('Stands {beyond} beyond the side panel.', { beyond: formatIn('mm', reason.mm) });
    case 'collars-touch':
      return say('Fittings at {one} and {other} touch: the ports lie {apart} apart, the collars want {need}.', {
        one: reason.ports[0],
        other: reason.ports[1],
        apart: formatIn('mm', reason.apartMm),
        need: formatIn('mm', reason.needMm),
      });
    case 'other-thread':
      return say('{port} has a thread of {thread}, no {usual}: its fitting is ordered to it.', {
        port: reason.port,
        thread: reason.thread,
        usual: FIT.usualThread,
      });
  }
}

export const FIT_STATES: Readonly<Record<FitState, string>> = {
  fits: 'fits',
  'does-not': 'does not fit',
  'not-known': 'not known yet',
};
