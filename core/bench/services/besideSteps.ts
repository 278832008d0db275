import { within, type BesideWork } from '../../workshop/jobs/beside.js';
import type { JobKind } from '../../workshop/jobs/kinds.js';
import { PASTE_ON } from '../runs/checkIds.js';
import { isEach, type CheckTemplate, type ProcedureTemplate, type StepTemplate } from '../runs/template.js';
import { CLOSED_STEP, tick } from './templates.js';

/** The step of works that go along with a job. */
export const BESIDE_STEP = 'beside';

const CHECKS: Readonly<Record<BesideWork, readonly CheckTemplate[]>> = {
  dust: [
    tick('fins', 'Fins and fans free of dust, fan blades held', 'Dust'),
    tick('filters', 'Filters washed and dry', 'Dust', { mayNotApply: true }),
  ],
  paste: [
    tick('reach', 'The tubes reach: nothing pulls, nothing kinks', 'Paste'),
    tick(PASTE_ON, 'Old paste off, new paste on, screws crosswise', 'Paste'),
  ],
  fans: [tick('fans', 'Each fan turned by hand: quiet and free, or renewed', 'Fans')],
  plugs: [{ each: 'plugs', group: 'Plugs, caps, valves' }],
};
const STEP: StepTemplate = {
  id: BESIDE_STEP,
  kind: 'checks',
  title: 'While it is open',
  lead: 'What was agreed to go along, with the machine off and open anyway.',
  cautions: ['Hold the fan blades: a spun fan feeds the board. No plug is tightened with a tool on acrylic: it cracks.'],
  timers: [],
  checks: [],
};

/** Checks of the closed loop's own step that a chosen work makes due. */
const dueIn = (works: readonly BesideWork[], check: CheckTemplate): CheckTemplate => {
  if (isEach(check) || !works.some((work) => CHECKS[work].some((own) => !isEach(own) && own.id === check.id))) return check;
  const { mayNotApply: _may, ...due } = check;
  return check.id === 'filters' ? check : due;
};

/**
 * A procedure with the works that go along: before the loop is closed again or filled, with the machine off. Where the loop stays closed
 * they are part of its one step, and no longer "not needed".
 */
export function withBeside(kind: JobKind, { steps }: ProcedureTemplate, works: readonly BesideWork[] = []): ProcedureTemplate {
  const own = works.filter((work) => !within(kind).includes(work));
  if (own.length === 0) return { steps };
  if (kind === 'closed-loop')
    return {
      steps: steps.map((step) => {
        if (step.id !== CLOSED_STEP) return step;
        const checks = step.checks.map((check) => dueIn(own, check));
        const has = (id: string): boolean => checks.some((check) => !isEach(check) && check.id === id);
        const more = own.flatMap((work) => CHECKS[work]).filter((check) => isEach(check) || !has(check.id));
        const last = checks.findIndex((check) => !isEach(check) && check.id === 'strain');
        return { ...step, checks: [...checks.slice(0, last), ...more, ...checks.slice(last)] };
      }),
    };
  const step: StepTemplate = {
    ...STEP,
    does: [...(own.includes('dust') ? (['dusts'] as const) : []), ...(own.includes('paste') ? (['pastes'] as const) : [])],
    checks: own.flatMap((work) => CHECKS[work]),
  };
  const closes = steps.findIndex(({ does = [] }) => does.includes('closes'));
  const fills = steps.findIndex((each) => each.kind === 'fill');
  // a top-up opens the fill port alone: the look comes first
  const at = closes >= 0 ? closes : Math.max(fills, 0);
  return { steps: [...steps.slice(0, at), step, ...steps.slice(at)] };
}
