import Joi from 'joi';
import { drainLoop, type DrainSplit } from '../../physics/draining/drain.js';
import {
  names,
  needBoxes,
  needKnown,
  openingNames,
  orientation,
  readLoopDocument,
  readTilt,
  tubeIds,
  type OrientationInput,
} from './loopInput.js';

const schema = Joi.object({
  loop: Joi.any().required(),
  orientation: orientation.required(),
  open: names.required(),
  drains: names.min(1).required().messages({ 'array.min': 'drains may not be empty: name the opening the liquid leaves by' }),
  closed: names,
});

interface DrainDocument {
  loop: unknown;
  orientation: OrientationInput;
  open: string[];
  drains: string[];
  closed?: string[];
}

const asJson = (split: DrainSplit): object => ({
  drained_ml: split.drainedMl,
  held_ml: split.heldMl,
  trapped_high_ml: split.trappedHighMl,
  trapped_low_ml: split.trappedLowMl,
});

export function calcDrain(input: unknown): object {
  const document = readLoopDocument<DrainDocument>(schema, input);
  const { loop, open, drains, closed = [] } = document;
  needBoxes(loop);
  const openings = openingNames(loop);
  needKnown(open, 'open', openings, 'a port ("component.port") or tube end ("tube.from", "tube.to")');
  needKnown(drains, 'drains', openings, 'a port ("component.port") or tube end ("tube.from", "tube.to")');
  needKnown(closed, 'closed', tubeIds(loop), 'a tube');
  const result = drainLoop(loop, { tilt: readTilt(document.orientation), open, drains, closed });
  return {
    ...asJson(result),
    spills: result.spills.map(({ port, volumeMl, withDrainsOpenMl, heldMl }) => ({
      port,
      volume_ml: volumeMl,
      with_drains_open_ml: withDrainsOpenMl,
      held_ml: heldMl,
    })),
    parts: result.parts.map((part) => ({ id: part.id, ...asJson(part) })),
  };
}
