import { JOB_KINDS } from '../../workshop/job-kinds/kinds.js';
import type { ServiceFacts } from '../runs/facts.js';
import type { ProcedureTemplate, StepTemplate } from '../runs/template.js';
import { tick } from '../commissioning/standardSteps.js';

/** A loop that is apart anyway goes together as another one: one more block, other tubes, in the same job. */
const TO_WANTED: StepTemplate = {
  id: 'change',
  kind: 'swap',
  does: ['changes-loop'],
  title: 'Make it the wanted loop',
  lead: 'Nothing is joined yet: what goes for good gets its place, what comes in is flushed and mounted.',
  cautions: ['No screw goes into a radiator before its length was measured at that very stack.'],
  timers: [],
  checks: [{ each: 'changes' }],
};
const DRAWING = tick('drawing', 'The wanted drawing and its cut list lie here, each new part checked to fit', 'Parts', { together: true });

/** A procedure that takes a loop apart, with the change that its job wants before anything is joined again; others stay as they are. */
export function withWanted({ steps }: ProcedureTemplate, { kind, change }: Pick<ServiceFacts, 'kind' | 'change'>): ProcedureTemplate {
  const closes = steps.findIndex(({ does = [] }) => does.includes('closes'));
  if (!change || JOB_KINDS[kind].opens !== 'whole' || closes < 0) return { steps };
  const [kit, ...rest] = [...steps.slice(0, closes), TO_WANTED, ...steps.slice(closes)] as [StepTemplate, ...StepTemplate[]];
  return { steps: [{ ...kit, checks: [...kit.checks, DRAWING] }, ...rest] };
}
