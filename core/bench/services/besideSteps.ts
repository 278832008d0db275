import { within, type BesideWork } from '../../workshop/jobs/beside.js';
import type { JobKind } from '../../workshop/job-kinds/kinds.js';
import { PASTE_ON } from '../runs/checkIds.js';
import { isEach, type CheckTemplate, type ProcedureTemplate, type StepTemplate } from '../runs/template.js';
import { tick } from '../commissioning/standardSteps.js';
import { CLOSED_STEP } from './templates.js';

/** The step of works that go along with a job. */
export const BESIDE_STEP = 'beside';

const LOOP_BACK = 'loop-back';
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
  board: [
    tick('board', 'New board in: standoffs by its own map, mounts of the blocks held against this very board', 'Board'),
    tick(LOOP_BACK, 'Loop back in one piece, each block on fresh paste and its pads, springs crosswise', 'Board'),
    tick('own-headers', 'Headers for pump and fans found on the new board, written into its sheet of connectors', 'Board'),
  ],
};
/** Before anything else is changed: what hangs on the old board comes out with its liquid still in it, or drained as the job drains it. */
const LIFT: readonly CheckTemplate[] = [
  tick('loosened', 'Blocks, pump and radiators loosened; screws bagged by part, blocks hang on no tube', 'Loop out'),
  tick('lifted', 'Loop lifted out in one piece by two, laid on towels: no tube bent, no joint turned', 'Loop out'),
];
const LIFT_STEP: StepTemplate = {
  id: 'lift',
  kind: 'checks',
  title: 'Lift the loop out',
  lead: 'In one piece, joints shut: two people, and towels where it will lie.',
  cautions: ['Nobody lifts it by a tube. A block that hangs on its tubes strains a joint that leaks a week later.'],
  timers: [],
  checks: LIFT,
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

const PASTES: readonly BesideWork[] = ['paste', 'board'];

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
  // of a loop that is apart nothing is lifted out
  const isApart = kind === 'strip-clean';
  const lift = own.includes('board') && !isApart ? LIFT : [];
  const lines = own.flatMap((work) => CHECKS[work]).filter((check) => !isApart || isEach(check) || check.id !== LOOP_BACK);
  if (kind === 'closed-loop')
    return {
      steps: steps.map((step) => {
        if (step.id !== CLOSED_STEP) return step;
        const checks = step.checks.map((check) => dueIn(own, check));
        const has = (id: string): boolean => checks.some((check) => !isEach(check) && check.id === id);
        const more = [...lift, ...lines].filter((check) => isEach(check) || !has(check.id));
        const last = checks.findIndex((check) => !isEach(check) && check.id === 'strain');
        return { ...step, checks: [...checks.slice(0, last), ...more, ...checks.slice(last)] };
      }),
    };
  const changes = steps.findIndex(({ kind: each }) => each === 'swap');
  const step: StepTemplate = {
    ...STEP,
    does: [
      ...(own.includes('dust') ? (['dusts'] as const) : []),
      ...(own.some((work) => PASTES.includes(work)) ? (['pastes'] as const) : []),
    ],
    // where nothing is exchanged it comes out in the same step that puts it back
    checks: [...(changes < 0 ? lift : []), ...lines],
  };
  const closes = steps.findIndex(({ does = [] }) => does.includes('closes'));
  const fills = steps.findIndex((each) => each.kind === 'fill');
  // a top-up opens the fill port alone: the look comes first
  const at = closes >= 0 ? closes : Math.max(fills, 0);
  const behind = [...steps.slice(0, at), step, ...steps.slice(at)];
  return { steps: lift.length > 0 && changes >= 0 ? [...behind.slice(0, changes), LIFT_STEP, ...behind.slice(changes)] : behind };
}
