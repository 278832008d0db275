import Joi from 'joi';
import { refuse } from '../../base/checking/input.js';
import { fraction } from '../../base/checking/fields.js';
import { solveFlow } from '../../physics/flow/flow.js';
import { fluid, names, needCurves, needKnown, readFluid, readLoopDocument, type FluidInput } from './loopInput.js';

const schema = Joi.object({
  loop: Joi.any().required(),
  fluid: fluid.required(),
  speeds: Joi.object().pattern(Joi.string(), fraction()),
  closed: names,
});

interface FlowDocument {
  loop: unknown;
  fluid: FluidInput;
  speeds?: Record<string, number>;
  closed?: string[];
}

export function calcFlow(input: unknown): object {
  const document = readLoopDocument<FlowDocument>(schema, input);
  const { loop, speeds = {}, closed = [] } = document;
  const pumps = new Set(loop.components.filter(({ kind }) => kind === 'pump').map(({ id }) => id));
  for (const id of Object.keys(speeds)) if (!pumps.has(id)) refuse(`speeds.${id}`, `"${id}" is not a pump of this loop`);
  needKnown(closed, 'closed', new Set([...loop.components, ...loop.tubes].map(({ id }) => id)), 'a component or tube');
  needCurves(loop, (id) => closed.includes(id) || (Object.hasOwn(speeds, id) && speeds[id] === 0));
  const { links, portGaugeKpa, end, steps } = solveFlow(loop, { fluid: readFluid(document.fluid), speeds, closed });
  return {
    links: Object.fromEntries([...links].map(([id, { flowLph, dropKpa }]) => [id, { flow_lph: flowLph, dp_kpa: dropKpa }])),
    ports: Object.fromEntries([...portGaugeKpa].map(([port, gaugeKpa]) => [port, { gauge_kpa: gaugeKpa }])),
    converged: end === 'converged' || end === 'nothing-flows',
    iterations: steps,
  };
}
