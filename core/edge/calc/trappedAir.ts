import Joi from 'joi';
import { openUp } from '../../physics/draining/openings.js';
import { solveFlow } from '../../physics/flow/flow.js';
import { buildNetwork } from '../../physics/geometry/network.js';
import { turnNetwork } from '../../physics/geometry/turned.js';
import { findTrappedAir } from '../../physics/air/pockets.js';
import { sweepPockets } from '../../physics/air/sweep.js';
import {
  fluid,
  names,
  needBoxes,
  needCurves,
  needKnown,
  orientation,
  readFluid,
  readLoopDocument,
  readTilt,
  tubeIds,
  type FluidInput,
  type OrientationInput,
} from './loopInput.js';

const schema = Joi.object({ loop: Joi.any().required(), orientation: orientation.required(), closed: names, fluid });

interface AirDocument {
  loop: unknown;
  orientation: OrientationInput;
  closed?: string[];
  fluid?: FluidInput;
}

export function calcAir(input: unknown): object {
  const document = readLoopDocument<AirDocument>(schema, input);
  const { loop, closed = [] } = document;
  needBoxes(loop);
  needKnown(closed, 'closed', tubeIds(loop), 'a tube');
  const network = buildNetwork(loop);
  const turned = turnNetwork(network, readTilt(document.orientation));
  const { cuts } = openUp(network, { open: [], drains: [], closed });
  const { pockets, totalMl } = findTrappedAir(turned, cuts);
  const swept = document.fluid === undefined ? null : sweep(document.fluid);
  return {
    pockets: pockets.map((pocket, index) => ({
      volume_ml: pocket.volumeMl,
      parts: pocket.parts.map((part) => network.partIds[part]),
      top_mm: pocket.topMm,
      sill_mm: pocket.sillMm,
      ...swept?.[index],
    })),
    total_ml: totalMl,
  };

  function sweep(fluidInput: FluidInput): object[] {
    needCurves(loop, () => false);
    const { links } = solveFlow(loop, { fluid: readFluid(fluidInput), speeds: {}, closed });
    return sweepPockets(turned, loop, pockets, links).map(({ sweptMl, staysMl, mayStayMl }) => ({
      swept_ml: sweptMl,
      stays_ml: staysMl,
      may_stay_ml: mayStayMl,
    }));
  }
}
